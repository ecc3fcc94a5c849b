// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Drawings of the window as files.

#include <QByteArray>

class QWidget;

namespace ibuki {

// What is drawn on a widget as a file's bytes: as lines and letters, or at twice its size as points. Plots
// are drawn anew, so that they are lines too.
QByteArray svgOf(QWidget& drawn);
QByteArray pngOf(QWidget& drawn);

} // namespace ibuki
