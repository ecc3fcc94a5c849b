// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/heat_path.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

[[noreturn]] void refuse(const std::string& code, const std::string& name, double value) {
    throw InputError(code, {}, {{"name", name}, {"value", value}});
}

void requireAbove(double value, const char* code, const std::string& name) {
    if (!(value > 0 && std::isfinite(value))) refuse(code, name, value);
}

void requireNotBelow(double value, const char* code, const std::string& name) {
    if (!(value >= 0 && std::isfinite(value))) refuse(code, name, value);
}

void requireSource(const HeatSource& source, const Extent& face) {
    requireAbove(source.size.widthMm, "heat-path.source-size", "");
    requireAbove(source.size.lengthMm, "heat-path.source-size", "");
    requireNotBelow(source.powerW, "heat-path.source-power", "");
    const double slack = 1e-9;
    if (!(std::abs(source.xMm) + source.size.widthMm / 2 <= face.widthMm / 2 + slack
          && std::abs(source.yMm) + source.size.lengthMm / 2 <= face.lengthMm / 2 + slack))
        refuse("heat-path.source-outside", "", source.xMm);
}

/// The resistances of a chain without temperatures, from the room upwards.
struct Resistances {
    std::vector<double> solid, interface;
    std::vector<std::optional<double>> spreading;
    double total = 0;
};

double slabKPerW(const PathSolid& solid, double conductivity) {
    return solid.thicknessMm * 1000 / (conductivity * solid.size.areaMm2());
}

std::optional<double> spreadingOf(const HeatPath& path, std::size_t i, double conductivity, double behind,
                                  SpreadingForm form) {
    if (i == 0) return std::nullopt;
    const Extent& plate = path.solids[i].size;
    const Extent source = overlapOf(path.solids[i - 1].size, plate);
    if (source == plate) return std::nullopt;
    const Slab slab{path.solids[i].thicknessMm, conductivity, 0};
    const double film = behind * plate.areaMm2();
    return form == SpreadingForm::lee ? leeSpreading(source, plate, slab, film).meanKPerW
                                      : seriesSpreading(source, plate, {&slab, 1}, film).meanKPerW;
}

double overlapArea(const HeatPath& path, std::size_t i) {
    return overlapOf(path.solids[i].size, path.solids[i + 1].size).areaMm2();
}

/// From solid `from` up to the chip; what lies behind it is as in `all` already.
void layResistances(const HeatPath& path, const std::vector<double>& conductivities, SpreadingForm form,
                    std::size_t from, Resistances& all) {
    all.total = path.coolerKPerW;
    for (std::size_t i = path.solids.size(); i-- > from + 1;)
        all.total += all.solid[i] + all.spreading[i].value_or(0) + all.interface[i - 1];
    for (std::size_t i = from + 1; i-- > 0;) {
        all.spreading[i] = spreadingOf(path, i, conductivities[i], all.total, form);
        all.solid[i] = slabKPerW(path.solids[i], conductivities[i]);
        all.total += all.solid[i] + all.spreading[i].value_or(0);
        if (i == 0) break;
        const PathInterface& interface = path.interfaces[i - 1];
        all.interface[i - 1] =
            interface.effectiveMm2KPerW(interface.coveredShare()) / overlapArea(path, i - 1);
        all.total += all.interface[i - 1];
    }
}

Resistances resistancesOf(const HeatPath& path, const std::vector<double>& conductivities,
                          SpreadingForm form) {
    const std::size_t n = path.solids.size();
    Resistances all{std::vector<double>(n), std::vector<double>(path.interfaces.size()),
                    std::vector<std::optional<double>>(n), path.coolerKPerW};
    layResistances(path, conductivities, form, n - 1, all);
    return all;
}

/// What flows through the layer besides the chain's own: of the parts that join before it.
double sideW(const HeatPath& path, std::size_t solid) {
    double sum = 0;
    for (const SidePath& side : path.sides)
        if (side.intoSolid <= solid) sum += side.powerW;
    return sum;
}

/// By how much the parts beside it warm the chip's path, K. A part heats the plate where it lies, so that its
/// heat meets the plate's even resistance, not its spreading.
double sideRiseK(const HeatPath& path, const Resistances& all) {
    double rise = sideW(path, path.solids.size()) * path.coolerKPerW;
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        const double flow = sideW(path, i);
        rise += flow * all.solid[i];
        if (i < path.interfaces.size()) rise += flow * all.interface[i];
    }
    return rise;
}

