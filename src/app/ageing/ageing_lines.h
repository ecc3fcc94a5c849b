// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the pages of drift tell, as text: tables row by row, sentences.

#include "app/ageing/ageing_desk.h"
#include "core/ageing/ageing_curves.h"
#include "core/physics/acceleration.h"

#include <QStringList>

namespace ibuki {

QString clockLabel(AgeingClock clock); ///< "Hours since mounting"

/// "6 h", "5 days"; of cycles their number.
QString clockText(AgeingClock clock, double value);

/// Model, AICc, weight, change until the last reading, time to the threshold.
QStringList modelHead();
std::vector<QStringList> modelRows(const ClockedCourse& course);

/// Mount, material, mounted, age, under load, cycles, above the melt, opened.
QStringList mountHead();
struct MountRow {
    Id<Mount> mount;
    QStringList cells;
};
std::vector<MountRow> mountRows(const AgeingMatter& matter);

/// Mount, after, due, what that means.
QStringList checkHead();
std::vector<QStringList> checkRows(const AgeingMatter& matter);

/// Machine, mount, material, mounted, due, from, to, by what.
QStringList machineHead();
std::vector<QStringList> machineRows(const AgeingMatter& matter);

/// Material, years, applications, material, hands, together, by what.
QStringList costHead();
std::vector<QStringList> costRows(const AgeingMatter& matter);

/// Tube, material, made so long before, open for, condition, mounts, ΔT.
QStringList tubeHead();
std::vector<QStringList> tubeRows(const ShelfAge& tubes);

/// "At 4 days: Tern 11 30.1 K, Slate 25 32.0 K."; empty where nothing can be compared.
QString equalAgeLine(const AgeingJudgement& judged);

/// What a test stands for, and what it cannot show.
QStringList acceleratedLines(const UseAndTest& asked, double years);

} // namespace ibuki
