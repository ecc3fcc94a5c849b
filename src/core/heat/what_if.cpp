// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/what_if.h"

#include "core/heat/pressed_joint.h"

#include <algorithm>

namespace ibuki {
namespace {

std::optional<std::size_t> lidOf(const BenchPath& bench) {
    for (const PathPlace& place : bench.places)
        if (place.kind == LayerKind::lid && place.solid && *place.solid > 0) return place.solid;
    return std::nullopt;
}

/// The lid's place and that of the joint under it; what lies behind moves up.
void takeOut(std::vector<PathPlace>& places, std::size_t lid) {
    std::erase_if(places,
                  [&](const PathPlace& place) { return place.solid == lid || place.interface == lid - 1; });
    for (PathPlace& place : places) {
        if (place.solid && *place.solid > lid) --*place.solid;
        if (place.interface && *place.interface > lid - 1) --*place.interface;
    }
}

double riseOf(const ChangedPath& changed) {
    return chainSteps(changed.path).junctionMeanC - changed.path.ambientC;
}

/// mm²·K/W for 1 K.
double perKelvin(const ChangedPath& changed) {
    HeatPathSteps steps = chainSteps(changed.path);
    addEffectiveAreas(changed.path, steps);
    const double area = steps.interfaces[changed.studied].effectiveAreaMm2.value_or(0);
    return area / changed.path.powerW;
}

HeatPath stack(double powerW, double coolerKPerW, std::vector<PathSolid> solids,
               std::vector<PathInterface> joints) {
    HeatPath path;
    path.powerW = powerW;
    path.ambientC = 22;
    path.coolerKPerW = coolerKPerW;
    path.solids = std::move(solids);
    path.interfaces = std::move(joints);
    return path;
}

} // namespace

WhatIf asItStands(const BenchPath& bench) {
    const HeatPath& path = bench.path;
    WhatIf what;
    what.powerW = path.powerW;
    what.ambientC = path.ambientC;
    what.coolerKPerW = path.coolerKPerW;
    what.leakageAtC = chainSteps(path).junctionMeanC;
    what.chipThicknessMm = path.solids.front().thicknessMm;
    what.plateThicknessMm = path.solids.back().thicknessMm;
    if (bench.studied) {
        what.studiedMm2KPerW = path.interfaces[*bench.studied].rMm2KPerW;
        what.covered = path.interfaces[*bench.studied].covered;
    }
    return what;
}

ChangedPath changed(const BenchPath& bench, const WhatIf& what) {
    ChangedPath found{bench.path, bench.studied.value(), false, bench.places};
    HeatPath& path = found.path;
    path.powerW = what.powerW;
    if (what.leakageW > 0) {
        const double leakage = std::min(what.leakageW, 0.9 * what.powerW);
        path.leakage = Leakage{leakage, what.leakageAtC, Leakage{}.perK};
        path.powerW -= leakage;
    }
    path.ambientC = what.ambientC;
    path.coolerKPerW = what.coolerKPerW;
    path.interfaces[found.studied].rMm2KPerW =
        pressedMm2KPerW(bench.studiedClass, what.studiedMm2KPerW, what.force);
    path.interfaces[found.studied].covered = what.covered;
    PathSolid& chip = path.solids.front();
    chip.thicknessMm = what.chipThicknessMm;
    chip.size.widthMm *= what.chipScale;
    chip.size.lengthMm *= what.chipScale;
    path.solids.back().thicknessMm = what.plateThicknessMm;
    const auto lid = lidOf(bench);
    found.hasLid = lid.has_value();
    if (!lid || !what.lidOff) return found;
    const auto at = static_cast<std::ptrdiff_t>(*lid);
    path.solids.erase(path.solids.begin() + at);
    path.interfaces.erase(path.interfaces.begin() + at - 1);
    takeOut(found.places, *lid);
    if (found.studied >= *lid) --found.studied;
    found.studied = std::min(found.studied, path.interfaces.size() - 1);
    return found;
}

std::optional<LidOrCooler> lidOrCooler(const BenchPath& bench, const WhatIf& what) {
    if (!lidOf(bench)) return std::nullopt;
    LidOrCooler found;
    for (std::size_t i = 0; i < LidOrCooler::coolers.size(); ++i) {
        WhatIf one = what;
        one.coolerKPerW = what.coolerKPerW * LidOrCooler::coolers[i];
        one.lidOff = false;
        found.withLidK[i] = riseOf(changed(bench, one));
        one.lidOff = true;
        found.withoutK[i] = riseOf(changed(bench, one));
    }
    return found;
}

std::vector<OtherStack> otherStacks() {
    const PathInterface solder{"die–lid", solderMm2KPerW()}, joint{"joint", 10};
    return {
        {{"stack-large-lidded", {}},
         stack(250, 0.09,
               {{"die", {16, 24}, 0.775, 148, true}, {"lid", {40, 40}, 3, 390}, {"plate", {50, 50}, 4, 390}},
               {solder, joint}),
         1},
        {{"stack-small-lidded", {}},
         stack(65, 0.25,
               {{"die", {8, 14}, 0.775, 148, true}, {"lid", {30, 30}, 2.5, 390}, {"plate", {36, 36}, 2, 390}},
               {solder, joint}),
         1},
        {{"stack-large-bare", {}},
         stack(350, 0.08, {{"die", {25, 25}, 0.775, 148, true}, {"plate", {60, 60}, 4, 390}}, {joint}),
         0},
        {{"stack-laptop", {}},
         stack(45, 0.9, {{"die", {9, 14}, 0.775, 148, true}, {"plate", {40, 40}, 1, 390}}, {joint}),
         0}};
}

CarriedOver carryOver(const BenchPath& bench, const WhatIf& what, double first, double second,
                      const std::optional<Interval>& ci, const OtherStack& other) {
    const auto here = [&](double r) {
        WhatIf one = what;
        one.studiedMm2KPerW = r;
        return riseOf(changed(bench, one));
    };
    const auto there = [&](double r) {
        HeatPath path = other.path;
        path.interfaces[other.studied].rMm2KPerW = r;
        return chainSteps(path).junctionMeanC;
    };
    CarriedOver found{here(first) - here(second), there(first) - there(second), std::nullopt};
    if (ci) // the second as it is, the first at both ends of the difference
        found.thereCi =
            Interval{there(second + ci->lo) - there(second), there(second + ci->hi) - there(second)};
    return found;
}

std::vector<HotCorePoint> hotCoreCurve(const BenchPath& bench, const WhatIf& what, double coreMm,
                                       double coreShare, const std::vector<double>& thicknessesMm) {
    std::vector<HotCorePoint> curve;
    for (const double thickness : thicknessesMm) {
        WhatIf one = what;
        one.chipThicknessMm = thickness;
        const ChangedPath at = changed(bench, one);
        const PathSolid& chip = at.path.solids.front();
        if (coreMm >= std::min(chip.size.widthMm, chip.size.lengthMm)) return {};
        const HeatPathSteps steps = chainSteps(at.path);
        std::vector<Slab> slabs{{thickness, steps.solids[0].conductivity, 0}};
        double before = steps.solids[0].rKPerW; // of the chain, up to where the pile of slabs ends
        if (!at.path.interfaces.empty()) {
            const PathInterface& joint = at.path.interfaces.front();
            slabs[0].belowMm2KPerW = joint.effectiveMm2KPerW(joint.coveredShare());
            slabs.push_back({at.path.solids[1].thicknessMm, steps.solids[1].conductivity, 0});
            before += steps.interfaces[0].rKPerW + steps.solids[1].rKPerW
                      + steps.solids[1].spreadingKPerW.value_or(0);
        }
        const double behind = (steps.chainKPerW - before) * chip.size.areaMm2();
        const SpreadingTerm core = seriesSpreading({coreMm, coreMm}, chip.size, slabs, behind);
        const double rise = steps.junctionMeanC - at.path.ambientC;
        curve.push_back({thickness, rise + coreShare * what.powerW * core.meanKPerW});
    }
    return curve;
}

Resolution resolutionOf(const BenchPath& bench, const WhatIf& what) {
    Resolution found;
    found.now = perKelvin(changed(bench, what));
    if (lidOf(bench) && !what.lidOff) {
        WhatIf off = what;
        off.lidOff = true;
        found.withoutLid = perKelvin(changed(bench, off));
    }
    WhatIf more = what;
    more.powerW *= 1.5;
    found.morePower = perKelvin(changed(bench, more));
    WhatIf stronger = what;
    stronger.coolerKPerW *= 0.6;
    found.strongerCooler = perKelvin(changed(bench, stronger));
    return found;
}

} // namespace ibuki
