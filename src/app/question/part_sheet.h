// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/question_fields.h"
#include "store/paper/sentences.h"

#include <QDialog>

namespace ibuki {

/// A small sheet of what one part of the sentence stands for, or of what is rare. Every change is done at
/// once; the sheet goes away with its question.
class PartSheet : public QDialog {
    Q_OBJECT

public:
    /// Of a part that has fields of its own: site, metric, reference, taken, margin, confidence, heldAgainst.
    PartSheet(Session& session, AskedPart part, QWidget* parent);

    /// What the sentence does not say.
    static PartSheet* rare(Session& session, QWidget* parent);

private:
    struct Content {
        QString title;
        QString why;
        std::function<void(QuestionFields&)> add;
    };
    PartSheet(Session& session, const Content& content, QWidget* parent);
    static Content contentOf(AskedPart part);
    void refresh();

    Session& session_;
    Id<Question> question_;
    QFormLayout* form_;
    QuestionFields fields_;
    QLabel* frozen_;
};

/// Opens the sheet of a part near where the part stands; the bench's is opened by the window.
void openPart(Session& session, AskedPart part, QWidget* parent, const QPoint& at);

} // namespace ibuki
