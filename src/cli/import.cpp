// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/setup/study_setup.h"
#include "store/local_time.h"
#include "store/project/evening_import.h"
#include "store/project/import_report.h"
#include "store/project/project.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct ImportArguments {
    std::string project;
    std::string bench;
    std::string study;
    std::vector<std::string> logs;
    std::string table;
    bool dryRun = false;
    bool json = false;
};

std::optional<Id<Bench>> benchFor(const Document& document, const std::string& name) {
    const auto& benches = document.all<Bench>();
    if (name.empty() && benches.size() > 1)
        throw UsageError(words::say("--bench: the project has several benches"));
    for (const auto& [id, bench] : benches)
        if (name.empty() || bench.name == name) return id;
    if (!name.empty())
        throw UsageError(words::say("--bench: the project has no bench \"{bench}\"", {{"bench", name}}));
    return std::nullopt;
}

std::optional<Id<Study>> studyFor(const Document& document, std::optional<Id<Bench>> bench,
                                  const std::string& name) {
    if (!bench) return std::nullopt;
    if (name.empty()) return studyUsedLast(document, *bench);
    for (const Study* study : document.where(&Study::bench, *bench))
        if (study->name == name) return study->id;
    return std::nullopt;
}

void refuseUsage(const ImportArguments& asked) {
    if (!asked.table.empty() && !asked.logs.empty())
        throw UsageError(words::say("Logs and --table do not go together: name the logs in the table"));
    if (asked.table.empty() && asked.logs.empty()) throw UsageError(words::say("Say which logs, or --table"));
}

void tell(std::ostream& out, const ImportReport& report) {
    fmt::print(out, "{}: {}\n\n", report.bench, report.study);
    fmt::print(out, "{:<28} {:<18} {:<8} {:<16} {:>3} {:<12} {:>8}\n", words::say("file"),
               words::say("level"), words::say("mount"), words::say("load"), words::say("run"),
               words::say("purpose"), "K");
    for (const ImportReport::Row& row : report.rows) {
        fmt::print(out, "{:<28} {:<18} {:<8} {:<16} {:>3} {:<12} {:>8}\n", row.file.value_or("-"), row.level,
                   row.mount, row.load, row.run, row.purpose,
                   row.deltaK ? fmt::format("{:.2f}", *row.deltaK) : "-");
        for (const Flag& flag : row.flags)
            fmt::print(out, "    {} {}: {}\n", severityName(flag.severity), flag.code,
                       words::text(flag.message));
    }
    for (const Flag& flag : report.flags) fmt::print(out, "{}\n", words::text(flag.message));
    if (!report.written) fmt::print(out, "\n{}\n", words::say("Nothing was written."));
}

void import(const ImportArguments& asked, std::ostream& out) {
    Project project = Project::open(asked.project, asked.dryRun ? Access::readOnly : Access::readWrite);
    const Document before = project.document();
    EveningWish wish;
    wish.bench = benchFor(before, asked.bench);
    wish.benchName = "bench 1";
    wish.study = studyFor(before, wish.bench, asked.study);
    wish.studyName =
        asked.study.empty() ? proposedName(before, words::say("Logs brought in"), {}) : asked.study;
    wish.wording = words::text;
    wish.now = wallNow();
    const Configuration* rig = wish.bench ? currentConfiguration(before, *wish.bench) : nullptr;
    const BatchRules rules = batchRules(before, rig, wish.study);
    ReadEvening read =
        asked.table.empty() ? readEvening(asked.logs, rules) : readEveningTable(asked.table, rules);
    const std::vector<Flag> flags = read.flags;
    const BroughtEvening evening = prepareEvening(before, wish, std::move(read));
    const bool writes = !asked.dryRun && !evening.import.set.empty();
    if (writes) project.apply(evening.import.set, evening.import.acquired);
    ImportReport report = importReport(before, evening);
    report.project = asked.project;
    report.flags = flags;
    report.written = writes;
    if (asked.json)
        fmt::print(out, "{}\n", toJson(report).dump(2, ' ', false, nlohmann::json::error_handler_t::replace));
    else
        tell(out, report);
    if (writes)
        for (const KeepTask& task : evening.import.toKeep) keepOtherChannels(asked.project, task);
}

} // namespace

VerbBody addImport(Options options) {
    auto asked = std::make_shared<ImportArguments>();
    options.add("PROJECT", asked->project, words::say("Project file")).required();
    options.add("LOG", asked->logs, words::say("Logs; their names say what they are"));
    options.add("--bench", asked->bench, words::say("Name of the bench (default: the only one)"));
    options.add("--study", asked->study,
                words::say("Name of the study, made if it is not there (default: the one used last)"));
    options.add("--table", asked->table, words::say("Table of logs and figures, one row each"));
    options.addFlag("--dry-run", asked->dryRun,
                    words::say("Tell what would be brought in and write nothing"));
    options.addJson(asked->json);
    options.example("ibuki-cli import kittiwake.ibuki tern-11_m1_slow-march.csv tern-11_m2_slow-march.csv");
    return [asked](std::ostream& out) {
        refuseUsage(*asked);
        import(*asked, out);
    };
}

} // namespace ibuki
