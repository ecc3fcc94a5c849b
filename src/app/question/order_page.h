// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"
#include "app/question/plan_figures.h"

#include <QWidget>

class QListWidget;

namespace ibuki {

/// The order of the mounts: as drawn by the seed or as it stands on the tape, rearranged by hand, with what
/// that costs in plain words.
class OrderPage : public QWidget {
    Q_OBJECT

public:
    explicit OrderPage(Session& session, QWidget* parent = nullptr);
    void refresh(const PlanFigures& figures);
    void layOnTape();

protected:
    bool eventFilter(QObject* watched, QEvent* event) override; ///< Alt with Up or Down moves a mount

private:
    QWidget* makeList();
    QWidget* makeSide();
    void fillList(const PlanFigures& figures);
    void moveSlotBy(int by);
    void skipOrTakeUp();
    void addOne();
    void extend();
    void stop();
    void shuffle();
    void chooseRow(std::optional<Id<Slot>> chosen, int row);
    std::optional<Id<Slot>> currentSlot() const;
    /// Performs what `change` puts into an edit; a refusal becomes a notice.
    enum class Dates { stay, anew }; ///< of what is planned, after a change of it
    void act(const Message& title, const std::function<void(Edit&, const Question&)>& change,
             Dates dates = Dates::stay);

    Session& session_;
    PlanFigures figures_;
    QLabel* title_;
    QListWidget* list_;
    QLabel* costs_;
    std::unique_ptr<EntityForm<Plan>> form_;
};

} // namespace ibuki
