// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/power_analysis.h"

#include "core/base/input_error.h"
#include "core/comparison/compare.h"
#include "core/distributions/power.h"
#include "core/domain/lookup.h"
#include "core/plan/pair_chances.h"
#include "core/plan/step_times.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

/// Part of the scatter that does not grow with power: room, sensor, fan. A rule of thumb where runs were not
/// repeated within a mount.
constexpr double typicalBenchSdK = 0.2;
/// What an automatic fan leaves of a true difference (docs/methods.md, "What would help").
constexpr double automaticFanShare = 0.85;

SampleSizeInput sizeInput(const PlannedVerdict& asked, const Plan& plan, double sd) {
    const std::size_t groups = asked.together;
    SampleSizeInput input;
    input.groups = static_cast<int>(groups);
    input.mountSd = sd;
    input.power = plan.chance;
    input.confidence = asked.confidence;
    input.comparison = groups == 2       ? PlannedComparison::two
                       : asked.reference ? PlannedComparison::reference
                                         : PlannedComparison::allPairs;
    (asked.goal == Goal::equivalence ? input.margin : input.difference) = asked.margin;
    return input;
}

/// Nothing when more than anybody makes, four times over, would be needed.
std::optional<int> mountsNeeded(const SampleSizeInput& input) {
    try {
        const int mounts = sampleSize(input).mountsPerGroup;
        return mounts <= 4 * sensibleMounts ? std::optional(mounts) : std::nullopt;
    } catch (const InputError&) {
        return std::nullopt; // not reached by any number
    }
}

void addNeeds(PowerAnalysis& analysis, const Document& document, const Question& question,
              const Design& design, const std::vector<OrderedMount>& left, Instant now) {
    const Site* site = document.find(question.site);
    std::vector<int> mounts(design.cells.size(), 0);
    for (const OrderedMount& mount : left)
        if (mount.level) ++mounts[*mount.level];
    for (std::size_t i = 0; i < design.cells.size(); ++i) {
        const Level& level = *document.find(design.cells[i].level);
        const Material* material = document.find(level.material);
        if (!material || !site) continue;
        auto at = std::find_if(analysis.needs.begin(), analysis.needs.end(),
                               [&](const MaterialNeed& need) { return need.material == material->id; });
        if (at == analysis.needs.end())
            at = analysis.needs.insert(at, {material->id, 0, ContentUnit::gram, false, {}, {}});
        for (const Lot* lot : document.where(&Lot::material, material->id)) {
            if (level.lot && *level.lot != lot->id) continue;
            auto each = neededAt(*material, *lot, *site);
            if (level.amount && lot->contentUnit == ContentUnit::gram) each = level.amount->value;
            if (!each) continue;
            const double amount = *each * mounts[i];
            at->known = true;
            at->unit = lot->contentUnit;
            at->amount += amount;
            if (const auto there = lotState(document, *lot, now).left)
                at->left = at->left.value_or(0) + *there;
            const LotCost cost = costOf(document, *lot, site, now);
            if (cost.perUnit) {
                const Money price{cost.perUnit->amount * amount, cost.perUnit->currency};
                if (!at->cost || at->cost->currency == price.currency)
                    at->cost = Money{price.amount + (at->cost ? at->cost->amount : 0), price.currency};
            }
            break; // the first lot that tells
        }
    }
    for (const MaterialNeed& need : analysis.needs) {
        if (!need.cost) continue;
        const auto same = std::find_if(analysis.cost.begin(), analysis.cost.end(),
                                       [&](const Money& m) { return m.currency == need.cost->currency; });
        if (same == analysis.cost.end())
            analysis.cost.push_back(*need.cost);
        else
            same->amount += need.cost->amount;
    }
}

std::optional<double> faceOf(const Document& document, Id<Configuration> configuration, SiteKind kind) {
    for (const Site* site : document.where(&Site::configuration, configuration))
        if (site->kind == kind && site->width && site->length)
            return site->width->value * site->length->value;
    return std::nullopt;
}

/// σ when the application's part grows by `factor` and the bench's part stays.
double grown(double sd, double benchSd, double factor) {
    const double application2 = std::max(0.0, sd * sd - benchSd * benchSd);
    return std::sqrt(benchSd * benchSd + factor * factor * application2);
}

