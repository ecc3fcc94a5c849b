// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pages of drift as data.

#include "core/drift/drift_judgement.h"
#include "core/drift/outcomes.h"
#include "core/drift/reapplication.h"
#include "core/drift/shelf_age.h"
#include "core/physics/acceleration.h"
#include "core/setup/follow_ups.h"

#include <string>

namespace ibuki {

/// A row a reading, with its clocks and the change since fresh.
std::string driftCsv(const DriftJudgement& judged);

/// A row a check that is to come.
std::string checksDueCsv(const std::vector<DueCheck>& checks);

/// Of a harder test that stands for so many years.
std::string harderCsv(const Accelerated& test, double years);

/// A row a machine.
std::string machinesCsv(const Reapplication& due);

/// A row a lot, then a row a material and outcome.
std::string tubesCsv(const ShelfAge& tubes, const std::vector<OutcomeTable>& outcomes);

} // namespace ibuki
