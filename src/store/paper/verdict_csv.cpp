// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/verdict_csv.h"

#include "core/domain/words.h"
#include "store/table/table.h"

#include <fmt/format.h>

namespace ibuki {
namespace {

std::string number(const std::optional<double>& value) {
    return value ? fmt::format("{}", *value) : std::string();
}

std::string low(const std::optional<Interval>& ci) { return ci ? fmt::format("{}", ci->lo) : std::string(); }
std::string high(const std::optional<Interval>& ci) { return ci ? fmt::format("{}", ci->hi) : std::string(); }

} // namespace

std::string mountsCsv(const Comparison& comparison, const std::string& unit) {
    std::string csv = fmt::format("group,mount,value_{0},mean_{0},low_{0},high_{0}\n", unit);
    for (const GroupSummary& group : comparison.groups)
        for (std::size_t i = 0; i < group.mountMeans.size(); ++i)
            csv += fmt::format("{},{},{},{},{},{}\n", csvField(group.name),
                               csvField(group.mountsInOrder[i].name), group.mountMeans[i],
                               number(group.adjusted), low(group.ci), high(group.ci));
    return csv;
}

std::string pairsCsv(const Comparison& comparison, const std::string& unit) {
    std::string csv = fmt::format("a,b,difference_{0},low_{0},high_{0},p_adjusted,verdict\n", unit);
    for (const PairComparison& pair : comparison.pairs)
        csv += fmt::format("{},{},{},{},{},{},{}\n", csvField(comparison.groups[pair.a].name),
                           csvField(comparison.groups[pair.b].name), number(pair.difference), low(pair.ci),
                           high(pair.ci), number(pair.pAdjusted), verdictName(pair.verdict));
    return csv;
}

std::string factorsCsv(const TwoFactors& factors, const std::string& unit) {
    std::string csv = fmt::format("first,second,mounts,mean_{}\n", unit);
    for (const FactorCell& cell : factors.cells)
        csv += fmt::format("{},{},{},{}\n", csvField(factors.firstLevels[cell.first].name),
                           csvField(factors.secondLevels[cell.second].name), cell.mounts, number(cell.mean));
    return csv;
}

std::string sweepCsv(const std::vector<SweepPoint>& points, const std::string& xUnit,
                     const std::string& unit) {
    std::string csv = fmt::format("group,mount,setting_{},value_{}\n", xUnit, unit);
    for (const SweepPoint& point : points)
        csv += fmt::format("{},{},{},{}\n", csvField(point.group.name), csvField(point.mount.name), point.x,
                           point.y);
    return csv;
}

std::string checksCsv(const BenchHealth& health, const std::string& unit) {
    std::string csv = fmt::format("order,value_{0},ewma_{0},low_{0},high_{0},out\n", unit);
    for (const HealthPoint& point : health.points)
        csv += fmt::format("{},{},{},{},{},{}\n", point.order, point.value, point.ewma, point.low, point.high,
                           point.out);
    return csv;
}

std::string responsesCsv(const std::vector<SideComparison>& sides) {
    std::string csv = "response,unit,group,mounts,mean,low,high,margin\n";
    for (const SideComparison& side : sides) {
        const Comparison* shown = side.shown();
        if (!shown) continue;
        for (const GroupSummary& group : shown->groups)
            csv += fmt::format("{},{},{},{},{},{},{},{}\n",
                               csvField(side.name.empty() ? std::string(word(side.response)) : side.name),
                               csvField(side.unit), csvField(group.name), group.mounts, number(group.mean),
                               low(group.ci), high(group.ci), side.margin);
    }
    return csv;
}

std::string valueCsv(const MaterialValue& value) {
    std::string csv = fmt::format("material,delta_K,delta_se_K,price_{}", value.currency);
    for (Criterion criterion : {Criterion::ease, Criterion::cleanUp, Criterion::lifetime, Criterion::safety})
        csv += fmt::format(",{}", criterionName(criterion));
    csv += ",score,share_first\n";
    for (std::size_t i = 0; i < value.rows.size(); ++i) {
        const ValueRow& row = value.rows[i];
        csv += fmt::format("{},{},{},{}", csvField(row.material), number(row.of(Criterion::delta)),
                           row.deltaSe, number(row.of(Criterion::price)));
        for (Criterion criterion :
             {Criterion::ease, Criterion::cleanUp, Criterion::lifetime, Criterion::safety})
            csv += ',' + number(row.of(criterion));
        csv += value.front ? fmt::format(",{},{}\n", number(value.front->rows[i].score),
                                         value.front->rows[i].firstShare)
                           : ",,\n";
    }
    return csv;
}

} // namespace ibuki
