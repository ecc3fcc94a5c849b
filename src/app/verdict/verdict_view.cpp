// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/verdict_view.h"

#include "app/drawn/theme.h"
#include "app/forms/copying.h"
#include "app/forms/next_step_bar.h"
#include "app/forms/page_export.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/say.h"
#include "app/verdict/checks_page.h"
#include "app/verdict/claims_page.h"
#include "app/verdict/factors_page.h"
#include "app/verdict/ladder_page.h"
#include "app/verdict/pairs_page.h"
#include "app/verdict/responses_page.h"
#include "app/verdict/sweep_page.h"
#include "app/verdict/value_page.h"
#include "core/comparison/few_mounts.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"
#include "store/paper/joint_sentences.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

constexpr int sentencePairRole = Qt::UserRole;
constexpr int pageRole = Qt::UserRole + 1;

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

/// In %, to two digits.
QString shareText(double share) {
    return 100 * share < 9.95 ? QString::number(100 * share, 'g', 2) : QString::number(100 * share, 'f', 0);
}

/// Without any assumption on how mounts scatter; few mounts cannot give a small share. With several pairs
/// also by Holm for all of them together.
QString permutationText(const Comparison& comparison, std::size_t pair) {
    const auto found = permutationOf(comparison, pair);
    if (!found) return {};
    QString text =
        " "
        + say("Dealt out anew in every way, %1 % of the ways differ as much; so few mounts cannot give "
              "less than %2 %.")
              .arg(shareText(found->test.p), shareText(found->test.smallest));
    if (found->holm)
        text += " " + say("Held for all pairs together (Holm): %1 %.").arg(shareText(*found->holm));
    return text;
}

QString evidenceOf(const Comparison& comparison, std::size_t index, std::string_view unit) {
    const PairComparison& pair = comparison.pairs[index];
    if (!pair.ci) return {};
    const int decimals = responseDigits(unit).scatter;
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
           + permutationText(comparison, index) + " " + say("F1: formulas and their sources.");
}

} // namespace

VerdictView::VerdictView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      evidence_(std::make_unique<Evidence>()),
      title_(cardTitle({})),
      evidenceText_(quietLabel()),
      export_(button(say("Export…"), say("This page as a drawing, a picture or its data"))),
      ladder_(new LadderPage),
      pages_(new QStackedWidget),
      sentences_(new QListWidget),
      next_(new NextStepBar(session)) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    explain(this, Topic::verdict);
    layout->addWidget(card(layPages()), 5);
    layout->addWidget(card(laySentences()), 3);
    connect(next_, &NextStepBar::stepTaken, this, &VerdictView::stepTaken);
    connect(sentences_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        const bool hasPair = item && item->data(sentencePairRole).isValid();
        const auto pair =
            hasPair ? std::optional<std::size_t>(item->data(sentencePairRole).toULongLong()) : std::nullopt;
        meanPair(pair);
    });
    connect(sentences_, &QListWidget::itemClicked, this, &VerdictView::openEvidence);
    connect(sentences_, &QListWidget::itemActivated, this, &VerdictView::openEvidence);
    connect(pages_, &QStackedWidget::currentChanged, this, &VerdictView::fillPage);
    refresh();
}

QLayout* VerdictView::layPages() {
    auto* left = new QVBoxLayout;
    left->setContentsMargins(14, 10, 14, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(title_, 1);
    connect(export_, &QPushButton::clicked, this, [this] { askExport(session_, *currentPage()); });
    head->addWidget(export_);
    left->addLayout(head);
    left->addWidget(next_);
    auto* responses = new ResponsesPage(session_);
    auto* factors = new FactorsPage;
    auto* checks = new ChecksPage;
    holding_ = {{EvidenceOn::ladder, ladder_},
                {EvidenceOn::responses, responses},
                {EvidenceOn::factors, factors},
                {EvidenceOn::checks, checks}};
    QStringList names;
    for (VerdictPage* page :
         std::initializer_list<VerdictPage*>{ladder_, new PairsPage, responses, factors, new SweepPage,
                                             checks, new ValuePage, new ClaimsPage}) {
        pages_->addWidget(page);
        names << page->name();
        connect(page, &VerdictPage::mountMeant, this, &VerdictView::meanMount);
        connect(page, &VerdictPage::pairMeant, this, &VerdictView::meanPair);
    }
    left->addWidget(pageSwitch(pages_, names));
    left->addWidget(pages_, 1);
    return left;
}

QLayout* VerdictView::laySentences() {
    auto* right = new QVBoxLayout;
    right->setContentsMargins(14, 10, 14, 10);
    right->addWidget(cardTitle(say("What these mounts can bear")));
    wrapItems(*sentences_);
    copyItemOnKey(*sentences_);
    sentences_->setAccessibleName(say("Verdict in sentences"));
    sentences_->setSpacing(5);
    right->addWidget(sentences_, 1);
    right->addWidget(evidenceText_);
    return right;
}

VerdictView::~VerdictView() = default;

VerdictPage* VerdictView::currentPage() const { return static_cast<VerdictPage*>(pages_->currentWidget()); }

VerdictMatter VerdictView::matter(const Question& question) const {
    return {session_.document(),
            question,
            *evidence_,
            sides_,
            std::string(responseUnit(question)),
            session_.now(),
            session_.selection().mount};
}

void VerdictView::refresh() {
    const Question* question = session_.question();
    sentences_->clear();
    *evidence_ = {};
    sides_.clear();
    next_->hide();
    pages_->setVisible(question != nullptr); // a page would still show the study before
    export_->setEnabled(question != nullptr);
    if (!question) {
        title_->setText(say("No study yet"));
        sentences_->addItem(
            say("Ask a question first; the verdict appears here once two materials are mounted."));
        return;
    }
    *evidence_ = gatherEvidence(session_.document(), *question);
    sides_ = sideComparisons(session_.document(), *question, *evidence_);
    QString title = sayText(responseTitle(*question));
    title[0] = title[0].toUpper();
    title_->setText(title + ", " + qtext(responseUnit(*question)));
    if (!evidence_->comparison) next_->refresh();
    fillPage();
    fillSentences(*question);
}

/// The one that is looked at; the others once they are.
void VerdictView::fillPage() {
    if (const Question* question = session_.question()) currentPage()->fill(matter(*question));
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
    for (const VerdictSentence& sentence : allSentences(*evidence_, sides_, question)) {
        auto* item = new QListWidgetItem(kindMark(sentence.kind) + qtext(sentence.text), sentences_);
        if (sentence.pair) item->setData(sentencePairRole, static_cast<qulonglong>(*sentence.pair));
        item->setData(pageRole, static_cast<int>(sentence.page));
        if (sentence.kind == SentenceKind::caveat) item->setForeground(colours().quiet);
    }
}

/// The page with what the sentence rests on; a pair is on the ladder and among the pairs.
void VerdictView::openEvidence(const QListWidgetItem* item) {
    const QVariant page = item->data(pageRole);
    if (!page.isValid()) return;
    const auto on = static_cast<EvidenceOn>(page.toInt());
    if (on == EvidenceOn::ladder && !item->data(sentencePairRole).isValid()) return;
    const bool showsPair =
        pages_->currentWidget() == ladder_ || qobject_cast<PairsPage*>(pages_->currentWidget());
    if (on != EvidenceOn::ladder || !showsPair) pages_->setCurrentWidget(holding_.at(on));
}

void VerdictView::meanMount(Id<Mount> mount) {
    session_.selectMount(mount);
    emit mountOpened(mount);
}

} // namespace ibuki
