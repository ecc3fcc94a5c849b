// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"
#include "core/evidence/power_sweep.h"
#include "core/evidence/setting_sweep.h"

class QCustomPlot;
class QLabel;

namespace ibuki {

/// Over power: a line for each level with its mounts, slopes, and where two of them change places. Where the
/// question varies amount or torque: the curve over it, with the smallest setting that is good enough.
class SweepPage : public VerdictPage {
    Q_OBJECT

public:
    explicit SweepPage(QWidget* parent = nullptr);
    void show(const PowerSweep& sweep);
    void show(const SettingSweep& sweep, const std::string& settingUnit, const std::string& unit,
              double margin);
    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    void draw();
    void drawCurve(const Named& group, std::size_t place, const QVector<double>& x, const QVector<double>& y);

    std::vector<SweepPoint> points_;
    std::optional<Lines> lines_;
    std::optional<Responses> responses_;
    Interval swept_;
    std::string xUnit_ = "W";
    std::string unit_ = "K";
    QCustomPlot* plot_;
    QLabel* reported_;
};

} // namespace ibuki
