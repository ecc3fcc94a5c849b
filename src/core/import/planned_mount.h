// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A mount as its place in the plan asks for it: configuration, torque, applications, its slot.

#include "core/domain/study.h"
#include "core/import/import_rows.h"

namespace ibuki {

/// Gives every mount of the bench its place by time; undated ones keep their order behind the dated.
void orderByTime(Edit& edit, Id<Bench> bench);

/// A new mount with its application, or with those that it goes on with, in the first planned slot that fits,
/// else in a new one at the end. before: the document that the row was made for.
Id<Mount> addPlannedMount(Edit& edit, const Document& before, const Study& study, const Question& question,
                          const ImportRow& row);

/// From the first log on, the study is being measured and what its questions compare is frozen.
void beginMeasuring(Edit& edit, const Study& study);

} // namespace ibuki
