// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/heat/heat_page.h"
#include "core/heat/calibration_draws.h"

class QComboBox;
class QLabel;
class QTableWidget;

namespace ibuki {

/// What was measured of the joints: differences of R″ first, which do not depend on the anchor; then each
/// material beside what its label says.
class JointsPage : public HeatPage {
    Q_OBJECT

public:
    explicit JointsPage(Session& session, QWidget* parent = nullptr);

    void fill(const HeatMatter& matter) override;
    std::string csv() const override;
    bool isDrawn() const { return !stale_ && drawn_.draws > 0; } ///< intervals by draws stand beside

protected:
    void showEvent(QShowEvent* event) override;

signals:
    void anchorChosen(int group); ///< index into the calibration's groups

private:
    void draw();
    void takeDrawn(const DrawnCalibration& drawn);
    void fillDifferences(const Calibration& calibration);
    void fillMaterials(const Calibration& calibration);

    Session& session_;
    QComboBox* anchor_;
    QLabel* reported_;
    QTableWidget* differences_;
    QTableWidget* materials_;
    QLabel* drawnReported_;
    std::optional<Calibration> shown_;
    DrawnCalibration drawn_;
    bool stale_ = true;
};

} // namespace ibuki
