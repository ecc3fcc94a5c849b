// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What time did to a study's mounts, in its report: sentences, and the change since fresh drawn.

#include "core/ageing/ageing_judgement.h"

#include <string>

namespace ibuki {

/// Change since fresh of the followed groups over the hours, with the threshold; SVG.
std::string ageingSvg(const AgeingJudgement& judged);

/// HTML; empty where no mount was measured twice.
std::string ageingHtml(const Document& document, const Question& question);

} // namespace ibuki
