// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/record/import.h"

#include "core/domain/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"

#include <algorithm>
#include <cctype>
#include <cmath>
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

int mountsAtLevel(const Document& document, Id<Study> study, Id<Level> level,
                  std::optional<Id<Level>> second) {
    int count = 0;
    for (const Slot* slot : slotsOf(document, study))
        count += slot->mount && slot->level == level && slot->second == second ? 1 : 0;
    return count;
}

/// Planned slots of the study that nothing fills yet, in order.
std::vector<const Slot*> openSlots(const Document& document, Id<Study> study) {
    auto slots = slotsOf(document, study);
    std::erase_if(slots, [](const Slot* slot) { return slot->mount || !slot->skippedBecause.empty(); });
    return slots;
}

bool fits(const Slot& slot, const ImportRow& row) {
    return slot.kind == row.kind && slot.level == row.level && (!row.second || slot.second == row.second);
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

void useApplication(Edit& edit, Id<Mount> mount, Id<Application> application, bool isNew) {
    MountApplication use;
    use.mount = mount;
    use.application = application;
    use.isNew = isNew;
    edit.add(use);
}

/// The mount that a level changed without re-mounting goes on with: the one made last of the levels that
/// share it; nullptr when it is the first.
const Mount* sharedMount(const Document& document, Id<Study> study, const Level* level,
                         std::optional<Instant> at) {
    if (!level || !level->together) return nullptr;
    const Mount* last = nullptr;
    for (const Slot* slot : slotsOf(document, study)) {
        const Mount* mount = document.find(slot->mount);
        const Level* there = document.find(slot->level);
        if (!mount || !there || !there->together || there->id == level->id || mount->rejected) continue;
        if (at && mount->at && *mount->at > *at) continue;
        if (!last || (mount->at && last->at && *mount->at > *last->at)) last = mount;
    }
    if (!last) return nullptr;
    // Had this level its turn on that application already, then it was mounted anew since.
    for (const MountApplication* of : document.where(&MountApplication::mount, last->id))
        for (const MountApplication* use : document.where(&MountApplication::application, of->application)) {
            const Slot* slot = slotOf(document, study, use->mount);
            if (slot && slot->level == level->id) return nullptr;
        }
    return last;
}

void addApplication(Edit& edit, Id<Mount> mount, const Question& question, const Level* level,
                    const Material* material, std::optional<Instant> at) {
    Application application;
    application.site = question.site;
    application.start = at;
    if (material) {
        const auto lots = edit.document().where(&Lot::material, material->id);
        if (!lots.empty()) application.lot = lots.front()->id;
        if (level && level->lot) application.lot = level->lot;
    }
    if (level) { // a level of amount or pattern says what was done
        application.amount = level->amount;
        application.pattern = level->pattern;
    }
    useApplication(edit, mount, edit.add(application), true);
}

/// A mount that was not taken apart: its applications are those of the one before.
void goOnWith(Edit& edit, Id<Mount> mount, Id<Mount> before) {
    std::vector<Id<Application>> applications;
    for (const MountApplication* use : edit.document().where(&MountApplication::mount, before))
        applications.push_back(use->application);
    for (Id<Application> application : applications) useApplication(edit, mount, application, false);
}

/// A level's material, or the known one of a check mount.
const Material* materialFor(const Document& document, Id<Study> study, const ImportRow& row) {
    if (const Level* level = document.find(row.level)) return document.find(level->material);
    const Plan* plan = planOf(document, study);
    return plan && row.kind == SlotKind::checkMount ? document.find(plan->checkWith) : nullptr;
}

/// What the study's further questions ask of the mount: their levels stand beside the slot.
void addOtherApplications(Edit& edit, const Slot& slot, std::optional<Instant> at) {
    std::vector<SlotLevel> stated;
    for (const SlotLevel* one : edit.document().where(&SlotLevel::slot, slot.id)) stated.push_back(*one);
    for (const SlotLevel& one : stated) {
        const Question asked = *edit.document().find(one.question);
        const Level level = *edit.document().find(one.level);
        addApplication(edit, *slot.mount, asked, &level, edit.document().find(level.material), at);
    }
}

/// The first planned slot of that level, else a new one at the end.
void fillSlot(Edit& edit, Id<Study> study, Id<Mount> mount, const ImportRow& row) {
    for (const Slot* slot : openSlots(edit.document(), study)) {
        if (!fits(*slot, row)) continue;
        Slot filled = *slot;
        filled.mount = mount;
        edit.put(filled);
        addOtherApplications(edit, filled, row.at);
        return;
    }
    const auto slots = slotsOf(edit.document(), study);
    Slot slot;
    slot.study = study;
    slot.position = slots.empty() ? 1 : slots.back()->position + 1;
    slot.kind = row.kind;
    slot.level = row.level;
    slot.second = row.second;
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
    recording.readAs = log.readAs;
    recording.samples = static_cast<std::int64_t>(log.trace.samples());
    recording.durationS = log.trace.durationS();
    return edit.add(recording);
}

/// The study's load that the power fits best, within 15 %; else the power itself says which.
std::string loadName(const std::vector<const Load*>& loads, const LoadReduction& found, std::size_t among) {
    const Load* best = nullptr;
    double nearest = 0.15;
    for (const Load* load : loads) {
        if (!load->target || !found.powerW || load->target->value <= 0) continue;
        const double off = std::abs(*found.powerW / load->target->value - 1);
        if (off >= nearest) continue;
        nearest = off;
        best = load;
    }
    if (best) return best->name;
    if (among > 1 && found.powerW) return fmt::format("{:.0f} W", *found.powerW);
    return loads.empty() ? "sustained load" : loads.front()->name;
}

/// Loads of nearly one power are cycles of one step: they bear one name.
std::vector<std::string> loadNames(const std::vector<const Load*>& loads, const Reduction& reduction) {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < reduction.loads.size(); ++i) {
        names.push_back(loadName(loads, reduction.loads[i], reduction.loads.size()));
        const auto& power = reduction.loads[i].powerW;
        for (std::size_t k = 0; k < i && power; ++k) {
            const auto& before = reduction.loads[k].powerW;
            if (!before || std::abs(*power / *before - 1) > 0.03) continue;
            names.back() = names[k];
            break;
        }
    }
    return names;
}

