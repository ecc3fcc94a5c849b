// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The plan as one board, without widgets: a lane a level, evenings across, each mount a bar of its steps;
// what that order costs, and what there is to come back to.

#include "app/question/plan_figures.h"
#include "core/domain/material.h"

#include <QStringList>
#include <vector>

namespace ibuki {

/// How a step is drawn: hands are busy, somebody waits beside it, it runs by itself.
enum class StepLook { manualWork, waiting, alone };
StepLook lookOf(const StepOccurrence& step);

struct BoardLane {
    QString name;
    std::optional<MaterialClass> kind;
};

/// A mount still to be made.
struct BoardBar {
    std::size_t lane = 0;
    std::optional<Id<Slot>> slot;      ///< nothing: not on the tape yet
    QString title;                     ///< "3  Tern 11"
    QString when;                      ///< "Tue 2031-03-04 18:40"
    QString detail;                    ///< steps with their minutes, and what can be done meanwhile
    bool movable = true;               ///< false: the machine as it stands, which is first
    std::vector<StepOccurrence> steps; ///< with start and end
};

/// A mount that was made or skipped.
struct BoardPast {
    std::size_t lane = 0;
    Id<Slot> slot;
    bool skipped = false;
    QString title;
    QString detail;
};

struct BoardEvening {
    QString title;      ///< "Tue 2031-03-04"
    QString manualWork; ///< "54 min of hands"
    Instant start;
    Instant end;
};

/// A day on which something is to be come back to.
struct BoardDay {
    QString title;
    QString since;  ///< how long after the one before, "3 days later"
    QString detail; ///< one line a mount
    std::vector<std::optional<MaterialClass>> marks;
    bool overdue = false;
};

struct BoardLines {
    QString title;
    QString reason; ///< in the place of all the rest
    std::vector<BoardLane> lanes;
    std::vector<BoardPast> past;
    std::vector<BoardBar> bars; ///< in the order in which they will be made
    std::vector<BoardEvening> evenings;
    std::vector<BoardDay> later;
    QStringList costs;           ///< what the order costs, sentence by sentence
    QString overlong;            ///< mounts that no evening holds
    bool canBeDatedAnew = false; ///< the tape has other dates
};

/// Of what is on the tape, else of the order drawn.
BoardLines boardLines(const Document& document, const Question& question, const PlanFigures& figures,
                      Instant now);

/// What the order would cost if the planned mount at `from` stood at `to` (places among the bars).
QStringList movedCosts(const Document& document, const Question& question, const PlanFigures& figures,
                       Instant now, std::size_t from, std::size_t to);

} // namespace ibuki
