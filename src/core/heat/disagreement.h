// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Two results for one pair of materials, from this bench and from elsewhere: what the difference of the
// benches explains, what the scatter of mounts explains, what is left (docs/methods.md H.11).

#include "core/domain/study.h"
#include "core/heat/what_if.h"

namespace ibuki {

struct Calibration;

/// The bench that was read of: its chip as a square, under a usual lid where it has one, a usual plate, its
/// cooler or this one's. areaMm2, power and cooler above 0.
OtherStack externalStack(double chipMm2, LidState lid, double powerW, double coolerKPerW);

struct Disagreement {
    double hereK = 0;                     ///< first − second, on this bench
    double expectedK = 0;                 ///< the same joints on that one
    std::optional<Interval> expectedCi{}; ///< by what this bench knows of the difference of R″
    double reportedK = 0;
    std::optional<double> scatterK{}; ///< half width: expectation and the few mounts there together; nothing
                                      ///< where no mount was repeated here
    double benchesK = 0;              ///< expected − here
    double byScatterK = 0;            ///< of what is then left, as much as scatter may be
    double leftK = 0;                 ///< and what neither explains
};

/// first, second: groups of the calibration. bench: with cooler, power and room as they are judged here.
/// Mounts there are taken to scatter in R″ as mounts do here.
Disagreement explainDisagreement(const Calibration& calibration, const BenchPath& bench, std::size_t first,
                                 std::size_t second, const ExternalResult& read);

/// The group of a material; nothing where it was not mounted.
std::optional<std::size_t> groupOf(const Calibration& calibration, Id<Material> material);

} // namespace ibuki
