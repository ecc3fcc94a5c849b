// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/import_rows.h"

#include "core/domain/lookup.h"
#include "core/domain/study.h"
#include "core/reduce/probe.h"

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

int mountsAtLevel(const Document& document, Id<Study> study, Id<Level> level,
                  std::optional<Id<Level>> second) {
    int count = 0;
    for (const Slot* slot : slotsOf(document, study))
        count += slot->mount && slot->level == level && slot->second == second ? 1 : 0;
    return count;
}

bool readsOnlyAmbient(const Trace& trace) {
    bool room = false;
    for (const Channel& channel : trace.channels) {
        if (channel.values.empty()) continue;
        if (isChipTemperature(channel.role) || channel.role == Role::packagePower) return false;
        room = room || channel.role == Role::ambient;
    }
    return room;
}

/// Seconds that two logs share, the second's clock moved by zoneS; logs without a date may.
double sharedS(const ImportedLog& a, const ImportedLog& b, double zoneS) {
    if (!a.trace.start || !b.trace.start) return std::min(a.trace.durationS(), b.trace.durationS()) / 2;
    const double offset = static_cast<double>(b.trace.start->ms - a.trace.start->ms) / 1000.0 + zoneS;
    return std::min(a.trace.durationS(), offset + b.trace.durationS()) - std::max(0.0, offset);
}

std::string mountNameOf(const Document& document, const ImportRow& row, int number) {
    const Level* level = document.find(row.level);
    const Level* second = document.find(row.second);
    return fmt::format("{}{} {}", level->name, second ? ", " + second->name : std::string(), number);
}

/// Its figures are in the record or come with another log: taken again they would pass for a repeated mount.
bool isKnown(const ImportRow& row) { return row.sameAs || row.twinOf; }

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
            if (!named) row.doubt = Message{"import-doubt.no-level", {}};
            if (named && !seconds.empty() && !row.second) row.doubt = Message{"import-doubt.second", {}};
            return;
        }
        if (!named)
            row.doubt = Message{"import-doubt.planned", {}};
        else if (!seconds.empty() && !row.second)
            row.doubt = Message{"import-doubt.second-planned", {}};
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
        row.mountName = mountNameOf(document, row, ++count->second);
    }
};

} // namespace

std::string nextMountName(const Document& document, Id<Study> study, const std::vector<ImportRow>& rows,
                          std::size_t row) {
    const ImportRow& wanted = rows.at(row);
    if (!document.find(wanted.level)) return wanted.mountName;
    for (int number = mountsAtLevel(document, study, *wanted.level, wanted.second) + 1;; ++number) {
        std::string name = mountNameOf(document, wanted, number);
        bool used = false;
        for (std::size_t i = 0; i < rows.size(); ++i) used = used || (i != row && rows[i].mountName == name);
        if (!used) return name;
    }
}

std::vector<const Slot*> openSlots(const Document& document, Id<Study> study) {
    auto slots = slotsOf(document, study);
    std::erase_if(slots, [](const Slot* slot) { return slot->mount || !slot->skippedBecause.empty(); });
    return slots;
}

bool fits(const Slot& slot, const ImportRow& row) {
    if (row.slot) return slot.id == *row.slot;
    return slot.kind == row.kind && slot.level == row.level && (!row.second || slot.second == row.second);
}

std::vector<std::size_t> rowsByTime(const std::vector<ImportRow>& rows) {
    std::vector<std::size_t> order(rows.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        if (rows[a].at && rows[b].at) return *rows[a].at < *rows[b].at;
        return rows[a].at.has_value() && !rows[b].at;
    });
    return order;
}

std::vector<std::optional<std::size_t>> probesAmong(const std::vector<ImportedLog>& logs) {
    std::vector<std::optional<std::size_t>> probes(logs.size());
    for (std::size_t i = 0; i < logs.size(); ++i) {
        if (!readsOnlyAmbient(logs[i].trace)) continue;
        double most = 0;
        // A clock that shares no time with any log is off by whole hours, if it belongs to one.
        for (int hours = 0; hours <= mostZoneHours && !probes[i]; ++hours)
            for (std::size_t k = 0; k < logs.size(); ++k) {
                if (k == i || readsOnlyAmbient(logs[k].trace)) continue;
                const double shared = std::max(sharedS(logs[k], logs[i], 3'600.0 * hours),
                                               sharedS(logs[k], logs[i], -3'600.0 * hours));
                if (shared <= most) continue;
                most = shared;
                probes[i] = k;
            }
    }
    return probes;
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
        for (std::size_t k = 0; k < i && !rows[i].twinOf; ++k)
            if (!logs[i].sha256.empty() && logs[k].sha256 == logs[i].sha256) rows[i].twinOf = k;
        rows[i].probeOf = probes[i];
        if (!probes[i]) propose.byName(rows[i], logs[i].fileName);
    }
    // Logs that name their level take its slots first; the others take what is left, in the order of time.
    for (const bool named : {true, false})
        for (std::size_t i : rowsByTime(rows))
            if (rows[i].level.has_value() == named && !isKnown(rows[i]) && !rows[i].probeOf
                && rows[i].mountName.empty()) {
                propose.byPlan(rows[i]);
                propose.name(rows[i], logs[i].fileName);
            }
    for (std::size_t i = 0; i < logs.size(); ++i) {
        if (isKnown(rows[i])) {
            rows[i].take = false;
            rows[i].doubt = rows[i].sameAs
                                ? Message{"import-doubt.known", {}}
                                : Message{"import-doubt.twin", {{"file", logs[*rows[i].twinOf].fileName}}};
            rows[i].mountName = logs[i].fileName.substr(0, logs[i].fileName.rfind('.'));
        }
        if (!rows[i].doubt && !rows[i].probeOf && hasFlag(logs[i].reduction.flags, "no-load-found"))
            rows[i].doubt = Message{"import-doubt.no-load", {}};
    }
    return rows;
}

} // namespace ibuki
