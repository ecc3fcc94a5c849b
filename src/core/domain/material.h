// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is on the shelf: materials (a product) and lots (one tube or sheet of it).

#include "core/base/id.h"
#include "core/base/yes_no.h"
#include "core/quantity/instant.h"
#include "core/quantity/quantity.h"

#include <optional>
#include <string>

namespace ibuki {

enum class ContentUnit { gram, millilitre, squareMillimetre, sheet };

enum class MaterialClass { paste, putty, gapPad, sheet, phaseChange, liquidMetal, solder, unknown };

struct Material {
    Id<Material> id;
    std::string name;
    MaterialClass kind = MaterialClass::paste;
    std::optional<WattPerMetreKelvin> claimedConductivity; ///< the label's word, never used to rank
    std::optional<double> densityGPerMl;
    std::optional<Micrometre> bondLine;  ///< pastes and films, pressed
    std::optional<Millimetre> thickness; ///< pads and sheets, as bought
    std::optional<double> yieldPa;       ///< yield stress
    std::optional<double> viscosityPaS;
    std::optional<double> modulusMPa; ///< of a pad: strain at pressure
    std::optional<Celsius> coldest;   ///< range in which it may be used
    std::optional<Celsius> hottest;
    std::optional<Celsius> melts; ///< phase-change film
    YesNo conductsElectricity = YesNo::notStated;
    YesNo containsGallium = YesNo::notStated;
    YesNo reusable = YesNo::notStated;
    std::optional<int> conditioningCycles; ///< between the two temperatures, then a rest
    std::optional<Celsius> conditioningLow;
    std::optional<Celsius> conditioningHigh;
    std::optional<Hour> conditioningRest;
    std::optional<double> reapplyYears;   ///< how long an application lasts in use
    std::optional<double> statedMm2KPerW; ///< R″ where it is pressed, from a sheet or a measurement elsewhere
    std::string conditioning;
    std::string note;
    bool operator==(const Material&) const = default;
};

/// What one can buy of it.
struct Package {
    Id<Package> id;
    Id<Material> material;
    double content = 0; ///< in unit
    ContentUnit unit = ContentUnit::gram;
    double price = 0;
    std::string currency; ///< always stated with a price
    std::string note;
    bool operator==(const Package&) const = default;
};

enum class LotCondition { notStated, even, oily, dry, cracked };

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
    LotCondition condition = LotCondition::notStated; ///< on opening
    std::optional<double> content;                    ///< as bought, in contentUnit
    std::optional<double> remaining;                  ///< as last weighed or measured, in contentUnit
    double takenBefore = 0; ///< what mounts had taken when that was stated, in contentUnit
    ContentUnit contentUnit = ContentUnit::gram;
    std::optional<Millimetre> sheetWidth; ///< of one whole sheet
    std::optional<Millimetre> sheetLength;
    std::optional<double> price;
    std::string currency;
    std::string note;
    bool operator==(const Lot&) const = default;
};

/// What is left of a sheet after cutting, worth keeping.
struct Offcut {
    Id<Offcut> id;
    Id<Lot> lot;
    Millimetre width;
    Millimetre length;
    bool used = false;
    bool operator==(const Offcut&) const = default;
};

/// A picture of a lot, as it came from the camera or scaled down. Its bytes stay in the project file, under
/// their digest.
struct LotPicture {
    Id<LotPicture> id;
    Id<Lot> lot;
    std::string fileName;
    std::string sha256;
    std::int64_t bytes = 0;
    bool operator==(const LotPicture&) const = default;
};

/// A rate the user gave: one unit of `from` is worth `rate` units of `to`.
struct ExchangeRate {
    Id<ExchangeRate> id;
    std::string from;
    std::string to;
    double rate = 0;
    bool operator==(const ExchangeRate&) const = default;
};

} // namespace ibuki
