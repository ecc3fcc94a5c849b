// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drawn/drawn_items.h"
#include "app/frame/strip_layout.h"
#include "core/domain/bench.h"
#include "core/heat/seen_path.h"

namespace ibuki {

class Session;

/// The heat path on its side at the top of the window. Left and right walk along the layers, up and down
/// along the bench's other paths, drawn as thin lines; Enter or a click opens a layer or brings that path up.
class Strip : public DrawnItems {
    Q_OBJECT

public:
    explicit Strip(Session& session, QWidget* parent = nullptr);

    void refresh();
    /// Holds a path that was turned over in the head below the one that is shown; nothing: no more.
    void turnOver(const std::optional<SeenPath>& path);
    const StripModel& model() const { return model_; }
    QSize sizeHint() const override;

signals:
    void layerOpened(Id<Layer> layer);
    void siteOpened(Id<Site> site);
    void benchWanted(); ///< the block of an empty project was opened

protected:
    void paintEvent(QPaintEvent* event) override;
    int itemCount() const override; ///< blocks, then the other paths
    int itemAt(const QPointF& point) const override;
    QString tip(int item) const override;
    void openItem(int item) override;
    std::optional<int> stepped(const QKeyEvent& event) const override;

private:
    int blockCount() const { return static_cast<int>(model_.blocks.size()); }
    StripLayout layout() const;
    bool isPair() const { return !model_.beside.empty(); }
    QRectF blockArea() const;
    void paintBoundaries(QPainter& painter, const StripLayout& at) const;
    void paintPair(QPainter& painter) const;
    void paintBlock(QPainter& painter, const QRectF& rect, const StripBlock& block, bool isLit) const;
    void paintOtherPath(QPainter& painter, const StripLayout& at, int index) const;

    Session& session_;
    StripModel model_;
    std::optional<SeenPath> turnedOver_;
};

} // namespace ibuki
