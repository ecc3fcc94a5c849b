// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chances_page.h"

#include "app/drawn/theme.h"
#include "app/question/chance_grid.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "store/paper/sentences.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {
namespace {

QString scatterText(const Scatter& scatter, std::string_view unit) {
    const QString sd = qtext(amountText(scatter.sd, unit));
    switch (scatter.source) {
    case ScatterSource::stated:
        return sd + say(", as stated");
    case ScatterSource::finishedStudies:
        return sayMany("%1 from {count} finished study on this bench (%2 degrees of freedom, 95 % interval "
                       "%3 to %4)",
                       "%1 from {count} finished studies on this bench (%2 degrees of freedom, 95 % interval "
                       "%3 to "
                       "%4)",
                       scatter.studies)
            .arg(sd)
            .arg(*scatter.df)
            .arg(scatter.ci->lo, 0, 'f', unit == "K" ? 2 : 5)
            .arg(scatter.ci->hi, 0, 'f', unit == "K" ? 2 : 5);
    case ScatterSource::usual:
        return sd + say(", usual for these classes; no finished study on this bench tells yet");
    }
    return sd;
}

QString row(const QString& name, const QString& value) {
    return QString("<tr><td style='padding-right:14px'>%1</td><td>%2</td></tr>")
        .arg(name.toHtmlEscaped(), value.toHtmlEscaped());
}

} // namespace

ChancesPage::ChancesPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      title_(cardTitle({})),
      grid_(new ChanceGrid),
      pair_(quietLabel()),
      figures_(new QLabel),
      helps_(new QLabel) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(18, 14, 18, 14);
    left->addWidget(title_);
    left->addWidget(grid_, 1);
    left->addWidget(pair_);
    columns->addWidget(card(left), 3);
    auto* right = new QVBoxLayout;
    figures_->setTextFormat(Qt::RichText);
    figures_->setWordWrap(true);
    figures_->setAccessibleName(say("What the plan costs"));
    helps_->setWordWrap(true);
    helps_->setAccessibleName(say("What would help"));
    auto* form = new QFormLayout;
    form_ = std::make_unique<EntityForm<Plan>>(session, form, words::mark("plan"));
    form_->number(say("Scatter between mounts, K"), &Plan::statedScatter, 0, true);
    form_->requiredNumber(
        say("Chance wanted, %"), [](const Plan& p) { return 100 * p.chance; },
        [](Plan& p, double v) { p.chance = v / 100; }, 1, false, 100);
    right->addWidget(figures_);
    right->addLayout(form);
    right->addWidget(helps_);
    right->addStretch(1);
    right->setContentsMargins(18, 14, 18, 14);
    auto* frame = new QVBoxLayout;
    frame->setContentsMargins(0, 0, 0, 0);
    frame->addWidget(scrolled(right));
    columns->addWidget(card(frame), 2);
    connect(grid_, &ChanceGrid::pairMeant, pair_, &QLabel::setText);
}

void ChancesPage::refresh(const PlanFigures& figures) {
    const Question* question = session_.question();
    if (!question) return;
    const Plan* stored = planOf(session_.document(), question->study);
    form_->show(stored ? std::optional(stored->id) : std::nullopt);
    if (!figures.outlook) {
        title_->setText(say("No plan yet"));
        grid_->clear();
        pair_->setText(figures.whyNot);
        figures_->clear();
        helps_->clear();
        return;
    }
    const QString margin = qtext(amountText(question->margin.value, responseUnit(*question)));
    title_->setText(question->goal == Goal::difference
                        ? say("Chance to tell a pair apart that differs by ") + margin
                        : say("Chance to show that a pair is the same within ") + margin);
    if (figures.outlook->isChange)
        title_->setText(say("One level, seen again later: the change inside each mount counts"));
    grid_->show(*figures.outlook, question->goal);
    pair_->setText(
        say("Names with their mounts; every cell is a pair. Fewer mounts of a level, smaller chances."));
    fillFigures(*figures.outlook, *question, figures.plan);
}

void ChancesPage::fillFigures(const Outlook& outlook, const Question& question, const Plan& plan) {
    const std::string_view unit = responseUnit(question);
    QString html = "<table>";
    html += row(say("Scatter between mounts"), scatterText(outlook.scatter, unit));
    if (outlook.anyChance && question.goal == Goal::difference)
        html += row(say("To notice that any of them differs"),
                    QString("%1 %").arg(100 * *outlook.anyChance, 0, 'f', 0));
    if (outlook.cautiousChance)
        html += row(say("At the cautious end of it"),
                    QString("%1 %").arg(100 * *outlook.cautiousChance, 0, 'f', 0));
    html += row(say("For a chance of %1 %").arg(100 * plan.chance, 0, 'f', 0),
                outlook.neededMounts ? say("%1 mounts of each").arg(*outlook.neededMounts)
                                     : say("more mounts than anybody makes"));
    html += row(say("Hands on"), say("%1 h of %2 h on the bench")
                                     .arg(outlook.schedule.handsMinutes / 60, 0, 'f', 1)
                                     .arg(outlook.schedule.benchMinutes / 60, 0, 'f', 1));
    if (!outlook.schedule.evenings.empty())
        html += row(say("Last evening"), qtext(dateText(outlook.schedule.evenings.back().start)));
    for (const MaterialNeed& need : outlook.needs) {
        const Material* material = session_.document().find(need.material);
        if (!material) continue;
        const QString unitText = sayTerm(word(need.unit));
        QString text = need.known
                           ? QString("%1 %2")
                                 .arg(need.amount, 0, 'f', need.unit == ContentUnit::squareMillimetre ? 0 : 2)
                                 .arg(unitText)
                           : say("dose not known: state the site's size and a lot");
        if (need.left)
            text += say(" of %1 %2 left")
                        .arg(*need.left, 0, 'f', need.unit == ContentUnit::squareMillimetre ? 0 : 1)
                        .arg(unitText);
        if (need.cost) text += ", " + moneyText(*need.cost);
        html += row(qtext(material->name), text);
    }
    figures_->setText(html + "</table>");
    QStringList words;
    for (const Message& note : outlook.notes) words << "▸ " + sayText(note) + ".";
    if (!outlook.resolvable) {
        words << say("%1 mounts of each would not do. What would help:").arg(sensibleMounts);
        for (const Improvement& help : outlook.improvements)
            words << QString("▸ %1: %2 (%3).")
                         .arg(sayText(help.what),
                              help.mountsPerLevel ? say("%1 mounts of each").arg(*help.mountsPerLevel)
                                                  : say("still not enough alone"),
                              sayText(help.assumption));
    }
    helps_->setText(words.join("\n"));
    helps_->setVisible(!words.isEmpty());
}

} // namespace ibuki