struct Balance {
    double powerW = 0;
    double junctionC = 0;
    bool runaway = false;
};

/// T = T_room + rise + R P(T), by Newton from below, where P grows with T; the solution is lost when the
/// slope R dP/dT reaches 1.
Balance balanceOf(const HeatPath& path, double total, double riseK) {
    const double room = path.ambientC + riseK;
    if (!path.leakage) return {path.powerW, room + total * path.powerW, false};
    const Leakage& leak = *path.leakage;
    double t = room + total * path.powerW;
    for (int i = 0; i < 200; ++i) {
        const double leaking = leak.atReferenceW * std::exp(leak.perK * (t - leak.referenceC));
        const double slope = total * leak.perK * leaking;
        const double off = room + total * (path.powerW + leaking) - t;
        if (!std::isfinite(leaking) || (slope >= 1 && off > 0)) return {path.powerW, t, true};
        const double step = off / (1 - slope);
        t += step;
        if (std::abs(step) < 1e-11 * (1 + std::abs(t))) return {path.powerW + leaking, t, false};
    }
    return {path.powerW, t, true};
}

/// Temperatures from the room upwards.
void layTemperatures(const HeatPath& path, const Resistances& all, HeatPathSteps& steps) {
    const std::size_t n = path.solids.size();
    steps.solids.assign(n, {});
    steps.interfaces.assign(path.interfaces.size(), {});
    steps.coolerDeltaK = path.coolerKPerW * (steps.chainW + sideW(path, n));
    double at = path.ambientC + steps.coolerDeltaK;
    for (std::size_t i = n; i-- > 0;) {
        SolidStep& solid = steps.solids[i];
        solid.rKPerW = all.solid[i];
        solid.spreadingKPerW = all.spreading[i];
        solid.coldC = at;
        solid.deltaK =
            all.solid[i] * (steps.chainW + sideW(path, i)) + all.spreading[i].value_or(0) * steps.chainW;
        at += solid.deltaK;
        solid.hotC = at;
        if (i == 0) break;
        InterfaceStep& interface = steps.interfaces[i - 1];
        interface.rKPerW = all.interface[i - 1];
        interface.overlapMm2 = overlapArea(path, i - 1);
        interface.covered = path.interfaces[i - 1].coveredShare();
        interface.coldC = at;
        interface.deltaK = interface.rKPerW * (steps.chainW + sideW(path, i - 1));
        at += interface.deltaK;
        interface.hotC = at;
    }
    for (const SidePath& side : path.sides) {
        const SolidStep& into = steps.solids[side.intoSolid];
        const double face = into.coldC + into.rKPerW * (steps.chainW + sideW(path, side.intoSolid));
        steps.sides.push_back({face + side.powerW * side.rKPerW, side.powerW * side.rKPerW});
    }
}

struct Solved {
    Resistances all;
    double chain = 0; ///< of the chain alone
    double total = 0; ///< beside the board
    Balance balance;
};

Solved balanced(const HeatPath& path, Resistances resistances) {
    Solved solved;
    solved.all = std::move(resistances);
    solved.chain = solved.all.total;
    // Parts beside the chip warm its path; with a board beside it that rise is shared between both.
    const double rise = sideRiseK(path, solved.all);
    const double board = path.boardKPerW.value_or(0);
    const double shared = path.boardKPerW ? board / (board + solved.chain) : 1;
    solved.total = solved.chain * shared;
    solved.balance = balanceOf(path, solved.total, rise * shared);
    return solved;
}

HeatPathSteps stepsOf(const HeatPath& path, const std::vector<double>& conductivities,
                      const Resistances& resistances) {
    const Solved solved = balanced(path, resistances);
    HeatPathSteps steps;
    steps.runaway = solved.balance.runaway;
    steps.powerW = solved.balance.powerW;
    steps.junctionMeanC = solved.balance.junctionC;
    const double above = steps.junctionMeanC - path.ambientC;
    steps.chainKPerW = solved.chain;
    steps.chainW = path.boardKPerW ? steps.powerW - above / *path.boardKPerW : steps.powerW;
    steps.totalKPerW = solved.total;
    layTemperatures(path, solved.all, steps);
    for (std::size_t i = 0; i < conductivities.size(); ++i) steps.solids[i].conductivity = conductivities[i];
    return steps;
}

