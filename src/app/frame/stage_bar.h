// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <vector>

class QToolButton;

namespace ibuki {

/// The stages of the work down the left edge, in their order. Each is one main view.
class StageBar : public QWidget {
    Q_OBJECT

public:
    struct Stage {
        QString name;
        QString what; ///< tool tip
    };
    explicit StageBar(const std::vector<Stage>& stages, QWidget* parent = nullptr);

    void setCurrent(int index);
    int current() const { return current_; }

signals:
    void chosen(int index);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;
    QSize sizeHint() const override;

private:
    QRectF rectOf(int index) const;
    int stageAt(const QPointF& point) const;
    void choose(int index);

    std::vector<Stage> stages_;
    int current_ = 0;
    int focused_ = 0;
};

} // namespace ibuki
