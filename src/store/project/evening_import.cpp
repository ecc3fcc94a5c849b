// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/evening_import.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "core/import/log_study.h"
#include "core/import/stated_figures.h"
#include "store/table/run_table.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

/// Times of files are when somebody copied them: what no log, name or table says is not known.
void forgetFileTimes(LogBatch& batch) {
    for (ImportedLog& log : batch.logs) log.fileTime.reset();
}

/// The file as the table's row names it; what is wrong with it stands in that row.
ReadLog readNamed(const std::string& path, const RunTableRow& row, const BatchRules& rules) {
    try {
        return readOneLog(path, rules, {}, {});
    } catch (const InputError& error) {
        if (error.code != "file-missing" && error.code != "file-unreadable") throw;
        throw InputError("import-table-file", {row.said.table, row.said.line, {}}, {{"file", row.file}});
    }
}

std::vector<const Run*> runsInOrder(const Document& document, Id<Recording> recording) {
    auto runs = document.where(&Run::recording, recording);
    std::stable_sort(runs.begin(), runs.end(),
                     [](const Run* a, const Run* b) { return a->loadIndex < b->loadIndex; });
    return runs;
}

class Preparation {
public:
    Preparation(const Document& document, const EveningWish& wish, ReadEvening read)
        : read_(std::move(read)), before_(document), wish_(wish) {}

    BroughtEvening prepare() {
        refuseRoomAlone();
        findStudy();
        if (read_.stated.empty())
            read_.stated = statedByNames(read_.batch.logs, knownNames(evening_.after, evening_.study));
        if (!wish_.study) makeStudy();
        makeFigures();
        const auto roomIgnored = takeRooms();
        rows_ = proposeImport(evening_.after, evening_.study, read_.batch.logs, read_.stated);
        for (std::size_t i = 0; i < rows_.size(); ++i)
            if (roomIgnored[i]) {
                rows_[i].room.reset();
                addFlag(rows_[i].flags, makeFlag(Severity::info, "room-ignored"));
            }
        leaveKnownFigures();
        carryOut();
        tellRuns();
        return std::move(evening_);
    }

private:
    void findStudy() {
        evening_.after = before_;
        if (wish_.bench) evening_.bench = *wish_.bench;
        if (wish_.study) evening_.study = *wish_.study;
    }

    /// A log of the room is laid beside one of a chip, or is of no use.
    void refuseRoomAlone() const {
        const auto probes = probesAmong(read_.batch.logs);
        for (std::size_t i = 0; i < probes.size(); ++i)
            if (!probes[i] && readsOnlyAmbient(read_.batch.logs[i].trace))
                throw InputError("import-room-alone", {read_.batch.logs[i].fileName, {}, {}});
    }

    void makeStudy() {
        Edit edit(before_, Message{"A study of logs", {}});
        const LogStudyWish wanted{wish_.bench, wish_.benchName, wish_.studyName, wish_.wording, wish_.now};
        const LogStudy made = addStudyOfLogs(edit, wanted, read_.batch.logs, read_.stated);
        evening_.bench = made.bench;
        evening_.study = made.study;
        made_ = edit.finish();
        apply(evening_.after, made_);
    }

    /// Figures are a run by the question's metric.
    void makeFigures() {
        const Question* question = firstQuestion(evening_.after, evening_.study);
        for (std::size_t i = 0; i < read_.batch.logs.size(); ++i) {
            ImportedLog& log = read_.batch.logs[i];
            if (!log.figures) continue;
            std::string name = std::move(log.fileName);
            log = logOfFigures(read_.stated[i], question ? question->metric : Metric::hottest);
            log.fileName = std::move(name);
        }
    }

    std::vector<bool> takeRooms() {
        std::vector<bool> ignored(read_.batch.logs.size());
        for (std::size_t i = 0; i < ignored.size(); ++i) {
            const StatedRow& said = read_.stated[i];
            ImportedLog& log = read_.batch.logs[i];
            if (said.roomC && !log.figures) ignored[i] = !reduceWithRoom(log, {*said.roomC, said.roomUK});
        }
        return ignored;
    }

