// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The heat path of what is looked at: how much of its temperature difference lies in each layer. Chip and
// room are measured, what lies between is computed through the calibrated path (docs/methods.md H.8).

#include "core/heat/calibration.h"

namespace ibuki {

struct SeenLayer {
    Id<Layer> layer;
    double deltaK = 0;
    double kPerW = 0; ///< with spreading
    double hotC = 0;
    double coldC = 0;
    bool isAssumed = false; ///< of sizes, metals or a resistance that nobody stated
    bool isStudied = false;
};

struct SeenPath {
    std::vector<SeenLayer> layers; ///< chip first, cooler last
    double powerW = 0;
    double chipC = 0; ///< in the mean of its face
    double ambientC = 0;
    double studiedMm2KPerW = 0;
    int mounts = 0; ///< that the figures are of; 0: none, all is computed
    bool anchorAssumed = false;
};

/// The layers of a path as its chain has them; nothing of it is measured.
SeenPath computedPath(const std::vector<PathPlace>& places, std::optional<std::size_t> studied,
                      const HeatPath& path);

/// What a study measured in one configuration, with the cooler that follows from its anchor.
struct StudyHeat {
    std::vector<RunRow> rows;
    Id<Load> load;
    StudyMeasurements measured; ///< reason too where the layers alone resist more than was measured
    double coolerKPerW = 0;     ///< 0 where reason is told
};

/// anchor: group that the user chose. Worked out at every call.
StudyHeat studyHeat(const Document& document, const Question& question,
                    std::optional<Id<Configuration>> configuration, std::optional<std::size_t> anchor);
/// With the anchor that the materials state, once a snapshot. Valid as long as it is.
const StudyHeat& studyHeat(const Document& document, const Question& question,
                           std::optional<Id<Configuration>> configuration);

/// Of one mount, also of one that was rejected, at the power and room it was measured with. Nothing where it
/// has no K/W or the study has nothing to calibrate by. heat: of the mount's configuration.
std::optional<SeenPath> pathOfMount(const StudyHeat& heat, Id<Mount> mount);

/// Mean over the runs of a material at the question's site, or of all materials when none is given.
std::optional<SeenPath> pathOfMaterial(const StudyHeat& heat, std::optional<Id<Material>> material);

/// What a mount that is only planned is expected to be, at the study's mean power and room: with the joint
/// that this material measured, else with what it states or is usual of its class. material: may be nullptr.
std::optional<SeenPath> pathOfPlan(const StudyHeat& heat, const Material* material);

} // namespace ibuki
