// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"

class QLabel;
class QTableWidget;

namespace ibuki {

/// Every pair in a square, best group first: how much the row's group is hotter than the column's, with its
/// interval and what is said of it. Walked by arrow keys; Ctrl+C copies a cell with unit and interval. Below,
/// mean, median and best of each group, the best with what chance alone gives it.
class PairsPage : public VerdictPage {
    Q_OBJECT

public:
    explicit PairsPage(QWidget* parent = nullptr);

    void show(const Comparison& comparison, const std::string& unit);
    void clear();
    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;

protected:
    void changeEvent(QEvent* event) override;

private:
    void fillPairs();
    void fillFigures();
    void meanCell();

    std::optional<Comparison> comparison_;
    std::string unit_;
    QTableWidget* table_;
    QTableWidget* figures_;
    QLabel* best_;
};

} // namespace ibuki
