// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/record/import.h"

#include "core/domain/input_error.h"
#include "core/domain/lookup.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <numeric>

namespace ibuki {
namespace {

/// Lower-case words and numbers of a name: "Tern-11_m2.csv" → tern 11 m2 csv.
std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> words(1);
    for (char c : text) {
        if (std::isalnum(static_cast<unsigned char>(c)))
            words.back() += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        else if (!words.back().empty())
            words.emplace_back();
    }
    if (words.back().empty()) words.pop_back();
    return words;
}

/// Letters of the level's words that stand in the file name; a level whose first word is missing scores 0.
std::size_t likeness(const std::vector<std::string>& fileWords, std::string_view level) {
    const auto words = wordsOf(level);
    std::size_t score = 0;
    for (std::size_t i = 0; i < words.size(); ++i) {
        const bool there = std::find(fileWords.begin(), fileWords.end(), words[i]) != fileWords.end();
        if (!there && i == 0) return 0;
        score += there ? words[i].size() : 0;
    }
    return score;
}

const Level* likeliestLevel(const std::vector<const Level*>& levels, const std::string& fileName) {
    const auto fileWords = wordsOf(fileName);
    const Level* best = nullptr;
    std::size_t bestScore = 0;
    for (const Level* level : levels) {
        const std::size_t score = likeness(fileWords, level->name);
        if (score <= bestScore) continue;
        best = level;
        bestScore = score;
    }
    return best;
}

int mountsAtLevel(const Document& document, Id<Study> study, Id<Level> level) {
    int count = 0;
    for (const Slot* slot : slotsOf(document, study)) count += slot->mount && slot->level == level ? 1 : 0;
    return count;
}

/// Gives every mount of the bench its place by time; undated ones keep their order behind the dated.
void orderByTime(Edit& edit, Id<Bench> bench) {
    auto mounts = mountsOf(edit.document(), bench);
    std::stable_sort(mounts.begin(), mounts.end(), [](const Mount* a, const Mount* b) {
        if (a->at && b->at) return *a->at < *b->at;
        return a->at.has_value() && !b->at;
    });
    std::vector<Mount> placed;
    for (std::size_t i = 0; i < mounts.size(); ++i) {
        placed.push_back(*mounts[i]);
        placed.back().order = static_cast<int>(i + 1);
    }
    for (const Mount& mount : placed)
        if (edit.document().find(mount.id)->order != mount.order) edit.put(mount);
}

/// What a level of torque, or the plan, says about the screws.
std::optional<NewtonMetre> plannedTorque(const Document& document, Id<Study> study, const Level* level) {
    if (level && level->torque) return level->torque;
    const Plan* plan = planOf(document, study);
    return plan ? plan->torque : std::nullopt;
}

Id<Mount> addMount(Edit& edit, Id<Configuration> configuration, Id<Study> study, const ImportRow& row) {
    Mount mount;
    mount.configuration = configuration;
    mount.name = row.mountName;
    mount.at = row.at;
    mount.atAssumed = row.atAssumed;
    if (row.at) mount.block = dateText(*row.at);
    mount.torque = plannedTorque(edit.document(), study, edit.document().find(row.level));
    mount.order = 1'000'000; // behind all others until orderByTime
    return edit.add(mount);
}

void addApplication(Edit& edit, Id<Mount> mount, const Question& question, const Level* level,
                    std::optional<Instant> at) {
    Application application;
    application.site = question.site;
    application.start = at;
    if (level && level->material) {
        const auto lots = edit.document().where(&Lot::material, *level->material);
        if (!lots.empty()) application.lot = lots.front()->id;
        if (level->lot) application.lot = level->lot;
    }
    if (level) { // a level of amount or pattern says what was done
        application.amount = level->amount;
        application.pattern = level->pattern;
    }
    const Id<Application> id = edit.add(application);
    MountApplication use;
    use.mount = mount;
    use.application = id;
    edit.add(use);
}

/// What the study's further questions ask of the mount: their levels stand beside the slot.
void addOtherApplications(Edit& edit, const Slot& slot, std::optional<Instant> at) {
    std::vector<SlotLevel> stated;
    for (const SlotLevel* one : edit.document().where(&SlotLevel::slot, slot.id)) stated.push_back(*one);
    for (const SlotLevel& one : stated) {
        const Question asked = *edit.document().find(one.question);
        const Level level = *edit.document().find(one.level);
        addApplication(edit, *slot.mount, asked, &level, at);
    }
}

/// The first planned slot of that level, else a new one at the end.
void fillSlot(Edit& edit, Id<Study> study, Id<Mount> mount, const ImportRow& row) {
    const auto slots = slotsOf(edit.document(), study);
    for (const Slot* slot : slots) {
        if (slot->mount || slot->kind != row.kind || slot->level != row.level
            || !slot->skippedBecause.empty())
            continue;
        Slot filled = *slot;
        filled.mount = mount;
        edit.put(filled);
        addOtherApplications(edit, filled, row.at);
        return;
    }
    Slot slot;
    slot.study = study;
    slot.position = slots.empty() ? 1 : slots.back()->position + 1;
    slot.kind = row.kind;
    slot.level = row.level;
    slot.mount = mount;
    edit.add(slot);
}

Id<Recording> addRecording(Edit& edit, Id<Bench> bench, const ImportedLog& log, const ImportRow& row) {
    Recording recording;
    recording.bench = bench;
    recording.fileName = log.fileName;
    recording.sha256 = log.sha256;
    recording.bytes = log.bytes;
    recording.start = log.trace.start ? log.trace.start : row.at;
    recording.startAssumed = !log.trace.start;
    recording.samples = static_cast<std::int64_t>(log.trace.samples());
    recording.durationS = log.trace.durationS();
    return edit.add(recording);
}

void addRun(Edit& edit, Id<Mount> mount, Id<Recording> recording, const ImportedLog& log,
            const std::string& load) {
    Run run;
    run.mount = mount;
    run.recording = recording;
    run.load = load;
    run.repeat = static_cast<int>(runsOf(edit.document(), mount).size()) + 1;
    RunReduction stored;
    stored.run = edit.add(run);
    stored.reduction = log.reduction;
    edit.add(stored);
}

} // namespace

