// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/rehearsal.h"

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/base/thread_team.h"
#include "core/plan/campaign_judge.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace ibuki {
namespace {

constexpr int mostOfEach = 1'000; ///< of each material
constexpr std::size_t mostMaterials = 200;
constexpr long mostCampaigns = 100'000'000;

[[noreturn]] void refuse(const char* code, const std::string& name = {}, double value = 0) {
    throw InputError(code, {}, {{"name", name}, {"value", value}});
}

void requireSd(double sd, const std::string& of) {
    if (!(sd >= 0 && std::isfinite(sd))) refuse("rehearse.sd", of, sd);
}

void requirePractice(const RehearsedPractice& practice) {
    if (practice.mounts < 1 || practice.mounts > mostOfEach)
        refuse("rehearse.mounts", practice.name, practice.mounts);
    if (practice.runs < 1 || practice.runs > mostOfEach)
        refuse("rehearse.runs", practice.name, practice.runs);
    if (practice.mountsPerEvening && *practice.mountsPerEvening < 1)
        refuse("rehearse.evening", practice.name, *practice.mountsPerEvening);
}

void requireScenario(const RehearsalScenario& scenario, const RehearsalOptions& options) {
    if (scenario.materials.size() < 2) refuse("rehearse.materials");
    if (scenario.materials.size() > mostMaterials)
        refuse("rehearse.many-materials", {}, static_cast<double>(scenario.materials.size()));
    std::set<std::string> names;
    for (const RehearsedMaterial& material : scenario.materials) {
        if (!names.insert(material.name).second) refuse("rehearse.name-twice", material.name);
        if (!std::isfinite(material.deltaK)) refuse("rehearse.delta", material.name);
        if (material.mounts && (*material.mounts < 1 || *material.mounts > mostOfEach))
            refuse("rehearse.mounts", material.name, *material.mounts);
        requireSd(material.mountSdK.value_or(scenario.mountSdK), material.name);
    }
    for (const double sd : {scenario.mountSdK, scenario.runSdK, scenario.eveningSdK, scenario.ambientSdK})
        requireSd(sd, {});
    if (!std::isfinite(scenario.driftKPerMount)) refuse("rehearse.drift");
    if (!(scenario.marginK > 0)) refuse("rehearse.margin", {}, scenario.marginK);
    if (!(scenario.confidence > 0.5 && scenario.confidence < 1))
        refuse("rehearse.confidence", {}, scenario.confidence);
    if (scenario.practices.empty()) refuse("rehearse.practices");
    for (const RehearsedPractice& practice : scenario.practices) {
        requirePractice(practice);
        if (practice.atLimit && !scenario.limitDeltaK) refuse("rehearse.limit", practice.name);
    }
    if (options.campaigns < 1 || options.campaigns > mostCampaigns)
        refuse("rehearse.campaigns", {}, static_cast<double>(options.campaigns));
}

/// Spreads seed and number over all bits (Steele, Lea & Flood 2014), so that neighbours do not resemble.
std::uint64_t mixed(std::uint64_t value) {
    value += 0x9e3779b97f4a7c15U;
    value = (value ^ (value >> 30)) * 0xbf58476d1ce4e5b9U;
    value = (value ^ (value >> 27)) * 0x94d049bb133111ebU;
    return value ^ (value >> 31);
}

template <class Value> void shuffle(std::vector<Value>& values, std::size_t from, Random& random) {
    for (std::size_t left = values.size() - from; left > 1; --left) {
        const auto chosen = static_cast<std::size_t>(random.uniform() * static_cast<double>(left));
        std::swap(values[from + left - 1], values[from + chosen]);
    }
}

/// Counts that add up whoever counted.
struct Tally {
    long right = 0, wrong = 0, none = 0;
    long falseDifferent = 0, covered = 0, judged = 0;
    struct Pair {
        long different = 0, wrongWay = 0, equivalent = 0;
    };
    std::vector<Pair> pairs;

    void operator+=(const Tally& other) {
        right += other.right;
        wrong += other.wrong;
        none += other.none;
        falseDifferent += other.falseDifferent;
        covered += other.covered;
        judged += other.judged;
        pairs.resize(std::max(pairs.size(), other.pairs.size()));
        for (std::size_t i = 0; i < other.pairs.size(); ++i) {
            pairs[i].different += other.pairs[i].different;
            pairs[i].wrongWay += other.pairs[i].wrongWay;
            pairs[i].equivalent += other.pairs[i].equivalent;
        }
    }
};

int mountsOf(const RehearsedMaterial& material, const RehearsedPractice& practice) {
    return practice.order == RehearsedOrder::blocks ? practice.mounts
                                                    : material.mounts.value_or(practice.mounts);
}

/// Campaigns of one practice, one after the other, in one thread.
class Rehearser {
public:
    Rehearser(const RehearsalScenario& scenario, const RehearsedPractice& practice)
        : scenario_(scenario),
          practice_(practice),
          judge_(scenario.materials.size(), scenario.marginK, scenario.confidence,
                 practice.model == RehearsedModel::blocks) {
        lowest_ = std::min_element(scenario.materials.begin(), scenario.materials.end(),
                                   [](const auto& a, const auto& b) { return a.deltaK < b.deltaK; })
                      ->deltaK;
        tally.pairs.resize(scenario.materials.size() * (scenario.materials.size() - 1) / 2);
    }

