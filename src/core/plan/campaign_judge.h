// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The comparison's arithmetic for one model and one family of critical values, without what a person reads:
// least squares of mount means on materials, with evenings as fixed blocks on request, Tukey's intervals and
// two one-sided tests (docs/methods.md D.1, D.4, D.8, D.14). It tells what compare() tells, some thousand
// times faster; tests hold it to that.

#include "core/comparison/pair_family.h"

#include <map>
#include <span>
#include <vector>

namespace ibuki {

struct CampaignMount {
    std::size_t material = 0;
    std::size_t evening = 0;
    double value = 0;
};

struct JudgedPair {
    std::size_t a = 0, b = 0;
    bool isReported = false; ///< false: confounded with evenings
    double difference = 0;
    double halfWidth = 0; ///< of its simultaneous interval
    bool different = false;
    bool equivalent = false;
};

/// What every campaign of one practice shares. Made ready before threads use it.
class CampaignJudge {
public:
    CampaignJudge(std::size_t materials, double marginK, double confidence, bool blocks);

    /// All pairs in order of a, then b. False: there are no degrees of freedom. Not for several threads at
    /// once.
    bool judge(std::span<const CampaignMount> mounts, std::vector<JudgedPair>& pairs);

private:
    struct Fit {
        double df = 0;
        double variance = 0;
    };
    Fit fitPlain(std::span<const CampaignMount> mounts);
    Fit fitBlocks(std::span<const CampaignMount> mounts, std::size_t evenings);
    std::size_t rootOf(std::size_t node);
    bool invertReduced();

    std::size_t materials_;
    double margin_;
    bool blocks_;
    PairFamily family_;
    std::vector<double> means_, counts_;
    std::vector<double> incidence_, eveningCount_, eveningMean_; ///< materials × evenings
    std::vector<double> reduced_, inverse_;                      ///< materials × materials
    std::vector<std::size_t> parent_;                            ///< of materials, then evenings
};

} // namespace ibuki
