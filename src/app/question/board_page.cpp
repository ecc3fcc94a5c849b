// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/board_page.h"

#include "app/forms/ask.h"
#include "app/forms/flow_layout.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/question/evening_board.h"
#include "app/question/later_days.h"
#include "app/question/order_lines.h"
#include "app/question/plan_sheet.h"
#include "app/say.h"
#include "app/session/laid_change.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "store/atomic_file.h"
#include "store/calendar/plan_calendar.h"
#include "words/words.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QMenu>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

namespace ibuki {

BoardPage::BoardPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      board_(new EveningBoard),
      later_(new LaterDays),
      title_(cardTitle({})),
      chosen_(cardTitle({})),
      detail_(new QLabel),
      costsTitle_(cardTitle({})),
      costs_(new QLabel),
      laterTitle_(cardTitle(say("To come back to"))) {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeBoard(), 10);
    layout->addWidget(makeFoot(), 4);
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(scrolled(layout)); // large text: the board keeps its height, the page scrolls
    connect(board_, &EveningBoard::focusedChanged, this, &BoardPage::showChosen);
    connect(board_, &EveningBoard::moveMeant, this, &BoardPage::move);
    connect(board_, &EveningBoard::movePreviewed, this, &BoardPage::previewMove);
    connect(board_, &EveningBoard::previewEnded, this, [this] { showCosts(board_->lines().costs, false); });
}

QWidget* BoardPage::makeBoard() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 8, 14, 8);
    layout->setSpacing(5);
    auto* head = new QHBoxLayout;
    head->addWidget(title_, 1);
    head->addWidget(new BoardLegend);
    layout->addLayout(head);
    auto* tip = new Tip(QStringLiteral("board"),
                        say("Drag a bar, or Alt with an arrow key: what the order would cost is told while "
                            "you hold it."));
    connect(board_, &EveningBoard::moveMeant, tip, &Tip::done);
    layout->addWidget(tip);
    auto* lanes = scrolledWidget(board_);
    lanes_ = lanes;
    connect(board_, &EveningBoard::focusedChanged, lanes, [this, lanes] {
        const QRect chosen = board_->chosenRect();
        lanes->ensureVisible(0, chosen.center().y(), 0, chosen.height());
    });
    layout->addWidget(lanes, 1);
    layout->addWidget(board_->scrollBar());
    layout->addLayout(makeButtons());
    laterTitle_->setWordWrap(false);
    layout->addWidget(laterTitle_);
    layout->addWidget(later_);
    return card(layout);
}

QLayout* BoardPage::makeButtons() {
    auto* row = new FlowLayout(6, nullptr, 6);
    const auto add = [&](const QString& text, const QString& tip, auto&& what, bool main = false) {
        auto* made = button(text, tip, main);
        connect(made, &QPushButton::clicked, this, what);
        row->addWidget(made);
        return made;
    };
    add(say("Earlier"), say("Alt+Left, or drag the bar"), [this] { moveChosen(-1); });
    add(say("Later"), say("Alt+Right, or drag the bar"), [this] { moveChosen(1); });
    add(say("Do it next"), say("Alt+Home. Out of order: it becomes what to do next"),
        [this] { moveChosen(-1'000'000); });
    skip_ = add(say("Skip…"), say("With a reason; a skipped mount can be taken up again"),
                [this] { skipOrTakeUp(); });
    add(say("Add a mount"), say("One more of the chosen level"), [this] { addOne(); });
    row->addWidget(makeMore());
    add(say("Times and checks…"), say("Evenings, check mounts, follow-ups, minutes of hands"), [this] {
        if (const Study* study = session_.study()) openDialog(new PlanSheet(session_, study->id, this));
    });
    add(
        say("Put on the tape"), say("Replaces the planned mounts; what was made stays"),
        [this] { layOnTape(); }, true);
    return row;
}

QAction* BoardPage::addRare(const QString& text, const QString& tip, const std::function<void()>& act) {
    auto* action = new QAction(text, this);
    action->setObjectName(text);
    action->setToolTip(tip);
    connect(action, &QAction::triggered, this, act);
    rare_.push_back(action);
    return action;
}

QWidget* BoardPage::makeMore() {
    addRare(say("Draw another order"), say("Another seed; it counts when it is put on the tape"),
            [this] { shuffle(); });
    addRare(say("Extend…"), say("More mounts of every level"), [this] { extend(); });
    addRare(say("Stop early…"), say("Skip what is left and close the study"), [this] { stop(); });
    anew_ =
        addRare(say("Date the tape anew"), say("An evening went by otherwise: what is left moves on"),
                [this] { performLaid(session_, Edit(session_.document(), titled("Date the tape anew"))); });
    addRare(say("Plan follow-ups"), say("One dated tile a mount and delay"), [this] { planFollowUps(); });
    addRare(say("Calendar file…"), say("Evenings and follow-ups as an iCalendar file"),
            [this] { chooseCalendar(); });
    auto* more = button(say("More"), say("Another order, extend, stop, date anew, follow-ups, calendar"));
    auto* menu = new QMenu(more);
    menu->setToolTipsVisible(true);
    for (QAction* action : rare_) menu->addAction(action);
    more->setMenu(menu);
    return more;
}

