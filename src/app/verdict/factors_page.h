// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"
#include "core/comparison/two_factor.h"

class QCustomPlot;
class QLabel;

namespace ibuki {

/// Means of the first factor's levels along the levels of the second: parallel lines are no interaction.
class FactorsPage : public VerdictPage {
    Q_OBJECT

public:
    explicit FactorsPage(QWidget* parent = nullptr);

    void show(const TwoFactors& factors, const std::string& unit, double confidence);
    void tell(const QString& why); ///< nothing to draw
    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    void draw();

    std::optional<TwoFactors> factors_;
    std::string unit_;
    double confidence_ = 0.95;
    QCustomPlot* plot_;
    QLabel* reported_;
};

} // namespace ibuki
