// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Colours and fonts of the window: warm paper and ink, a dark variant, one hot and one cold accent that are
// used for heat only. Contrast of text on its ground is at least 4.5:1 (tests/ui/tst_views).

#include <QColor>
#include <QFont>
#include <QString>

class QApplication;
class QWidget;

namespace ibuki {

enum class Shade { light, dark };

struct Colours {
    QColor ground; ///< behind everything
    QColor sheet;  ///< cards and fields
    QColor band;   ///< the tape, quiet buttons
    QColor ink;
    QColor quiet; ///< secondary text
    QColor line;
    QColor hot;
    QColor cold;
    QColor hotWash; ///< an interface in the strip, the margin on the ladder
    QColor coldWash;
    QColor body; ///< solid layers of the strip
};

Colours coloursOf(Shade shade);

/// Colours in force; set by applyTheme.
const Colours& colours();
Shade shade();

/// Loads the shipped fonts once, sets palette, style sheet and font size (1.0 is the usual). Widgets that are
/// there already follow: their palette and style by Qt, their fonts where they were set by setTextFont.
void applyTheme(QApplication& application, Shade shade, double textScale = 1.0);

/// Of words beside what is drawn.
inline constexpr double smallText = 0.85;

/// The text font in a multiple of the usual size.
QFont textFont(double size = 1.0, QFont::Weight weight = QFont::Normal);

/// Gives the widget that font, now and whenever the look changes.
void setTextFont(QWidget* widget, double size, QFont::Weight weight = QFont::Normal);

/// WCAG 2.1 contrast ratio of two opaque colours.
double contrast(const QColor& a, const QColor& b);

} // namespace ibuki
