// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

class QString;

namespace ibuki {

class MainWindow;

/// A run of the demo's next mount on a simulated bench: while it soaks, in the small window, and with the
/// chip at its limit.
void pictureLive(MainWindow& window, const QString& folder, const QString& suffix);

/// What a check-up of a simulated bench finds.
void pictureCheckUp(MainWindow& window, const QString& folder, const QString& suffix);

/// A practice with two mounts of each material, committed and unsealed.
void picturePractice(MainWindow& window, const QString& folder, const QString& suffix);

} // namespace ibuki
