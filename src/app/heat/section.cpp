// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/section.h"

#include "app/drawn/theme.h"
#include "app/heat/section_layout.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "store/picture/field_picture.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double labels = 150; ///< pixels at the right for what is written beside

QColor colourAt(double share) {
    const auto [red, green, blue] = heatColour(share);
    return {red, green, blue};
}

struct Label {
    double y = 0;
    QString text;
    double faceY = 0;
};

/// From the lowest up, none over the one before.
void spreadLabels(std::vector<Label>& all, double height) {
    for (std::size_t i = 1; i < all.size(); ++i) all[i].y = std::min(all[i].y, all[i - 1].y - height);
}

} // namespace

Section::Section(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Section through the stack"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void Section::show(const HeatPath& path, const HeatPathSteps& steps, std::size_t studied) {
    shown_ = Shown{path, steps, studied};
    update();
}

void Section::clear() {
    shown_.reset();
    update();
}

void Section::paintLayers(QPainter& painter, const SectionLayout& at) const {
    const auto& [path, steps, studied] = *shown_;
    const Colours& c = colours();
    const double low = path.ambientC, high = std::max(steps.junctionMeanC, low + 1e-9);
    const auto share = [&](double celsius) { return 0.08 + 0.8 * (celsius - low) / (high - low); };
    painter.setPen(QPen(c.line, 1));
    const int fins = 13;
    for (int i = 0; i < fins; ++i) {
        const double wide = at.cooler.width() / (2 * fins - 1);
        painter.fillRect(QRectF(at.cooler.left() + 2 * i * wide, at.cooler.top(), wide, at.cooler.height()),
                         c.coldWash);
    }
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        QLinearGradient gradient(at.solids[i].bottomLeft(), at.solids[i].topLeft());
        gradient.setColorAt(0, colourAt(share(steps.solids[i].hotC)));
        gradient.setColorAt(1, colourAt(share(steps.solids[i].coldC)));
        painter.setPen(QPen(c.line, 1));
        painter.setBrush(gradient);
        painter.drawRect(at.solids[i]);
        if (i == path.interfaces.size()) break;
        const bool isStudied = i == studied;
        painter.fillRect(at.interfaces[i], isStudied ? c.hot : c.quiet);
    }
}

void Section::paintLabels(QPainter& painter, const SectionLayout& at) const {
    const auto& [path, steps, studied] = *shown_;
    const Colours& c = colours();
    std::vector<Label> all;
    const auto label = [&](double y, const QString& text) { all.push_back({y, text, y}); };
    label(at.solids.front().bottom(),
          say("%1 °C, %2").arg(steps.junctionMeanC, 0, 'f', 1).arg(qtext(path.solids.front().name)));
    for (std::size_t i = 0; i < path.interfaces.size(); ++i)
        label(at.interfaces[i].center().y(),
              say("%1: %2 K").arg(qtext(path.interfaces[i].name)).arg(steps.interfaces[i].deltaK, 0, 'f', 1));
    label(at.solids.back().top(),
          say("%1 °C, %2").arg(steps.solids.back().coldC, 0, 'f', 1).arg(qtext(path.solids.back().name)));
    label(at.cooler.center().y(), say("cooler: %1 K").arg(steps.coolerDeltaK, 0, 'f', 1));
    label(at.cooler.top() + 6, say("room %1 °C").arg(path.ambientC, 0, 'f', 1));
    painter.setFont(textFont(0.9));
    const double line = painter.fontMetrics().height();
    for (Label& one : all) one.y = std::clamp(one.y, line / 2, height() - line / 2);
    spreadLabels(all, line);
    const double x = width() - labels;
    for (const Label& one : all) {
        painter.setPen(QPen(c.line, 1));
        painter.drawLine(QPointF(x - 14, one.faceY), QPointF(x - 3, one.y));
        painter.setPen(c.ink);
        painter.drawText(QRectF(x, one.y - line / 2, labels - 4, line), Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(one.text, Qt::ElideRight, labels - 4));
    }
}

void Section::paintEvent(QPaintEvent*) {
    if (!shown_) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const SectionLayout at =
        layoutSection(shown_->path, QRectF(8, 8, width() - labels - 16.0, height() - 36.0));
    paintLayers(painter, at);
    paintLabels(painter, at);
    painter.setPen(colours().quiet);
    const double tenMm = 10 * at.pixelsPerMm;
    painter.drawLine(QPointF(8, height() - 6.0), QPointF(8 + tenMm, height() - 6.0));
    painter.drawText(QPointF(12 + tenMm, height() - 3.0), say("10 mm"));
}

} // namespace ibuki
