// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The rig: a bench, its dated configurations, the layers of the heat path, the sites a material can take and
// the sensors that read it. A configuration is what stays the same during a comparison.

#include "core/base/id.h"
#include "core/base/yes_no.h"
#include "core/quantity/instant.h"
#include "core/quantity/quantity.h"
#include "core/trace/role.h"

#include <optional>
#include <string>

namespace ibuki {

struct Bench {
    Id<Bench> id;
    std::string name;
    std::string note;
    bool operator==(const Bench&) const = default;
};

enum class LidState { lidded, bareDie, noChip };
enum class FanSetting { fixed, automatic, none };

struct Configuration {
    Id<Configuration> id;
    Id<Bench> bench;
    std::string name;
    std::optional<Instant> since;
    std::optional<Id<Configuration>>
        variantOf; ///< differs from it as a level asks; layers, sites, sensors are its
    std::string cooler;
    FanSetting fan = FanSetting::fixed;
    std::string fanNote;
    LidState lid = LidState::lidded;
    YesNo pinsOnChip = YesNo::notStated;      ///< a stuck cooler can pull the chip out by its pins
    std::optional<Newton> mountForce;         ///< of all screws together
    std::optional<Millimetre> plateThickness; ///< of the backplate
    std::optional<Millimetre> plateRadius;    ///< to its screws
    std::optional<double> slowestMinutes;     ///< time constant of the slowest part, min
    std::optional<Watt> powerLimit;
    std::optional<Celsius> temperatureLimit; ///< belongs to the metric's channel; never guessed as a default
    std::optional<Kelvin> ambientGradient;   ///< the room differs around the bench by ± this
    std::optional<Celsius> stopAbove;        ///< the load is stopped when any chip temperature is above it
    bool operator==(const Configuration&) const = default;
};

enum class SiteKind { dieLid, lidPlate, diePlate, memory, powerStage, backplate };
enum class Metal { unknown, copper, nickelOnCopper, aluminium, silicon, steel, other };

/// A place in the heat path that takes a material: two faces, their metal and size, how many alike, the gap.
struct Site {
    Id<Site> id;
    Id<Configuration> configuration;
    std::string name;
    SiteKind kind = SiteKind::lidPlate;
    Metal lowerFace = Metal::unknown; ///< towards the chip
    Metal upperFace = Metal::unknown; ///< towards the cooler
    std::string finish;
    std::optional<Millimetre> width;
    std::optional<Millimetre> length;
    std::optional<Millimetre> gap;
    int alike = 1;
    YesNo contactsNear = YesNo::notStated;  ///< capacitors or open contacts beside it
    YesNo aluminiumNear = YesNo::notStated; ///< any aluminium that a squeezed-out drop can reach
    bool operator==(const Site&) const = default;
};

enum class LayerKind { chip, interface, lid, plate, cooler, room };

/// One block of the heat-path strip, chip first, room last.
struct Layer {
    Id<Layer> id;
    Id<Configuration> configuration;
    int position = 0;
    LayerKind kind = LayerKind::chip;
    std::string name;
    Metal metal = Metal::unknown;
    std::optional<Millimetre> width;
    std::optional<Millimetre> length;
    std::optional<Millimetre> thickness;
    std::optional<WattPerMetreKelvin> conductivity;
    std::optional<Id<Site>> site; ///< only of an interface
    bool operator==(const Layer&) const = default;
};

struct Sensor {
    Id<Sensor> id;
    Id<Configuration> configuration;
    Role role = Role::ignore;
    int index = 0;
    std::string column; ///< header of the log column it is read from
    std::string reads;  ///< the layer or place it reads
    std::optional<Kelvin> accuracy;
    std::optional<Kelvin> resolution;
    std::optional<Kelvin> offset;
    std::optional<double> accuracyShare; ///< of the reading, for powers: 0.02 is ± 2 %
    std::optional<double> lagS;          ///< time constant of a room probe, s
    std::optional<Kelvin> noise;         ///< standard deviation from sample to sample at rest
    bool operator==(const Sensor&) const = default;
};

/// Where a bench's readings come from while it is recorded, in order; the first one's clock counts.
struct BenchSource {
    Id<BenchSource> id;
    Id<Bench> bench;
    int position = 0;
    std::string spec; ///< as live/source.h has it: "hwmon", "follow:FILE", …
    bool operator==(const BenchSource&) const = default;
};

} // namespace ibuki
