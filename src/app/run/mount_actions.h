// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What can be done to the selected mount. Each asks what it needs to know and makes one change, or none.

#include "app/session/session.h"
#include "core/caution/caution.h"
#include "core/domain/mount.h"

namespace ibuki {

/// What the cautions of a mount are about.
CautionSubject cautionSubject(const Session& session, const Mount& mount);

void openCautions(Session& session, QWidget* parent);
void openApplication(Session& session, QWidget* parent);
/// Rejects the mount with a reason, or takes a rejected one back.
void rejectMount(Session& session, QWidget* parent);
/// The room temperature of the mount's runs, read by hand.
void enterAmbient(Session& session, QWidget* parent);
void setMountTime(Session& session, QWidget* parent);

} // namespace ibuki
