// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/shelf_age.h"

#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/evidence/run_rows.h"
#include "core/quantity/span.h"
#include "core/series/straight_line.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

constexpr double msPerYear = hoursPerYear * msPerHour;

std::optional<double> yearsBetween(const std::optional<Instant>& from, const std::optional<Instant>& to) {
    if (!from || !to || *to < *from) return std::nullopt;
    return static_cast<double>(to->ms - from->ms) / msPerYear;
}

/// In order of their ids.
std::vector<MountFigure> freshMounts(const Document& document, const Question& question) {
    const auto rows = runRows(document, question);
    auto figures = mountFigures(rows, comparedLoad(document, rows, question), {});
    std::sort(figures.begin(), figures.end(),
              [](const MountFigure& a, const MountFigure& b) { return a.mount < b.mount; });
    return figures;
}

std::vector<LotFigures> lotsOf(const Document& document, const Question& question) {
    std::map<Id<Lot>, LotFigures> found;
    for (const MountFigure& figure : freshMounts(document, question)) {
        const Id<Mount> id = figure.mount;
        const Application* application = applicationAt(document, id, question.site);
        const Lot* lot = application ? document.find(application->lot) : nullptr;
        const Material* material = lot ? document.find(lot->material) : nullptr;
        const Mount* mount = document.find(id);
        if (!material || !mount) continue;
        LotFigures& own = found[lot->id];
        if (own.name.empty())
            own = {lot->id,
                   lot->name,
                   material->name,
                   lot->condition,
                   yearsBetween(lot->made ? lot->made : lot->bought, mount->at),
                   yearsBetween(lot->opened, mount->at),
                   {},
                   {},
                   {},
                   0};
        if (figure.censored)
            ++own.boundMounts;
        else
            own.mountsK.push_back(figure.value);
        if (figure.clockMHz) own.clocks.push_back(*figure.clockMHz);
        if (figure.powerW) own.powers.push_back(*figure.powerW);
    }
    std::vector<LotFigures> lots;
    for (auto& [id, one] : found) lots.push_back(std::move(one));
    std::stable_sort(lots.begin(), lots.end(), [](const LotFigures& a, const LotFigures& b) {
        return std::pair(a.material, a.madeYears.value_or(0))
               < std::pair(b.material, b.madeYears.value_or(0));
    });
    return lots;
}

/// Mean lots over their age, an intercept a material.
void tellSlope(ShelfAge& reported) {
    struct Points {
        std::vector<double> years, meanK;
    };
    std::map<std::string, Points> byMaterial;
    std::size_t count = 0;
    for (const LotFigures& lot : reported.lots)
        if (lot.madeYears && lot.meanK()) {
            byMaterial[lot.material].years.push_back(*lot.madeYears);
            byMaterial[lot.material].meanK.push_back(*lot.meanK());
            ++count;
        }
    StraightLine line;
    for (const auto& [material, points] : byMaterial) line.add(points.years, points.meanK);
    if (line.spread() < 1e-6) return;
    reported.kelvinPerYear = line.slope();
    reported.few = count < 3 || line.df() < 1;
    if (!reported.few) reported.interval = line.slopeInterval(0.95);
}

/// Difference of means with a pooled spread.
std::optional<Interval> intervalOf(const std::vector<double>& a, const std::vector<double>& b) {
    if (a.size() < 2 || b.size() < 2) return std::nullopt;
    const double df = static_cast<double>(a.size() + b.size()) - 2;
    const double variance = (sumOfSquares(a) + sumOfSquares(b)) / df;
    const double se =
        std::sqrt(variance * (1 / static_cast<double>(a.size()) + 1 / static_cast<double>(b.size())));
    return studentInterval(mean(a) - mean(b), se, df, 0.95);
}

