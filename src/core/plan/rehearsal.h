// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A whole study on paper, many times: mounts are drawn with the scatter that is known, judged as they would
// be, and it is counted what the verdicts were worth; for several ways to go about it side by side
// (docs/methods.md E.12). Every campaign has its own stream of the seed, the same for every practice, so that
// the figures depend neither on threads nor on what else is rehearsed.

#include <cstdint>
#include <functional>
#include <optional>
#include <stop_token>
#include <string>
#include <vector>

namespace ibuki {

struct RehearsedMaterial {
    std::string name;
    double deltaK = 0; ///< what it truly is
    std::optional<double> mountSdK{};
    std::optional<int> mounts{}; ///< in place of the practice's; not in blocks
};

enum class RehearsedOrder {
    asListed, ///< all of the first material, then all of the second …
    random,   ///< all shuffled
    blocks    ///< each once a block, in random order; a block begins a new evening
};
enum class RehearsedSummary { mean, median, best };
enum class RehearsedJudge {
    verdict, ///< compare(): pooled, Tukey; crowned is who is told apart from all others
    rank     ///< the lowest summary is crowned
};
enum class RehearsedModel { plain, blocks }; ///< blocks: evenings as fixed effects

/// A way to go about it.
struct RehearsedPractice {
    std::string name;
    int mounts = 3; ///< of each material
    int runs = 1;   ///< of each mount, averaged
    RehearsedOrder order = RehearsedOrder::random;
    std::optional<int> mountsPerEvening{};             ///< nothing: all in one
    RehearsedSummary summary = RehearsedSummary::mean; ///< of rank; a verdict judges means
    RehearsedJudge judge = RehearsedJudge::verdict;
    RehearsedModel model = RehearsedModel::plain;
    bool subtractsAmbient = true; ///< false: the room's scatter goes into every mount
    bool atLimit = false;         ///< the load drives every chip into its limit
};

struct RehearsalScenario {
    std::vector<RehearsedMaterial> materials;
    double mountSdK = 0;
    double runSdK = 0;
    double eveningSdK = 0;
    double driftKPerMount = 0;
    double ambientSdK = 0;               ///< between mounts, of a room that nobody subtracts
    std::optional<double> limitDeltaK{}; ///< above which a chip at its limit shows no more
    double asGoodK = 0;                  ///< crowning who is within this of the truly lowest is right too
    double marginK = 1;
    double confidence = 0.95;
    std::vector<RehearsedPractice> practices;
};

struct RehearsedPair {
    std::size_t a = 0, b = 0;   ///< indexes into the materials, a < b
    double trueDifferenceK = 0; ///< a − b
    double different = 0;       ///< shares of the campaigns
    double wrongWay = 0;        ///< different, and the other way round
    double equivalent = 0;
};

struct RehearsedOutcome {
    double rightBest = 0; ///< shares of the campaigns; the three add up to 1
    double wrongBest = 0;
    double noCall = 0;
    std::optional<double> anyFalseDifferent; ///< nothing: by rank, or no two are truly the same
    std::optional<double> familyCoverage;    ///< all simultaneous intervals hold their truth
    std::vector<RehearsedPair> pairs;
    int totalMounts = 0;
};

struct Rehearsal {
    long campaigns = 0;
    std::vector<RehearsedOutcome> practices; ///< as in the scenario
    bool cancelled = false;
};

struct RehearsalOptions {
    long campaigns = 10'000;
    std::uint64_t seed = 1;
    int threads = 0; ///< 0: as many as there are cores
    std::stop_token stop{};
    std::function<void(double)> progress{};
};

/// Throws InputError rehearse.* for a scenario that cannot be.
Rehearsal rehearse(const RehearsalScenario& scenario, const RehearsalOptions& options = {});

} // namespace ibuki
