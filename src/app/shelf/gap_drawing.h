// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/shelf/gap.h"

#include <QWidget>

namespace ibuki {

/// The pads from the side, heights to one scale: as bought (dashed), pressed between chip and plate (filled).
class GapDrawing : public QWidget {
    Q_OBJECT

public:
    explicit GapDrawing(QWidget* parent = nullptr);
    void show(const GapReport& report);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    GapReport report_;
};

} // namespace ibuki
