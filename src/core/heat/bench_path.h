// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The heat path of a configuration as the document describes it: stated sizes, metals and resistances where
// there are some, usual ones elsewhere, each of them marked as assumed (docs/methods.md H.7).

#include "core/base/message.h"
#include "core/domain/bench.h"
#include "core/domain/document.h"
#include "core/domain/material.h"
#include "core/domain/mount.h"
#include "core/physics/heat_path.h"

namespace ibuki {

/// Where a layer of the document stands in the path.
struct PathPlace {
    Id<Layer> layer;
    LayerKind kind = LayerKind::chip;
    std::optional<std::size_t> solid;     ///< index into the path's solids
    std::optional<std::size_t> interface; ///< or into its interfaces; a cooler and the room have neither
    bool isAssumed = false;               ///< something of it is not stated
};

struct BenchPath {
    HeatPath path;                      ///< power, room and cooler are for the caller to fill
    std::vector<PathPlace> places;      ///< chip first, room last
    std::optional<std::size_t> studied; ///< the interface at the site asked for
    MaterialClass studiedClass = MaterialClass::unknown; ///< of what lies there, where it is known
    std::vector<Message> assumed;                        ///< what was not stated, one a layer
    std::optional<Message> reason;                       ///< when the layers make no path
};

/// R″ of a material where it is pressed, mm²·K/W: as stated, else bond line over conductivity plus contacts
/// as is usual for its class. A label's conductivity is no part of it.
struct MaterialResistance {
    double mm2KPerW = 0;
    double bondLineUm = 0;
    bool isAssumed = false;
};
MaterialResistance resistanceOf(const Material* material);
/// Of a soldered joint as it is usual, under a lid of which nothing is stated.
double solderMm2KPerW();

/// What a metal stores, ρc, J/(cm³·K) (the same table).
double heatOf(Metal metal);

/// What a metal conducts, W/(m·K) (docs/methods.md, "Typical values"); silicon at 300 K.
double conductivityOf(Metal metal);

/// mount: whose materials lie at the sites; may be nullptr.
BenchPath benchPath(const Document& document, Id<Configuration> configuration,
                    std::optional<Id<Site>> studied, const Mount* mount);

} // namespace ibuki
