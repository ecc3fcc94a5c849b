// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <functional>
#include <optional>

namespace ibuki {

struct Disagreement;

/// One row after the other on one axis of kelvin: what was found here, by how much the benches move it, what
/// scatter may do, what is left, what was reported. Each begins where the one above ends.
class AccountBars : public QWidget {
    Q_OBJECT

public:
    explicit AccountBars(QWidget* parent = nullptr);

    void show(const Disagreement* found); ///< nullptr: nothing
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {300, sizeHint().height()}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Row {
        QString name;
        QString value;
        double from = 0, to = 0;
        double half = 0; ///< of a whisker about `to`; 0: none
        Qt::BrushStyle fill = Qt::SolidPattern;
    };
    /// at: the place of a difference along the bars; middle: of this one, down.
    static void paintBar(QPainter& painter, const Row& row, const std::function<double(double)>& at,
                         double middle, double line);

    std::vector<Row> rows_;
};

} // namespace ibuki
