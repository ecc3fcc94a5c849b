// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/verdict_view.h"

#include "app/drawn/theme.h"
#include "app/forms/next_step_bar.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/checks_page.h"
#include "app/verdict/factors_page.h"
#include "app/verdict/ladder.h"
#include "app/verdict/pairs_page.h"
#include "app/verdict/sweep_page.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"
#include "core/stats/few_mounts.h"
#include "store/paper/report.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QStackedWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

/// A mark of its own for each kind of sentence; never colour alone.
QString kindMark(SentenceKind kind) {
    switch (kind) {
    case SentenceKind::settled:
        return "✓  ";
    case SentenceKind::provisional:
        return "?  ";
    case SentenceKind::practical:
        return "≈  ";
    case SentenceKind::open:
        return "…  ";
    case SentenceKind::caveat:
        return "▸  ";
    }
    return {};
}

QString degreesText(const PairComparison& pair) {
    if (!pair.df) return say("by maximum likelihood");
    if (!std::isfinite(*pair.df)) return say("the scatter taken as known");
    return say("%1 degrees of freedom").arg(*pair.df, 0, 'f', 0);
}

/// Without any assumption on how mounts scatter; few mounts cannot give a small share.
QString permutationText(const GroupSummary& a, const GroupSummary& b) {
    if (a.limitBoundMounts > 0 || b.limitBoundMounts > 0 || a.mounts < 2 || b.mounts < 2) return {};
    const auto exact = permutationTest(a.mountMeans, b.mountMeans);
    if (!exact) return {};
    return " "
           + say("Dealt out anew in every way, %1 % of the ways differ as much; so few mounts cannot give "
                 "less than "
                 "%2 %.")
                 .arg(100 * exact->p, 0, 'g', 2)
                 .arg(100 * exact->smallest, 0, 'g', 2);
}

QString evidenceOf(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    if (!pair.ci) return {};
    const int decimals = unit == "K" ? 2 : 5;
    const QString p =
        *pair.pAdjusted < 1e-4 ? say("p < 0.0001") : QString("p = %1").arg(*pair.pAdjusted, 0, 'f', 4);
    return say("%1 − %2: %3 %4, %5 % interval %6 to %7, %8, %9, from %10 and %11 mounts.")
               .arg(qtext(comparison.groups[pair.a].name), qtext(comparison.groups[pair.b].name))
               .arg(*pair.difference, 0, 'f', decimals)
               .arg(qtext(unit))
               .arg(100 * comparison.options.confidence, 0, 'f', 0)
               .arg(pair.ci->lo, 0, 'f', decimals)
               .arg(pair.ci->hi, 0, 'f', decimals)
               .arg(p)
               .arg(degreesText(pair))
               .arg(comparison.groups[pair.a].mounts)
               .arg(comparison.groups[pair.b].mounts)
           + permutationText(comparison.groups[pair.a], comparison.groups[pair.b]);
}

/// What the marks are, and what chance alone would make of such a ranking.
QString legendOf(const Comparison& comparison, std::string_view unit) {
    QString text = isProvisional(comparison)
                       ? say("○ one mount   ┅ its interval by an assumed scatter, provisional   bracket: not "
                             "told apart, which "
                             "does not mean equal   shaded: the margin from the best")
                       : say("○ one mount   ▬ mean and its interval   bracket: not told apart, which does "
                             "not mean equal   "
                             "●–● the same within the margin   shaded: the margin from the best");
    if (const auto spread = spreadSentence(comparison, unit); !spread.empty()) text += "\n" + qtext(spread);
    return text;
}

} // namespace