QWidget* BoardPage::makeFoot() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 8, 14, 6);
    layout->setSpacing(4);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(24);
    const auto addColumn = [&](QLabel* title, QLabel* text, int stretch) {
        auto* column = new QVBoxLayout;
        column->setSpacing(4);
        text->setWordWrap(true);
        text->setAlignment(Qt::AlignLeft | Qt::AlignTop);
        title->setWordWrap(false);
        title->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed); // never widens the window
        column->addWidget(title);
        column->addWidget(text, 1);
        columns->addLayout(column, stretch);
    };
    detail_->setObjectName("Chosen mount");
    costs_->setAccessibleName(say("What this order costs"));
    costs_->setObjectName("Order costs");
    explain(costs_, Topic::orderCost);
    explain(this, Topic::evenings);
    addColumn(chosen_, detail_, 3);
    addColumn(costsTitle_, costs_, 2);
    layout->addLayout(columns, 1);
    auto* frame = new QVBoxLayout;
    frame->setContentsMargins(0, 0, 0, 0);
    frame->addWidget(scrolled(layout));
    return card(frame);
}

void BoardPage::refresh(const PlanFigures& figures) {
    figures_ = figures;
    const Question* question = session_.question();
    if (!question) return;
    BoardLines reported = boardLines(session_.document(), *question, figures, session_.now());
    title_->setText(reported.overlong.isEmpty() ? reported.title
                                                : reported.title + ".  " + reported.overlong);
    anew_->setEnabled(reported.canBeDatedAnew);
    laterTitle_->setVisible(!reported.later.empty());
    later_->setVisible(!reported.later.empty());
    later_->show(std::move(reported.later));
    board_->show(std::move(reported));
    lanes_->setMinimumHeight(std::min(board_->minimumHeight(), 13 * fontMetrics().height()));
    showChosen();
    showCosts(board_->lines().costs, false);
}

void BoardPage::showChosen() {
    const BoardLines& lines = board_->lines();
    skip_->setText(say("Skip…"));
    if (const auto bar = board_->chosenBar()) {
        chosen_->setText(lines.bars[*bar].title + "   " + lines.bars[*bar].when);
        detail_->setText(lines.bars[*bar].detail);
        return;
    }
    const auto at = static_cast<std::size_t>(board_->focused());
    const BoardPast* past = at < lines.past.size() ? &lines.past[at] : nullptr;
    chosen_->setText(past ? past->title : QString());
    detail_->setText(past ? past->detail : QString());
    if (past && past->skipped) skip_->setText(say("Take up again"));
}

void BoardPage::showCosts(const QStringList& costs, bool previewed) {
    costsTitle_->setText(previewed ? say("What it would cost there") : say("What this order costs"));
    costs_->setText(costs.join("\n"));
}

void BoardPage::previewMove(std::size_t from, std::size_t to) {
    if (const Question* question = session_.question())
        showCosts(movedCosts(session_.document(), *question, figures_, session_.now(), from, to), true);
}

void BoardPage::act(const Message& title, const std::function<void(Edit&, const Question&)>& change,
                    Dates dates) {
    const Question* question = session_.question();
    if (!question) return;
    Edit edit(session_.document(), title);
    try {
        change(edit, *question);
    } catch (const InputError& error) {
        session_.refuse(saySentence(error));
        return;
    }
    if (dates == Dates::anew)
        performLaid(session_, std::move(edit));
    else
        session_.perform(edit.finish());
}

void BoardPage::layFirst(Edit& edit) const {
    const Id<Study> study = session_.question()->study;
    if (!plannedSlots(edit.document(), study).empty()) return;
    // The tape follows the study's first question; others get their levels beside it.
    const Question first = *firstQuestion(edit.document(), study);
    layPlan(edit, first, planFor(edit.document(), study), session_.now(), figures_.clock);
}

void BoardPage::move(std::size_t from, std::size_t to) {
    const BoardLines& lines = board_->lines();
    if (from >= lines.bars.size() || to >= lines.bars.size()) return;
    const auto first =
        std::find_if(lines.bars.begin(), lines.bars.end(), [](const BoardBar& bar) { return bar.movable; });
    to = std::max(to, static_cast<std::size_t>(first - lines.bars.begin()));
    if (!lines.bars[from].movable || from == to) {
        session_.refuse(say("The machine as it stands is measured before anything is changed."));
        return;
    }
    const bool next = to + 1 < from && to == static_cast<std::size_t>(first - lines.bars.begin());
    act(
        titled(next ? words::mark("Do it next") : words::mark("Reorder the mounts")),
        [&](Edit& edit, const Question& question) {
            layFirst(edit);
            const auto planned = plannedSlots(edit.document(), question.study);
            const std::size_t before = planned.size() - lines.bars.size(); // laid with it, ahead of the rest
            moveSlot(edit, planned.at(before + from)->id, before + to);
        },
        Dates::anew);
    if (!lines.bars[from].slot)
        board_->chooseBar(to); // of a draft; on the tape the choice goes with its slot
}

