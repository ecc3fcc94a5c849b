// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/bench.h"
#include "core/domain/material.h"

#include <QWidget>

class QGridLayout;

namespace ibuki {

/// What one lot says, holds and costs, or two beside each other. Claims and class defaults are marked.
class FiguresPanel : public QWidget {
    Q_OBJECT

public:
    explicit FiguresPanel(Session& session, QWidget* parent = nullptr);

    struct Thing {
        Id<Material> material;
        std::optional<Id<Lot>> lot;
    };
    void show(const std::vector<Thing>& things, const Site* site);

private:
    struct Line {
        QString name;
        QStringList values; ///< one a thing
    };
    std::vector<Line> lines(const std::vector<Thing>& things, const Site* site) const;

    Session& session_;
    QGridLayout* grid_;
};

} // namespace ibuki