    void leaveKnownFigures() {
        known_.resize(rows_.size());
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            ImportRow& row = rows_[i];
            if (!read_.batch.logs[i].figures || !row.mount || !row.runs.front().load) continue;
            known_[i] = runOfFigures(before_, *row.mount, *row.runs.front().load, read_.batch.logs[i], row);
            if (!known_[i]) continue;
            row.take = false;
            addFlag(row.flags, makeFlag(Severity::info, "already-there"));
        }
    }

    void carryOut() {
        evening_.import = importOf(evening_.after, evening_.study, read_.batch, rows_);
        const bool takesAny =
            std::any_of(rows_.begin(), rows_.end(), [](const ImportRow& row) { return row.take; });
        if (!takesAny) {
            evening_.import = {};
            if (made_.empty()) return;
        }
        apply(evening_.after, evening_.import.set);
        if (!made_.empty()) evening_.import.set = joined(made_, evening_.import.set);
    }

    void tellRuns() {
        std::map<std::size_t, Id<Recording>> recordings;
        for (const auto& [index, id] : evening_.import.recordingOf) recordings[index] = id;
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            const ImportRow& row = rows_[i];
            const bool isFigure = read_.batch.logs[i].figures.has_value();
            const std::string file = isFigure ? std::string() : read_.batch.logs[i].fileName;
            std::vector<const Run*> runs;
            if (known_[i])
                runs = {evening_.after.find(*known_[i])};
            else if (row.sameAs)
                runs = runsInOrder(evening_.after, *row.sameAs);
            else if (const auto found = recordings.find(row.twinOf.value_or(i)); found != recordings.end())
                runs = runsInOrder(evening_.after, found->second);
            for (const Run* run : runs) evening_.runs.push_back({file, run->id, flagsOf(row, *run)});
            if (runs.empty()) evening_.runs.push_back({file, {}, row.flags});
        }
    }

    /// What is doubtful about where it belongs, and about its figures.
    std::vector<Flag> flagsOf(const ImportRow& row, const Run& run) const {
        std::vector<Flag> flags = row.flags;
        const Reduction* reduction = reductionOf(evening_.after, run.id);
        const Question* question = firstQuestion(evening_.after, evening_.study);
        if (!reduction) return flags;
        const JudgedBy judged = judgedBy(*reduction, question ? question->metric : Metric::hottest);
        const LoadReduction* load = judged.load(run.loadIndex);
        const LoadReduction* longest = judged.load(-1);
        for (const Flag& flag : *judged.flags) { // those of the longest load are not those of another
            const bool isOfLongest =
                longest
                && std::find(longest->flags.begin(), longest->flags.end(), flag) != longest->flags.end();
            if (!isOfLongest) addFlag(flags, flag);
        }
        if (load)
            for (const Flag& flag : load->flags) addFlag(flags, flag);
        return flags;
    }

    ReadEvening read_;
    const Document& before_;
    const EveningWish& wish_;
    BroughtEvening evening_;
    ChangeSet made_; ///< bench and study
    std::vector<ImportRow> rows_;
    std::vector<std::optional<Id<Run>>> known_; ///< figures that are in the record
};

} // namespace

ReadEvening readEvening(const std::vector<std::string>& logs, const BatchRules& rules) {
    ReadEvening read;
    read.batch = readLogBatch(logs, rules, {}, [](double) {});
    if (!read.batch.refused.empty()) throw read.batch.refused.front();
    forgetFileTimes(read.batch);
    return read;
}

ReadEvening readEveningTable(const std::string& table, const BatchRules& rules) {
    const RunTable runs = runTable(readTableFile(table), table);
    ReadEvening read;
    read.flags = runs.flags;
    const auto folder = std::filesystem::path(table).parent_path();
    const std::string name = std::filesystem::path(table).filename().string();
    for (const RunTableRow& row : runs.rows) {
        ReadLog log;
        if (row.file.empty()) {
            log.log = logOfFigures(row.said, Metric::hottest);
            log.log.fileName = fmt::format("{}, row {}", name, row.said.line.value_or(0));
        } else {
            log = readNamed((folder / row.file).string(), row, rules);
        }
        read.batch.logs.push_back(std::move(log.log));
        read.batch.sources.push_back(std::move(log.source));
        read.stated.push_back(row.said);
    }
    layProbes(read.batch);
    forgetFileTimes(read.batch);
    return read;
}

BroughtEvening prepareEvening(const Document& document, const EveningWish& wish, ReadEvening read) {
    return Preparation(document, wish, std::move(read)).prepare();
}

std::optional<Id<Study>> studyUsedLast(const Document& document, Id<Bench> bench) {
    std::optional<Id<Study>> last;
    Id<Run> newest;
    for (const Study* study : document.where(&Study::bench, bench)) {
        Id<Run> run;
        for (const Slot* slot : slotsOf(document, study->id))
            if (slot->mount)
                for (const Run* one : runsOf(document, *slot->mount)) run = std::max(run, one->id);
        if (last && run < newest) continue; // of two without runs the later one
        last = study->id;
        newest = run;
    }
    return last;
}

} // namespace ibuki
