// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/shelf.h"

#include "core/base/input_error.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/mount.h"
#include "core/shelf/dose.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double msPerDay = 86'400'000;

/// What a volume is in the unit of a dispensed lot.
std::optional<double> inUnit(double volumeMm3, double densityGPerMl, ContentUnit unit) {
    if (unit == ContentUnit::gram) return volumeMm3 * 1e-3 * densityGPerMl;
    if (unit == ContentUnit::millilitre) return volumeMm3 * 1e-3;
    return std::nullopt;
}

std::optional<double> areaInUnit(double areaMm2, const Lot& lot) {
    const auto unit = areaPerUnit(lot);
    return unit ? std::optional(areaMm2 / *unit) : std::nullopt;
}

std::optional<Rating> meanOf(const std::vector<const Application*>& all,
                             std::optional<int> Application::*member) {
    Rating rating;
    for (const Application* application : all)
        if (const auto& given = application->*member) {
            rating.mean += *given;
            ++rating.count;
        }
    if (rating.count == 0) return std::nullopt;
    rating.mean /= rating.count;
    return rating;
}

std::optional<Money> times(const std::optional<Money>& money, std::optional<double> factor) {
    if (!money || !factor) return std::nullopt;
    return Money{money->amount * *factor, money->currency};
}

} // namespace

std::optional<double> areaPerUnit(const Lot& lot) {
    if (lot.contentUnit == ContentUnit::squareMillimetre) return 1;
    if (lot.contentUnit != ContentUnit::sheet || !lot.sheetWidth || !lot.sheetLength) return std::nullopt;
    return lot.sheetWidth->value * lot.sheetLength->value;
}

std::optional<double> massAppliedG(const Application& application) {
    if (application.syringeBefore && application.syringeAfter)
        return application.syringeBefore->value - application.syringeAfter->value;
    if (application.amount) return application.amount->value;
    return std::nullopt;
}

std::optional<double> cutAreaMm2(const Application& application) {
    if (application.area) return application.area->value;
    if (!application.pieceWidth || !application.pieceLength) return std::nullopt;
    return application.pieceWidth->value * application.pieceLength->value
           * std::max(1, application.layers.value_or(1));
}

std::optional<double> takenBy(const Application& application, const Lot& lot, const Material& material) {
    if (const auto area = cutAreaMm2(application)) return areaInUnit(*area, lot);
    const auto mass = massAppliedG(application);
    if (!mass) return std::nullopt;
    if (lot.contentUnit == ContentUnit::gram) return mass;
    if (lot.contentUnit == ContentUnit::millilitre) return *mass / factsOf(material).densityGPerMl.value;
    return std::nullopt;
}

LotState lotState(const Document& document, const Lot& lot, Instant now) {
    LotState state;
    const Material* material = document.find(lot.material);
    for (const Application* application : document.where(&Application::lot, std::optional(lot.id))) {
        const auto taken = material ? takenBy(*application, lot, *material) : std::nullopt;
        if (taken)
            state.taken += *taken;
        else
            ++state.silent;
    }
    std::optional<double> left;
    if (lot.remaining)
        left = *lot.remaining - (state.taken - lot.takenBefore);
    else if (lot.content)
        left = *lot.content - state.taken;
    if (left) {
        state.left = std::max(0.0, *left);
        state.overdrawn = std::max(0.0, -*left);
    }
    if (state.left && lot.content && *lot.content > 0)
        state.share = std::min(1.0, *state.left / *lot.content);
    const auto daysSince = [now](Instant then) { return static_cast<double>(now.ms - then.ms) / msPerDay; };
    if (lot.made || lot.bought) state.ageDays = daysSince(lot.made ? *lot.made : *lot.bought);
    if (lot.opened) state.openDays = daysSince(*lot.opened);
    state.expired = lot.expires && now > *lot.expires;
    return state;
}

std::optional<double> neededAt(const Material& material, const Lot& lot, const Site& site) {
    if (!site.width || !site.length) return std::nullopt;
    const double area = site.width->value * site.length->value * site.alike;
    if (isCut(material.kind)) return areaInUnit(area, lot);
    const MaterialFacts facts = factsOf(material);
    DoseInput input;
    input.widthMm = site.width->value;
    input.lengthMm = site.length->value;
    input.bondLineUm = facts.bondLineUm.value;
    input.densityGPerMl = facts.densityGPerMl.value;
    return inUnit(dose(input).volumeMm3 * site.alike, facts.densityGPerMl.value, lot.contentUnit);
}

