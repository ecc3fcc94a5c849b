// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From chip to room: solids on one axis with an interface between each two, the cooler, the room. The chain
// of resistances with a spreading term for every plate that is heated on less than its face, worked out from
// the room upwards (docs/methods.md H.1 to H.4). All sizes mm, conductivities W/(m·K), area-specific
// resistances mm²·K/W, temperatures °C.

#include "core/physics/coverage_mask.h"
#include "core/physics/leakage.h"
#include "core/physics/spreading.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

inline constexpr double airConductivity = 0.030; ///< W/(m·K), at 350 K (Incropera & DeWitt)
inline constexpr double typicalGapUm = 30;       ///< what air fills where nothing else is stated

struct PathSolid {
    std::string name;
    Extent size;
    double thicknessMm = 0;
    double conductivity = 0;    ///< at 300 K where it follows the temperature
    bool isSilicon = false;     ///< conductivity falls as (300/T)^1.4 at its mean temperature
    double heatJPerCm3K = 3.44; ///< ρc; counts over time only
};

struct PathInterface {
    std::string name;
    double rMm2KPerW = 0;        ///< of the material where it covers
    double gapUm = typicalGapUm; ///< of air where it does not; at least the bond line
    double covered = 1;          ///< even share, where there is no mask
    std::optional<CoverageMask> mask{};

    double voidMm2KPerW() const { return gapUm / airConductivity; }
    double coveredShare() const { return mask ? mask->mean() : covered; }
    /// Parallel paths through what is covered and what is not (4.1).
    double effectiveMm2KPerW(double share) const;
};

/// Power in a rectangle of the powered face, besides the even rest.
struct HeatSource {
    double xMm = 0; ///< of its centre, along the width
    double yMm = 0;
    Extent size;
    double powerW = 0;
};

/// Another part that is cooled by the same plate: memory, power stages.
struct SidePath {
    std::string name;
    std::size_t intoSolid = 0;
    double powerW = 0;
    double rKPerW = 0; ///< its own interface, from part to plate
};

struct HeatPath {
    double powerW = 0; ///< without leakage
    double ambientC = 0;
    double coolerKPerW = 0;
    std::optional<double> boardKPerW{};    ///< parallel, from the powered face to the room
    std::vector<PathSolid> solids;         ///< powered face first
    std::vector<PathInterface> interfaces; ///< one fewer: the first lies under the first solid
    std::vector<HeatSource> sources{};     ///< count in the field only
    std::vector<SidePath> sides{};
    std::optional<Leakage> leakage{};
};

enum class SpreadingForm { series, lee };

struct SolidStep {
    double rKPerW = 0;                    ///< t/(kA)
    std::optional<double> spreadingKPerW; ///< nothing: its whole face is heated
    double conductivity = 0;
    double deltaK = 0; ///< with spreading
    double hotC = 0;
    double coldC = 0;
};

struct InterfaceStep {
    double rKPerW = 0;
    double overlapMm2 = 0;
    std::optional<double> effectiveAreaMm2; ///< by addEffectiveAreas; none without power, or with sources
    double covered = 1;
    double deltaK = 0;
    double hotC = 0;
    double coldC = 0;
};

struct SideStep {
    double partC = 0;
    double deltaK = 0; ///< of its own interface
};

struct HeatPathSteps {
    std::vector<SolidStep> solids;
    std::vector<InterfaceStep> interfaces;
    std::vector<SideStep> sides;
    double coolerDeltaK = 0;
    double chainKPerW = 0; ///< of the chain alone, from its own flow
    double totalKPerW = 0; ///< (junction − ambient) / power, over both paths
    double powerW = 0;     ///< with leakage
    double chainW = 0;     ///< what goes through the chain
    double junctionMeanC = 0;
    bool runaway = false; ///< leakage grows faster than the path can carry: there is no steady state
};

/// Conductivity of silicon, W/(m·K): 148 (300/T)^1.4 scaled to `at300K` (Ho, Powell & Liley 1972; 300 to 400
/// K).
double siliconConductivity(double celsius, double at300K = 148);

/// Throws InputError heat-path.* for sizes, conductivities or a power that cannot be.
void requireSound(const HeatPath& path);

/// The chain. Requires what requireSound asks for and throws the same.
HeatPathSteps solveChain(const HeatPath& path, SpreadingForm form = SpreadingForm::series);
/// dR″/d(total) of every interface, with conductivities as they were solved.
void addEffectiveAreas(const HeatPath& path, HeatPathSteps& steps,
                       SpreadingForm form = SpreadingForm::series);

/// The total alone, of a path that may have resistances below 0: for those who look for one.
double totalKPerW(const HeatPath& path, SpreadingForm form = SpreadingForm::series);
/// The chain of such a path.
HeatPathSteps chainSteps(const HeatPath& path, SpreadingForm form = SpreadingForm::series);

} // namespace ibuki