void addRun(Edit& edit, Run run, const ImportedLog& log) {
    int repeat = 1;
    for (const Run* other : runsOf(edit.document(), run.mount)) repeat += other->load == run.load ? 1 : 0;
    run.repeat = repeat;
    RunReduction stored;
    stored.run = edit.add(run);
    stored.reduction = log.reduction;
    stored.settings = log.settings;
    stored.settings.hand.load = run.loadIndex;
    edit.add(stored);
}

/// One run for each load of the log.
void addRuns(Edit& edit, Id<Mount> mount, Id<Recording> recording, const ImportedLog& log,
             const std::vector<const Load*>& loads) {
    Run run;
    run.mount = mount;
    run.recording = recording;
    const auto names = loadNames(loads, log.reduction);
    if (names.size() < 2) {
        run.load = names.empty() ? (loads.empty() ? "sustained load" : loads.front()->name) : names.front();
        addRun(edit, run, log);
        return;
    }
    for (std::size_t i = 0; i < names.size(); ++i) {
        run.loadIndex = static_cast<int>(i);
        run.load = names[i];
        addRun(edit, run, log);
    }
}

bool readsOnlyTheRoom(const Trace& trace) {
    bool room = false;
    for (const Channel& channel : trace.channels) {
        if (channel.values.empty()) continue;
        if (isChipTemperature(channel.role) || channel.role == Role::packagePower) return false;
        room = room || channel.role == Role::ambient;
    }
    return room;
}

/// Seconds that two logs share; logs without a date may.
double sharedS(const ImportedLog& a, const ImportedLog& b) {
    if (!a.trace.start || !b.trace.start) return std::min(a.trace.durationS(), b.trace.durationS()) / 2;
    const double offset = static_cast<double>(b.trace.start->ms - a.trace.start->ms) / 1000.0;
    return std::min(a.trace.durationS(), offset + b.trace.durationS()) - std::max(0.0, offset);
}

