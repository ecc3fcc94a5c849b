// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The pictures of docs/screenshots, from the window itself.

class QString;

namespace ibuki {

class MainWindow;

/// Every main view of the demo project as a picture of 1280 × 800 in the folder, and the views of sheets that
/// matter. Returns the exit status of a program.
int pictureViews(MainWindow& window, const QString& folder, const QString& suffix);

} // namespace ibuki
