// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What two results for one pair tell.

#include "core/heat/disagreement.h"

#include <QString>

namespace ibuki {

/// "1.8 K", with a true minus; withSign: a plus too.
QString kelvinText(double kelvin, bool withSign = false);

QString accountText(const Disagreement& found, const QString& first, const QString& second, double herePowerW,
                    const ExternalResult& read);

} // namespace ibuki