bool tooLittleFor(const Document& document, const Lot& lot, const Site& site, Instant now) {
    const Material* material = document.find(lot.material);
    if (!material) return false;
    const auto needed = neededAt(*material, lot, site);
    const auto left = lotState(document, lot, now).left;
    return needed && left && *left < *needed;
}

std::optional<Money> convert(const Money& money, const std::string& currency, const Document& rates) {
    if (money.currency == currency) return money;
    for (const auto& [id, rate] : rates.all<ExchangeRate>()) {
        if (rate.rate <= 0) continue;
        if (rate.from == money.currency && rate.to == currency)
            return Money{money.amount * rate.rate, currency};
        if (rate.from == currency && rate.to == money.currency)
            return Money{money.amount / rate.rate, currency};
    }
    return std::nullopt;
}

std::optional<Money> sum(const std::vector<Money>& amounts, const std::string& currency,
                         const Document& rates) {
    Money total{0, currency};
    for (const Money& amount : amounts) {
        const auto converted = convert(amount, currency, rates);
        if (!converted) return std::nullopt;
        total.amount += converted->amount;
    }
    return total;
}

LotCost costOf(const Document& document, const Lot& lot, const Site* site, Instant now) {
    LotCost cost;
    const Material* material = document.find(lot.material);
    if (!material) return cost;
    const MaterialFacts facts = factsOf(*material);
    if (lot.price && lot.content && *lot.content > 0 && !lot.currency.empty())
        cost.perUnit = Money{*lot.price / *lot.content, lot.currency};
    if (lot.contentUnit == ContentUnit::gram) cost.perGram = cost.perUnit;
    if (lot.contentUnit == ContentUnit::millilitre)
        cost.perGram = times(cost.perUnit, 1 / facts.densityGPerMl.value);
    if (!site) return cost;
    const auto needed = neededAt(*material, lot, *site);
    if (!needed || *needed <= 0) return cost;
    cost.perApplication = times(cost.perUnit, needed);
    cost.perFaceMm2 =
        times(cost.perApplication, 1 / (site->width->value * site->length->value * site->alike));
    if (const auto left = lotState(document, lot, now).left)
        cost.applicationsLeft = static_cast<int>(std::floor(*left / *needed + 1e-9));
    if (facts.reapplyYears.value > 0)
        cost.tenYears = times(cost.perApplication, std::ceil(10 / facts.reapplyYears.value - 1e-9));
    return cost;
}

void checkLot(const Lot& lot) {
    if (lot.price && lot.currency.empty()) throw InputError("price-currency", {});
    for (const auto& side : {lot.sheetWidth, lot.sheetLength})
        if (side && !(side->value > 0)) throw InputError("shelf-value", {});
    for (const auto& value : {lot.content, lot.remaining, lot.price})
        if (value && !(*value >= 0)) throw InputError("shelf-value.amount", {});
}

Ratings ratingsOf(const Document& document, Id<Material> material) {
    std::vector<const Application*> all;
    for (const auto& [id, application] : document.all<Application>())
        if (const Lot* lot = document.find(application.lot); lot && lot->material == material)
            all.push_back(&application);
    Ratings ratings{meanOf(all, &Application::spreads), meanOf(all, &Application::staysPut),
                    meanOf(all, &Application::comesOff), meanOf(all, &Application::cleansUp)};
    // Of a look the effort counts where nothing was stated of its application: 1 comes off best, as 5 of a
    // rating.
    for (const auto& [id, look] : document.all<JointInspection>()) {
        const Application* application =
            look.effort ? applicationAt(document, look.mount, look.site) : nullptr;
        if (!application || application->comesOff
            || std::find(all.begin(), all.end(), application) == all.end())
            continue;
        Rating& rating = ratings.comesOff ? *ratings.comesOff : ratings.comesOff.emplace();
        ++rating.count;
        rating.mean += (6 - *look.effort - rating.mean) / rating.count;
    }
    return ratings;
}

} // namespace ibuki
