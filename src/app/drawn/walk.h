// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How arrow keys walk along a row or column of drawn things: strip, tape, stages.

#include <QKeyEvent>
#include <algorithm>
#include <optional>

namespace ibuki {

/// The index after the key; nothing when the key does not walk in this direction.
inline std::optional<int> walked(const QKeyEvent& event, Qt::Orientation along, int at, int count) {
    const int last = std::max(0, count - 1);
    const bool row = along == Qt::Horizontal;
    if (event.key() == (row ? Qt::Key_Left : Qt::Key_Up)) return std::max(0, at - 1);
    if (event.key() == (row ? Qt::Key_Right : Qt::Key_Down)) return std::min(last, at + 1);
    if (event.key() == Qt::Key_Home) return 0;
    if (event.key() == Qt::Key_End) return last;
    return std::nullopt;
}

inline bool opens(const QKeyEvent& event) {
    return event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter;
}

} // namespace ibuki
