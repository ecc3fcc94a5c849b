// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is on the shelf: materials (a product) and lots (one tube or sheet of it).

#include "core/domain/id.h"
#include "core/quantity/instant.h"
#include "core/quantity/quantity.h"

#include <optional>
#include <string>

namespace ibuki {

enum class MaterialClass { paste, putty, gapPad, sheet, phaseChange, liquidMetal, solder, unknown };

struct Material {
    Id<Material> id;
    std::string name;
    MaterialClass kind = MaterialClass::paste;
    std::optional<WattPerMetreKelvin> claimedConductivity; ///< the label's word, never used to rank
    std::optional<double> densityGPerMl;
    std::optional<Millimetre> thickness; ///< pads and sheets
    std::optional<Celsius> melts;        ///< phase-change film
    bool conductsElectricity = false;
    bool containsGallium = false;
    bool reusable = false;
    std::string conditioning;
    std::string note;
    bool operator==(const Material&) const = default;
};

struct Lot {
    Id<Lot> id;
    Id<Material> material;
    std::string name;
    std::string supplier;
    std::optional<Instant> made;
    std::optional<Instant> bought;
    std::optional<Instant> opened;
    std::optional<Instant> expires;
    std::string storage;
    std::string condition;
    std::optional<double> content;   ///< as bought, in contentUnit
    std::optional<double> remaining; ///< in contentUnit
    std::string contentUnit = "g";
    std::optional<double> price;
    std::string currency;
    std::string note;
    bool operator==(const Lot&) const = default;
};

} // namespace ibuki
