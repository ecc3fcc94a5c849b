// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/two_factor.h"

#include "core/base/input_error.h"
#include "core/comparison/naming.h"
#include "core/comparison/pair_judge.h"
#include "core/distributions/summary.h"
#include "core/models/linear_model.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

/// Levels in order of first appearance.
class Levels {
public:
    std::size_t take(const Named& level) {
        const auto [at, isNew] = place_.try_emplace(level.id, list.size());
        if (isNew) list.push_back(level);
        return at->second;
    }
    std::vector<Named> list;

private:
    std::map<std::int64_t, std::size_t> place_;
};

struct MountRow {
    std::size_t first = 0;
    std::size_t second = 0;
    std::size_t block = 0;
    std::vector<double> values;
};

/// Mount means with what every model needs.
class Rows {
public:
    Rows(const std::vector<TwoFactorRun>& runs, bool blocks) {
        std::map<std::tuple<std::size_t, std::size_t, std::int64_t>, std::size_t> mountAt;
        for (const TwoFactorRun& run : runs) {
            const std::size_t a = first.take(run.run.group);
            const std::size_t b = second.take(run.second);
            const auto [at, isNew] = mountAt.try_emplace({a, b, run.run.mount.id}, mounts.size());
            if (isNew) mounts.push_back({a, b, blocks ? block.take(run.run.block) : 0, {}});
            mounts[at->second].values.push_back(run.run.value);
        }
        for (const MountRow& mount : mounts) y.push_back(mean(mount.values));
        if (!y.empty()) origin = y.front();
        for (double& value : y) value -= origin;
    }

    std::size_t cells() const { return first.list.size() * second.list.size(); }

    /// Least squares on columns that `place` names of each row (one of `count`, or several), then the blocks.
    template <class Place> LinearModel fit(std::size_t count, const Place& place) const {
        const std::size_t blocks = block.list.empty() ? 0 : block.list.size() - 1;
        Columns design(mounts.size(), count + blocks);
        for (std::size_t row = 0; row < mounts.size(); ++row) {
            for (const std::size_t column : place(mounts[row])) design[column][row] = 1;
            if (mounts[row].block > 0) design[count + mounts[row].block - 1][row] = 1;
        }
        return {design, y};
    }

    Levels first;
    Levels second;
    Levels block;
    std::vector<MountRow> mounts;
    std::vector<double> y; ///< about the origin
    double origin = 0;
};

/// The full model with what pairs ask of it.
class CellModel {
public:
    explicit CellModel(const Rows& rows)
        : rows_(rows), model_(rows.fit(rows.cells(), [&](const MountRow& mount) {
              return std::vector{place(mount.first, mount.second)};
          })) {}

    const LinearModel& model() const { return model_; }

    /// Of one cell, or averaged equally over all levels of the second factor.
    std::vector<double> contrast(std::size_t first, std::optional<std::size_t> second) const {
        std::vector<double> c(model_.coefficients().size());
        const std::size_t levels = rows_.second.list.size();
        for (std::size_t b = 0; b < levels; ++b)
            if (!second || *second == b) c[place(first, b)] = second ? 1 : 1.0 / static_cast<double>(levels);
        return c;
    }

    std::optional<Estimate> difference(std::size_t a, std::size_t b, std::optional<std::size_t> second,
                                       double variance) const {
        Columns c(model_.coefficients().size(), 1);
        const auto plus = contrast(a, second);
        const auto minus = contrast(b, second);
        for (std::size_t i = 0; i < plus.size(); ++i) c[0][i] = plus[i] - minus[i];
        const Columns untold = model_.untold(c);
        if (dot(untold[0], untold[0]) > LinearModel::leastUntold) return std::nullopt;
        return Estimate{model_.value(c[0]), std::sqrt(variance * model_.covariance(c)[0][0])};
    }

    bool canTell(std::size_t first, std::optional<std::size_t> second) const {
        for (std::size_t b = 0; b < rows_.second.list.size(); ++b)
            if ((!second || *second == b)
                && std::none_of(rows_.mounts.begin(), rows_.mounts.end(), [&](const MountRow& mount) {
                       return mount.first == first && mount.second == b;
                   }))
                return false;
        return true;
    }

private:
    std::size_t place(std::size_t first, std::size_t second) const {
        return first * rows_.second.list.size() + second;
    }

    const Rows& rows_;
    LinearModel model_;
};

