// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/import/import_rows.h"
#include "core/import/run_choices.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// What to do about a level that the study does not have.
enum class UnknownLevel { ask, add };

/// Letters of the level's words that stand in the file name; a level whose first word is missing scores 0.
std::size_t likeness(const std::vector<std::string>& fileWords, std::string_view level) {
    const auto words = nameTokens(level);
    std::size_t score = 0;
    for (std::size_t i = 0; i < words.size(); ++i) {
        const bool there = std::find(fileWords.begin(), fileWords.end(), words[i]) != fileWords.end();
        if (!there && i == 0) return 0;
        score += there ? words[i].size() : 0;
    }
    return score;
}

const Level* likeliestLevel(const std::vector<const Level*>& levels, const std::string& fileName) {
    const auto fileWords = nameTokens(fileName);
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

std::string stemOf(const std::string& fileName) { return fileName.substr(0, fileName.rfind('.')); }

/// Its figures are in the record or come with another log: taken again they would pass for a repeated mount.
bool isKnown(const ImportRow& row) { return row.sameAs || row.twinOf; }

bool isOneName(const std::string& a, const std::string& b) { return nameTokens(a) == nameTokens(b); }

class Proposer {
public:
    Proposer(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
             const std::vector<StatedRow>& stated, UnknownLevel unknown)
        : document_(document), study_(study), logs_(logs), stated_(stated), unknown_(unknown) {
        if (const Question* question = firstQuestion(document, study)) {
            levels_ = levelsOf(document, question->id);
            seconds_ = secondLevelsOf(document, question->id);
        }
        open_ = openSlots(document, study);
        rows_.resize(logs.size());
    }

    std::vector<ImportRow> rows() {
        takeWhatIsStated();
        // What names its level takes its slots first; the others take what is left, in the order of time.
        for (const bool named : {true, false})
            for (std::size_t i : rowsByTime(rows_))
                if (isNamed(rows_[i]) == named && isNewcomer(rows_[i]) && !settled_[i]) settle(i);
        chooseRuns(document_, study_, logs_, stated_, rows_);
        for (std::size_t i = 0; i < rows_.size(); ++i) tellDoubt(i);
        return std::move(rows_);
    }

private:
    static bool isNamed(const ImportRow& row) { return row.level || !row.newLevel.empty(); }
    static bool isNewcomer(const ImportRow& row) { return !isKnown(row) && !row.probeOf; }

    void takeWhatIsStated() {
        settled_.assign(rows_.size(), false);
        const auto probes = probesAmong(logs_);
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            ImportRow& row = rows_[i];
            const StatedRow& said = stated_[i];
            const auto& start = logs_[i].trace.start;
            row.at = said.when ? said.when : start ? start : logs_[i].fileTime;
            row.atAssumed = !said.when && !start;
            row.when = said.when;
            row.run = said.run;
            row.ageH = said.ageH;
            row.cycles = said.cycles;
            row.rejected = said.rejected;
            row.remark = said.remark;
            row.excluded = said.purpose == StatedPurpose::excluded;
            if (said.roomC) row.room = EnteredAmbient{*said.roomC, said.roomUK};
            row.probeOf = probes[i];
            findSame(i);
            if (!row.probeOf) takeLevel(i);
        }
    }

    void findSame(std::size_t i) {
        const std::string& sha256 = logs_[i].sha256;
        if (sha256.empty()) return;
        for (const auto& [id, recording] : document_.all<Recording>())
            if (recording.sha256 == sha256 && !recording.withdrawn) rows_[i].sameAs = id;
        for (std::size_t k = 0; k < i && !rows_[i].twinOf; ++k)
            if (logs_[k].sha256 == sha256) rows_[i].twinOf = k;
    }

    const Level* levelCalled(const std::string& name) const {
        const auto tokens = nameTokens(name);
        for (const Level* level : levels_)
            if (!tokens.empty() && nameTokens(level->name) == tokens) return level;
        return nullptr;
    }

    void takeLevel(std::size_t i) {
        ImportRow& row = rows_[i];
        const std::string& name = stated_[i].level;
        const Level* level = levelCalled(name);
        if (!level && unknown_ == UnknownLevel::ask) level = likeliestLevel(levels_, logs_[i].fileName);
        if (level) row.level = level->id;
        if (!stated_[i].isTable())
            if (const Level* second = likeliestLevel(seconds_, logs_[i].fileName)) row.second = second->id;
        if (level || unknown_ == UnknownLevel::ask || name.empty()) return;
        row.newLevel = name;
        for (const auto& [id, material] : document_.all<Material>())
            if (nameTokens(material.name) == nameTokens(name)) {
                row.newLevel = material.name;
                row.newMaterial = id;
            }
    }

    void settle(std::size_t i) {
        ImportRow& row = rows_[i];
        settled_[i] = true;
        if (joinsOther(i) || (row.level && findMount(i))) return;
        if (row.newLevel.empty()) byPlan(i);
        if (!isNamed(row)) {
            if (stated_[i].isTable() && levels_.size() == 1) row.level = levels_.front()->id;
            if (!isNamed(row) && unknown_ == UnknownLevel::add) addLevelOf(i);
        }
        nameMount(i);
    }

    /// Nothing says what it is but the file itself.
    void addLevelOf(std::size_t i) {
        if (stated_[i].isTable())
            throw InputError("import-no-level", {stated_[i].table, stated_[i].line, {}});
        rows_[i].newLevel = stemOf(logs_[i].fileName);
        rows_[i].doubt.reset();
    }

    /// The mount that is there under the label.
    bool findMount(std::size_t i) {
        ImportRow& row = rows_[i];
        if (stated_[i].mount.empty()) return false;
        const std::string title = levelTitle(document_, row);
        const std::string label = mountLabel(stated_[i].mount, title);
        for (const Slot* slot : slotsOf(document_, study_)) {
            const Mount* mount = document_.find(slot->mount);
            if (!mount || slot->level != row.level || (row.second && slot->second != row.second)) continue;
            ImportRow there;
            there.level = slot->level;
            there.second = slot->second;
            if (!isOneName(mountLabel(mount->name, levelTitle(document_, there)), label)) continue;
            row.mount = mount->id;
            row.second = slot->second;
            return true;
        }
        return false;
    }

    /// Another row makes the mount that this one names too.
    bool joinsOther(std::size_t i) {
        if (stated_[i].mount.empty() || !isNamed(rows_[i])) return false;
        const auto labelOf = [&](std::size_t k) {
            return mountLabel(stated_[k].mount, levelTitle(document_, rows_[k]));
        };
        const std::string label = labelOf(i);
        for (std::size_t k = 0; k < rows_.size(); ++k) {
            const bool isSame = k != i && settled_[k] && !stated_[k].mount.empty() && sharesLevel(k, i)
                                && isOneName(labelOf(k), label);
            if (!isSame) continue;
            rows_[i].mount = rows_[k].mount;
            rows_[i].mountName = rows_[k].mountName;
            rows_[i].second = rows_[k].second;
            return true;
        }
        return false;
    }

    /// A second level that a name leaves open is any.
    bool sharesLevel(std::size_t a, std::size_t b) const {
        const ImportRow& one = rows_[a];
        const ImportRow& other = rows_[b];
        return one.level == other.level && nameTokens(one.newLevel) == nameTokens(other.newLevel)
               && (one.second == other.second || !one.second || !other.second);
    }

    /// What the name leaves open comes from the next open slot that fits.
    void byPlan(std::size_t i) {
        ImportRow& row = rows_[i];
        const bool named = row.level.has_value();
        const auto slot = std::find_if(open_.begin(), open_.end(), [&](const Slot* one) {
            return named ? fits(*one, row) : one->kind == SlotKind::level && one->level.has_value();
        });
        if (slot == open_.end()) {
            if (!named) row.doubt = Message{"import-doubt.no-level", {}};
            if (named && !seconds_.empty() && !row.second) row.doubt = Message{"import-doubt.second", {}};
            return;
        }
        if (!named)
            row.doubt = Message{"import-doubt.planned", {}};
        else if (!seconds_.empty() && !row.second)
            row.doubt = Message{"import-doubt.second-planned", {}};
        row.level = (*slot)->level;
        row.second = (*slot)->second;
        planned_.push_back(i);
        open_.erase(slot);
    }

    void nameMount(std::size_t i) {
        ImportRow& row = rows_[i];
        const std::string title = levelTitle(document_, row);
        const StatedRow& said = stated_[i];
        if (title.empty())
            row.mountName = stemOf(logs_[i].fileName);
        else if (!said.mount.empty())
            row.mountName = fmt::format("{} {}", title, mountLabel(said.mount, title));
        else if (const auto like = unnamedLike(i))
            row.mountName = rows_[*like].mountName;
        else
            row.mountName = nextMountName(document_, study_, rows_, i);
    }

    /// Names of files that tell no mounts apart are of one mount, unless the plan has a place for each.
    std::optional<std::size_t> unnamedLike(std::size_t i) const {
        if (stated_[i].isTable() || unknown_ == UnknownLevel::ask) return std::nullopt;
        if (std::find(planned_.begin(), planned_.end(), i) != planned_.end()) return std::nullopt;
        for (std::size_t k = 0; k < rows_.size(); ++k) {
            const bool isSame = k != i && settled_[k] && !rows_[k].mount && stated_[k].mount.empty()
                                && !rows_[k].mountName.empty() && sharesLevel(k, i);
            if (isSame && std::find(planned_.begin(), planned_.end(), k) == planned_.end()) return k;
        }
        return std::nullopt;
    }

    void tellDoubt(std::size_t i) {
        ImportRow& row = rows_[i];
        if (isKnown(row)) {
            row.take = false;
            row.doubt = row.sameAs ? Message{"import-doubt.known", {}}
                                   : Message{"import-doubt.twin", {{"file", logs_[*row.twinOf].fileName}}};
            row.mountName = stemOf(logs_[i].fileName);
            addFlag(row.flags, makeFlag(Severity::info, "already-there"));
        }
        if (!row.doubt && !row.probeOf && hasFlag(logs_[i].reduction.flags, "no-load-found"))
            row.doubt = Message{"import-doubt.no-load", {}};
    }

    const Document& document_;
    Id<Study> study_;
    const std::vector<ImportedLog>& logs_;
    const std::vector<StatedRow>& stated_;
    UnknownLevel unknown_;
    std::vector<const Level*> levels_;
    std::vector<const Level*> seconds_;
    std::vector<const Slot*> open_;    ///< taken off as rows are given to them
    std::vector<std::size_t> planned_; ///< rows that have a slot
    std::vector<bool> settled_;
    std::vector<ImportRow> rows_;
};

} // namespace

std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs) {
    const auto stated = statedByNames(logs, knownNames(document, study));
    return Proposer(document, study, logs, stated, UnknownLevel::ask).rows();
}

std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs,
                                     const std::vector<StatedRow>& stated) {
    return Proposer(document, study, logs, stated, UnknownLevel::add).rows();
}

KnownNames knownNames(const Document& document, Id<Study> study) {
    KnownNames known;
    if (const Question* question = firstQuestion(document, study))
        for (const Level* level : levelsOf(document, question->id)) known.levels.push_back(level->name);
    for (const auto& [id, material] : document.all<Material>()) known.levels.push_back(material.name);
    for (const Load* load : document.where(&Load::study, study)) known.loads.push_back(load->name);
    return known;
}

std::vector<StatedRow> statedByNames(const std::vector<ImportedLog>& logs, const KnownNames& known) {
    std::vector<StatedRow> stated;
    for (const ImportedLog& log : logs)
        stated.push_back(statedByName(log.fileName, known, log.trace.start.has_value()));
    return stated;
}

} // namespace ibuki
