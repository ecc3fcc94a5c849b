// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "app/shelf/figure_lines.h"

#include <QWidget>

class QGridLayout;

namespace ibuki {

/// What one lot says, holds and costs, or two beside each other. Claims and class defaults are marked.
class FiguresPanel : public QWidget {
    Q_OBJECT

public:
    explicit FiguresPanel(Session& session, QWidget* parent = nullptr);

    void show(const std::vector<ShelfThing>& things, const Site* site);

private:
    void fill(const FigureTable& reported);

    Session& session_;
    QGridLayout* grid_;
    std::optional<FigureTable> shown_;
};

} // namespace ibuki
