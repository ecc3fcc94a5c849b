// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/group_model.h"

#include "core/base/input_error.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

bool hasUnequalRuns(const std::vector<MountRunsSummary>& mounts) {
    return std::any_of(mounts.begin(), mounts.end(),
                       [&](const auto& mount) { return mount.runs != mounts.front().runs; });
}

double weightedDot(std::span<const double> a, std::span<const double> w, std::span<const double> b) {
    double sum = 0;
    for (std::size_t i = 0; i < a.size(); ++i) sum += a[i] * w[i] * b[i];
    return sum;
}

/// Covariance of the differences a − to and b − to.
double differenceCovariance(const Columns& c, std::size_t a, std::size_t b, std::size_t to) {
    return c[a][b] - c[a][to] - c[b][to] + c[to][to];
}

} // namespace

GroupModel::GroupModel(const std::vector<const GroupRuns*>& groups, const CompareOptions& options)
    : groups_(groups.size()), adjusted_(options.takesOut()) {
    addRows(groups);
    layDesign(groups, options);
    chooseScatter(options);
    const LinearModel model(all_, y_, weights_);
    if (!assumed_ && !(variance_ > 0) && df_ > 0) variance_ = model.residualVariance(df_);
    if (options.prior) {
        moderated_ = ibuki::moderated(variance_, df_, *options.prior);
        variance_ = moderated_->variance;
        df_ = moderated_->df;
    }
    for (std::size_t g = 0; g < groups_; ++g) values_.push_back(model.value(contrasts_[g]));
    covariance_ = model.covariance(contrasts_);
    untold_ = model.untold(contrasts_);
    testGroups(model);
    fitLines(model, options);
    keepInformation();
}

void GroupModel::addRows(const std::vector<const GroupRuns*>& groups) {
    for (const GroupRuns* group : groups)
        for (const MountRuns& mount : group->mounts)
            mounts_.push_back({ibuki::mean(mount.values), static_cast<int>(mount.values.size()),
                               sumOfSquares(mount.values)});
    origin_ = mounts_.front().mean;
    for (const MountRunsSummary& mount : mounts_) y_.push_back(mount.mean - origin_);
}

/// Columns: the groups, the blocks but the first, the lines about their means, the covariate last.
void GroupModel::layDesign(const std::vector<const GroupRuns*>& groups, const CompareOptions& options) {
    std::map<std::int64_t, std::size_t> blockAt;
    std::vector<std::vector<double>> lines((options.drift ? 1 : 0) + (options.covariate ? 1 : 0));
    for (const GroupRuns* group : groups)
        for (const MountRuns& mount : group->mounts) {
            if (options.blocks) blockAt.try_emplace(mount.block.id, blockAt.size());
            if (options.drift) lines.front().push_back(mount.order);
            if (options.covariate) lines.back().push_back(mount.covariate);
        }
    blocked_ = blockAt.size() > 1;
    const std::size_t blocks = blocked_ ? blockAt.size() - 1 : 0;
    all_ = Columns(mounts_.size(), groups_ + blocks + lines.size());
    for (std::size_t l = 0; l < lines.size(); ++l) {
        const double middle = ibuki::mean(lines[l]);
        for (std::size_t i = 0; i < lines[l].size(); ++i)
            all_[groups_ + blocks + l][i] = lines[l][i] - middle;
    }
    contrasts_ = Columns(all_.columns(), groups_);
    std::size_t row = 0;
    for (std::size_t g = 0; g < groups_; ++g) {
        for (const MountRuns& mount : groups[g]->mounts) {
            all_[g][row] = 1;
            if (const std::size_t block = blocked_ ? blockAt.at(mount.block.id) : 0; block > 0)
                all_[groups_ + block - 1][row] = 1;
            ++row;
        }
        contrasts_[g][g] = 1;
        for (std::size_t b = 0; b < blocks; ++b)
            contrasts_[g][groups_ + b] = 1.0 / static_cast<double>(blocks + 1);
    }
    design_ = selected(all_, independentColumns(all_));
}

/// Degrees of freedom, weights, and the variance where it does not follow from the residuals.
void GroupModel::chooseScatter(const CompareOptions& options) {
    weights_.assign(mounts_.size(), 1);
    df_ = static_cast<double>(mounts_.size()) - static_cast<double>(design_.columns());
    nested_ = fitNested(mounts_, design_);
    const bool single = mounts_.size() == groups_;
    assumed_ = single && options.assumed;
    if (assumed_) {
        variance_ = options.assumed->sd * options.assumed->sd;
        df_ = options.assumed->df;
    } else if (options.prior) {
        df_ = std::max(0.0, df_); // plain means of mounts
    } else if (df_ <= 0) {
        throw InputError(adjusted_ && !single ? "compare-no-df.blocks" : "compare-no-df", {});
    } else if (nested_ && hasUnequalRuns(mounts_)) {
        variance_ = ibuki::mean(nested_->meanVariances);
        for (std::size_t j = 0; j < weights_.size() && variance_ > 0; ++j)
            weights_[j] = variance_ / nested_->meanVariances[j];
    }
}

/// By what the residuals grow without the groups.
void GroupModel::testGroups(const LinearModel& model) {
    if (assumed_ || !(variance_ > 0)) return;
    Columns without(mounts_.size(), all_.columns() - groups_ + 1);
    std::fill(without[0].begin(), without[0].end(), 1.0);
    for (std::size_t c = groups_; c < all_.columns(); ++c)
        std::copy(all_[c].begin(), all_[c].end(), without[c - groups_ + 1].begin());
    const LinearModel reduced(without, y_, weights_);
    const auto df1 = static_cast<double>(model.rank()) - static_cast<double>(reduced.rank());
    if (df1 > 0) test_ = fTest(std::max(0.0, (reduced.rss() - model.rss()) / df1 / variance_), df1, df_);
}

