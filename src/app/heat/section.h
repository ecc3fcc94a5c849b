// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/physics/heat_path.h"

#include <QWidget>
#include <optional>

namespace ibuki {

struct SectionLayout;

/// The stack to scale, the hotter, the darker, with the temperature of every face beside it.
class Section : public QWidget {
    Q_OBJECT

public:
    explicit Section(QWidget* parent = nullptr);

    /// studied: index of the interface that is outlined.
    void show(const HeatPath& path, const HeatPathSteps& steps, std::size_t studied);
    void clear();
    QSize minimumSizeHint() const override { return {320, 240}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    struct Shown {
        HeatPath path;
        HeatPathSteps steps;
        std::size_t studied = 0;
    };
    void paintLayers(QPainter& painter, const SectionLayout& at) const;
    void paintLabels(QPainter& painter, const SectionLayout& at) const;

    std::optional<Shown> shown_;
};

} // namespace ibuki