/// The log's recording takes the probe's as its room.
void joinProbe(Edit& edit, const std::vector<std::pair<std::size_t, Id<Recording>>>& recordings,
               std::size_t log, Id<Recording> probe) {
    for (const auto& [index, id] : recordings) {
        if (index != log) continue;
        Recording joined = *edit.document().find(id);
        joined.probe = probe;
        edit.put(joined);
    }
}

struct Proposer {
    const Document& document;
    Id<Study> study;
    std::vector<const Level*> levels{};
    std::vector<const Level*> seconds{};
    std::vector<const Slot*> open{}; ///< taken off as rows are given to them
    std::map<std::pair<Id<Level>, std::optional<Id<Level>>>, int> made{};

    void byName(ImportRow& row, const std::string& fileName) const {
        if (const Level* level = likeliestLevel(levels, fileName)) row.level = level->id;
        if (const Level* second = likeliestLevel(seconds, fileName)) row.second = second->id;
    }

    /// What the name leaves open comes from the next open slot that fits.
    void byPlan(ImportRow& row) {
        const bool named = row.level.has_value();
        const auto slot = std::find_if(open.begin(), open.end(), [&](const Slot* one) {
            return named ? fits(*one, row) : one->kind == SlotKind::level && one->level.has_value();
        });
        if (slot == open.end()) {
            if (!named) row.doubt = "No level is named in the file name";
            if (named && !seconds.empty() && !row.second) row.doubt = "Which second level?";
            return;
        }
        if (!named)
            row.doubt = "Taken from the plan: what comes next";
        else if (!seconds.empty() && !row.second)
            row.doubt = "Second level taken from the plan";
        row.level = (*slot)->level;
        row.second = (*slot)->second;
        open.erase(slot);
    }

    void name(ImportRow& row, const std::string& fileName) {
        const Level* level = document.find(row.level);
        if (!level) {
            row.mountName = fileName.substr(0, fileName.rfind('.'));
            return;
        }
        auto [count, fresh] = made.try_emplace({level->id, row.second}, 0);
        if (fresh) count->second = mountsAtLevel(document, study, level->id, row.second);
        const Level* second = document.find(row.second);
        row.mountName = fmt::format("{}{} {}", level->name, second ? ", " + second->name : std::string(),
                                    ++count->second);
    }
};

/// The given logs' indexes by time; those without one last.
std::vector<std::size_t> byTime(const std::vector<ImportRow>& rows) {
    std::vector<std::size_t> order(rows.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        if (rows[a].at && rows[b].at) return *rows[a].at < *rows[b].at;
        return rows[a].at.has_value() && !rows[b].at;
    });
    return order;
}

} // namespace

std::vector<std::optional<std::size_t>> probesAmong(const std::vector<ImportedLog>& logs) {
    std::vector<std::optional<std::size_t>> probes(logs.size());
    for (std::size_t i = 0; i < logs.size(); ++i) {
        if (!readsOnlyTheRoom(logs[i].trace)) continue;
        double most = 0;
        for (std::size_t k = 0; k < logs.size(); ++k) {
            if (k == i || readsOnlyTheRoom(logs[k].trace)) continue;
            const double shared = sharedS(logs[k], logs[i]);
            if (shared <= most) continue;
            most = shared;
            probes[i] = k;
        }
    }
    return probes;
}

void rememberRoles(Edit& edit, const std::string& fingerprint, const RoleMap& roles) {
    for (const auto& [column, role] : roles) {
        HeaderRole told{{}, fingerprint, column, role};
        for (const HeaderRole* known : edit.document().where(&HeaderRole::fingerprint, fingerprint))
            if (known->column == column) told.id = known->id;
        if (!told.id)
            edit.add(told);
        else if (*edit.document().find(told.id) != told)
            edit.put(told);
    }
}

std::map<std::string, RoleMap> rememberedRoles(const Document& document) {
    std::map<std::string, RoleMap> remembered;
    for (const auto& [id, told] : document.all<HeaderRole>())
        remembered[told.fingerprint][told.column] = told.role;
    return remembered;
}

