// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "core/plan/pair_chances.h"

namespace ibuki {

/// What the curves are drawn with.
struct ChanceCurveMarks {
    Goal goal = Goal::difference;
    double margin = 1;
    QString unit;
    double wanted = 0.9;       ///< chance
    int mounts = 0;            ///< of each level, as planned
    std::optional<int> needed; ///< for the chance wanted
};

/// The chance over the true difference, the margin shaded and the plan's point on it, and the chance over the
/// number of mounts. Items are numbers of mounts: arrow keys walk along them, Enter or a click chooses one.
class ChanceCurve : public DrawnItems {
    Q_OBJECT

public:
    explicit ChanceCurve(QWidget* parent = nullptr);

    void show(ChanceCurves curves, const ChanceCurveMarks& marks);
    void clear();
    bool isEmpty() const { return curves_.overMounts.empty(); }

signals:
    void mountsMeant(int mounts);

protected:
    void paintEvent(QPaintEvent* event) override;
    int itemCount() const override { return static_cast<int>(curves_.overMounts.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;

private:
    QString amount(double value) const;
    /// Where a chance (0 to 1) over a place (0 to 1 along the axis) is drawn.
    struct Frame {
        QRectF plot;
        QPointF at(double along, double chance) const;
    };
    Frame differenceFrame() const;
    Frame mountsFrame() const;
    double alongMounts(double mounts) const;
    void paintFrame(QPainter& painter, const Frame& frame, const QString& title) const;
    void paintDifferences(QPainter& painter) const;
    void paintMounts(QPainter& painter) const;
    void paintNumber(QPainter& painter, const Frame& frame, std::size_t place) const;

    ChanceCurves curves_;
    ChanceCurveMarks marks_;
};

} // namespace ibuki
