// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_series.h"

#include "core/ageing/joint_history.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/domain/ageing.h"
#include "core/domain/lookup.h"
#include "core/models/least_squares.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

constexpr double msPerDay = 86'400'000;

/// What every row is followed as, K.
class Values {
public:
    Values(const std::vector<RunRow>& rows, Id<Load> load, const Question& question) : question_(question) {
        std::vector<double> powers;
        bool all = true;
        for (const RunRow& row : rows) {
            if (row.loadId != load || row.excluded) continue;
            all = all && perWattOf(row).has_value();
            if (row.powerW) powers.push_back(*row.powerW);
        }
        perWatt_ = all && !powers.empty();
        if (!powers.empty()) powerW_ = median(powers);
        if (question.nominalPower) powerW_ = question.nominalPower->value;
    }

    bool perWatt() const { return perWatt_; }
    double powerW() const { return powerW_; }
    std::optional<double> of(const RunRow& row) const {
        if (perWatt_) {
            const auto value = perWattOf(row);
            return value ? std::optional(*value * powerW_) : std::nullopt;
        }
        return row.response;
    }

private:
    std::optional<double> perWattOf(const RunRow& row) const {
        if (question_.normalisation == Normalisation::perWatt) return row.response;
        return question_.reference == ReferenceTemperature::room ? row.rthKPerW : std::nullopt;
    }

    const Question& question_;
    bool perWatt_ = false;
    double powerW_ = 1;
};

/// Straight line of check mounts over days, ordinary least squares.
BenchDrift benchDrift(const Document& document, const std::vector<RunRow>& rows, Id<Load> load,
                      const Values& values) {
    std::vector<double> days;
    std::vector<double> y;
    for (const RunRow& row : rows) {
        if (row.kind != SlotKind::checkMount || row.loadId != load || row.excluded || row.censored) continue;
        const Run* run = document.find(row.runId);
        const auto at = run ? measuredAt(document, *run) : std::nullopt;
        const auto value = values.of(row);
        if (!at || !value) continue;
        days.push_back(static_cast<double>(at->ms) / msPerDay);
        y.push_back(*value);
    }
    BenchDrift ageing;
    ageing.checks = static_cast<int>(days.size());
    ageing.spanDays = rangeOf(days);
    if (days.size() < 3 || ageing.spanDays < 0.5) return ageing;
    Columns design(days.size(), 2);
    const double centre = mean(days);
    for (std::size_t i = 0; i < days.size(); ++i) {
        design[0][i] = 1;
        design[1][i] = days[i] - centre;
    }
    const LeastSquares fit = leastSquares(design, y);
    ageing.kelvinPerDay = fit.coefficients[1];
    const double df = static_cast<double>(days.size()) - 2;
    const double se = std::sqrt(fit.rss / df / dot(design[1], design[1]));
    ageing.interval = studentInterval(*ageing.kelvinPerDay, se, df, 0.95);
    ageing.takenOut = !ageing.interval->contains(0);
    return ageing;
}

/// Why a run is no reading of its mount's course; nothing when it is one.
std::optional<Message> whyNoPoint(const RunRow& row, const MountHistory& history,
                                  const std::optional<Instant>& at, const MountClock& clock) {
    const Fields who{{"mount", row.mount}, {"run", runName(row)}};
    if (row.excluded) return Message{"drift-left.excluded", who};
    if (at && history.opened() && *at > *history.opened()) return Message{"drift-left.opened", who};
    if (at && history.applied() && *at < *history.applied()) return Message{"drift-left.before", who};
    if (!clock.hours) return Message{"drift-left.undated", who};
    return std::nullopt;
}

class Gathering {
public:
    Gathering(const Document& document, const AgeingSeries& series, const Values& values)
        : document_(document), series_(series), values_(values) {}

