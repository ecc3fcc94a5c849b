// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/import_report.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "store/json/message_json.h"
#include "store/json/optional_json.h"

#include <algorithm>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

/// When its recording began; nothing where only a file's time says so.
std::optional<Instant> began(const Document& document, const Run& run) {
    const Recording* recording = document.find(run.recording);
    return recording && !recording->startAssumed ? recording->start : std::nullopt;
}

/// As stated, else since the first recording of its mount.
std::optional<double> ageH(const Document& document, const Run& run) {
    if (run.statedAgeH) return run.statedAgeH;
    const auto when = began(document, run);
    if (!when) return std::nullopt;
    Instant first = *when;
    for (const Run* other : runsOf(document, run.mount))
        if (const auto at = began(document, *other)) first = std::min(first, *at);
    return static_cast<double>(when->ms - first.ms) / 3.6e6;
}

void addFigures(ImportReport::Row& row, const Document& document, const Question& question, const Run& run) {
    const Reduction* reduction = reductionOf(document, run.id);
    const LoadReduction* load = reduction ? loadOf(*reduction, run, question.metric) : nullptr;
    if (!load) return;
    const auto value = load->metrics.find(question.metric);
    if (value != load->metrics.end()) row.temperatureC = value->second.temperatureC;
    row.deltaK = countedDeltaK(*load, question.metric);
    row.roomC = load->ambient.meanC;
    row.powerW = load->powerW;
}

ImportReport::Row rowOf(const Document& before, const BroughtEvening& evening, const Run& run) {
    const Document& document = evening.after;
    ImportReport::Row row;
    const Mount& mount = *document.find(run.mount);
    if (const Slot* slot = slotOf(document, evening.study, run.mount)) {
        ImportRow of;
        of.level = slot->level;
        of.second = slot->second;
        row.level = levelTitle(document, of);
        row.levelNew = slot->level && !before.find(*slot->level);
        row.mount = mountLabel(mount.name, row.level);
    } else {
        row.mount = mount.name;
    }
    if (const Load* load = document.find(run.load)) {
        row.load = load->name;
        row.loadNew = !before.find(load->id);
    }
    row.run = run.repeat;
    row.purpose = run.rejected ? "excluded" : std::string(word(run.purpose));
    row.when = began(document, run);
    row.ageH = ageH(document, run);
    if (const Question* question = firstQuestion(document, evening.study))
        addFigures(row, document, *question, run);
    return row;
}

Json textOrNull(const std::string& text) { return text.empty() ? Json(nullptr) : Json(text); }

/// Whole seconds, as the contract has it.
Json momentJson(const std::optional<Instant>& at) {
    return at ? Json(isoText(*at).substr(0, 19)) : Json(nullptr);
}

Json flagsJson(const std::vector<Flag>& flags) {
    return ibuki::reported({{"flags", storedJson(flags)}})["flags"];
}

Json toJson(const ImportReport::Row& row) {
    return {{"file", row.file ? Json(*row.file) : Json(nullptr)},
            {"level", textOrNull(row.level)},
            {"level_new", row.levelNew},
            {"mount", textOrNull(row.mount)},
            {"load", textOrNull(row.load)},
            {"load_new", row.loadNew},
            {"run", row.run > 0 ? Json(row.run) : Json(nullptr)},
            {"purpose", textOrNull(row.purpose)},
            {"when", momentJson(row.when)},
            {"age_h", orNull(row.ageH)},
            {"temperature_C", orNull(row.temperatureC)},
            {"room_C", orNull(row.roomC)},
            {"delta_K", orNull(row.deltaK)},
            {"power_W", orNull(row.powerW)},
            {"flags", flagsJson(row.flags)}};
}

} // namespace

ImportReport importReport(const Document& before, const BroughtEvening& evening) {
    ImportReport report;
    if (const Bench* bench = evening.after.find(evening.bench)) report.bench = bench->name;
    if (const Study* study = evening.after.find(evening.study)) report.study = study->name;
    for (const BroughtRun& brought : evening.runs) {
        const Run* run = evening.after.find(brought.run);
        ImportReport::Row row = run ? rowOf(before, evening, *run) : ImportReport::Row{};
        if (!brought.file.empty()) row.file = brought.file;
        row.flags = brought.flags;
        report.rows.push_back(std::move(row));
    }
    return report;
}

Json toJson(const ImportReport& report) {
    Json rows = Json::array();
    for (const ImportReport::Row& row : report.rows) rows.push_back(toJson(row));
    return {{"project", report.project},        {"bench", report.bench},   {"study", report.study},
            {"flags", flagsJson(report.flags)}, {"rows", std::move(rows)}, {"written", report.written}};
}

} // namespace ibuki
