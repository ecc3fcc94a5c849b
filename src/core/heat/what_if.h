// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Turning the bench's own heat path over in the head: other power, joint, lid, plate, cooler, chip; and what
// follows for ready questions (docs/methods.md H.9). Everything is computed by the chain; nothing is measured
// here.

#include "core/distributions/interval.h"
#include "core/heat/bench_path.h"

#include <array>

namespace ibuki {

/// What can be moved; the rest is as described.
struct WhatIf {
    double powerW = 0;
    double ambientC = 0;
    double coolerKPerW = 0;
    double studiedMm2KPerW = 0;
    double covered = 1;
    double chipThicknessMm = 0;
    double chipScale = 1; ///< of width and length
    double plateThicknessMm = 0;
    double force = 1;    ///< of that the joint was measured under
    double leakageW = 0; ///< of the power, at leakageAtC; doubles every 35 K
    double leakageAtC = 60;
    bool lidOff = false;
    bool operator==(const WhatIf&) const = default;
};

/// As the path stands: with its own chip, plate (the last solid) and joint.
WhatIf asItStands(const BenchPath& bench);

/// The path as it would be, and where the studied joint then lies.
struct ChangedPath {
    HeatPath path;
    std::size_t studied = 0;
    bool hasLid = false;                ///< one that could come off
    std::vector<PathPlace> places = {}; ///< of the layers that are left
};
/// bench.studied is set. Without its lid the studied joint lies on the chip; where it was the joint under the
/// lid that was studied, it is the one that is left.
ChangedPath changed(const BenchPath& bench, const WhatIf& what);

/// ΔT of the chip with and without its lid, under the cooler as it is and under better ones.
struct LidOrCooler {
    static constexpr std::array<double, 3> coolers{1.0, 0.8, 0.6}; ///< of its resistance
    std::array<double, 3> withLidK{};
    std::array<double, 3> withoutK{};
};
std::optional<LidOrCooler> lidOrCooler(const BenchPath& bench, const WhatIf& what); ///< nothing without a lid

/// A stack to carry a result over to: no product, just another size and power.
struct OtherStack {
    Message name;
    HeatPath path;
    std::size_t studied = 0;
};
std::vector<OtherStack> otherStacks();

struct CarriedOver {
    double here = 0; ///< K that the first is hotter than the second
    double there = 0;
    std::optional<Interval> thereCi;
};
/// Two joints on this bench and on another stack. ci: of their difference of R″.
CarriedOver carryOver(const BenchPath& bench, const WhatIf& what, double firstMm2KPerW, double secondMm2KPerW,
                      const std::optional<Interval>& ci, const OtherStack& other);

/// A chip with a hot core, by its thickness: thick silicon spreads the core's heat before the joint, thin
/// silicon resists less. An estimate: the next solid is taken no wider than the chip.
struct HotCorePoint {
    double thicknessMm = 0;
    double coreK = 0; ///< of the core over room, in its mean
};
/// coreMm: side of the square core in the middle; coreShare: of the power, in it, besides the even rest.
/// Nothing when the core is not smaller than the chip.
std::vector<HotCorePoint> hotCoreCurve(const BenchPath& bench, const WhatIf& what, double coreMm,
                                       double coreShare, const std::vector<double>& thicknessesMm);

/// 1 K at the chip stands for this much of R″, mm²·K/W; now, without the lid, with half as much power again,
/// under a stronger cooler.
struct Resolution {
    double now = 0;
    std::optional<double> withoutLid;
    double morePower = 0;
    double strongerCooler = 0; ///< of three fifths of its resistance: a cooler chip conducts better
};
Resolution resolutionOf(const BenchPath& bench, const WhatIf& what);

} // namespace ibuki
