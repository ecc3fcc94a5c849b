// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/paper/ladder_layout.h"

#include "core/domain/material.h"

#include <QWidget>
#include <map>

namespace ibuki {

/// The ladder, drawn from the same geometry as the report's. Left and right arrows walk along a rung's
/// mounts, up and down along the rungs; Enter or a click tells which mount was meant.
class Ladder : public QWidget {
    Q_OBJECT

public:
    explicit Ladder(QWidget* parent = nullptr);

    void show(const Comparison& comparison, const std::map<std::string, MaterialClass>& kinds,
              const std::string& unit);
    void clear();
    void highlight(std::optional<std::size_t> pair); ///< index into Comparison::pairs
    void markMount(const std::string& mountName);    ///< the selected mount's mark is filled

signals:
    void mountMeant(const QString& mountName);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    LadderLayout layout() const;
    std::optional<std::pair<int, int>> markAt(const QPointF& point) const; ///< rung, mark
    const std::string& mountName(const LadderLayout& at, int rung, int mark) const;
    void paintRung(QPainter& painter, const LadderLayout& at, int rung) const;

    std::optional<Comparison> comparison_;
    std::map<std::string, MaterialClass> kinds_;
    std::string unit_;
    std::string selected_;
    std::optional<std::size_t> pair_;
    int rung_ = 0;
    int mark_ = 0;
};

} // namespace ibuki