void addHelps(PowerAnalysis& analysis, const Document& document, const Question& question, const Plan& plan,
              const PlannedVerdict& asked) {
    const Study* study = document.find(question.study);
    const Configuration* configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    if (!configuration) return;
    const double sd = analysis.scatter.sd;
    const double bench = std::min(typicalBenchSdK, 0.7 * sd);
    const auto with = [&](double newSd, double factor) {
        SampleSizeInput input = sizeInput(asked, plan, newSd);
        input.margin *= factor;
        input.difference *= factor;
        return mountsNeeded(input);
    };
    const auto loads = loadsOf(document, study->id);
    const double power = !loads.empty() && loads.front()->target ? loads.front()->target->value : 0;
    if (power > 0 && question.normalisation == Normalisation::raw) {
        const double most = configuration->powerLimit ? configuration->powerLimit->value : 1.5 * power;
        if (most > 1.05 * power)
            analysis.improvements.push_back({Message{"help.power", {{"more", most}, {"power", power}}},
                                             with(grown(sd, bench, most / power), most / power),
                                             Message{"help-why.power", {}}});
    }
    const Site* site = document.find(question.site);
    const auto die = faceOf(document, configuration->id, SiteKind::dieLid);
    if (site && site->kind == SiteKind::lidPlate && die && site->width && site->length) {
        const double factor = std::min(4.0, site->width->value * site->length->value / *die);
        if (factor > 1.05)
            analysis.improvements.push_back({Message{"help.bare-die", {{"times", factor}}},
                                             with(grown(sd, bench, factor), factor),
                                             Message{"help-why.bare-die", {}}});
    }
    const double calm = std::sqrt(std::max(0.0, sd * sd - 0.75 * bench * bench));
    analysis.improvements.push_back(
        {Message{"help.room", {}}, with(calm, 1), Message{"help-why.room", {{"part", bench}, {"all", sd}}}});
    if (configuration->fan == FanSetting::automatic)
        analysis.improvements.push_back(
            {Message{"help.fan", {}}, with(sd, 1 / automaticFanShare), Message{"help-why.fan", {}}});
}

} // namespace

Evenings eveningsOf(const Plan& plan, Instant now) {
    return {plan.start.value_or(now), plan.fromHour, plan.hours, plan.weekdays};
}

std::vector<std::vector<StepOccurrence>> stepsOf(const Document& document, const Question& question,
                                                 const Plan& plan, const Design& design,
                                                 const std::vector<OrderedMount>& order) {
    // Mounts of one material take the same steps: each is worked out once.
    std::map<std::optional<Id<Material>>, std::vector<StepOccurrence>> known;
    std::vector<std::vector<StepOccurrence>> steps;
    const Level* before = nullptr;
    int block = 0;
    for (const OrderedMount& mount : order) {
        std::optional<Id<Material>> material = plan.checkWith;
        const Level* level = mount.level ? document.find(design.cells.at(*mount.level).level) : nullptr;
        if (level) material = level->material;
        const bool goesOn = mount.block == block && shareMount(before, level);
        before = level;
        block = mount.block;
        auto found = known.find(material);
        if (found == known.end())
            found =
                known.emplace(material, mountSteps(document, question.study, document.find(material))).first;
        steps.push_back(found->second);
        if (goesOn) // the mount before stays as it is
            std::erase_if(steps.back(),
                          [](const StepOccurrence& step) { return step.kind <= StepKind::rest; });
    }
    return steps;
}

