// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The arithmetic of the shelf: what is left of a lot, how old it is, what an application costs and how many
// there are in it, how the hands rated a material. Core has no clock: `now` comes from the caller.

#include "core/domain/document.h"
#include "core/domain/mount.h"
#include "core/shelf/class_defaults.h"

namespace ibuki {

/// Grams of an application: the two weighings, else the amount stated.
std::optional<double> massAppliedG(const Application& application);

/// mm² in one of the lot's units; nothing for what is dispensed, and for sheets of unknown size.
std::optional<double> areaPerUnit(const Lot& lot);

/// Of a pad, sheet or film that was cut: its area, or that of its sides; nothing where neither is stated.
std::optional<double> cutAreaMm2(const Application& application);

/// In the lot's unit; nothing when the application does not say.
std::optional<double> takenBy(const Application& application, const Lot& lot, const Material& material);

struct LotState {
    std::optional<double> left;     ///< in the lot's unit, not below 0
    std::optional<double> share;    ///< of the content as bought, 0 to 1
    double taken = 0;               ///< by all applications that say how much
    double overdrawn = 0;           ///< how much more was taken than was there
    int silent = 0;                 ///< applications that do not
    std::optional<double> ageDays;  ///< since made, else since bought
    std::optional<double> openDays; ///< since opened
    bool expired = false;
};

LotState lotState(const Document& document, const Lot& lot, Instant now);

/// What the next application at the site takes, in the lot's unit: the dose with the usual allowance for what
/// is dispensed, the faces' area for what is cut, all alike pieces together. Nothing without the site's size.
std::optional<double> neededAt(const Material& material, const Lot& lot, const Site& site);

/// Less is left than the site needs.
bool tooLittleFor(const Document& document, const Lot& lot, const Site& site, Instant now);

struct Money {
    double amount = 0;
    std::string currency;
};

/// The sum in one currency; nothing when a rate is missing that the user would have to give. Amounts in
/// different currencies are never added without one.
std::optional<Money> sum(const std::vector<Money>& amounts, const std::string& currency,
                         const Document& rates);
std::optional<Money> convert(const Money& money, const std::string& currency, const Document& rates);

struct LotCost {
    std::optional<Money> perUnit; ///< per g, mL, mm² or sheet
    std::optional<Money> perGram;
    std::optional<Money> perFaceMm2; ///< of the site's face
    std::optional<Money> perApplication;
    std::optional<int> applicationsLeft;
    std::optional<Money> tenYears; ///< an application now and whenever the material is due again
};

/// site may be nullptr: then only what needs none.
LotCost costOf(const Document& document, const Lot& lot, const Site* site, Instant now);

/// Throws InputError (price-currency) for a price without a currency, (shelf-value) for a negative content,
/// price or remaining amount.
void checkLot(const Lot& lot);

struct Rating {
    double mean = 0;
    int count = 0;
};

/// Means over the applications that were rated; a member is nothing when none was.
struct Ratings {
    std::optional<Rating> spreads, staysPut, comesOff, cleansUp;
};
Ratings ratingsOf(const Document& document, Id<Material> material);

} // namespace ibuki
