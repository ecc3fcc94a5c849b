// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace ibuki {

/// For what decides whether a caution applies: not stated is not the same as no.
enum class YesNo { notStated, no, yes };

} // namespace ibuki