std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs) {
    const Question* question = firstQuestion(document, study);
    const auto levels = question ? levelsOf(document, question->id) : std::vector<const Level*>{};
    std::map<Id<Level>, int> next;
    std::vector<ImportRow> rows;
    for (const ImportedLog& log : logs) {
        ImportRow row;
        row.at = log.trace.start ? log.trace.start : log.fileTime;
        row.atAssumed = !log.trace.start;
        for (const auto& [id, recording] : document.all<Recording>())
            if (recording.sha256 == log.sha256 && !recording.withdrawn) row.sameAs = id;
        if (const Level* level = likeliestLevel(levels, log.fileName)) {
            row.level = level->id;
            if (!next.contains(level->id)) next[level->id] = mountsAtLevel(document, study, level->id);
            row.mountName = fmt::format("{} {}", level->name, ++next[level->id]);
        } else {
            row.mountName = log.fileName.substr(0, log.fileName.rfind('.'));
            row.doubt = "No level is named in the file name";
        }
        if (row.sameAs) {
            row.take = false;
            row.doubt = "The same log is in the project already";
        }
        if (row.doubt.empty() && hasFlag(log.reduction.flags, "no-load-found"))
            row.doubt = "No load was found in it";
        rows.push_back(std::move(row));
    }
    return rows;
}

ImportChanges importChanges(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& rows) {
    const Study* of = document.find(study);
    const Question* question = of ? firstQuestion(document, study) : nullptr;
    const Configuration* configuration = of ? currentConfiguration(document, of->bench) : nullptr;
    if (!question || !configuration)
        throw InputError("import-no-bench", {},
                         "there is no study with a bench and a question to bring the logs to",
                         "Describe the bench and the question first");
    const auto taken = std::count_if(rows.begin(), rows.end(), [](const ImportRow& row) { return row.take; });
    Edit edit(document, taken == 1 ? std::string("Bring in a log") : fmt::format("Bring in {} logs", taken));
    const auto loads = loadsOf(document, study);
    const std::string load = loads.empty() ? "sustained load" : loads.front()->name;
    ImportChanges changes;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const ImportRow& row = rows[i];
        if (!row.take) continue;
        if (!row.mount && !row.level)
            throw InputError("import-no-level", {logs[i].fileName, {}, {}}, "the log has no level",
                             "Say which material it belongs to, or leave it out");
        const Id<Recording> recording = addRecording(edit, of->bench, logs[i], row);
        Id<Mount> mount;
        if (row.mount) {
            mount = *row.mount;
        } else {
            mount = addMount(edit, configuration->id, study, row);
            addApplication(edit, mount, *question, document.find(row.level), row.at);
            fillSlot(edit, study, mount, row);
        }
        addRun(edit, mount, recording, logs[i], load);
        changes.recordings.emplace_back(i, recording);
    }
    orderByTime(edit, of->bench);
    if (taken > 0) {
        std::vector<Question> asked;
        for (const Question* one : edit.document().where(&Question::study, study)) asked.push_back(*one);
        for (Question& one : asked) {
            one.frozen = true;
            edit.put(one);
        }
        Study measuring = *of;
        measuring.state = StudyState::measuring;
        edit.put(measuring);
    }
    changes.set = edit.finish();
    return changes;
}

void placeMountAt(Edit& edit, Id<Mount> id, Instant at) {
    const Mount* mount = edit.document().find(id);
    if (!mount) return;
    Mount placed = *mount;
    placed.at = at;
    placed.atAssumed = false;
    placed.block = dateText(at);
    edit.put(placed);
    if (const Bench* bench = benchOf(edit.document(), placed)) orderByTime(edit, bench->id);
}

} // namespace ibuki
