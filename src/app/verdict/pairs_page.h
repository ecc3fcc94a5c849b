// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/compare.h"

#include <QWidget>

class QTableWidget;

namespace ibuki {

/// Every pair in a square, best group first: how much the row's group is hotter than the column's, with its
/// interval and what is said of it. Walked by arrow keys; Ctrl+C copies a cell with unit and interval.
class PairsPage : public QWidget {
    Q_OBJECT

public:
    explicit PairsPage(QWidget* parent = nullptr);

    void show(const Comparison& comparison, const std::string& unit);
    void clear();

signals:
    void pairMeant(std::optional<std::size_t> pair); ///< index into Comparison::pairs; none: not on a pair

protected:
    bool eventFilter(QObject* watched, QEvent* event) override; ///< copying
    void changeEvent(QEvent* event) override;

private:
    void fill();
    void meanCell();

    std::optional<Comparison> comparison_;
    std::string unit_;
    QTableWidget* table_;
};

} // namespace ibuki
