// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A simulated log as a logger would have written it, read back as a user's import does.

#include "core/import/import_rows.h"
#include "core/simulate/simulated_bench.h"

#include <filesystem>

namespace ibuki {

/// label and number: of its file's name, with the protocol's date. folder: where it is written too; empty:
/// nowhere.
ImportedLog sampleLog(const SimulatedBench& bench, const SimulatedProtocol& protocol, std::uint64_t seed,
                      const std::string& label, int number, const std::filesystem::path& folder);

} // namespace ibuki
