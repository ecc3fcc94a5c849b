// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a bench is described at first: a stack of layers with the sites between them, to be edited afterwards.

#include "core/base/message.h"
#include "core/domain/bench.h"
#include "core/domain/edit.h"

#include <array>

namespace ibuki {

enum class BenchTemplate { liddedChip, bareDie, graphicsCard, laptop, heaterBlock };

struct BenchTemplateInfo {
    BenchTemplate which;
    std::string_view name;
};
extern const std::array<BenchTemplateInfo, 5> benchTemplates;
Message layersOf(const BenchTemplateInfo& info); ///< its layers in one line, for the choice

/// Adds the bench with one configuration, its layers, sites and the sensors such a rig usually logs.
/// wording: how the names that they begin with are told.
Id<Bench> addBench(Edit& edit, BenchTemplate which, const std::string& name,
                   const Wording& wording = plainly);

/// Adds a variant of the bench's current configuration for one level: another cooler, lid, fan or limit, the
/// same layers, sites and sensors. Nothing when the bench has no configuration.
std::optional<Id<Configuration>> addVariant(Edit& edit, Id<Bench> bench, const std::string& name);

/// Adds an interface with its site, or a plain layer, behind `after`; later layers move on by one.
Id<Layer> addLayer(Edit& edit, const Layer& after, LayerKind kind);

/// Removes a layer and, when no application refers to it, its site. Chip and room stay: nothing happens.
void removeLayer(Edit& edit, Id<Layer> layer);

} // namespace ibuki
