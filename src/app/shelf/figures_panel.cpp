// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/figures_panel.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/shelf_items.h"
#include "core/domain/words.h"

#include <QGridLayout>

namespace ibuki {
namespace {

const QString nothing = "–";

template <class T> QString marked(const Known<T>& known, const QString& text) {
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

} // namespace

FiguresPanel::FiguresPanel(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), grid_(new QGridLayout(this)) {
    grid_->setContentsMargins(2, 2, 2, 2);
    grid_->setHorizontalSpacing(14);
    grid_->setVerticalSpacing(5);
    setObjectName("Figures");
}

std::vector<FiguresPanel::Line> FiguresPanel::lines(const std::vector<Thing>& things,
                                                    const Site* site) const {
    std::vector<Line> all;
    for (std::size_t i = 0; i < things.size(); ++i) {
        const Material* material = session_.document().find(things[i].material);
        if (!material) continue;
        const Lot* lot = session_.document().find(things[i].lot);
        for (const auto& figure : said(session_.document(), *material, lot, site, session_.now())) {
            auto found = std::find_if(all.begin(), all.end(),
                                      [&](const Line& line) { return line.name == figure.first; });
            if (found == all.end()) {
                all.push_back({figure.first, {}});
                found = std::prev(all.end());
            }
            while (found->values.size() < static_cast<int>(i)) found->values << nothing;
            found->values << figure.second;
        }
    }
    return all;
}

void FiguresPanel::show(const std::vector<Thing>& things, const Site* site) {
    while (QLayoutItem* item = grid_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    int row = 0;
    if (things.size() > 1) {
        for (std::size_t i = 0; i < things.size(); ++i) {
            const Material* material = session_.document().find(things[i].material);
            const Lot* lot = session_.document().find(things[i].lot);
            if (material)
                grid_->addWidget(cardTitle(qtext(lot ? lot->name : material->name)), 0,
                                 static_cast<int>(i) + 1);
        }
        ++row;
    }
    for (const Line& line : lines(things, site)) {
        grid_->addWidget(quietLabel(line.name), row, 0, Qt::AlignTop);
        for (int i = 0; i < line.values.size(); ++i) {
            auto* value = new QLabel(line.values[i]);
            value->setWordWrap(true);
            value->setTextInteractionFlags(Qt::TextSelectableByMouse);
            value->setAccessibleName(line.name);
            grid_->addWidget(value, row, i + 1, Qt::AlignTop);
        }
        ++row;
    }
    if (!site) {
        grid_->addWidget(quietLabel(say("Prices per application need a site with a size: see the bench.")),
                         row++, 0, 1, static_cast<int>(things.size()) + 1);
    }
    grid_->setRowStretch(row, 1);
    grid_->setColumnStretch(0, 2);
    for (std::size_t i = 0; i < things.size(); ++i) grid_->setColumnStretch(static_cast<int>(i) + 1, 3);
}

} // namespace ibuki
