// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/plan_figures.h"
#include "app/session/session.h"

#include <QWidget>
#include <functional>

class QAction;
class QLabel;
class QLayout;
class QPushButton;
class QScrollArea;

namespace ibuki {

class EveningBoard;
class LaterDays;

/// Order and evenings as one board: mounts are moved, skipped and added on it, what that costs is told at
/// once, and the days to come back stand below.
class BoardPage : public QWidget {
    Q_OBJECT

public:
    explicit BoardPage(Session& session, QWidget* parent = nullptr);
    void refresh(const PlanFigures& figures);
    void layOnTape();
    void chooseCalendar();
    bool exportCalendar(const QString& path); ///< false with a notice

private:
    QWidget* makeBoard();
    QLayout* makeButtons();
    QWidget* makeMore();
    QWidget* makeFoot();
    QAction* addRare(const QString& text, const QString& tip, const std::function<void()>& act);
    void showChosen();
    void showCosts(const QStringList& costs, bool previewed);
    void previewMove(std::size_t from, std::size_t to);
    void move(std::size_t from, std::size_t to);
    void moveChosen(std::ptrdiff_t by);
    void skipOrTakeUp();
    void addOne();
    void extend();
    void stop();
    void shuffle();
    void planFollowUps();
    /// Performs what `change` puts into an edit; a refusal becomes a notice.
    enum class Dates { stay, anew }; ///< of what is planned, after a change of it
    void act(const Message& title, const std::function<void(Edit&, const Question&)>& change,
             Dates dates = Dates::stay);
    /// Puts the plan on the tape inside the edit when nothing is there yet.
    void layFirst(Edit& edit) const;

    Session& session_;
    PlanFigures figures_;
    EveningBoard* board_;
    QScrollArea* lanes_ = nullptr; ///< the board in it
    LaterDays* later_;
    QLabel* title_;
    QLabel* chosen_;
    QLabel* detail_;
    QLabel* costsTitle_;
    QLabel* costs_;
    QLabel* laterTitle_;
    QPushButton* skip_ = nullptr;
    QAction* anew_ = nullptr;
    std::vector<QAction*> rare_;
};

} // namespace ibuki
