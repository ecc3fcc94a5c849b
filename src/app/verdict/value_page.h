// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"
#include "core/evidence/material_value.h"

class QCustomPlot;
class QLabel;
class QListWidget;
class QSlider;
class QTableWidget;

namespace ibuki {

/// What each material is worth: temperature against price with the front, weights by sliders with how often
/// each would win over all weightings, and what to take for which use.
class ValuePage : public VerdictPage {
    Q_OBJECT

public:
    explicit ValuePage(QWidget* parent = nullptr);

    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    QWidget* makeSliders();
    std::optional<Weights> weights() const; ///< nothing where all sliders stand at 0
    void weigh();                           ///< as the sliders stand
    void tell();
    void fitText();
    void fillTable();
    void fillAdvice(const std::vector<Advice>& advice);
    void draw();

    MaterialValue value_;
    QCustomPlot* plot_;
    QLabel* reported_;
    QTableWidget* table_;
    QListWidget* advice_;
    std::array<QSlider*, criteria> sliders_{};
};

} // namespace ibuki