OldAgainstNew compareLots(const std::vector<LotFigures>& lots, std::size_t old, std::size_t fresh) {
    OldAgainstNew pair{old, fresh, {}, {}, {}, {}, {}};
    const LotFigures& a = lots[old];
    const LotFigures& b = lots[fresh];
    if (a.boundMounts == 0 && b.boundMounts == 0 && a.meanK() && b.meanK()) {
        pair.differenceK = *a.meanK() - *b.meanK();
        pair.intervalK = intervalOf(a.mountsK, b.mountsK);
    }
    if (a.boundMounts + b.boundMounts == 0) return pair;
    if (!a.clocks.empty() && !b.clocks.empty()) {
        const double base = mean(b.clocks);
        pair.clockShare = mean(a.clocks) / base - 1;
        if (const auto interval = intervalOf(a.clocks, b.clocks))
            pair.clockInterval = Interval{interval->lo / base, interval->hi / base};
    }
    if (!a.powers.empty() && !b.powers.empty()) pair.powerShare = mean(a.powers) / mean(b.powers) - 1;
    return pair;
}

void tellPair(const ShelfAge& shelf, const OldAgainstNew& pair, std::vector<Message>& reported) {
    const LotFigures& old = shelf.lots[pair.old];
    const Fields who{{"lot", old.name},
                     {"new", shelf.lots[pair.fresh].name},
                     {"age", spanMessage(*old.madeYears * hoursPerYear)}};
    /// A signed figure told as so much less or more.
    const auto add = [&](const char* more, const char* less, const char* what, double value,
                         const std::optional<Interval>& interval) {
        const double sign = value < 0 ? -1 : 1;
        Fields fields = who;
        fields.push_back({what, sign * value});
        if (interval) {
            fields.push_back({"lo", sign < 0 ? -interval->hi : interval->lo});
            fields.push_back({"hi", sign < 0 ? -interval->lo : interval->hi});
        }
        reported.push_back({value < 0 ? less : more, std::move(fields)});
    };
    const auto percent = [](const std::optional<Interval>& share) {
        return share ? std::optional(Interval{100 * share->lo, 100 * share->hi}) : std::nullopt;
    };
    if (pair.differenceK && pair.intervalK)
        add("shelf-age.hotter", "shelf-age.cooler", "difference", *pair.differenceK, pair.intervalK);
    else if (pair.differenceK)
        add("shelf-age.hotter-about", "shelf-age.cooler-about", "difference", *pair.differenceK, {});
    if (pair.clockShare && pair.clockInterval)
        add("shelf-age.more-clock", "shelf-age.less-clock", "percent", 100 * *pair.clockShare,
            percent(pair.clockInterval));
    else if (pair.clockShare)
        add("shelf-age.more-clock-about", "shelf-age.less-clock-about", "percent", 100 * *pair.clockShare,
            {});
    if (pair.powerShare && !pair.clockShare)
        add("shelf-age.more-power", "shelf-age.less-power", "percent", 100 * *pair.powerShare, {});
}

} // namespace

std::optional<double> LotFigures::meanK() const {
    return mountsK.empty() ? std::nullopt : std::optional(mean(mountsK));
}

ShelfAge shelfAge(const Document& document, const Question& question) {
    ShelfAge shelf;
    shelf.lots = lotsOf(document, question);
    tellSlope(shelf);
    for (std::size_t from = 0; from < shelf.lots.size();) {
        std::size_t to = from;
        while (to < shelf.lots.size() && shelf.lots[to].material == shelf.lots[from].material) ++to;
        if (to - from > 1 && shelf.lots[to - 1].madeYears && shelf.lots[from].madeYears
            && *shelf.lots[to - 1].madeYears > *shelf.lots[from].madeYears)
            shelf.pairs.push_back(compareLots(shelf.lots, to - 1, from));
        from = to;
    }
    for (const OldAgainstNew& pair : shelf.pairs) tellPair(shelf, pair, shelf.reported);
    if (shelf.interval)
        shelf.reported.push_back(
            {"shelf-age.slope",
             {{"slope", *shelf.kelvinPerYear}, {"lo", shelf.interval->lo}, {"hi", shelf.interval->hi}}});
    else if (shelf.kelvinPerYear)
        shelf.reported.push_back({"shelf-age.few", {{"slope", *shelf.kelvinPerYear}}});
    if (shelf.reported.empty()) shelf.reported.push_back({"shelf-age.none", {}});
    return shelf;
}

} // namespace ibuki
