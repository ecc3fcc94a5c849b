// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/heat/heat_page.h"

class QComboBox;
class QLabel;
class QTableWidget;

namespace ibuki {

/// What was measured of the joints: differences of R″ first, which do not depend on the anchor; then each
/// material beside what its label says.
class JointsPage : public HeatPage {
    Q_OBJECT

public:
    explicit JointsPage(QWidget* parent = nullptr);

    void fill(const HeatMatter& matter) override;
    std::string csv() const override;

signals:
    void anchorChosen(int group); ///< index into the calibration's groups

private:
    void fillDifferences(const Calibration& calibration);
    void fillMaterials(const Calibration& calibration);

    QComboBox* anchor_;
    QLabel* told_;
    QTableWidget* differences_;
    QTableWidget* materials_;
    std::optional<Calibration> shown_;
};

} // namespace ibuki
