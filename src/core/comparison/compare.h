// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Comparison of groups on mount means. Model: y_ijk = μ_i + β_b(ij) + γ x_ij + M_ij + e_ijk, M and e normal
// and independent; the experimental unit is the mount. Blocks β and x, the order or a covariate, are there on
// request; the spread between mounts is one for all groups (pooled) or each group's own (Welch). Mounts with
// unequal numbers of runs are weighted by REML; groups with limit-bound mounts are fitted by maximum
// likelihood. Intervals by Tukey–Kramer (Student for two groups, Games–Howell with own spread, Dunnett
// against a reference), verdict in three ways (docs/methods.md, "Comparison"). The user's duty: mounts of a
// group are new applications in an order that was not chosen by their results.

#include "core/base/flag.h"
#include "core/comparison/prior_scatter.h"
#include "core/distributions/interval.h"
#include "core/models/anova.h"

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

/// What is told apart by its id; several may bear one name.
struct Named {
    std::int64_t id = 0;
    std::string name;
};

/// One run as the comparison reads it.
struct RunValue {
    Named group;
    Named mount; ///< runs that share group and mount are repeats inside that mount
    double value = 0;
    bool censored = false; ///< right-censored: at least this much
    Named block = {};      ///< of its mount: a day or a session
    double order = 0;      ///< of its mount in the bench's record
    double covariate = 0;  ///< averaged over the mount's runs
};

enum class SpreadModel { pooled, welch };

inline constexpr double highestConfidence = 1 - 1e-9; ///< beyond it no digit of a critical value is right

struct CompareOptions {
    double margin = 1.0;      ///< smallest difference that matters, > 0, in the unit of the values
    double confidence = 0.95; ///< in (0.5, 1); α = 1 − confidence
    std::optional<std::int64_t>
        reference; ///< group that the others are held against (Dunnett); nothing: all pairs
    bool lowerIsBetter = true;
    bool mountsKnown = true; ///< false: every run is a mount of its own (flag mount-missing)
    SpreadModel spread = SpreadModel::pooled;
    bool blocks = false;                 ///< as fixed effects; not with Welch
    bool drift = false;                  ///< the order as a linear covariate; not with Welch
    bool covariate = false;              ///< the covariate likewise, with equal slopes in all groups
    std::optional<KnownScatter> assumed; ///< of no effect where a group has two mounts
    std::optional<KnownScatter> prior;   ///< joins the pooled scatter; neither with Welch nor with assumed
    bool takesOut() const { return blocks || drift || covariate; }
    double settleChance = 0.8;
    int mostFurtherMounts = 30;
    bool tellP = true; ///< false: no adjusted p, which are the dear part where many are compared for a glance
};

struct GroupSummary {
    std::int64_t id = 0;
    std::string name;
    int mounts = 0;
    int runs = 0;
    int censoredMounts = 0;
    std::vector<double> mountMeans;
    std::vector<Named> mountsInOrder; ///< beside mountMeans
    std::optional<double> mean;       ///< nothing when limit-bound mounts forbid one
    std::optional<double> adjusted; ///< what pairs compare: averaged over blocks, at the middle of the order
    std::optional<double> bound;    ///< of limit-bound mounts: the plain mean is at least this
    std::optional<double> sd;       ///< of the mount means
    std::optional<double> se;       ///< of `adjusted`
    std::optional<Interval> ci;
    std::optional<double> best;
    std::optional<double> median;
    std::optional<std::string> tier;
    std::optional<double> chanceOfBest; ///< filled by who shows it (chancesOfBest)
};

enum class Verdict { different, equivalent, unresolved };
enum class DifferenceSize { beyondMargin, withinMargin, notKnown };

/// For looking at several pairs together.
enum class Adjustment { none, tukey, gamesHowell, dunnett };

std::string_view adjustmentName(Adjustment adjustment);
std::string_view verdictName(Verdict verdict);
std::string_view sizeName(DifferenceSize size);

