// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Weights of the criteria of value as a small file: {"delta_K": 0.5, "price_per_application": 0.3}.

#include "core/comparison/value_front.h"

#include <filesystem>

namespace ibuki {

/// Throws InputError (json-field) for what is no such object, an unknown key or no number of 0 or more.
Weights readWeights(const std::filesystem::path& path);

} // namespace ibuki
