// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/bench_template.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"

namespace ibuki {

const std::array<BenchTemplateInfo, 5> benchTemplates{{
    {BenchTemplate::liddedChip, "lidded chip"},
    {BenchTemplate::bareDie, "bare die"},
    {BenchTemplate::graphicsCard, "graphics card"},
    {BenchTemplate::laptop, "laptop"},
    {BenchTemplate::heaterBlock, "heater block"},
}};

namespace {

struct LayerPlan {
    LayerKind kind;
    const char* name;
    Metal metal = Metal::unknown;
    std::optional<SiteKind> site = std::nullopt;
};

std::vector<LayerPlan> plan(BenchTemplate which) {
    const LayerPlan plate{LayerKind::plate, "plate", Metal::copper};
    const LayerPlan cooler{LayerKind::cooler, "cooler"};
    const LayerPlan room{LayerKind::room, "room"};
    const LayerPlan die{LayerKind::chip, "chip", Metal::silicon};
    const LayerPlan dieOnPlate{LayerKind::interface, "die–plate", Metal::unknown, SiteKind::diePlate};
    switch (which) {
    case BenchTemplate::liddedChip:
        return {die,
                {LayerKind::interface, "die–lid", Metal::unknown, SiteKind::dieLid},
                {LayerKind::lid, "lid", Metal::nickelOnCopper},
                {LayerKind::interface, "lid–plate", Metal::unknown, SiteKind::lidPlate},
                plate,
                cooler,
                room};
    case BenchTemplate::bareDie:
    case BenchTemplate::graphicsCard:
        return {die, dieOnPlate, plate, cooler, room};
    case BenchTemplate::laptop:
        return {die,
                dieOnPlate,
                {LayerKind::plate, "spreader", Metal::copper},
                {LayerKind::cooler, "heat pipe and fan"},
                room};
    case BenchTemplate::heaterBlock:
        return {{LayerKind::chip, "heater block", Metal::copper},
                {LayerKind::interface, "block–plate", Metal::unknown, SiteKind::diePlate},
                plate,
                cooler,
                room};
    }
    return {};
}

Metal faceBefore(const std::vector<LayerPlan>& layers, std::size_t i) {
    return i > 0 ? layers[i - 1].metal : Metal::unknown;
}
Metal faceAfter(const std::vector<LayerPlan>& layers, std::size_t i) {
    return i + 1 < layers.size() ? layers[i + 1].metal : Metal::unknown;
}

void addSensors(Edit& edit, Id<Configuration> configuration, BenchTemplate which, const Wording& wording) {
    const bool graphics = which == BenchTemplate::graphicsCard;
    std::vector<std::pair<Role, const char*>> roles;
    if (graphics)
        roles = {
            {Role::gpu, "chip"}, {Role::hotspot, "chip"}, {Role::memory, "memory"}, {Role::gpuPower, "chip"}};
    else
        roles = {{Role::core, "chip"}, {Role::package, "chip"}, {Role::packagePower, "chip"}};
    roles.emplace_back(Role::ambient, "room");
    roles.emplace_back(Role::fan, "cooler");
    for (const auto& [role, reads] : roles) {
        Sensor sensor;
        sensor.configuration = configuration;
        sensor.role = role;
        sensor.reads = wording({reads, {}});
        edit.add(sensor);
    }
}

void addExtraSite(Edit& edit, Id<Configuration> configuration, SiteKind kind, int alike,
                  const Wording& wording) {
    Site site;
    site.configuration = configuration;
    site.kind = kind;
    site.name = wording({std::string(word(kind)), {}});
    site.alike = alike;
    site.upperFace = Metal::copper;
    edit.add(site);
}

} // namespace

Message layersOf(const BenchTemplateInfo& info) { return {"bench-layers." + std::string(info.name), {}}; }

Id<Bench> addBench(Edit& edit, BenchTemplate which, const std::string& name, const Wording& wording) {
    Bench bench;
    bench.name = name;
    const Id<Bench> id = edit.add(bench);
    Configuration configuration;
    configuration.bench = id;
    configuration.name = wording({"as described", {}});
    configuration.lid = which == BenchTemplate::liddedChip    ? LidState::lidded
                        : which == BenchTemplate::heaterBlock ? LidState::noChip
                                                              : LidState::bareDie;
    configuration.fan = which == BenchTemplate::laptop ? FanSetting::automatic : FanSetting::fixed;
    const Id<Configuration> of = edit.add(configuration);
    const auto layers = plan(which);
    for (std::size_t i = 0; i < layers.size(); ++i) {
        Layer layer;
        layer.configuration = of;
        layer.position = static_cast<int>(i);
        layer.kind = layers[i].kind;
        layer.name = wording({layers[i].name, {}});
        layer.metal = layers[i].metal;
        if (layers[i].site) {
            Site site;
            site.configuration = of;
            site.kind = *layers[i].site;
            site.name = wording({layers[i].name, {}});
            site.lowerFace = faceBefore(layers, i);
            site.upperFace = faceAfter(layers, i);
            layer.site = edit.add(site);
        }
        edit.add(layer);
    }
    if (which == BenchTemplate::graphicsCard) {
        addExtraSite(edit, of, SiteKind::memory, 8, wording);
        addExtraSite(edit, of, SiteKind::powerStage, 12, wording);
    }
    addSensors(edit, of, which, wording);
    return id;
}

std::optional<Id<Configuration>> addVariant(Edit& edit, Id<Bench> bench, const std::string& name) {
    const Configuration* current = currentConfiguration(edit.document(), bench);
    if (!current) return std::nullopt;
    Configuration variant = *current;
    variant.id = {};
    variant.variantOf = current->id;
    variant.name = name;
    return edit.add(variant);
}

Id<Layer> addLayer(Edit& edit, const Layer& after, LayerKind kind) {
    std::vector<Layer> later;
    for (const Layer* layer : layersOf(edit.document(), after.configuration))
        if (layer->position > after.position) later.push_back(*layer);
    for (Layer& layer : later) {
        ++layer.position;
        edit.put(layer);
    }
    Layer layer;
    layer.configuration = after.configuration;
    layer.position = after.position + 1;
    layer.kind = kind;
    layer.name = word(kind);
    if (kind == LayerKind::interface) {
        Site site;
        site.configuration = after.configuration;
        site.name = layer.name;
        layer.site = edit.add(site);
    }
    return edit.add(layer);
}

void removeLayer(Edit& edit, Id<Layer> id) {
    const Layer* found = edit.document().find(id);
    if (!found || found->kind == LayerKind::chip || found->kind == LayerKind::room) return;
    const Layer layer = *found;
    edit.remove(id);
    if (layer.site) {
        const bool applied = !edit.document().where(&Application::site, *layer.site).empty();
        const bool asked = !edit.document().where(&Question::site, *layer.site).empty();
        if (!applied && !asked) edit.remove(*layer.site);
    }
    std::vector<Layer> later;
    for (const Layer* other : layersOf(edit.document(), layer.configuration))
        if (other->position > layer.position) later.push_back(*other);
    for (Layer& other : later) {
        --other.position;
        edit.put(other);
    }
}

} // namespace ibuki