void BoardPage::moveChosen(std::ptrdiff_t by) {
    const auto bar = board_->chosenBar();
    if (!bar) {
        session_.refuse(say("Only a planned mount can be moved. Choose its bar first."));
        return;
    }
    const auto last = static_cast<std::ptrdiff_t>(board_->lines().bars.size()) - 1;
    const auto to = std::clamp(static_cast<std::ptrdiff_t>(*bar) + by, std::ptrdiff_t{0}, last);
    if (to != static_cast<std::ptrdiff_t>(*bar)) move(*bar, static_cast<std::size_t>(to));
}

void BoardPage::skipOrTakeUp() {
    const auto id = board_->chosenSlot();
    const Slot* slot = session_.document().find(id);
    if (!slot || slot->mount) {
        session_.refuse(board_->chosenBar()
                            ? say("The order is not on the tape yet: put it there first.")
                            : say("Choose a planned mount to skip. One that was made is rejected on Bench."));
        return;
    }
    if (!slot->skippedBecause.empty()) {
        act(
            titled("Take a mount up again"), [&](Edit& edit, const Question&) { takeUpAgain(edit, *id); },
            Dates::anew);
        return;
    }
    askText(
        this, {say("Skip this mount"), say("Why? The reason stays in the record."), {}},
        [this, planned = *id](const QString& reason) {
            act(
                titled("Skip a mount"),
                [&](Edit& edit, const Question&) { skipSlot(edit, planned, reason.trimmed().toStdString()); },
                Dates::anew);
            return QString();
        });
}

void BoardPage::addOne() {
    const auto id = board_->chosenSlot();
    const Question* question = session_.question();
    if (!question) return;
    const Design design = designOf(session_.document(), *question);
    for (const DesignUnit& unit : design.units)
        if (id && unit.slot == *id && unit.cell) {
            act(
                titled("Add a mount of {level}", {{"level", design.cells[*unit.cell].name}}),
                [&](Edit& edit, const Question& asked) { addMount(edit, asked, *unit.cell, false); },
                Dates::anew);
            return;
        }
    session_.refuse(board_->chosenBar() && !id
                        ? say("The order is not on the tape yet: put it there first.")
                        : say("Choose a mount of the level of which one more is wanted."));
}

void BoardPage::extend() {
    const Question* question = session_.question();
    if (!question) return;
    const QString hint = extensionHint(session_.document(), *question, figures_);
    askNumber(this, {say("Extend the study"), hint, {}}, 1, 50, [this](int more) {
        act(titled("Extend by {mounts}", {{"mounts", more}}), [&](Edit& edit, const Question& asked) {
            extendStudy(edit, asked, more, session_.now(), figures_.clock);
        });
    });
}

void BoardPage::stop() {
    askText(this, {say("Stop the study early"), say("Why? What is left is skipped for this reason."), {}},
            [this](const QString& reason) {
                act(titled("Stop early"), [&](Edit& edit, const Question& question) {
                    stopEarly(edit, question.study, reason.trimmed().toStdString());
                });
                return QString();
            });
}

void BoardPage::shuffle() {
    act(titled("Draw another order"), [&](Edit& edit, const Question&) {
        Plan plan = figures_.plan;
        ++plan.seed;
        putPlan(edit, plan);
    });
}

void BoardPage::layOnTape() {
    act(titled("Put the plan on the tape"), [&](Edit& edit, const Question& question) {
        const Question& first = *firstQuestion(session_.document(), question.study);
        layPlan(edit, first, planFor(session_.document(), question.study), session_.now(), figures_.clock);
        if (!figures_.plan.followUps.empty()) layFollowUps(edit, planFor(edit.document(), question.study));
    });
}

void BoardPage::planFollowUps() {
    const Question* question = session_.question();
    if (!question) return;
    Edit edit(session_.document(), titled("Plan follow-ups"));
    try {
        layFollowUps(edit, planFor(session_.document(), question->study));
    } catch (const InputError& error) {
        session_.refuse(saySentence(error));
        return;
    }
    if (edit.finish().empty())
        session_.refuse(say("There is nothing to come back to. Write delays such as 24 h, 5 d, and put the "
                            "plan on the tape."));
    else
        session_.perform(edit.finish());
}

void BoardPage::chooseCalendar() {
    askFile(this, {FileWish::Kind::save, say("Calendar file"), say("plan.ics"), say("iCalendar (*.ics)")},
            [this](const QString& path) {
                if (exportCalendar(path)) session_.post(say("Written to %1. Calendars open it.").arg(path));
            });
}

bool BoardPage::exportCalendar(const QString& path) {
    const Question* question = session_.question();
    if (!question) return false;
    try {
        const auto events = planEvents(session_.document(), question->study);
        if (events.empty()) {
            session_.refuse(say("Nothing is planned yet. Put the order on the tape first."));
            return false;
        }
        const Instant stamp{QDateTime::currentMSecsSinceEpoch()};
        writeFileAtomically(path.toStdString(), calendarText(events, figures_.plan.zone, stamp));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

} // namespace ibuki
