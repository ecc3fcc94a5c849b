// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/strip_layout.h"

#include <QWidget>

namespace ibuki {

class Session;

/// The heat path on its side at the top of the window. Arrow keys walk along the layers, Enter or a click
/// opens one.
class Strip : public QWidget {
    Q_OBJECT

public:
    explicit Strip(Session& session, QWidget* parent = nullptr);

    void refresh();
    const StripModel& model() const { return model_; }
    QSize sizeHint() const override;

signals:
    void layerOpened(Id<Layer> layer);
    void benchWanted(); ///< the block of an empty project was opened

protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    QRectF blockArea() const;
    StripLayout layout() const;
    void open(int block);
    void paintBlock(QPainter& painter, const QRectF& rect, int index) const;

    Session& session_;
    StripModel model_;
    int hovered_ = -1;
    int focused_ = 0;
};

} // namespace ibuki
