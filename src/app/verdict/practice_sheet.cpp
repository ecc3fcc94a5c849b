// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/practice_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <QPainter>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace ibuki {

TruthDrawing::TruthDrawing(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Truth and measurement"));
    setMinimumWidth(480);
}

QSize TruthDrawing::sizeHint() const {
    const int line = fontMetrics().height();
    return {620, static_cast<int>(levels_.size()) * line * 3 + 2 * line};
}

void TruthDrawing::show(std::vector<ReviewedLevel> levels) {
    levels_ = std::move(levels);
    QStringList reported;
    for (const ReviewedLevel& level : levels_)
        reported << say("%1: %2 K in truth, %3 measured")
                        .arg(qtext(level.truth.name))
                        .arg(level.truth.deltaK, 0, 'f', 1)
                        .arg(level.meanK ? QString::number(*level.meanK, 'f', 1) + " K" : say("nothing"));
    setAccessibleDescription(reported.join("; "));
    updateGeometry();
    update();
}

void TruthDrawing::paintEvent(QPaintEvent* /*event*/) {
    if (levels_.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    double lo = levels_.front().truth.deltaK;
    double hi = lo;
    for (const ReviewedLevel& level : levels_)
        for (double value : {level.truth.deltaK, level.meanK.value_or(lo), level.ci ? level.ci->lo : lo,
                             level.ci ? level.ci->hi : lo}) {
            lo = std::min(lo, value);
            hi = std::max(hi, value);
        }
    lo = std::floor(lo - 0.5);
    hi = std::ceil(hi + 0.5);
    const double line = fontMetrics().height();
    const double left = 150;
    const double right = width() - 30.0;
    const auto x = [&](double kelvin) { return left + (kelvin - lo) / (hi - lo) * (right - left); };
    const double bottom = static_cast<double>(levels_.size()) * line * 3;
    const int step = hi - lo > 12 ? 5 : hi - lo > 6 ? 2 : 1;
    painter.setFont(textFont(smallText));
    for (int k = static_cast<int>(lo); k <= static_cast<int>(hi); k += step) {
        painter.setPen(QPen(c.line, 1, Qt::DotLine));
        painter.drawLine(QPointF(x(k), 0), QPointF(x(k), bottom));
        painter.setPen(c.quiet);
        painter.drawText(QRectF(x(k) - 30, bottom + 2, 60, line), Qt::AlignCenter, say("%1 K").arg(k));
    }
    double y = line * 1.5;
    for (const ReviewedLevel& level : levels_) {
        painter.setFont(textFont(1.0, level.trulyBest ? QFont::DemiBold : QFont::Normal));
        painter.setPen(c.ink);
        painter.drawText(QRectF(0, y - line, left - 12, 2 * line), Qt::AlignRight | Qt::AlignVCenter,
                         qtext(level.truth.name));
        if (level.ci) {
            painter.setPen(QPen(c.quiet, 5, Qt::SolidLine, Qt::FlatCap));
            painter.drawLine(QPointF(x(level.ci->lo), y + 5), QPointF(x(level.ci->hi), y + 5));
        }
        painter.setPen(Qt::NoPen);
        if (level.meanK) {
            painter.setBrush(c.ink);
            painter.drawEllipse(QPointF(x(*level.meanK), y + 5), 5, 5);
        }
        painter.setBrush(c.hot);
        const QPointF at(x(level.truth.deltaK), y - 9);
        painter.drawPolygon(
            QPolygonF{at + QPointF(0, -7), at + QPointF(7, 0), at + QPointF(0, 7), at + QPointF(-7, 0)});
        y += line * 3;
    }
}

PracticeSheet::PracticeSheet(Session& session, Id<Practice> practice, QWidget* parent)
    : QDialog(parent), session_(session), practice_(practice), pages_(new QStackedWidget) {
    setWindowTitle(say("Practice"));
    resize(760, 600);
    auto* layout = new QVBoxLayout(this);
    pages_->addWidget(makeCommit());
    pages_->addWidget(makeTruth());
    layout->addWidget(pages_);
    if (const Practice* stored = session.document().find(practice)) tell(*stored);
}

QWidget* PracticeSheet::makeCommit() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    layout->addWidget(cardTitle(say("What do you conclude?")));
    layout->addWidget(quietLabel(say("Once you commit, the truth is unsealed beside it and stays so. "
                                     "Calling nobody the coolest is an answer too.")));
    best_ = new QComboBox;
    best_->addItem(say("nobody: they are not told apart"), qlonglong(0));
    const Practice* practice = session_.document().find(practice_);
    const Question* question = practice ? firstQuestion(session_.document(), practice->study) : nullptr;
    if (question)
        for (const Level* level : levelsOf(session_.document(), question->id))
            best_->addItem(qtext(level->name), qlonglong(level->id.value));
    words_ = new QLineEdit;
    auto* form = new QFormLayout;
    addFormRow(form, say("The coolest is"), best_);
    addFormRow(form, say("In your words"), words_);
    layout->addLayout(form);
    layout->addStretch(1);
    layout->addWidget(dialogButtons(this, say("Commit and unseal")));
    return page;
}

QWidget* PracticeSheet::makeTruth() {
    auto* page = new QWidget;
    auto* layout = new QVBoxLayout(page);
    said_ = new QLabel;
    setTextFont(said_, 1.15, QFont::DemiBold);
    drawing_ = new TruthDrawing;
    auto* key = quietLabel(say("◆ in truth, mounted with care     ● your mean, with its interval"));
    reported_ = new QLabel;
    for (QLabel* label : {said_, reported_}) label->setWordWrap(true);
    reported_->setObjectName("What was true");
    reported_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    auto* words = new QVBoxLayout;
    words->addWidget(reported_);
    words->addStretch(1);
    layout->addWidget(said_);
    layout->addWidget(drawing_);
    layout->addWidget(key);
    layout->addWidget(scrolled(words), 1);
    layout->addWidget(closeButton(this));
    return page;
}

void PracticeSheet::accept() {
    const Practice* stored = session_.document().find(practice_);
    if (!stored || stored->committedAt) {
        QDialog::accept();
        return;
    }
    Practice committed = *stored;
    const qlonglong best = best_->currentData().toLongLong();
    committed.committedBest = best > 0 ? std::optional(Id<Level>{best}) : std::nullopt;
    committed.conclusion = words_->text().trimmed().toStdString();
    committed.committedAt = session_.now();
    Edit edit(session_.document(), titled("Commit to a sentence"));
    edit.put(committed);
    if (session_.acquire(edit.finish())) tell(committed);
}

void PracticeSheet::tell(const Practice& practice) {
    pages_->setCurrentIndex(practice.committedAt ? 1 : 0);
    if (!practice.committedAt) return;
    const PracticeReview review = reviewOf(session_.document(), practice);
    const Level* named = session_.document().find(practice.committedBest);
    said_->setText(
        say("You said: %1")
            .arg(named ? say("%1 is the coolest").arg(qtext(named->name))
                       : say("nobody is told to be the coolest"))
        + (practice.conclusion.empty() ? QString() : QStringLiteral(" — ") + qtext(practice.conclusion)));
    drawing_->show(review.levels);
    QStringList lines;
    for (const Message& sentence : review.sentences) lines << QStringLiteral("• ") + sayText(sentence);
    reported_->setText(lines.join("\n"));
}

} // namespace ibuki
