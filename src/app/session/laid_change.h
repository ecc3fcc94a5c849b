// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Changes that move the dates of what is planned on the tape.

#include "app/session/session.h"

namespace ibuki {

/// Performs the change with the evenings of what is planned laid anew, in the same undo. Where the plan has
/// no evenings (a day of the week that is none), the dates stay as they are.
bool performLaid(Session& session, Edit edit);

} // namespace ibuki
