// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The heat-path strip as plain values: which blocks, where, and what may be written beside them. A block's
// width is its share of the temperature difference; where shares are not known all blocks are equal and
// hatched and only measured boundaries carry a temperature.

#include "app/say.h"
#include "core/domain/document.h"
#include "core/domain/study.h"

#include <QRectF>
#include <QString>
#include <vector>

namespace ibuki {

struct SeenPath;

struct StripBlock {
    std::optional<Id<Layer>> layer; ///< nothing: only a site stands for it, or the block asks for a bench
    std::optional<Id<Site>> site;
    LayerKind kind = LayerKind::chip;
    QString name;
    QString detail;              ///< for the tool tip
    std::optional<double> share; ///< of the whole difference, 0 to 1
    std::optional<double> deltaK;
    std::optional<double> hotC; ///< of its face towards the chip
    QString figures;            ///< "9.8 K, 0.054 K/W, 58.1 to 48.3 °C", for the tool tip
    bool isAssumed = false;     ///< its size, metal or resistance is not stated
    bool underStudy = false;
};

struct StripBoundary {
    double x = 0;
    QString text;            ///< "69.3 °C"
    bool isMeasured = false; ///< else computed
};

/// Another way for the heat into the same plate, such as from memory chips; drawn as a thin line.
struct StripPath {
    Id<Site> site; ///< selecting it brings the path up
    QString name;
    std::size_t joins = 0; ///< index of the block of the path shown into which its heat flows
};

struct StripModel {
    std::vector<StripBlock> blocks; ///< of the path shown
    std::vector<StripPath> others;
    QString source = say("chip"); ///< where the path shown begins
    std::optional<double> chipC;  ///< measured there, of the selected mount
    std::optional<double> ambientC;
    QString caption;                ///< what the strip is about
    bool isComputed = false;        ///< all of it: a plan, or what was turned over
    std::vector<StripModel> beside; ///< one at most: another mount, drawn below on the same scale
    bool sharesKnown() const;
    double totalK() const; ///< of the blocks
};

struct StripLayout {
    std::vector<QRectF> rects; ///< one a block
    std::vector<QRectF> lines; ///< one for each other path, from its source to where it joins
    std::vector<StripBoundary> boundaries;
    int itemAt(double x, double y) const; ///< a block, or, counted on, another path; −1: none
};

/// Measured and computed figures of its layers where what was measured lets them be told: of the mount;
/// without one the mean of the material's mounts in the study, or of all its mounts. The path through the
/// current configuration of a bench on which `site` lies (nothing: the question's site), the question's site
/// outlined, temperatures of the mount's steady window when one is selected. slot: of a
/// mount that is only planned, when there is no other.
StripModel stripModel(const Document& document, std::optional<Id<Bench>> bench, const Question* question,
                      const Mount* mount, std::optional<Id<Site>> site = std::nullopt,
                      std::optional<Id<Material>> material = std::nullopt,
                      std::optional<Id<Slot>> slot = std::nullopt);

/// Of a path that begins beside the chip, such as from memory: its source is measured, the plate and what
/// lies behind it are as the chip's path has them, and its own joint has what is left between both.
void addBranchFigures(StripModel& model, const SeenPath& path);

/// The same layers with what a computed path has for them: those it does not have are left out.
StripModel stripOfComputed(const StripModel& model, const SeenPath& path, const QString& caption);

/// Blocks fill `area` from left to right, less one line's height below for each other path; one narrower than
/// minimum is widened at the others' cost.
StripLayout layoutStrip(const StripModel& model, const QRectF& area, double lineHeight = 0,
                        double minimum = 40);

/// Two paths one above the other, each block as wide as its difference on one scale.
struct StripPair {
    StripLayout upper, lower;
    QRectF difference;      ///< by which the hotter one is longer, in its row
    double differenceK = 0; ///< upper less lower
};
StripPair layoutPair(const StripModel& upper, const StripModel& lower, const QRectF& area);

} // namespace ibuki
