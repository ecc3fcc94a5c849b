// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/board_lines.h"

#include "app/question/order_lines.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "app/session/step_title.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/spare_time.h"
#include "core/setup/plan_setup.h"

#include <algorithm>
#include <map>

namespace ibuki {
namespace {

/// What the board is drawn from: the mounts still to be made, in order, in their evenings.
struct BoardOrder {
    Design design;
    std::vector<std::optional<Id<Slot>>> slotIds;
    std::vector<OrderedMount> order;
    Schedule schedule;
    bool onTape = false;
};

const Question& firstOf(const Document& document, const Question& question) {
    const Question* first = firstQuestion(document, question.study);
    return first ? *first : question;
}

/// Of the tape, else of the order drawn. Throws what schedule throws; without an analysis there is none
/// drawn.
std::optional<BoardOrder> boardOrder(const Document& document, const Question& question,
                                     const PlanFigures& figures, Instant now) {
    BoardOrder board;
    if (!plannedSlots(document, question.study).empty()) {
        TapeEvenings tape =
            eveningsOfTape(document, firstOf(document, question), figures.plan, now, figures.clock);
        board = {std::move(tape.design), {}, std::move(tape.order), std::move(tape.schedule), true};
        for (Id<Slot> slot : tape.slotIds) board.slotIds.emplace_back(slot);
        return board;
    }
    const Study* study = document.find(question.study);
    if (study && study->state == StudyState::closed) { // nothing is left: what was made is still shown
        board.design = designOf(document, firstOf(document, question));
        board.onTape = true;
        return board;
    }
    if (!figures.analysis) return std::nullopt;
    board = {figures.analysis->design, {}, figures.analysis->toCome, figures.analysis->schedule, false};
    board.slotIds.resize(board.order.size());
    return board;
}

const Slot* slotAt(const Document& document, const BoardOrder& board, std::size_t i) {
    return document.find(board.slotIds.at(i));
}

bool isBaseline(const Document& document, const BoardOrder& board, std::size_t i) {
    const Slot* slot = slotAt(document, board, i);
    return slot && slot->kind == SlotKind::baseline;
}

const Material* materialOfCell(const Document& document, const Design& design, std::size_t cell) {
    const Level* level = document.find(design.cells.at(cell).level);
    return level ? document.find(level->material) : nullptr;
}

const Material* materialOf(const Document& document, const BoardOrder& board, const Plan& plan,
                           std::size_t i) {
    if (const auto cell = board.order[i].level) return materialOfCell(document, board.design, *cell);
    return isBaseline(document, board, i) ? nullptr : document.find(plan.checkWith);
}

/// One a cell; the machine as it stands above them and check mounts below, where there are any.
class Lanes {
public:
    Lanes(const Document& document, const BoardOrder& board, const Plan& plan)
        : cells_(board.design.cells.size()) {
        const auto& units = board.design.units;
        baseline_ = std::any_of(units.begin(), units.end(),
                                [](const DesignUnit& unit) { return unit.kind == SlotKind::baseline; });
        checks_ = std::any_of(board.order.begin(), board.order.end(),
                              [](const OrderedMount& mount) { return !mount.level && mount.block > 0; })
                  || std::any_of(units.begin(), units.end(),
                                 [](const DesignUnit& unit) { return unit.kind == SlotKind::checkMount; });
        if (baseline_) lanes_.push_back({say("as it stands"), {}});
        for (std::size_t cell = 0; cell < cells_; ++cell)
            lanes_.push_back(
                {qtext(board.design.cells[cell].name), kindOf(materialOfCell(document, board.design, cell))});
        if (checks_) lanes_.push_back({say("check mount"), kindOf(document.find(plan.checkWith))});
    }

    const std::vector<BoardLane>& all() const { return lanes_; }
    std::size_t ofCell(std::size_t cell) const { return cell + (baseline_ ? 1 : 0); }
    std::size_t ofCheck() const { return lanes_.size() - 1; }
    std::size_t of(const std::optional<std::size_t>& cell, bool baseline) const {
        return cell ? ofCell(*cell) : baseline ? 0 : ofCheck();
    }

private:
    static std::optional<MaterialClass> kindOf(const Material* material) {
        return material ? std::optional(material->kind) : std::nullopt;
    }