/// One family: all pairs of the first factor's levels that can be told.
std::vector<PairComparison> pairsOf(const Rows& rows, const CellModel& cells,
                                    std::optional<std::size_t> second, const TwoFactors& found,
                                    const CompareOptions& options) {
    const std::size_t levels = rows.first.list.size();
    int reported = 0;
    for (std::size_t i = 0; i < levels; ++i) reported += cells.canTell(i, second) ? 1 : 0;
    PairFamily family = PairFamily::allPairs(std::max(2, reported), 1 - options.confidence);
    std::vector<PairComparison> pairs;
    for (std::size_t a = 0; a < levels; ++a)
        for (std::size_t b = a + 1; b < levels; ++b) {
            PairComparison pair;
            pair.a = a;
            pair.b = b;
            pair.adjustment = family.adjustment();
            pair.provisional = found.moderated && found.moderated->isProvisional();
            const auto estimate = cells.difference(a, b, second, found.sd * found.sd);
            if (estimate && cells.canTell(a, second) && cells.canTell(b, second))
                judgePair(pair, *estimate, found.df, family, options);
            pairs.push_back(pair);
        }
    return pairs;
}

std::optional<FTest> testOf(const LinearModel& smaller, const LinearModel& larger, double variance,
                            double df) {
    const auto df1 = static_cast<double>(larger.rank()) - static_cast<double>(smaller.rank());
    if (!(df1 > 0) || !(variance > 0)) return std::nullopt;
    return fTest(std::max(0.0, (smaller.rss() - larger.rss()) / df1 / variance), df1, df);
}

void addCells(TwoFactors& found, const Rows& rows) {
    for (std::size_t a = 0; a < rows.first.list.size(); ++a)
        for (std::size_t b = 0; b < rows.second.list.size(); ++b) {
            std::vector<double> inside;
            for (std::size_t row = 0; row < rows.mounts.size(); ++row)
                if (rows.mounts[row].first == a && rows.mounts[row].second == b)
                    inside.push_back(rows.y[row]);
            found.cells.push_back(
                {a, b, static_cast<int>(inside.size()),
                 inside.empty() ? std::nullopt : std::optional(rows.origin + mean(inside))});
        }
}

} // namespace

TwoFactors compareTwoFactors(const std::vector<TwoFactorRun>& runs, const CompareOptions& options) {
    const Rows rows(runs, options.blocks);
    if (rows.first.list.size() < 2) throw InputError("compare-one-group", {});
    if (rows.second.list.size() < 2) throw InputError("compare-one-second", {});
    TwoFactors found;
    found.firstLevels = rows.first.list;
    found.secondLevels = rows.second.list;
    addCells(found, rows);
    const CellModel cells(rows);
    const LinearModel& full = cells.model();
    found.df = static_cast<double>(rows.mounts.size()) - static_cast<double>(full.rank());
    if (!(found.df > 0) && !options.prior) throw InputError("compare-no-df.cells", {});
    double variance = found.df > 0 ? full.residualVariance(found.df) : 0;
    if (options.prior) {
        found.moderated = moderated(variance, std::max(0.0, found.df), *options.prior);
        variance = found.moderated->variance;
        found.df = found.moderated->df;
    }
    found.sd = std::sqrt(variance);
    const std::size_t firsts = rows.first.list.size();
    const std::size_t seconds = rows.second.list.size();
    const LinearModel both = rows.fit(firsts + seconds, [&](const MountRow& mount) {
        return std::vector{mount.first, firsts + mount.second};
    });
    const LinearModel onlyFirst =
        rows.fit(firsts, [](const MountRow& mount) { return std::vector{mount.first}; });
    const LinearModel onlySecond =
        rows.fit(seconds, [](const MountRow& mount) { return std::vector{mount.second}; });
    found.interaction = testOf(both, full, variance, found.df);
    found.first = testOf(onlySecond, both, variance, found.df);
    found.second = testOf(onlyFirst, both, variance, found.df);
    found.marginal = pairsOf(rows, cells, std::nullopt, found, options);
    for (std::size_t b = 0; b < seconds; ++b)
        for (const PairComparison& pair : pairsOf(rows, cells, b, found, options))
            found.within.push_back({b, pair});
    return found;
}

TwoFactors compareTwoFactors(const std::vector<TableRun>& runs, const std::vector<std::string>& seconds,
                             const CompareOptions& options) {
    RunNaming named;
    Naming levels;
    std::vector<TwoFactorRun> reported(runs.size());
    for (std::size_t i = 0; i < runs.size(); ++i) {
        reported[i].run = named(runs[i]);
        reported[i].second = levels(seconds[i]);
    }
    return compareTwoFactors(reported, options);
}

} // namespace ibuki
