// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/recording/live_lines.h"

#include <QWidget>

namespace ibuki {

/// Quiet lamps: a ring for what is not read, a dot for what is as it should be, a triangle and words for what
/// is not, a square for what stopped the load.
class StatusLightRow : public QWidget {
    Q_OBJECT

public:
    explicit StatusLightRow(QWidget* parent = nullptr);

    void show(std::vector<StatusLightLine> statusLights);
    void setBrief(bool brief); ///< marks only, for little room
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {120, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<StatusLightLine> statusLights_;
    bool brief_ = false;
};

} // namespace ibuki