void GroupModel::fitLines(const LinearModel& model, const CompareOptions& options) {
    const std::size_t last = all_.columns() - 1;
    if (options.drift) drift_ = lineOf(model, last - (options.covariate ? 1 : 0), options.confidence);
    if (!options.covariate) return;
    covariate_ = lineOf(model, last, options.confidence);
    if (covariate_) testSlopes(model);
}

std::optional<Drift> GroupModel::lineOf(const LinearModel& model, std::size_t column,
                                        double confidence) const {
    Columns slope(all_.columns(), 1);
    slope[0][column] = 1;
    const Columns untold = model.untold(slope);
    if (dot(untold[0], untold[0]) > LinearModel::leastUntold) return std::nullopt;
    const double value = model.value(slope[0]);
    const double se = std::sqrt(variance_ * model.covariance(slope)[0][0]);
    return Drift{value, studentInterval(value, se, df_, confidence)};
}

/// By what the residuals shrink when every group has a slope of its own over the covariate.
void GroupModel::testSlopes(const LinearModel& model) {
    if (assumed_) return;
    Columns own(mounts_.size(), all_.columns() + groups_);
    for (std::size_t c = 0; c < all_.columns(); ++c)
        std::copy(all_[c].begin(), all_[c].end(), own[c].begin());
    for (std::size_t g = 0; g < groups_; ++g)
        for (std::size_t i = 0; i < mounts_.size(); ++i)
            own[all_.columns() + g][i] = all_[g][i] * all_[all_.columns() - 1][i];
    const LinearModel wider(own, y_, weights_);
    const auto df1 = static_cast<double>(wider.rank()) - static_cast<double>(model.rank());
    const double df2 = static_cast<double>(mounts_.size()) - static_cast<double>(wider.rank());
    if (!(df1 > 0) || !(df2 > 0)) return;
    const double variance = wider.residualVariance(df2);
    if (variance > 0)
        equalSlopes_ = fTest(std::max(0.0, (model.rss() - wider.rss()) / df1 / variance), df1, df2);
}

/// What the mounts tell of the groups, the other terms taken out: X_gᵀWX_g − X_gᵀWX_o (X_oᵀWX_o)⁺ X_oᵀWX_g.
void GroupModel::keepInformation() {
    const std::size_t columns = all_.columns();
    const std::size_t others = columns - groups_;
    Columns normal(columns, columns);
    for (std::size_t a = 0; a < columns; ++a)
        for (std::size_t b = 0; b < columns; ++b) normal[a][b] = weightedDot(all_[a], weights_, all_[b]);
    Columns nuisance(others, others);
    for (std::size_t i = 0; i < others; ++i)
        for (std::size_t j = 0; j < others; ++j) nuisance[i][j] = normal[groups_ + i][groups_ + j];
    if (others > 0) nuisance = pseudoInverse(nuisance);
    information_ = Columns(groups_, groups_);
    for (std::size_t a = 0; a < groups_; ++a)
        for (std::size_t b = 0; b < groups_; ++b) {
            information_[a][b] = normal[a][b];
            for (std::size_t i = 0; i < others; ++i)
                for (std::size_t j = 0; j < others; ++j)
                    information_[a][b] -= normal[a][groups_ + i] * nuisance[i][j] * normal[groups_ + j][b];
        }
}

std::optional<Estimate> GroupModel::mean(std::size_t group) const {
    if (dot(untold_[group], untold_[group]) > LinearModel::leastUntold) return std::nullopt;
    return Estimate{origin_ + values_[group], std::sqrt(variance_ * covariance_[group][group])};
}

std::optional<Estimate> GroupModel::difference(std::size_t a, std::size_t b) const {
    double untold = 0;
    for (std::size_t i = 0; i < untold_.rows(); ++i) untold += std::pow(untold_[a][i] - untold_[b][i], 2);
    if (untold > LinearModel::leastUntold) return std::nullopt;
    return Estimate{values_[a] - values_[b],
                    std::sqrt(variance_ * differenceCovariance(covariance_, a, a, b))};
}

double GroupModel::correlation(std::size_t a, std::size_t b, std::size_t to, int m) const {
    const Columns& c = m == 0 ? covariance_ : unscaledWith(m);
    return differenceCovariance(c, a, b, to)
           / std::sqrt(differenceCovariance(c, a, a, to) * differenceCovariance(c, b, b, to));
}

const Columns& GroupModel::unscaledWith(int m) const {
    const double shared = blocked_ ? 1.0 / static_cast<double>(groups_) : 0; // a block takes one mean away
    while (later_.size() < static_cast<std::size_t>(m)) {
        const auto more = static_cast<double>(later_.size()) + 1;
        Columns grown = information_;
        for (std::size_t i = 0; i < groups_; ++i)
            for (std::size_t j = 0; j < groups_; ++j) grown[i][j] += more * ((i == j ? 1 : 0) - shared);
        later_.push_back(pseudoInverse(grown));
    }
    return later_[static_cast<std::size_t>(m) - 1];
}

Later GroupModel::later(std::size_t a, std::size_t b, int m) const {
    const auto each = static_cast<double>(groups_) - (blocked_ ? 1 : 0); // degrees of freedom
    return {std::sqrt(variance_ * differenceCovariance(unscaledWith(m), a, a, b)), df_ + each * m};
}

} // namespace ibuki
