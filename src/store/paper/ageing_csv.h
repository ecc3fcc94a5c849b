// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pages of drift as data.

#include "core/ageing/ageing_judgement.h"
#include "core/ageing/outcomes.h"
#include "core/ageing/reapplication.h"
#include "core/ageing/shelf_age.h"
#include "core/physics/acceleration.h"
#include "core/setup/follow_ups.h"

#include <string>

namespace ibuki {

/// A row a reading, with its clocks and the change since fresh.
std::string ageingCsv(const AgeingJudgement& judged);

/// A row a check that is to come.
std::string checksDueCsv(const std::vector<DueCheck>& checks);

/// Of a harder test that stands for so many years.
std::string acceleratedCsv(const Accelerated& test, double years);

/// A row a machine.
std::string machinesCsv(const Reapplication& due);

/// A row a lot, then a row a material and outcome.
std::string tubesCsv(const ShelfAge& tubes, const std::vector<OutcomeTable>& outcomes);

} // namespace ibuki
