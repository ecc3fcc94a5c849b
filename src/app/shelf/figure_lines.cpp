// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/figure_lines.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/domain/words.h"
#include "core/shelf/shelf.h"

namespace ibuki {
namespace {

const QString nothing = "–";

template <class T> QString marked(const ValueOrDefault<T>& known, const QString& text) {
    return known.isDefault ? say("%1 (usual)").arg(text) : text;
}

QString ratingText(const std::optional<Rating>& rating) {
    return rating ? sayMany("%1 of 5, {count} mount", "%1 of 5, {count} mounts", rating->count)
                        .arg(rating->mean, 0, 'f', 1)
                  : nothing;
}

QString money(const std::optional<Money>& amount) { return amount ? moneyText(*amount) : nothing; }

/// Everything said about one thing, name by name, in the same order for all.
QList<std::pair<QString, QString>> said(const Document& document, const Material& material, const Lot* lot,
                                        const Site* site, Instant now) {
    const MaterialFacts facts = factsOf(material);
    QList<std::pair<QString, QString>> list;
    list << std::pair{say("Class"), sayTerm(word(material.kind))};
    list << std::pair{say("Claim"),
                      material.claimedConductivity
                          ? say("label says %1 W/(m·K)").arg(material.claimedConductivity->value)
                          : nothing};
    list << std::pair{isCut(material.kind) ? say("Thickness") : say("Bond line"),
                      marked(facts.bondLineUm, QString("%1 µm").arg(facts.bondLineUm.value))};
    list << std::pair{say("Density"),
                      marked(facts.densityGPerMl, say("%1 g/mL").arg(facts.densityGPerMl.value))};
    list << std::pair{say("May be used"),
                      marked(facts.maxC, say("%1 to %2 °C").arg(facts.minC.value).arg(facts.maxC.value))};
    if (lot) {
        const LotState state = lotState(document, *lot, now);
        const LotCost cost = costOf(document, *lot, site, now);
        list << std::pair{say("Supplier"), lot->supplier.empty() ? nothing : qtext(lot->supplier)};
        list << std::pair{
            say("Left"), state.left
                             ? contentText(*state.left, lot->contentUnit)
                                   + (state.share ? QString(", %1 %").arg(100 * *state.share, 0, 'f', 0) : "")
                             : nothing};
        list << std::pair{say("Opened"),
                          state.openDays ? say("%1 ago").arg(spanText(*state.openDays)) : say("not opened")};
        list << std::pair{say("On opening"), sayTerm(word(lot->condition))};
        list << std::pair{say("Price per g"), money(cost.perGram)};
        list << std::pair{say("Price per mm² of face"), money(cost.perFaceMm2)};
        list << std::pair{say("Price per application"), money(cost.perApplication)};
        list << std::pair{say("Applications left"),
                          cost.applicationsLeft ? QString::number(*cost.applicationsLeft) : nothing};
        list << std::pair{say("Over ten years"),
                          cost.tenYears ? moneyText(*cost.tenYears)
                                              + marked(facts.reapplyYears,
                                                       say(", every %1 years").arg(facts.reapplyYears.value))
                                        : nothing};
    }
    const Ratings ratings = ratingsOf(document, material.id);
    list << std::pair{say("Spreads"), ratingText(ratings.spreads)};
    list << std::pair{say("Stays put"), ratingText(ratings.staysPut)};
    list << std::pair{say("Comes off"), ratingText(ratings.comesOff)};
    list << std::pair{say("Cleans up"), ratingText(ratings.cleansUp)};
    return list;
}

/// Puts the figures of the thing at `place` beside those of the things before it.
void add(std::vector<FigureLine>& all, const QList<std::pair<QString, QString>>& figures, int place) {
    for (const auto& [name, value] : figures) {
        auto found = std::find_if(all.begin(), all.end(),
                                  [&, &name = name](const FigureLine& line) { return line.name == name; });
        if (found == all.end()) found = all.insert(all.end(), {name, {}});
        while (found->values.size() < place) found->values << nothing;
        found->values << value;
    }
}

} // namespace

FigureTable figureTable(const Document& document, const std::vector<ShelfThing>& things, const Site* site,
                        Instant now) {
    FigureTable reported;
    reported.lacksSite = !site;
    int place = 0;
    for (const ShelfThing& thing : things) {
        const Material* material = document.find(thing.material);
        const Lot* lot = document.find(thing.lot);
        if (!material) continue;
        if (things.size() > 1) reported.heads << qtext(lot ? lot->name : material->name);
        add(reported.lines, said(document, *material, lot, site, now), place++);
    }
    for (FigureLine& line : reported.lines)
        while (line.values.size() < place) line.values << nothing;
    return reported;
}

} // namespace ibuki
