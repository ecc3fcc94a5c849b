// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/peel/canvas.h"
#include "core/look/mask_editing.h"
#include "core/look/rectify.h"

namespace ibuki {

enum class MaskTool { film, bare, polygonFilm, polygonBare, fillFilm, fillBare, seedFilm, seedBare };

/// The face seen from above with its mask over it: what is bare is hatched, what is thin dotted. A brush
/// paints, with the mouse or with the arrow keys and Space; a ruler tells the size.
class MaskCanvas : public PictureCanvas {
    Q_OBJECT

public:
    explicit MaskCanvas(QWidget* parent = nullptr);

    void show(const FacePicture& face, const GreyPicture& mask, const Extent& size);
    void setMask(const GreyPicture& mask); ///< of the same face
    void clear();
    void setTool(MaskTool tool);
    void setBrushMm(double diameter);
    double brushMm() const { return brushMm_; }
    const GreyPicture& mask() const { return mask_; }
    const GreyPicture& seeds() const { return seeds_; }
    bool hasSeeds() const { return hasSeeds_; }

signals:
    void maskEdited(); ///< a stroke, a polygon or a fill has ended
    void seedsPainted();
    void brushChanged();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    bool isSeed() const { return tool_ == MaskTool::seedFilm || tool_ == MaskTool::seedBare; }
    bool isPolygon() const { return tool_ == MaskTool::polygonFilm || tool_ == MaskTool::polygonBare; }
    std::uint8_t level() const;
    double radiusPx() const { return std::max(0.5, brushMm_ * pxPerMm_ / 2); }
    void use(const PlanePoint& from, const PlanePoint& to);
    bool pinPoint();
    void endStroke();
    void closePolygon();
    void drawOver(const MaskPart& part); ///< of the mask, into the picture over the face
    void paintRuler(QPainter& painter) const;

    GreyPicture mask_;
    GreyPicture seeds_;
    QImage over_;
    Extent size_;
    double pxPerMm_ = 1;
    double brushMm_ = 2;
    MaskTool tool_ = MaskTool::film;
    bool painting_ = false;
    bool hasSeeds_ = false;
    PlanePoint at_;
    std::vector<PlanePoint> polygon_;
};

} // namespace ibuki