namespace {

/// Chance that the mean change over n mounts is told from none, or shown to be within the margin: paired t
/// test on mount-level changes, df = n − 1 (docs/methods.md, "Change inside a mount").
double changeChance(const PlannedVerdict& asked, double sd, int n) {
    const double df = n - 1;
    const double se = sd / std::sqrt(n);
    if (asked.goal == Goal::equivalence)
        return equivalencePower(0, asked.margin, se, df, 1 - asked.confidence);
    return pairPower(criticalValues(2, df, asked.confidence).different, df, asked.margin / se);
}

void addChange(PowerAnalysis& analysis, const PlannedVerdict& asked, double chanceWanted) {
    analysis.isChange = true;
    analysis.scatter.sd =
        std::sqrt(2.0) * typicalBenchSdK; // two runs of one mount, each with what the bench adds
    analysis.scatter.source = ScatterSource::typical;
    const int n = analysis.mounts.front();
    if (n >= 2) {
        analysis.chance = changeChance(asked, analysis.scatter.sd, n);
        analysis.halfWidth =
            criticalValues(2, n - 1, asked.confidence).different * analysis.scatter.sd / std::sqrt(n);
    }
    for (int more = 2; more <= 4 * sensibleMounts && !analysis.neededMounts; ++more)
        if (changeChance(asked, analysis.scatter.sd, more) >= chanceWanted) analysis.neededMounts = more;
}

/// Least favourable means: two cells a margin apart, the others in the middle, λ = n D² / (2 σ²) with the
/// fewest mounts n of a cell (Cohen 1988, ch. 8).
double noticedChance(const PlannedVerdict& asked, double sd, const std::vector<int>& mounts) {
    int cells = 0;
    int fewest = 0;
    for (int n : mounts)
        if (n > 0) {
            ++cells;
            fewest = fewest == 0 ? n : std::min(fewest, n);
        }
    if (cells < 2 || fewest < 2) return 0;
    const double lambda = fewest * asked.margin * asked.margin / (2 * sd * sd);
    return anovaPower(cells, fewest, lambda, 1 - asked.confidence);
}

/// Of each pair that the verdict will compare; the weakest pair's is the plan's.
void addChances(PowerAnalysis& analysis, const PlannedVerdict& asked, const Design& design) {
    double widest = 0;
    const auto lower = [](std::optional<double>& lowest, double chance) {
        lowest = std::min(lowest.value_or(1), chance);
    };
    for (const auto& cells : comparedTogether(design)) {
        std::vector<int> mounts;
        for (std::size_t cell : cells) mounts.push_back(analysis.mounts[cell]);
        std::vector<PairChance> pairs;
        lower(analysis.chance, wantedChance(asked, analysis.scatter.sd, mounts, &pairs, &widest));
        for (PairChance& pair : pairs) {
            pair.a = cells[pair.a];
            pair.b = cells[pair.b];
            analysis.pairs.push_back(pair);
        }
        lower(analysis.anyChance, noticedChance(asked, analysis.scatter.sd, mounts));
        if (analysis.scatter.cautious)
            lower(analysis.cautiousChance,
                  wantedChance(asked, *analysis.scatter.cautious, mounts, nullptr, nullptr));
    }
    analysis.halfWidth = widest;
}

} // namespace

PowerAnalysis powerAnalysisOf(const Document& document, const Question& question, const Plan& plan,
                              Instant now, const WallClock& clock) {
    const OrderInput input = orderInput(document, question, plan, now);
    Design design = designOf(document, question);
    const auto order = orderMounts(input);
    const PlannedVerdict asked = askedOf(document, question, plan, design);
    PowerAnalysis analysis;
    analysis.scatter = expectedScatter(document, question, &plan);
    analysis.mounts.assign(design.cells.size(), 0);
    for (const OrderedMount& mount : order)
        if (mount.level) ++analysis.mounts[*mount.level];
    for (std::size_t i = 0; i < design.cells.size(); ++i) {
        analysis.levels.push_back(design.cells[i].name);
        analysis.df += std::max(0, analysis.mounts[i] - 1);
        if (analysis.mounts[i] < plan.mountsPerLevel)
            analysis.notes.push_back(Message{"plan-short",
                                             {{"level", design.cells[i].name},
                                              {"mounts", analysis.mounts[i]},
                                              {"of", plan.mountsPerLevel}}});
    }
    analysis.totalMounts = static_cast<int>(order.size()) + (plan.baseline ? 1 : 0);
    const bool held = !asked.reference || analysis.mounts[*asked.reference] > 0;
    if (design.cells.size() == 1) {
        addChange(analysis, asked, plan.chance);
    } else if (analysis.df > 0 && held) {
        addChances(analysis, asked, design);
    }
    if (!analysis.isChange) analysis.neededMounts = mountsNeeded(sizeInput(asked, plan, analysis.scatter.sd));
    analysis.resolvable = analysis.neededMounts && *analysis.neededMounts <= sensibleMounts;
    if (!analysis.resolvable && !analysis.isChange) addHelps(analysis, document, question, plan, asked);
    analysis.toCome = withoutMade(order, design, document);
    analysis.mountsToCome = static_cast<int>(analysis.toCome.size());
    addNeeds(analysis, document, question, design, analysis.toCome, now);
    analysis.schedule =
        schedule(stepsOf(document, question, plan, design, analysis.toCome), eveningsOf(plan, now), clock);
    analysis.design = std::move(design);
    return analysis;
}

} // namespace ibuki
