// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/sentence_bar.h"

#include "app/drawn/theme.h"
#include "app/forms/flow_layout.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QToolButton>

namespace ibuki {
namespace {

constexpr double wordSize = 1.3;

/// "At " and "lid–plate" are words of one line: plain text is broken at its spaces.
QStringList wordsOf(const QString& text) {
    QStringList words;
    QString word;
    for (QChar c : text) {
        word += c;
        if (c == ' ') words << std::exchange(word, QString());
    }
    if (!word.isEmpty()) words << word;
    return words;
}

bool equalPieces(const std::vector<SentencePiece>& a, const std::vector<SentencePiece>& b) {
    return std::equal(
        a.begin(), a.end(), b.begin(), b.end(),
        [](const SentencePiece& x, const SentencePiece& y) { return x.text == y.text && x.part == y.part; });
}

QString partName(AskedPart part) { return QStringLiteral("Part ") + QString::number(static_cast<int>(part)); }

/// As wide as its words: it stands in a line of text.
class PartButton : public QToolButton {
public:
    QSize sizeHint() const override {
        const QFontMetrics metrics(font());
        return {metrics.horizontalAdvance(text()) + 4, metrics.height() + 6};
    }
    QSize minimumSizeHint() const override { return sizeHint(); }
};

} // namespace

SentenceBar::SentenceBar(QWidget* parent) : QWidget(parent) {
    new FlowLayout(2, this);
    setAccessibleName(say("The study in one sentence"));
    setObjectName("Sentence");
}

void SentenceBar::clear() {
    while (QLayoutItem* item = layout()->takeAt(0)) {
        if (QWidget* widget = item->widget()) {
            widget->hide();
            widget->deleteLater(); // it may be the one that was just clicked
        }
        delete item;
    }
    shown_.clear();
}

void SentenceBar::showText(const QString& text) { show({{text.toStdString(), AskedPart::plain}}); }

QPoint SentenceBar::below(AskedPart part) const {
    const auto* at = findChild<QToolButton*>(partName(part));
    return at ? at->mapToGlobal(QPoint(0, at->height() + 6)) : mapToGlobal(QPoint(0, height()));
}

void SentenceBar::show(const std::vector<SentencePiece>& pieces) {
    if (equalPieces(pieces, shown_)) return;
    clear();
    shown_ = pieces;
    QString whole;
    for (const SentencePiece& piece : pieces) {
        const QString text = qtext(piece.text);
        whole += text;
        if (piece.part == AskedPart::plain) {
            for (const QString& word : wordsOf(text)) {
                auto* label = new QLabel(word);
                setTextFont(label, wordSize, QFont::Medium);
                layout()->addWidget(label);
            }
            continue;
        }
        auto* part = new PartButton;
        part->setText(text);
        setTextFont(part, wordSize, QFont::Medium);
        part->setProperty("part", true);
        part->setCursor(Qt::PointingHandCursor);
        part->setFocusPolicy(Qt::StrongFocus);
        part->setAccessibleName(say("Change: ") + text);
        part->setObjectName(partName(piece.part));
        connect(part, &QToolButton::clicked, this, [this, meant = piece.part] { emit partMeant(meant); });
        layout()->addWidget(part);
    }
    setAccessibleDescription(whole);
    updateGeometry();
}

} // namespace ibuki
