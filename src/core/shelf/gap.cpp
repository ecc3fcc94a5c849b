// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/gap.h"

#include "core/domain/bench.h"
#include "core/shelf/class_defaults.h"

namespace ibuki {
namespace {

constexpr double typicalModulusMPa = 0.5;
constexpr double steelGPa = 200;
constexpr double steelPoisson = 0.29;

} // namespace

bool takesPads(const Site& site) {
    return site.kind == SiteKind::memory || site.kind == SiteKind::powerStage
           || site.kind == SiteKind::backplate;
}

GapReport gapReport(const Document& document, const Configuration& configuration, const Material& pad,
                    const std::map<Id<Site>, double>& thicknessMm, std::optional<double> forceN) {
    GapReport report;
    report.mountForceN = forceN.value_or(configuration.mountForce.value_or(Newton{typicalMountForceN}).value);
    const MaterialFacts facts = factsOf(pad);
    const double modulus = facts.modulusMPa ? facts.modulusMPa->value : typicalModulusMPa;
    std::vector<PadAtSite> pads;
    for (const Site* site : document.where(&Site::configuration, configuration.id)) {
        if (!takesPads(*site)) continue;
        if (!site->gap || !site->width || !site->length || site->gap->value <= 0) {
            report.missing.push_back(site->id);
            continue;
        }
        const auto chosen = thicknessMm.find(site->id);
        const double thickness = chosen != thicknessMm.end() ? chosen->second : facts.bondLineUm.value / 1000;
        pads.push_back({site->name, site->gap->value, thickness, modulus,
                        site->width->value * site->length->value, site->alike});
        GapLine line;
        line.site = site->id;
        line.pad = pads.back();
        line.fitting = fittingThicknesses(site->gap->value,
                                          {typicalPadThicknessesMm.begin(), typicalPadThicknessesMm.end()});
        report.lines.push_back(line);
    }
    const PlateBalance balanced = balance(pads, report.mountForceN);
    for (std::size_t i = 0; i < pads.size(); ++i) report.lines[i].state = balanced.pads[i];
    report.padForceN = balanced.padForceN;
    report.dieForceN = balanced.dieForceN;
    report.dieTouches = balanced.dieTouches();
    if (configuration.plateThickness && configuration.plateRadius)
        report.bow = plateBow(report.mountForceN, configuration.plateRadius->value,
                              configuration.plateThickness->value, steelGPa, steelPoisson);
    return report;
}

} // namespace ibuki
