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

std::string stepsCsv(const TransientStudy& study) {
    std::string text = "mount,level,time_s,Z_K_per_W\n";
    const Comparison* shown = study.shown();
    for (const MountStep& step : study.steps) {
        const std::string level = shown && step.group ? shown->groups[*step.group].name : std::string();
        for (std::size_t i = 0; i < study.timesS.size(); ++i)
            text += fmt::format("{},{},{},{}\n", csvField(step.name), csvField(level), study.timesS[i],
                                step.kPerW[i]);
    }
    return text;
}

std::string accountCsv(const std::string& first, const std::string& second, const std::string& source,
                       const Disagreement& found, bool withHead) {
    std::string text =
        withHead ? "first,second,source,here_K,expected_there_K,reported_K,benches_K,scatter_half_K,"
                   "by_scatter_K,left_K\n"
                 : "";
    const std::string half = found.scatterK ? fmt::format("{}", *found.scatterK) : "";
    return text
           + fmt::format("{},{},{},{},{},{},{},{},{},{}\n", csvField(first), csvField(second),
                         csvField(source), found.hereK, found.expectedK, found.reportedK, found.benchesK,
                         half, found.byScatterK, found.leftK);
}

std::string burstsCsv(const BurstCurves& curves) {
    std::string text = "time_s,bursts_C,long_load_C\n";
    for (std::size_t i = 0; i < curves.timeS.size(); ++i)
        text += fmt::format("{},{},{}\n", curves.timeS[i], curves.burstsC[i], curves.longC[i]);
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
