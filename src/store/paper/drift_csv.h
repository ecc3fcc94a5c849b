// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pages of drift as data.

#include "core/drift/drift_judgement.h"
#include "core/drift/outcomes.h"
#include "core/drift/reapplication.h"
#include "core/drift/shelf_age.h"

#include <string>

namespace ibuki {

/// A row a reading, with its clocks and the change since fresh.
std::string driftCsv(const DriftJudgement& judged);

/// A row a machine.
std::string machinesCsv(const Reapplication& due);

/// A row a lot, then a row a material and outcome.
std::string tubesCsv(const ShelfAge& tubes, const std::vector<OutcomeTable>& outcomes);

} // namespace ibuki