std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs) {
    Proposer propose{document, study};
    if (const Question* question = firstQuestion(document, study)) {
        propose.levels = levelsOf(document, question->id);
        propose.seconds = secondLevelsOf(document, question->id);
    }
    propose.open = openSlots(document, study);
    std::vector<ImportRow> rows(logs.size());
    const auto probes = probesAmong(logs);
    for (std::size_t i = 0; i < logs.size(); ++i) {
        rows[i].at = logs[i].trace.start ? logs[i].trace.start : logs[i].fileTime;
        rows[i].atAssumed = !logs[i].trace.start;
        for (const auto& [id, recording] : document.all<Recording>())
            if (recording.sha256 == logs[i].sha256 && !recording.withdrawn) rows[i].sameAs = id;
        rows[i].probeOf = probes[i];
        if (!probes[i]) propose.byName(rows[i], logs[i].fileName);
    }
    // Logs that name their level take its slots first; the others take what is left, in the order of time.
    for (const bool named : {true, false})
        for (std::size_t i : byTime(rows))
            if (rows[i].level.has_value() == named && !rows[i].sameAs && !rows[i].probeOf
                && rows[i].mountName.empty()) {
                propose.byPlan(rows[i]);
                propose.name(rows[i], logs[i].fileName);
            }
    for (std::size_t i = 0; i < logs.size(); ++i) {
        if (rows[i].sameAs) {
            rows[i].take = false;
            rows[i].doubt = "The same log is in the project already";
            rows[i].mountName = logs[i].fileName.substr(0, logs[i].fileName.rfind('.'));
        }
        if (rows[i].doubt.empty() && !rows[i].probeOf && hasFlag(logs[i].reduction.flags, "no-load-found"))
            rows[i].doubt = "No load was found in it";
    }
    return rows;
}

ImportChanges importChanges(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& rows) {
    const Study* of = document.find(study);
    const Question* question = of ? firstQuestion(document, study) : nullptr;
    if (!question || !currentConfiguration(document, of->bench))
        throw InputError("import-no-bench", {},
                         "there is no study with a bench and a question to bring the logs to",
                         "Describe the bench and the question first");
    const auto taken = std::count_if(rows.begin(), rows.end(), [](const ImportRow& row) { return row.take; });
    Edit edit(document, taken == 1 ? std::string("Bring in a log") : fmt::format("Bring in {} logs", taken));
    const auto loads = loadsOf(document, study);
    ImportChanges changes;
    for (std::size_t i : byTime(rows)) { // what goes on with a mount comes after it
        const ImportRow& row = rows[i];
        if (!row.take) continue;
        if (row.probeOf) {
            changes.recordings.emplace_back(i, addRecording(edit, of->bench, logs[i], row));
            continue;
        }
        if (!row.mount && !row.level && row.kind == SlotKind::level)
            throw InputError("import-no-level", {logs[i].fileName, {}, {}}, "the log has no level",
                             "Say which material it belongs to, or leave it out");
        if (!row.mount && row.kind == SlotKind::level && question->secondFactor && !row.second)
            throw InputError(
                "import-no-level", {logs[i].fileName, {}, {}},
                fmt::format("the log has no level of the second factor ({})", word(*question->secondFactor)),
                "Say which it belongs to, or leave it out");
        const Id<Recording> recording = addRecording(edit, of->bench, logs[i], row);
        Id<Mount> mount;
        if (row.mount) {
            mount = *row.mount;
        } else {
            const Level* level = document.find(row.level);
            const Level* second = document.find(row.second);
            mount = addMount(edit, configurationFor(document, of->bench, level, second)->id, study, row);
            if (const Mount* shared = sharedMount(edit.document(), study, level, row.at))
                goOnWith(edit, mount, shared->id);
            else
                addApplication(edit, mount, *question, level, materialFor(document, study, row), row.at);
            fillSlot(edit, study, mount, row);
        }
        addRuns(edit, mount, recording, logs[i], loads);
        changes.recordings.emplace_back(i, recording);
    }
    for (const auto& [index, probe] : changes.recordings)
        if (rows[index].probeOf) joinProbe(edit, changes.recordings, *rows[index].probeOf, probe);
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
