// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chances_page.h"

#include "app/drawn/theme.h"
#include "app/question/chance_curve.h"
#include "app/question/chance_grid.h"
#include "app/question/chance_lines.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "store/paper/sentences.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {
namespace {

bool pairsDiffer(const PowerAnalysis& analysis) {
    const auto& pairs = analysis.pairs;
    return std::any_of(pairs.begin(), pairs.end(), [&](const PairChance& pair) {
        return std::abs(pair.different - pairs.front().different) > 0.005
               || std::abs(pair.equivalent - pairs.front().equivalent) > 0.005;
    });
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
      curve_(new ChanceCurve),
      grid_(new ChanceGrid),
      pair_(quietLabel()),
      figures_(new QLabel),
      helps_(new QLabel) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(18, 14, 18, 14);
    left->addWidget(title_);
    left->addWidget(curve_, 3);
    left->addWidget(grid_, 2);
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
    auto* scatter = form_->number(say("Scatter between mounts"), &Plan::statedScatter, 0, true);
    scatterLabel_ = qobject_cast<QLabel*>(form->labelForField(scatter));
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
    connect(curve_, &ChanceCurve::mountsMeant, this, &ChancesPage::mountsMeant);
    connect(grid_, &ChanceGrid::pairMeant, pair_, &QLabel::setText);
}

void ChancesPage::refresh(const PlanFigures& figures) {
    const Question* question = session_.question();
    if (!question) return;
    const Plan* stored = planOf(session_.document(), question->study);
    form_->show(stored ? std::optional(stored->id) : std::nullopt);
    const std::string_view unit = responseUnit(*question);
    if (scatterLabel_) scatterLabel_->setText(say("Scatter between mounts, %1").arg(qtext(unit)));
    if (!figures.analysis) {
        title_->setText(say("No plan yet"));
        curve_->clear();
        grid_->clear();
        pair_->setText(figures.reason);
        figures_->clear();
        helps_->clear();
        return;
    }
    const ChanceLines reported = chanceLines(session_.document(), *question, figures);
    title_->setText(reported.title);
    curve_->show(chanceCurves(session_.document(), *question, figures.plan, *figures.analysis),
                 {question->goal, question->margin.value, qtext(responseUnit(*question)), figures.plan.chance,
                  figures.plan.mountsPerLevel, figures.analysis->neededMounts});
    curve_->setVisible(!curve_->isEmpty());
    // Equal chances are one number: the curve tells it.
    const bool differ = pairsDiffer(*figures.analysis);
    grid_->setVisible(differ || curve_->isEmpty());
    grid_->show(*figures.analysis, question->goal);
    pair_->setText(
        differ
            ? say("Names with their mounts; every cell is a pair. Fewer mounts of a level, smaller chances.")
            : say("Every pair has this chance. Choose a number of mounts on the lower curve."));
    QString html = "<table>";
    for (const auto& [name, value] : reported.figures) html += row(name, value);
    figures_->setText(html + "</table>");
    helps_->setText(reported.helps.join("\n"));
    helps_->setVisible(!reported.helps.isEmpty());
}

} // namespace ibuki
