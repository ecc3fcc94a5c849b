// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_order.h"

#include "app/say.h"
#include "app/session/amount_text.h"

#include <algorithm>
#include <numeric>
#include <set>

namespace ibuki {
namespace {

constexpr std::size_t manyLogs = 12;

bool passes(const ImportLine& line, const ImportFilter& filter) {
    if (filter.onlyToLookAt && line.doubts == 0) return false;
    const QString all = line.file + " " + line.level + " " + line.look;
    const auto words = filter.words.split(' ', Qt::SkipEmptyParts);
    return std::all_of(words.begin(), words.end(),
                       [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
}

std::optional<std::int64_t> dayOf(const ImportLine& line) {
    return line.at ? std::optional(dayNumber(*line.at)) : std::nullopt;
}

QString headingOf(const std::vector<ImportLine>& lines, const std::vector<std::size_t>& day) {
    const auto toLookAt =
        std::count_if(day.begin(), day.end(), [&](std::size_t i) { return lines[i].doubts > 0; });
    const auto& at = lines[day.front()].at;
    QString text = at ? dayText(*at) : say("no date");
    text += "   " + sayMany("{count} log", "{count} logs", static_cast<qint64>(day.size()));
    if (toLookAt > 0) text += ", " + say("%1 to look at").arg(toLookAt);
    return text;
}

/// Earliest first, those without a time last.
bool earlier(const ImportLine& a, const ImportLine& b) {
    if (a.at && b.at) return *a.at < *b.at;
    return a.at.has_value() && !b.at;
}

} // namespace

std::vector<ImportPlace> importPlaces(const std::vector<ImportLine>& lines, ImportSort sort,
                                      const ImportFilter& filter) {
    std::vector<std::size_t> order(lines.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::erase_if(order, [&](std::size_t i) { return !passes(lines[i], filter); });
    std::stable_sort(order.begin(), order.end(), [&](std::size_t i, std::size_t k) {
        const ImportLine& a = lines[i];
        const ImportLine& b = lines[k];
        if (sort == ImportSort::byDay) return earlier(a, b);
        if (sort == ImportSort::byDoubt) return a.doubts > b.doubts;
        return sort == ImportSort::byFile && a.file.compare(b.file, Qt::CaseInsensitive) < 0;
    });
    std::vector<ImportPlace> places;
    for (std::size_t at = 0; at < order.size();) {
        std::size_t end = at + 1;
        while (end < order.size() && dayOf(lines[order[end]]) == dayOf(lines[order[at]])) ++end;
        if (sort == ImportSort::byDay)
            places.push_back(
                {std::nullopt, headingOf(lines, {order.begin() + static_cast<std::ptrdiff_t>(at),
                                                 order.begin() + static_cast<std::ptrdiff_t>(end)})});
        for (; at < end; ++at) places.push_back({order[at], {}});
    }
    return places;
}

QString importSummary(const std::vector<ImportLine>& lines) {
    const auto taken = std::count_if(lines.begin(), lines.end(), [](const ImportLine& l) { return l.take; });
    const auto toLookAt =
        std::count_if(lines.begin(), lines.end(), [](const ImportLine& l) { return l.doubts > 0; });
    QString text = sayMany("{count} log", "{count} logs", static_cast<qint64>(lines.size())) + ", "
                   + say("%1 to bring in").arg(taken);
    if (toLookAt > 0) text += ", " + say("%1 to look at").arg(toLookAt);
    return text;
}

ImportSort typicalSort(const std::vector<ImportLine>& lines) {
    std::set<std::optional<std::int64_t>> days;
    for (const ImportLine& line : lines) days.insert(dayOf(line));
    return lines.size() > manyLogs && days.size() > 1 ? ImportSort::byDay : ImportSort::asGiven;
}

} // namespace ibuki
