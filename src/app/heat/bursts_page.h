// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "core/heat/bursts.h"
#include "core/heat/what_if.h"

class QComboBox;
class QCustomPlot;
class QDoubleSpinBox;
class QLabel;

namespace ibuki {

/// Short bursts beside one long load on the path as it is turned over in the head.
class BurstsPage : public ExportedPage {
    Q_OBJECT

public:
    explicit BurstsPage(QWidget* parent = nullptr);

    void show(const HeatPath& path);
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void showEvent(QShowEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    BurstPattern pattern() const;
    void work();
    void draw();

    QDoubleSpinBox* on_;
    QDoubleSpinBox* off_;
    QDoubleSpinBox* low_;
    QDoubleSpinBox* minutes_;
    QComboBox* cooler_;
    QLabel* reported_;
    QCustomPlot* plot_;
    bool stale_ = true; ///< not worked out since the path changed
    std::optional<HeatPath> path_;
    std::optional<BurstCurves> curves_;
};

} // namespace ibuki