    void campaign(std::uint64_t seed) {
        Random random(seed);
        layOrder(random);
        layEvenings();
        draw(random);
        practice_.judge == RehearsedJudge::rank ? byRank(random) : byVerdict();
    }

    Tally tally;

private:
    void layOrder(Random& random) {
        order_.clear();
        const std::size_t k = scenario_.materials.size();
        const auto n = static_cast<std::size_t>(practice_.mounts);
        if (practice_.order == RehearsedOrder::blocks) {
            for (std::size_t block = 0; block < n; ++block) {
                for (std::size_t i = 0; i < k; ++i) order_.push_back(i);
                shuffle(order_, block * k, random);
            }
            return;
        }
        for (std::size_t i = 0; i < k; ++i)
            order_.insert(order_.end(), static_cast<std::size_t>(mountsOf(scenario_.materials[i], practice_)),
                          i);
        if (practice_.order == RehearsedOrder::random) shuffle(order_, 0, random);
    }

    void layEvenings() {
        const std::size_t most = practice_.mountsPerEvening
                                     ? static_cast<std::size_t>(*practice_.mountsPerEvening)
                                     : order_.size();
        const bool inBlocks = practice_.order == RehearsedOrder::blocks;
        mounts_.clear();
        std::size_t evening = 0, filled = 0;
        for (std::size_t i = 0; i < order_.size(); ++i) {
            const bool blockBegins = inBlocks && i > 0 && i % scenario_.materials.size() == 0;
            if (filled == most || blockBegins) {
                ++evening;
                filled = 0;
            }
            ++filled;
            mounts_.push_back({order_[i], evening, 0});
        }
        evenings_ = evening + 1;
    }

    void draw(Random& random) {
        const double runSd = scenario_.runSdK / std::sqrt(static_cast<double>(practice_.runs));
        eveningEffect_.clear();
        for (std::size_t e = 0; e < evenings_; ++e)
            eveningEffect_.push_back(scenario_.eveningSdK > 0 ? scenario_.eveningSdK * random.normal() : 0);
        for (std::size_t i = 0; i < mounts_.size(); ++i) {
            CampaignMount& mount = mounts_[i];
            const RehearsedMaterial& of = scenario_.materials[mount.material];
            mount.value = of.deltaK + of.mountSdK.value_or(scenario_.mountSdK) * random.normal()
                          + eveningEffect_[mount.evening] + scenario_.driftKPerMount * static_cast<double>(i);
            if (practice_.atLimit) mount.value = std::min(mount.value, *scenario_.limitDeltaK);
            if (!practice_.subtractsAmbient) mount.value += scenario_.ambientSdK * random.normal();
            if (runSd > 0) mount.value += runSd * random.normal();
        }
    }

    void crown(std::optional<std::size_t> material) {
        if (!material)
            ++tally.none;
        else
            ++(scenario_.materials[*material].deltaK <= lowest_ + scenario_.asGoodK ? tally.right
                                                                                    : tally.wrong);
    }

    double summaryOf(std::vector<double>& values) const {
        if (practice_.summary == RehearsedSummary::best)
            return *std::min_element(values.begin(), values.end());
        if (practice_.summary == RehearsedSummary::mean) {
            double sum = 0;
            for (const double value : values) sum += value;
            return sum / static_cast<double>(values.size());
        }
        std::sort(values.begin(), values.end());
        const std::size_t half = values.size() / 2;
        return values.size() % 2 == 1 ? values[half] : 0.5 * (values[half - 1] + values[half]);
    }

    /// Who are level, as all are at a limit that shows no more, draw lots.
    void byRank(Random& random) {
        values_.resize(scenario_.materials.size());
        for (auto& values : values_) values.clear();
        for (const CampaignMount& mount : mounts_) values_[mount.material].push_back(mount.value);
        std::size_t first = 0;
        double lowest = summaryOf(values_[0]), level = 1;
        for (std::size_t i = 1; i < values_.size(); ++i) {
            const double summary = summaryOf(values_[i]);
            level = summary < lowest ? 1 : summary == lowest ? level + 1 : level;
            if (summary < lowest || (summary == lowest && random.uniform() * level < 1)) first = i;
            lowest = std::min(lowest, summary);
        }
        crown(first);
    }

