// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study of how much, or how tight: the response over amount or torque, with the smallest setting that is
// good enough (docs/methods.md, D.19).

#include "core/evidence/evidence.h"
#include "core/series/sweep.h"

namespace ibuki {

struct SettingSweep {
    std::vector<SweepPoint> points; ///< one a run; groups are the second factor's levels, or all in one
    std::optional<Responses> responses;
    std::optional<Message> reason; ///< when there are none
    Interval swept;
};

/// Whether the question varies amount or torque.
bool variesSetting(const Question& question);
/// "g" or "N·m".
std::string_view settingUnit(const Question& question);

/// Fresh runs under the compared load, without those at the temperature limit. An amount is what was weighed
/// or stated at the mount, else the level's.
SettingSweep settingSweep(const Document& document, const Question& question, const Evidence& evidence);

} // namespace ibuki