    void add(const RunRow& row) {
        const Run* run = document_.find(row.runId);
        if (!run) return;
        const auto& history = historyOf(row.mountId);
        const auto at = measuredAt(document_, *run);
        AgeingPoint point{row.runId, at, at ? history->at(*at) : MountClock{}, 0, row.ambientC, row.fan};
        auto why = whyNoPoint(row, *history, at, point.clock);
        const auto value = values_.of(row);
        if (!why && row.censored && !series_.perWatt)
            why = Message{"drift-left.bound", {{"mount", row.mount}, {"run", runName(row)}}};
        if (!why && !value)
            why = Message{"drift-left.no-figure", {{"mount", row.mount}, {"run", runName(row)}}};
        if (row.excluded) return leftOut.push_back(*why);
        MountSeries& series = seriesOf(row, history); // it has clocks all the same
        if (why) return leftOut.push_back(*why);
        point.valueK = *value;
        series.points.push_back(point);
    }

    std::map<std::size_t, std::vector<MountSeries>> byCell;
    std::vector<Message> leftOut;

private:
    const std::shared_ptr<const MountHistory>& historyOf(Id<Mount> mount) {
        auto& made = histories_[mount];
        if (!made) made = std::make_shared<const MountHistory>(jointHistory(document_, mount));
        return made;
    }
    MountSeries& seriesOf(const RunRow& row, const std::shared_ptr<const MountHistory>& history) {
        auto& mounts = byCell[*row.cell];
        for (MountSeries& one : mounts)
            if (one.mount == row.mountId) return one;
        mounts.push_back({row.mountId, row.mount, {}, history});
        return mounts.back();
    }

    const Document& document_;
    const AgeingSeries& series_;
    const Values& values_;
    std::map<Id<Mount>, std::shared_ptr<const MountHistory>> histories_;
};

/// The bench's own drift off every reading, as if all had been made when the first was.
void takeOut(const BenchDrift& ageing, std::vector<SeriesGroup>& groups) {
    if (!ageing.takenOut) return;
    std::optional<Instant> first;
    for (const SeriesGroup& group : groups)
        for (const MountSeries& mount : group.mounts)
            for (const AgeingPoint& point : mount.points)
                if (point.at && (!first || *point.at < *first)) first = point.at;
    for (SeriesGroup& group : groups)
        for (MountSeries& mount : group.mounts)
            for (AgeingPoint& point : mount.points)
                if (point.at)
                    point.valueK -=
                        *ageing.kelvinPerDay * static_cast<double>(point.at->ms - first->ms) / msPerDay;
}

} // namespace

int SeriesGroup::readings() const {
    std::size_t count = 0;
    for (const MountSeries& mount : mounts) count += mount.points.size();
    return static_cast<int>(count);
}

bool SeriesGroup::isFollowed() const {
    return std::any_of(mounts.begin(), mounts.end(),
                       [](const MountSeries& mount) { return mount.points.size() > 1; });
}

AgeingRules ageingRulesOf(const Document& document, Id<Bench> bench) {
    const auto stated = document.where(&AgeingRules::bench, bench);
    if (!stated.empty()) return *stated.front();
    AgeingRules typical;
    typical.bench = bench;
    return typical;
}

AgeingSeries ageingSeries(const Document& document, const Question& question) {
    const Design design = designOf(document, question);
    const auto rows = runRows(document, question, design);
    AgeingSeries series;
    series.load = comparedLoad(document, rows, question);
    const Values values(rows, series.load, question);
    series.perWatt = values.perWatt();
    series.powerW = values.powerW();
    series.bench = benchDrift(document, rows, series.load, values);
    Gathering gathering(document, series, values);
    for (const RunRow& row : rows)
        if (row.cell && row.kind == SlotKind::level && row.loadId == series.load
            && row.purpose != Purpose::baseline)
            gathering.add(row);
    series.leftOut = std::move(gathering.leftOut);
    for (auto& [cell, mounts] : gathering.byCell) {
        for (MountSeries& mount : mounts)
            std::stable_sort(
                mount.points.begin(), mount.points.end(),
                [](const AgeingPoint& a, const AgeingPoint& b) { return *a.clock.hours < *b.clock.hours; });
        SeriesGroup group;
        group.id = design.cells[cell].level.value;
        group.name = design.cells[cell].name;
        if (const Material* material = studiedMaterial(document, question, mounts.front().mount)) {
            group.material = material->id;
            group.kind = material->kind;
        }
        group.mounts = std::move(mounts);
        series.groups.push_back(std::move(group));
    }
    takeOut(series.bench, series.groups);
    return series;
}

} // namespace ibuki