struct PairComparison {
    std::size_t a = 0; ///< index into groups
    std::size_t b = 0;
    std::optional<double> difference; ///< mean(a) − mean(b)
    std::optional<double> se;
    std::optional<double> df;
    std::optional<Interval> ci;            ///< simultaneous, 1 − α
    std::optional<Interval> equivalenceCi; ///< unadjusted, 1 − 2α
    std::optional<double> pAdjusted;
    Adjustment adjustment = Adjustment::none;
    bool provisional = false; ///< by an assumed scatter, or by a prior that weighs more than the mounts
    std::optional<double> equivalenceP;
    Verdict verdict = Verdict::unresolved;
    DifferenceSize size = DifferenceSize::notKnown;
    bool settleable = false;
    std::optional<int> furtherMounts;
};

/// Of what is taken out as a straight line beside the groups.
struct Drift {
    double slope = 0; ///< a mount, or a unit of the covariate
    Interval ci;
};

/// Variances between mounts and between runs of a mount, by REML.
struct VarianceParts {
    double between = 0;
    double within = 0;
};

struct Comparison {
    CompareOptions options;
    std::vector<GroupSummary> groups; ///< in order of first appearance
    std::optional<FTest> anova;
    std::optional<FTest> welch;
    std::optional<FTest> brownForsythe;
    std::optional<VarianceParts> variance; ///< where a mount has two runs
    std::optional<Drift> drift;
    std::optional<Drift> covariate;
    std::optional<FTest> equalSlopes; ///< of the covariate in the groups, where there are mounts enough
    std::optional<double> pooledSd;   ///< of mount means; nothing where every group has its own
    double df = 0;                    ///< of pooledSd
    std::optional<ModeratedScatter> moderated; ///< with a prior: how it joined
    std::vector<PairComparison> pairs;
    std::vector<std::vector<std::size_t>> tiers; ///< group indexes, best first; none with a reference
    std::vector<Flag> flags;
};

bool isProvisional(const Comparison& comparison); ///< some pair is

/// Throws InputError when there is nothing to compare: fewer than two groups, no degrees of freedom inside
/// them, a margin or confidence out of range, a reference that is no group, blocks, order or a covariate with
/// Welch.
Comparison compare(const std::vector<RunValue>& runs, const CompareOptions& options = {});

/// The groups with their mounts and nothing compared: what can be shown when compare refuses.
Comparison onlyGroups(const std::vector<RunValue>& runs, const CompareOptions& options = {});

/// Groups that were to be compared: judged, or why not, with what can be shown of them all the same.
struct Judged {
    std::optional<Comparison> comparison = {};
    std::optional<Comparison> mounts = {}; ///< when there is none: the groups with their mounts, if any
    std::optional<Message> reason = {};    ///< when there is none: what is missing and how to mend it
    /// The comparison, else the groups with their mounts; nullptr where there are none.
    const Comparison* shown() const { return comparison ? &*comparison : mounts ? &*mounts : nullptr; }
};
/// As compared by compare(), or by another comparison of these runs that refuses as it does.
Judged judge(const std::vector<RunValue>& runs, const CompareOptions& options,
             const std::function<Comparison()>& compared = {});

/// One row of a table, where a name is all that tells groups, and mounts inside a group, apart.
struct TableRun {
    std::string group;
    std::string mount;
    double value = 0;
    bool censored = false;
    std::string block = {};
    double order = 0;
    double covariate = 0;
};
/// The same of a table; reference: name of a group, empty for all pairs.
Comparison compare(const std::vector<TableRun>& runs, CompareOptions options = {},
                   const std::string& reference = {});

/// Critical values that a verdict on k groups with df degrees of freedom uses.
struct CriticalValues {
    double df = 0;
    double different = 0;  ///< of |d|/se: Tukey's q_{1−α;k,df}/√2, for two groups Student's t
    double equivalent = 0; ///< t_{1−α,df} of the two one-sided tests
};
CriticalValues criticalValues(int k, double df, double confidence);

/// Chance that a pair with true difference d and standard error se (from the true mount spread) is found
/// different or equivalent, integrated over the estimated spread.
double settleChance(double d, double se, double margin, const CriticalValues& critical);

} // namespace ibuki
