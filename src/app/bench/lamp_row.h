// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/live_lines.h"

#include <QWidget>

namespace ibuki {

/// Quiet lamps: a ring for what is not read, a dot for what is as it should be, a triangle and words for what
/// is not, a square for what stopped the load.
class LampRow : public QWidget {
    Q_OBJECT

public:
    explicit LampRow(QWidget* parent = nullptr);

    void show(std::vector<LampLine> lamps);
    void setBrief(bool brief); ///< marks only, for little room
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {120, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<LampLine> lamps_;
    bool brief_ = false;
};

} // namespace ibuki
