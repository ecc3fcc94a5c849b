// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evidence/side_responses.h"

#include <QWidget>

namespace ibuki {

/// Groups in rows, responses in columns, each column on a scale of its own: a circle a mount, a bar the mean
/// with its interval, the figure beside it. More columns than there is room for go on below.
class ResponseGrid : public QWidget {
    Q_OBJECT

public:
    explicit ResponseGrid(QWidget* parent = nullptr);

    void show(const std::vector<SideComparison>& sides, const std::vector<Named>& groups);
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Column {
        QString head;
        QString note; ///< which end is better
        double low = 0;
        double high = 1;
        int decimals = 1;
        std::vector<const GroupSummary*> cells; ///< beside the groups; nullptr: not measured
    };

    double nameWidth() const;
    int columnsAt(int width) const; ///< beside each other
    void paintNames(QPainter& painter, double top) const;
    void paintColumn(QPainter& painter, const Column& column, const QRectF& area) const;
    void paintCell(QPainter& painter, const Column& column, const GroupSummary& group,
                   const QRectF& area) const;

    std::vector<SideComparison> sides_;
    std::vector<Named> groups_;
    std::vector<Column> columns_;
};

} // namespace ibuki