    std::size_t cells_;
    bool baseline_ = false;
    bool checks_ = false;
    std::vector<BoardLane> lanes_;
};

QString clockText(Instant at) { return qtext(dateTimeText(at).substr(11)); }

QString spareText(const SpareTime& spare) {
    QStringList work;
    for (const SpareWork& one : spare.work)
        work << say("%1 (%2 min)").arg(sayText(one.what)).arg(one.minutes, 0, 'f', 0);
    const QString head =
        say("From %1 to %2 the bench runs by itself").arg(clockText(spare.start), clockText(spare.end));
    return work.isEmpty() ? head + "." : head + say(". Meanwhile: ") + work.join("; ") + ".";
}

QString stepsText(const ScheduledMount& mount) {
    QStringList steps;
    for (const StepOccurrence& step : mount.steps)
        steps << stepTitle(step) + " " + durationText(step.minutes);
    return say("%1, done %2.").arg(steps.join("  ·  "), dayTimeText(mount.end));
}

void tellBars(BoardLines& reported, const Document& document, const BoardOrder& board, const Lanes& lanes,
              const Plan& plan, int place) {
    std::vector<const Material*> materials;
    for (std::size_t i = 0; i < board.order.size(); ++i)
        materials.push_back(materialOf(document, board, plan, i));
    std::map<std::size_t, QString> meanwhile;
    for (const SpareTime& spare : spareTimes(board.schedule, materials))
        meanwhile[spare.mount] = spareText(spare);
    for (std::size_t i = 0; i < board.order.size(); ++i) {
        const ScheduledMount& mount = board.schedule.mounts.at(i);
        BoardBar bar;
        const bool baseline = isBaseline(document, board, i);
        bar.lane = lanes.of(board.order[i].level, baseline);
        bar.slot = board.slotIds[i];
        bar.movable = !baseline;
        bar.title = QString("%1  %2").arg(++place).arg(lanes.all()[bar.lane].name);
        if (board.order[i].block > 0) bar.title += say(", block %1").arg(board.order[i].block);
        bar.when = dayTimeText(mount.start);
        bar.detail = stepsText(mount);
        if (meanwhile.contains(i)) bar.detail += "\n" + meanwhile[i];
        bar.steps = mount.steps;
        reported.bars.push_back(std::move(bar));
    }
}

void tellPast(BoardLines& reported, const Document& document, const BoardOrder& board, const Lanes& lanes) {
    int place = 0;
    for (const DesignUnit& unit : board.design.units) {
        if ((!unit.mount && !unit.skipped) || (unit.kind == SlotKind::level && !unit.cell)) continue;
        const Slot& slot = *document.find(unit.slot);
        BoardPast past;
        past.lane = lanes.of(unit.cell, unit.kind == SlotKind::baseline);
        past.slot = unit.slot;
        past.skipped = unit.skipped;
        past.title = QString("%1  %2").arg(++place).arg(lanes.all()[past.lane].name);
        const Mount* mount = document.find(unit.mount);
        past.detail = unit.skipped         ? say("skipped: ") + qtext(slot.skippedBecause)
                      : mount && mount->at ? say("made %1").arg(dayTimeText(*mount->at))
                                           : say("made");
        reported.past.push_back(std::move(past));
    }
}

void tellEvenings(BoardLines& reported, const Document& document, const BoardOrder& board) {
    for (const Evening& evening : board.schedule.evenings)
        reported.evenings.push_back({dayText(evening.start),
                                     say("%1 min of hands").arg(evening.manualMinutes, 0, 'f', 0),
                                     evening.start, evening.end});
    for (std::size_t i = 0; i < board.slotIds.size(); ++i)
        if (const Slot* slot = slotAt(document, board, i))
            reported.canBeDatedAnew |= slot->plannedFor != board.schedule.mounts.at(i).start;
    if (!board.schedule.overlong.empty())
        reported.overlong =
            sayMany("{count} mount needs more hands than an evening has: lengthen the evening.",
                    "{count} mounts need more hands than an evening has: lengthen the evening.",
                    static_cast<qint64>(board.schedule.overlong.size()));
}

QString boardTitle(const Document& document, const BoardOrder& board, const Question& question,
                   const PlanFigures& figures, bool canBeDatedAnew) {
    if (!board.onTape) return say("As drawn, not on the tape yet");
    if (board.order.empty()) return say("Nothing is left to do");
    const auto planned = plannedSlots(document, question.study);
    const auto mounts = std::count_if(planned.begin(), planned.end(),
                                      [](const Slot* slot) { return slot->kind != SlotKind::baseline; });
    if (figures.analysis && figures.analysis->mountsToCome != mounts)
        return say("On the tape, but not the plan as it is now");
    return canBeDatedAnew ? say("On the tape, with other dates than these") : say("On the tape");
}

struct Due {
    Instant at;
    QString what;
    std::optional<MaterialClass> kind;
};

std::vector<Due> dueOf(const Document& document, Id<Study> study, const WallClock& clock) {
    std::vector<Due> due;
    for (const Slot* slot : slotsOf(document, study))
        for (const FollowUp* later : document.where(&FollowUp::slot, slot->id)) {
            const auto at = dueAt(document, *later, clock);
            if (!at || later->done || !later->skippedBecause.empty() || !slot->skippedBecause.empty())
                continue;
            const Level* level = document.find(slot->level);
            const Material* material = level ? document.find(level->material) : nullptr;
            const Mount* mount = document.find(slot->mount);
            const QString name = mount ? qtext(mount->name) : level ? qtext(level->name) : say("mount");
            due.push_back({*at, say("%1  %2 after %3").arg(clockText(*at), name, qtext(later->after.text())),
                           material ? std::optional(material->kind) : std::nullopt});
        }
    std::stable_sort(due.begin(), due.end(), [](const Due& a, const Due& b) { return a.at < b.at; });
    return due;
}

void tellLater(BoardLines& reported, const Document& document, Id<Study> study, const WallClock& clock,
               Instant now) {
    std::optional<std::int64_t> day;
    for (const Due& due : dueOf(document, study, clock)) {
        const std::int64_t its = dayNumber(due.at);
        if (its != day) {
            BoardDay made;
            made.title = dayText(due.at);
            if (day) made.since = say("%1 later").arg(spanText(static_cast<double>(its - *day)));
            made.overdue = due.at < now;
            reported.later.push_back(std::move(made));
            day = its;
        }
        BoardDay& at = reported.later.back();
        at.detail += (at.detail.isEmpty() ? "" : "\n") + due.what;
        at.marks.push_back(due.kind);
    }
}

/// The mount at `from` at the place `to`, in the evenings that follow from it.
void moveWithin(BoardOrder& board, const Document& document, const Question& question,
                const PlanFigures& figures, Instant now, std::size_t from, std::size_t to) {
    if (from >= board.order.size() || to >= board.order.size()) return;
    const auto move = [&](auto& list) {
        const auto at = list.begin();
        const auto moved = static_cast<std::ptrdiff_t>(from);
        const auto place = static_cast<std::ptrdiff_t>(to);
        if (moved < place)
            std::rotate(at + moved, at + moved + 1, at + place + 1);
        else
            std::rotate(at + place, at + moved, at + moved + 1);
    };
    move(board.order);
    move(board.slotIds);
    Evenings evenings = eveningsOf(figures.plan, now);
    if (!board.schedule.evenings.empty())
        evenings.firstDay = std::max(evenings.firstDay, board.schedule.evenings.front().start);
    board.schedule =
        schedule(stepsOf(document, firstOf(document, question), figures.plan, board.design, board.order),
                 evenings, figures.clock);
}

/// What was made, then the order as it will be: a drift of the bench runs through both.
QStringList costsOf(const Document& document, const BoardOrder& board) {
    std::vector<OrderedMount> order;
    for (const DesignUnit& unit : board.design.units)
        if (unit.mount && unit.kind != SlotKind::baseline && (unit.cell || unit.kind != SlotKind::level))
            order.push_back({unit.cell, unit.block});
    for (std::size_t i = 0; i < board.order.size(); ++i)
        if (!isBaseline(document, board, i)) order.push_back(board.order[i]);
    std::vector<std::string> names;
    for (const DesignCell& cell : board.design.cells) names.push_back(cell.name);
    QStringList reported;
    if (!board.schedule.evenings.empty())
        reported << sayMany("%1 in {count} evening, the last mount done %2.",
                            "%1 in {count} evenings, the last mount done %2.",
                            static_cast<qint64>(board.schedule.evenings.size()))
                        .arg(durationText(board.schedule.benchMinutes),
                             dayTimeText(board.schedule.mounts.back().end));
    if (!order.empty()) reported << orderCostSentences(orderCosts(order, names.size()), names);
    return reported;
}

} // namespace

StepLook lookOf(const StepOccurrence& step) {
    if (step.unattended) return StepLook::alone;
    return step.kind <= StepKind::apply ? StepLook::manualWork : StepLook::waiting;
}

BoardLines boardLines(const Document& document, const Question& question, const PlanFigures& figures,
                      Instant now) {
    BoardLines reported;
    try {
        const auto board = boardOrder(document, question, figures, now);
        if (!board) {
            reported.reason = figures.reason;
            reported.costs = QStringList(figures.reason);
            return reported;
        }
        const Lanes lanes(document, *board, figures.plan);
        reported.lanes = lanes.all();
        tellPast(reported, document, *board, lanes);
        tellBars(reported, document, *board, lanes, figures.plan, static_cast<int>(reported.past.size()));
        tellEvenings(reported, document, *board);
        reported.costs = costsOf(document, *board);
        reported.title = boardTitle(document, *board, question, figures, reported.canBeDatedAnew);
        tellLater(reported, document, question.study, figures.clock, now);
    } catch (const InputError& error) {
        reported = {};
        reported.reason = saySentence(error);
        reported.costs = QStringList(reported.reason);
    }
    return reported;
}

QStringList movedCosts(const Document& document, const Question& question, const PlanFigures& figures,
                       Instant now, std::size_t from, std::size_t to) {
    try {
        auto board = boardOrder(document, question, figures, now);
        if (!board) return QStringList(figures.reason);
        if (from != to) moveWithin(*board, document, question, figures, now, from, to);
        return costsOf(document, *board);
    } catch (const InputError& error) {
        return QStringList(saySentence(error));
    }
}

} // namespace ibuki
