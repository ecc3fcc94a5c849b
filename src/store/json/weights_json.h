// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Weights of the criteria of value as a small file: {"delta_K": 0.5, "price_per_application": 0.3}.

#include "core/stats/value_front.h"

#include <filesystem>

namespace ibuki {

/// The criterion's column in a table, and its key in such a file.
std::string_view criterionColumn(Criterion criterion);

/// Throws InputError (weights) for what is no such object, an unknown key or no number.
Weights readWeights(const std::filesystem::path& path);

} // namespace ibuki
