// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/practice/practice_review.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QStackedWidget;

namespace ibuki {

/// What was measured beside what is true, on one scale: a diamond where each level truly is, a bar with a dot
/// for the learner's mean and its interval. The truly coolest on top.
class TruthDrawing : public QWidget {
    Q_OBJECT

public:
    explicit TruthDrawing(QWidget* parent = nullptr);
    void show(std::vector<ReviewedLevel> levels);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<ReviewedLevel> levels_;
};

/// The end of a practice: the learner commits to a sentence, then the truth is unsealed beside it.
class PracticeSheet : public QDialog {
    Q_OBJECT

public:
    PracticeSheet(Session& session, Id<Practice> practice, QWidget* parent = nullptr);

    void accept() override; ///< commits; once

private:
    QWidget* makeCommit();
    QWidget* makeTruth();
    void tell(const Practice& practice);

    Session& session_;
    Id<Practice> practice_;
    QStackedWidget* pages_;
    QComboBox* best_ = nullptr;
    QLineEdit* words_ = nullptr;
    QLabel* said_ = nullptr;
    QLabel* reported_ = nullptr;
    TruthDrawing* drawing_ = nullptr;
};

} // namespace ibuki