VerdictView::VerdictView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      evidence_(std::make_unique<Evidence>()),
      title_(cardTitle({})),
      legend_(quietLabel()),
      evidenceText_(quietLabel()),
      ladder_(new Ladder),
      pages_(new QStackedWidget),
      pairs_(new PairsPage),
      factors_(new FactorsPage),
      sweep_(new SweepPage),
      checks_(new ChecksPage),
      sentences_(new QListWidget),
      next_(new NextStepBar(session)) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(14, 10, 14, 10);
    left->addWidget(title_);
    left->addWidget(next_);
    auto* tip = new Tip(QStringLiteral("ladder"),
                        say("Click a circle, or walk with the arrow keys and Enter: the mount behind it."));
    connect(ladder_, &Ladder::mountMeant, tip, &Tip::done);
    auto* ladderPage = new QWidget;
    auto* ladderLayout = new QVBoxLayout(ladderPage);
    ladderLayout->setContentsMargins(0, 0, 0, 0);
    ladderLayout->addWidget(tip);
    ladderLayout->addWidget(ladder_, 1);
    ladderLayout->addWidget(legend_);
    pages_->addWidget(ladderPage);
    pages_->addWidget(pairs_);
    pages_->addWidget(factors_);
    pages_->addWidget(sweep_);
    pages_->addWidget(checks_);
    left->addWidget(pageSwitch(pages_, {say("Ladder"), say("Every pair"), say("Both factors"),
                                        say("Over power"), say("Check mounts")}));
    explain(this, Topic::verdict);
    explain(ladder_, Topic::ladder);
    left->addWidget(pages_, 1);
    layout->addWidget(card(left), 5);
    auto* right = new QVBoxLayout;
    right->setContentsMargins(14, 10, 14, 10);
    right->addWidget(cardTitle(say("What these mounts can bear")));
    sentences_->setWordWrap(true);
    sentences_->setAccessibleName(say("Verdict in sentences"));
    sentences_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    sentences_->setResizeMode(QListView::Adjust);
    sentences_->setTextElideMode(Qt::ElideNone);
    sentences_->setStyleSheet(
        "QListWidget::item { padding: 0; }"); // padding is not counted when lines are broken
    sentences_->setSpacing(5);
    right->addWidget(sentences_, 1);
    right->addWidget(evidenceText_);
    layout->addWidget(card(right), 3);
    connect(next_, &NextStepBar::stepTaken, this, &VerdictView::stepTaken);
    connect(ladder_, &Ladder::mountMeant, this, &VerdictView::meanMount);
    connect(sentences_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        const bool hasPair = item && item->data(Qt::UserRole).isValid();
        const auto pair =
            hasPair ? std::optional<std::size_t>(item->data(Qt::UserRole).toULongLong()) : std::nullopt;
        meanPair(pair);
    });
    connect(pairs_, &PairsPage::pairMeant, this, &VerdictView::meanPair);
    connect(pages_, &QStackedWidget::currentChanged, this, &VerdictView::fillPage);
    connect(checks_, &ChecksPage::mountMeant, this, &VerdictView::meanMount);
    refresh();
}

VerdictView::~VerdictView() = default;

void VerdictView::refresh() {
    const Question* question = session_.question();
    ladder_->clear();
    sentences_->clear();
    *evidence_ = {};
    next_->hide();
    if (!question) {
        legend_->setVisible(false);
        title_->setText(say("No study yet"));
        sentences_->addItem(
            say("Ask a question first; the verdict appears here once two materials are mounted."));
        return;
    }
    *evidence_ = gatherEvidence(session_.document(), *question);
    QString title = sayText(responseTitle(*question));
    title[0] = title[0].toUpper();
    title_->setText(title + ", " + qtext(responseUnit(*question)));
    const auto& shown = evidence_->comparison ? evidence_->comparison : evidence_->mounts;
    if (shown) {
        ladder_->show(*shown, groupClasses(session_.document(), *evidence_),
                      std::string(responseUnit(*question)));
        ladder_->markMount(session_.selection().mount);
    }
    if (!evidence_->comparison) next_->refresh();
    legend_->setVisible(evidence_->comparison.has_value());
    fillPage();
    if (evidence_->comparison) legend_->setText(legendOf(*evidence_->comparison, responseUnit(*question)));
    fillSentences(*question);
}

/// The one that is looked at; the others once they are.
void VerdictView::fillPage() {
    const Question* question = session_.question();
    if (!question) return;
    const std::string unit(responseUnit(*question));
    const QWidget* page = pages_->currentWidget();
    if (page == pairs_) {
        if (evidence_->comparison)
            pairs_->show(*evidence_->comparison, unit);
        else
            pairs_->clear();
    } else if (page == factors_) {
        if (evidence_->factors)
            factors_->show(*evidence_->factors, unit, question->confidence);
        else
            factors_->tell(
                question->secondFactor
                    ? say("No combination of both factors was mounted twice yet.")
                    : say("The question has one factor: materials, or what it compares. A second one, "
                          "such as coolers, is added to it under Question."));
    } else if (page == sweep_) {
        sweep_->show(powerSweep(*question, *evidence_));
    } else if (page == checks_) {
        checks_->show(session_.document(), checkEvidence(*question, *evidence_),
                      evidence_->comparison ? &*evidence_->comparison : nullptr, unit);
    }
}

void VerdictView::meanPair(std::optional<std::size_t> pair) {
    ladder_->highlight(pair);
    const Question* question = session_.question();
    evidenceText_->setText(pair && evidence_->comparison && question
                               ? evidenceOf(*evidence_->comparison, *pair, responseUnit(*question))
                               : QString());
}

void VerdictView::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    if (const Study* study = session_.study())
        session_.record([id = study->id, now = session_.now()](const Document& document) {
            return noteLook(document, id, now);
        });
}

void VerdictView::fillSentences(const Question& question) {
    for (const VerdictSentence& sentence : verdictSentences(*evidence_, question)) {
        auto* item = new QListWidgetItem(kindMark(sentence.kind) + qtext(sentence.text), sentences_);
        if (sentence.pair) item->setData(Qt::UserRole, static_cast<qulonglong>(*sentence.pair));
        if (sentence.kind == SentenceKind::caveat) item->setForeground(colours().quiet);
    }
    // Lines are broken for the width that is left beside a scroll bar, once there is one.
    QTimer::singleShot(0, sentences_, [list = sentences_] { list->doItemsLayout(); });
}

void VerdictView::meanMount(Id<Mount> mount) {
    session_.selectMount(mount);
    emit mountOpened(mount);
}

} // namespace ibuki
