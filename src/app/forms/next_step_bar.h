// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/setup/next_step.h"

#include <QFrame>

class QLabel;
class QPushButton;

namespace ibuki {

class Session;

/// What a study waits for in one sentence, and the way there.
struct NextStepLines {
    QString text;
    QString way; ///< on the button; empty: there is none
};
NextStepLines nextStepLines(const Document& document, const NextStep& step);

/// On pages that are still empty. Refreshed by its view; hidden without a study or when nothing is due. Says
/// that the way on was taken.
class NextStepBar : public QFrame {
    Q_OBJECT

public:
    explicit NextStepBar(Session& session, QWidget* parent = nullptr);
    void refresh();

signals:
    void stepTaken(StudyNeeds needs);

private:
    Session& session_;
    QLabel* text_;
    QPushButton* way_;
    StudyNeeds needs_ = StudyNeeds::nothing;
};

} // namespace ibuki
