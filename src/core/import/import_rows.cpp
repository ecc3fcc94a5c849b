// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/import_rows.h"

#include "core/domain/lookup.h"
#include "core/domain/study.h"
#include "core/reduce/probe.h"

#include <algorithm>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <numeric>
#include <set>

namespace ibuki {
namespace {

/// Seconds that two logs share, the second's clock moved by zoneS; logs without a date may.
double sharedS(const ImportedLog& a, const ImportedLog& b, double zoneS) {
    if (!a.trace.start || !b.trace.start) return std::min(a.trace.durationS(), b.trace.durationS()) / 2;
    const double offset = static_cast<double>(b.trace.start->ms - a.trace.start->ms) / 1000.0 + zoneS;
    return std::min(a.trace.durationS(), offset + b.trace.durationS()) - std::max(0.0, offset);
}

bool areOneLevel(const ImportRow& a, const ImportRow& b) {
    return a.kind == b.kind && a.level == b.level && a.second == b.second
           && nameTokens(a.newLevel) == nameTokens(b.newLevel);
}

/// Mounts of the row's level that the study has.
int mountsAtLevel(const Document& document, Id<Study> study, const ImportRow& row) {
    int count = 0;
    if (row.level)
        for (const Slot* slot : slotsOf(document, study))
            count += slot->mount && slot->level == row.level && slot->second == row.second ? 1 : 0;
    return count;
}

} // namespace

bool readsOnlyAmbient(const Trace& trace) {
    bool room = false;
    for (const Channel& channel : trace.channels) {
        if (channel.values.empty()) continue;
        if (isChipTemperature(channel.role) || channel.role == Role::packagePower) return false;
        room = room || channel.role == Role::ambient;
    }
    return room;
}

std::string levelTitle(const Document& document, const ImportRow& row) {
    const Level* level = document.find(row.level);
    const Level* second = document.find(row.second);
    return (level ? level->name : row.newLevel) + (second ? ", " + second->name : std::string());
}

std::string mountLabel(const std::string& mount, const std::string& level) {
    std::string label = mount;
    const auto tokens = writtenTokens(mount);
    const auto whole = nameTokens(mount);
    const auto prefix = nameTokens(level);
    if (!level.empty() && mount.starts_with(level + " "))
        label = mount.substr(level.size() + 1);
    else if (!prefix.empty() && whole.size() > prefix.size()
             && std::equal(prefix.begin(), prefix.end(), whole.begin()))
        label = fmt::format(
            "{}", fmt::join(tokens.begin() + static_cast<std::ptrdiff_t>(prefix.size()), tokens.end(), " "));
    const bool isNumber = label.find_first_not_of("0123456789") == std::string::npos;
    if (isNumber && !label.empty()) // "02" is the second too
        label.erase(0, std::min(label.find_first_not_of('0'), label.size() - 1));
    return label;
}

bool isOneMount(const ImportRow& a, const ImportRow& b) {
    if (a.mount || b.mount) return a.mount == b.mount;
    return a.mountName == b.mountName && areOneLevel(a, b); // names first: they are cheap to compare
}

std::string nextMountName(const Document& document, Id<Study> study, const std::vector<ImportRow>& rows,
                          std::size_t row) {
    const ImportRow& wanted = rows.at(row);
    const std::string title = levelTitle(document, wanted);
    if (title.empty()) return wanted.mountName;
    std::set<std::string> used;
    for (std::size_t i = 0; i < rows.size(); ++i)
        if (i != row) used.insert(rows[i].mountName);
    for (const Mount* mount : mountsOf(document, document.find(study)->bench)) used.insert(mount->name);
    for (int number = mountsAtLevel(document, study, wanted) + 1;; ++number) {
        std::string name = fmt::format("{} {}", title, number);
        if (!used.contains(name)) return name;
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

} // namespace ibuki
