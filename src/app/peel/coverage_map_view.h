// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/inspect/joint_coverage.h"

#include <QImage>
#include <QWidget>

namespace ibuki {

/// Which share of the looks had a place covered: light where always, dark where never, lines at a half and at
/// nine tenths, the corners' shares beside them.
class CoverageMapView : public QWidget {
    Q_OBJECT

public:
    explicit CoverageMapView(QWidget* parent = nullptr);

    void show(const CoverageMap& map, const Extent& face);
    QSize minimumSizeHint() const override { return {220, 200}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    CoverageMap map_;
    Extent face_;
    QImage image_;
    std::array<double, 4> corners_{};
};

/// A mask as a small picture: film dark, bare light and hatched.
QImage thumbnailOf(const GreyPicture& mask, double pxPerMaskPx);

} // namespace ibuki