    void byVerdict() {
        if (practice_.mounts < 2 || !judge_.judge(mounts_, pairs_)) return crown(std::nullopt);
        const std::size_t k = scenario_.materials.size();
        below_.assign(k, 0);
        bool isFalse = false, holds = true, anyReported = false;
        for (std::size_t i = 0; i < pairs_.size(); ++i) {
            const JudgedPair& pair = pairs_[i];
            if (!pair.isReported) continue;
            anyReported = true;
            const double truth = scenario_.materials[pair.a].deltaK - scenario_.materials[pair.b].deltaK;
            const double rounding = 1e-9 * (1 + std::abs(truth));
            holds = holds && std::abs(pair.difference - truth) <= pair.halfWidth + rounding;
            if (pair.different) {
                ++tally.pairs[i].different;
                ++below_[pair.difference < 0 ? pair.a : pair.b];
                if (truth * pair.difference < 0) ++tally.pairs[i].wrongWay;
                isFalse = isFalse || truth == 0;
            } else if (pair.equivalent) {
                ++tally.pairs[i].equivalent;
            }
        }
        if (anyReported) {
            ++tally.judged;
            tally.covered += holds ? 1 : 0;
        }
        tally.falseDifferent += isFalse ? 1 : 0;
        const auto best = std::find(below_.begin(), below_.end(), k - 1);
        crown(best == below_.end() ? std::nullopt
                                   : std::optional(static_cast<std::size_t>(best - below_.begin())));
    }

    const RehearsalScenario& scenario_;
    const RehearsedPractice& practice_;
    CampaignJudge judge_;
    double lowest_ = 0;
    std::size_t evenings_ = 1;
    std::vector<std::size_t> order_, below_;
    std::vector<CampaignMount> mounts_;
    std::vector<double> eveningEffect_;
    std::vector<std::vector<double>> values_;
    std::vector<JudgedPair> pairs_;
};

RehearsedOutcome outcomeOf(const RehearsalScenario& scenario, const RehearsedPractice& practice,
                           const Tally& tally, long campaigns) {
    const auto share = [&](long count) {
        return static_cast<double>(count) / static_cast<double>(campaigns);
    };
    RehearsedOutcome outcome;
    outcome.rightBest = share(tally.right);
    outcome.wrongBest = share(tally.wrong);
    outcome.noCall = share(tally.none);
    for (const RehearsedMaterial& material : scenario.materials)
        outcome.totalMounts += mountsOf(material, practice);
    bool anySame = false;
    std::size_t at = 0;
    for (std::size_t a = 0; a < scenario.materials.size(); ++a)
        for (std::size_t b = a + 1; b < scenario.materials.size(); ++b, ++at) {
            const double truth = scenario.materials[a].deltaK - scenario.materials[b].deltaK;
            anySame = anySame || truth == 0;
            const Tally::Pair& pair = tally.pairs[at];
            outcome.pairs.push_back(
                {a, b, truth, share(pair.different), share(pair.wrongWay), share(pair.equivalent)});
        }
    if (practice.judge == RehearsedJudge::verdict) {
        if (anySame) outcome.anyFalseDifferent = share(tally.falseDifferent);
        if (tally.judged > 0)
            outcome.familyCoverage = static_cast<double>(tally.covered) / static_cast<double>(tally.judged);
    }
    return outcome;
}

} // namespace

Rehearsal rehearse(const RehearsalScenario& scenario, const RehearsalOptions& options) {
    requireScenario(scenario, options);
    ThreadTeam team(options.threads);
    Rehearsal rehearsal;
    rehearsal.campaigns = options.campaigns;
    constexpr long batch = 2'000; // between two looks at the stop token
    for (std::size_t p = 0; p < scenario.practices.size(); ++p) {
        std::vector<Rehearser> parts(static_cast<std::size_t>(team.size()),
                                     Rehearser(scenario, scenario.practices[p]));
        for (long from = 0; from < options.campaigns; from += batch) {
            if (options.stop.stop_requested()) {
                rehearsal.cancelled = true;
                return rehearsal;
            }
            const long end = std::min(options.campaigns, from + batch);
            // One part a thread: each has its own store of critical values and its own counts.
            team.run(team.size(), [&](int part, int, int) {
                for (long c = from + part; c < end; c += team.size())
                    parts[static_cast<std::size_t>(part)].campaign(
                        mixed(mixed(options.seed) + static_cast<std::uint64_t>(c)));
            });
            if (options.progress)
                options.progress((static_cast<double>(p)
                                  + static_cast<double>(end) / static_cast<double>(options.campaigns))
                                 / static_cast<double>(scenario.practices.size()));
        }
        Tally tally;
        for (const Rehearser& part : parts) tally += part.tally;
        rehearsal.practices.push_back(outcomeOf(scenario, scenario.practices[p], tally, options.campaigns));
    }
    return rehearsal;
}

} // namespace ibuki
