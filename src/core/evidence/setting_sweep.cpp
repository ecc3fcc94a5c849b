// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/setting_sweep.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/shelf/shelf.h"

#include <algorithm>

namespace ibuki {
namespace {

std::optional<double> settingOf(const Document& document, const Question& question, const Level& level,
                                Id<Mount> mount) {
    if (question.factor == Factor::torque)
        return level.torque ? std::optional(level.torque->value) : std::nullopt;
    const Application* application = applicationAt(document, mount, question.site);
    if (const auto grams = application ? massAppliedG(*application) : std::nullopt) return grams;
    return level.amount ? std::optional(level.amount->value) : std::nullopt;
}

Named groupOf(const Document& document, const Question& question, const DesignCell& cell) {
    if (const Level* second = question.secondFactor ? document.find(cell.second) : nullptr)
        return {second->id.value, second->name};
    const Study* study = document.find(question.study);
    return {1, study ? study->name : std::string()};
}

} // namespace

bool variesSetting(const Question& question) {
    return question.factor == Factor::amount || question.factor == Factor::torque;
}

std::string_view settingUnit(const Question& question) {
    return question.factor == Factor::torque ? "N·m" : "g";
}

SettingSweep settingSweep(const Document& document, const Question& question, const Evidence& evidence) {
    SettingSweep sweep;
    for (const RunRow& row : evidence.rows) {
        if (!enters(row) || row.loadId != evidence.load || row.censored) continue;
        const DesignCell& cell = evidence.design.cells[*row.cell];
        const Level* level = document.find(cell.level);
        const auto x = level ? settingOf(document, question, *level, row.mountId) : std::nullopt;
        if (x)
            sweep.points.push_back(
                {groupOf(document, question, cell), {row.mountId.value, row.mount}, *x, *row.response});
    }
    if (sweep.points.empty()) {
        sweep.reason = Message{"sweep-needs-setting", {}};
        return sweep;
    }
    const auto [least, most] =
        std::minmax_element(sweep.points.begin(), sweep.points.end(),
                            [](const SweepPoint& a, const SweepPoint& b) { return a.x < b.x; });
    sweep.swept = {least->x, most->x};
    SweepOptions options;
    options.margin = question.margin.value;
    options.confidence = question.confidence;
    const auto model = question.factor == Factor::torque ? ResponseModel::hinge : ResponseModel::exponential;
    try {
        sweep.responses = sweepResponses(sweep.points, model, options);
    } catch (const InputError& error) {
        sweep.reason = error.message;
    }
    return sweep;
}

} // namespace ibuki
