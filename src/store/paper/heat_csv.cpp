// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/heat_csv.h"

#include "store/table/table.h"

#include <fmt/format.h>

namespace ibuki {

std::string layersCsv(const HeatPath& path, const HeatPathSteps& steps) {
    std::string text = "layer,R_K_per_W,spreading_K_per_W,delta_K,hot_C,cold_C\n";
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        const SolidStep& solid = steps.solids[i];
        text += fmt::format("{},{},{},{},{},{}\n", csvField(path.solids[i].name), solid.rKPerW,
                            solid.spreadingKPerW.value_or(0), solid.deltaK, solid.hotC, solid.coldC);
        if (i == path.interfaces.size()) break;
        const InterfaceStep& joint = steps.interfaces[i];
        text += fmt::format("{},{},0,{},{},{}\n", csvField(path.interfaces[i].name), joint.rKPerW,
                            joint.deltaK, joint.hotC, joint.coldC);
    }
    return text
           + fmt::format("cooler,{},0,{},{},{}\n", path.coolerKPerW, steps.coolerDeltaK,
                         path.ambientC + steps.coolerDeltaK, path.ambientC);
}

std::string jointsCsv(const Calibration& calibration) {
    std::string text = "material,mounts,K_per_W,r_mm2K_per_W,low_mm2K_per_W,high_mm2K_per_W\n";
    for (std::size_t g = 0; g < calibration.groups.size(); ++g) {
        const CalibratedGroup& group = calibration.groups[g];
        const std::string ends = group.ci ? fmt::format("{},{}", group.ci->lo, group.ci->hi) : ",";
        text += fmt::format("{},{},{},{},{}\n", csvField(calibration.input.groups[g].name), group.mounts,
                            group.kPerW, group.mm2KPerW, ends);
    }
    return text;
}

std::string faceCsv(const FieldFace& face) {
    std::string text = "x_mm,y_mm,celsius_C\n";
    const std::size_t columns = face.x.size() - 1;
    for (std::size_t i = 0; i < face.celsius.size(); ++i) {
        const std::size_t x = i % columns, y = i / columns;
        text += fmt::format("{},{},{}\n", 0.5 * (face.x[x] + face.x[x + 1]),
                            0.5 * (face.y[y] + face.y[y + 1]), face.celsius[i]);
    }
    return text;
}

std::string rehearsalCsv(const RehearsalScenario& scenario, const Rehearsal& rehearsal) {
    std::string text = "practice,mounts,right_best,wrong_best,no_call\n";
    for (std::size_t i = 0; i < rehearsal.practices.size(); ++i) {
        const RehearsedOutcome& outcome = rehearsal.practices[i];
        text += fmt::format("{},{},{},{},{}\n", csvField(scenario.practices[i].name), outcome.totalMounts,
                            outcome.rightBest, outcome.wrongBest, outcome.noCall);
    }
    return text;
}

} // namespace ibuki
