// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/bench_path.h"

#include "core/domain/lookup.h"
#include "core/heat/pressed_joint.h"
#include "core/shelf/class_defaults.h"

#include <algorithm>

namespace ibuki {
namespace {

struct TypicalSolid {
    Extent size;
    double thicknessMm;
    Metal metal;
};

TypicalSolid typicalSolid(LayerKind kind) {
    switch (kind) {
    case LayerKind::chip:
        return {{10, 20}, 0.775, Metal::silicon};
    case LayerKind::lid:
        return {{30, 30}, 2.5, Metal::copper};
    default:
        return {{40, 40}, 3, Metal::copper};
    }
}

std::optional<Extent> sizeOf(const std::optional<Millimetre>& width,
                             const std::optional<Millimetre>& length) {
    return width && length ? std::optional(Extent{width->value, length->value}) : std::nullopt;
}

class Builder {
public:
    Builder(const Document& document, std::optional<Id<Site>> studied, const Mount* mount)
        : document_(document), studied_(studied), mount_(mount) {}

    BenchPath build(Id<Configuration> configuration) {
        const auto layers = layersOf(document_, configuration);
        for (std::size_t i = 0; i < layers.size(); ++i) add(layers, i);
        HeatPath& path = found_.path;
        if (path.solids.empty())
            found_.reason = Message{"heat-needs-layers", {}};
        else if (path.interfaces.size() == path.solids.size())
            found_.reason = Message{"heat-ends-in-interface", {{"layer", path.interfaces.back().name}}};
        return std::move(found_);
    }

private:
    void add(const std::vector<const Layer*>& layers, std::size_t i) {
        const Layer& layer = *layers[i];
        PathPlace place{layer.id, layer.kind, {}, {}, false};
        const bool isBehind = layer.kind == LayerKind::cooler || layer.kind == LayerKind::room;
        if (layer.kind == LayerKind::interface)
            addInterface(layer, place);
        else if (!isBehind)
            addSolid(layers, i, place);
        found_.places.push_back(place);
    }

    /// The face of an interface beside a solid tells its size where the layer does not: a die as large as
    /// what lies between it and the lid, a lid as large as what lies on it.
    std::optional<Extent> faceBeside(const std::vector<const Layer*>& layers, std::size_t i) const {
        const Layer& layer = *layers[i];
        if (layer.kind == LayerKind::plate || i + 1 >= layers.size() || !layers[i + 1]->site)
            return std::nullopt;
        const Site* site = document_.find(*layers[i + 1]->site);
        return site ? sizeOf(site->width, site->length) : std::nullopt;
    }

    void addSolid(const std::vector<const Layer*>& layers, std::size_t i, PathPlace& place) {
        const Layer& layer = *layers[i];
        HeatPath& path = found_.path;
        if (path.interfaces.size() < path.solids.size()) // grown together: nothing lies between
            path.interfaces.push_back({layer.name, 0});
        const TypicalSolid typical = typicalSolid(layer.kind);
        auto size = sizeOf(layer.width, layer.length);
        if (!size) size = faceBeside(layers, i);
        const bool knowsSize = size.has_value();
        if (!size) size = typical.size;
        if (!knowsSize && !path.solids.empty()) { // no plate is smaller than what it is to cool
            size->widthMm = std::max(size->widthMm, path.solids.back().size.widthMm);
            size->lengthMm = std::max(size->lengthMm, path.solids.back().size.lengthMm);
        }
        const Metal metal = layer.metal == Metal::unknown ? typical.metal : layer.metal;
        PathSolid solid;
        solid.name = layer.name;
        solid.size = *size;
        solid.thicknessMm =
            layer.thickness && layer.thickness->value > 0 ? layer.thickness->value : typical.thicknessMm;
        solid.isSilicon = metal == Metal::silicon && !layer.conductivity;
        solid.conductivity = layer.conductivity && layer.conductivity->value > 0 ? layer.conductivity->value
                                                                                 : conductivityOf(metal);
        solid.heatJPerCm3K = heatOf(metal);
        place.solid = path.solids.size();
        place.isAssumed =
            !knowsSize || !layer.thickness || (!layer.conductivity && layer.metal == Metal::unknown);
        if (place.isAssumed)
            found_.assumed.push_back({"heat-assumed-solid",
                                      {{"layer", solid.name},
                                       {"width", solid.size.widthMm},
                                       {"length", solid.size.lengthMm},
                                       {"thickness", solid.thicknessMm},
                                       {"k", solid.conductivity}}});
        path.solids.push_back(solid);
    }

    void addInterface(const Layer& layer, PathPlace& place) {
        HeatPath& path = found_.path;
        const Material* material =
            mount_ && layer.site ? materialAt(document_, mount_->id, *layer.site) : nullptr;
        const Site* site = layer.site ? document_.find(*layer.site) : nullptr;
        const bool isSoldered = !material && site && site->kind == SiteKind::dieLid;
        Material solder;
        solder.kind = MaterialClass::solder;
        const MaterialResistance r = resistanceOf(isSoldered ? &solder : material);
        if (path.solids.size() == path.interfaces.size())
            return; // two in a row, or one before the chip: no path
        place.interface = path.interfaces.size();
        place.isAssumed = r.isAssumed;
        if (studied_ && layer.site == studied_) {
            found_.studied = place.interface;
            found_.studiedClass = material ? material->kind : MaterialClass::unknown;
        }
        if (r.isAssumed)
            found_.assumed.push_back({"heat-assumed-interface", {{"layer", layer.name}, {"r", r.mm2KPerW}}});
        PathInterface interface { layer.name, r.mm2KPerW, std::max(r.bondLineUm, typicalGapUm) };
        path.interfaces.push_back(std::move(interface));
    }

    const Document& document_;
    std::optional<Id<Site>> studied_;
    const Mount* mount_;
    BenchPath found_;
};

} // namespace

double heatOf(Metal metal) {
    switch (metal) {
    case Metal::silicon:
        return 1.659;
    case Metal::aluminium:
        return 2.440;
    case Metal::steel:
        return 3.77;
    case Metal::copper:
    case Metal::nickelOnCopper:
    case Metal::unknown:
    case Metal::other:
        break;
    }
    return 3.439;
}

double conductivityOf(Metal metal) {
    switch (metal) {
    case Metal::silicon:
        return 148;
    case Metal::aluminium:
        return 180;
    case Metal::steel:
        return 45;
    case Metal::copper:
    case Metal::nickelOnCopper:
    case Metal::unknown:
    case Metal::other:
        return 390;
    }
    return 390;
}

MaterialResistance resistanceOf(const Material* material) {
    const ClassDefaults& typical = classDefaults(material ? material->kind : MaterialClass::unknown);
    const bool isPad = material && wayOf(material->kind) == GivesWay::asPad;
    const double asBought =
        material && material->thickness ? 1000 * material->thickness->value : typical.bondLineUm;
    const double bondLine = material && material->bondLine ? material->bondLine->value
                            : isPad                        ? (1 - typicalPadStrain) * asBought
                                                           : asBought;
    if (material && material->statedMm2KPerW) return {*material->statedMm2KPerW, bondLine, false};
    return {bondLine / typical.conductivityWPerMK + typical.contactMm2KPerW, bondLine, true};
}

double solderMm2KPerW() {
    Material solder;
    solder.kind = MaterialClass::solder;
    return resistanceOf(&solder).mm2KPerW;
}

BenchPath benchPath(const Document& document, Id<Configuration> configuration,
                    std::optional<Id<Site>> studied, const Mount* mount) {
    return Builder(document, studied, mount).build(rigOf(document, configuration));
}

} // namespace ibuki
