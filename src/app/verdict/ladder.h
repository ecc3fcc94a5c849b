// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/paper/ladder_layout.h"

#include "app/shell/drawn_items.h"
#include "core/domain/material.h"

#include <map>

namespace ibuki {

/// The ladder, drawn from the same geometry as the report's. Left and right arrows walk along a rung's
/// mounts, up and down along the rungs; Enter or a click tells which mount was meant.
class Ladder : public DrawnItems {
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
    int itemCount() const override { return static_cast<int>(marks().size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;
    std::optional<int> stepped(const QKeyEvent& event) const override;

private:
    struct Mark {
        int rung = 0;
        int place = 0; ///< along the rung
        QPointF at;
        QString mount;
    };

    LadderLayout layout() const;
    std::vector<Mark> marks() const; ///< the drawn items, rung by rung
    void paintRung(QPainter& painter, const LadderLayout& at, int rung) const;

    std::optional<Comparison> comparison_;
    std::map<std::string, MaterialClass> kinds_;
    std::string unit_;
    std::string selected_;
    std::optional<std::size_t> pair_;
};

} // namespace ibuki