/// dR″/d(total) at one interface, by central differences (one-sided at 0).
double effectiveArea(HeatPath path, std::size_t i, const std::vector<double>& conductivities,
                     SpreadingForm form) {
    const double r = path.interfaces[i].rMm2KPerW;
    const double step = std::max(1e-3 * r, 1e-3);
    const auto total = [&](double at) {
        path.interfaces[i].rMm2KPerW = at;
        return balanced(path, resistancesOf(path, conductivities, form)).total;
    };
    if (r > step) return 2 * step / (total(r + step) - total(r - step));
    return 2 * step / (4 * total(r + step) - total(r + 2 * step) - 3 * total(r));
}

} // namespace

double PathInterface::effectiveMm2KPerW(double share) const {
    if (share >= 1) return rMm2KPerW;
    if (!(rMm2KPerW > 0)) return share > 0 ? 0 : voidMm2KPerW();
    return 1 / (share / rMm2KPerW + (1 - share) / voidMm2KPerW());
}

double siliconConductivity(double celsius, double at300K) {
    return at300K * std::pow(300 / (celsius + 273.15), 1.4);
}

void requireSound(const HeatPath& path) {
    if (path.solids.empty() || path.interfaces.size() + 1 != path.solids.size())
        refuse("heat-path.alternate", "", 0);
    requireNotBelow(path.powerW, "heat-path.power", "");
    requireNotBelow(path.coolerKPerW, "heat-path.cooler", "");
    if (!std::isfinite(path.ambientC)) refuse("heat-path.ambient", "", path.ambientC);
    if (path.boardKPerW) requireAbove(*path.boardKPerW, "heat-path.board", "");
    for (const PathSolid& solid : path.solids) {
        requireAbove(solid.size.widthMm, "heat-path.size", solid.name);
        requireAbove(solid.size.lengthMm, "heat-path.size", solid.name);
        requireAbove(solid.thicknessMm, "heat-path.size", solid.name);
        requireAbove(solid.conductivity, "heat-path.conductivity", solid.name);
    }
    for (const PathInterface& interface : path.interfaces) {
        requireNotBelow(interface.rMm2KPerW, "heat-path.resistance", interface.name);
        requireAbove(interface.gapUm, "heat-path.gap", interface.name);
        if (!(interface.covered >= 0 && interface.covered <= 1))
            refuse("heat-path.coverage", interface.name, interface.covered);
    }
    double sources = 0;
    for (const HeatSource& source : path.sources) {
        requireSource(source, path.solids.front().size);
        sources += source.powerW;
    }
    if (sources > path.powerW * (1 + 1e-12)) refuse("heat-path.source-power-sum", "", sources);
}

// With silicon at the conductivity of its own temperature. What lies behind the last silicon does not
// follow.
HeatPathSteps chainSteps(const HeatPath& path, SpreadingForm form) {
    std::vector<double> conductivities;
    std::optional<std::size_t> last;
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        conductivities.push_back(path.solids[i].conductivity);
        if (path.solids[i].isSilicon) last = i;
    }
    Resistances resistances = resistancesOf(path, conductivities, form);
    HeatPathSteps steps = stepsOf(path, conductivities, resistances);
    for (int pass = 0; last && pass < 30; ++pass) {
        const double before = steps.junctionMeanC;
        for (std::size_t i = 0; i < conductivities.size(); ++i)
            if (path.solids[i].isSilicon)
                conductivities[i] = siliconConductivity(0.5 * (steps.solids[i].hotC + steps.solids[i].coldC),
                                                        path.solids[i].conductivity);
        layResistances(path, conductivities, form, *last, resistances);
        steps = stepsOf(path, conductivities, resistances);
        if (std::abs(steps.junctionMeanC - before) < 1e-9) break;
    }
    return steps;
}

HeatPathSteps solveChain(const HeatPath& path, SpreadingForm form) {
    requireSound(path);
    return chainSteps(path, form);
}

double totalKPerW(const HeatPath& path, SpreadingForm form) { return chainSteps(path, form).totalKPerW; }

void addEffectiveAreas(const HeatPath& path, HeatPathSteps& steps, SpreadingForm form) {
    if (!(path.powerW > 0) || !path.sources.empty()) return;
    std::vector<double> conductivities;
    for (const SolidStep& solid : steps.solids) conductivities.push_back(solid.conductivity);
    for (std::size_t i = 0; i < path.interfaces.size(); ++i)
        steps.interfaces[i].effectiveAreaMm2 = effectiveArea(path, i, conductivities, form);
}

} // namespace ibuki
