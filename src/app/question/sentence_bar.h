// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/paper/sentences.h"

#include <QWidget>

namespace ibuki {

/// The study as a sentence whose parts are buttons: a click on one, or Tab and Space, asks to edit it.
class SentenceBar : public QWidget {
    Q_OBJECT

public:
    explicit SentenceBar(QWidget* parent = nullptr);

    void show(const std::vector<SentencePiece>& pieces);
    void showText(const QString& text); ///< a plain sentence without parts
    QPoint below(AskedPart part) const; ///< on the screen, under where the part stands

signals:
    void partMeant(AskedPart part);

private:
    void clear();

    std::vector<SentencePiece> shown_;
};

} // namespace ibuki
