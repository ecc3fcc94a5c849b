// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "core/domain/entities.h"
#include "store/paper/ladder_layout.h"
#include "store/paper/ladder_svg.h"

#include <map>

namespace ibuki {

/// The ladder, drawn from the same geometry as the report's. Left and right arrows walk along a rung's
/// mounts, up and down along the rungs; Enter or a click tells which mount was meant.
class Ladder : public DrawnItems {
    Q_OBJECT

public:
    explicit Ladder(QWidget* parent = nullptr);

    void show(const Comparison& comparison, const GroupClasses& classes, const std::string& unit);
    void clear();
    void highlight(std::optional<std::size_t> pair); ///< index into Comparison::pairs
    /// "Tern 11 45.2 K (44.6 to 45.7 K), 3 mounts; Tern 11 2" of the mark under the focus.
    QString figureUnderFocus() const;
    void markMount(std::optional<Id<Mount>> mount); ///< the selected mount's mark is filled

signals:
    void mountMeant(ibuki::Id<ibuki::Mount> mount);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    int itemCount() const override { return static_cast<int>(marks_.size()); }
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;
    std::optional<int> stepped(const QKeyEvent& event) const override;

private:
    struct Mark {
        std::size_t rung = 0;
        int place = 0; ///< along the rung
        QPointF at;
        Id<Mount> mount;
        QString name;
        bool beyondScale = false;
    };

    LadderSize space() const;
    void lay(); ///< layout_ and marks_ for what is shown, in this size
    void paintMeant(QPainter& painter) const;
    void paintRung(QPainter& painter, std::size_t rung) const;
    void paintMark(QPainter& painter, int item) const;

    std::optional<Comparison> comparison_;
    LadderLayout layout_;
    std::vector<Mark> marks_; ///< the drawn items, rung by rung, each rung from left to right
    GroupClasses classes_;
    std::string unit_;
    std::optional<Id<Mount>> selected_;
    std::optional<std::size_t> pair_;
};

} // namespace ibuki
