// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/account_bars.h"

#include "app/drawn/theme.h"
#include "app/heat/external_lines.h"
#include "app/say.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace ibuki {

AccountBars::AccountBars(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("What explains the difference of both results"));
}

void AccountBars::show(const Disagreement* found) {
    rows_.clear();
    if (found) {
        double at = found->hereK;
        rows_.push_back({say("found here"), kelvinText(at), 0, at, 0, Qt::SolidPattern});
        const auto add = [&](const QString& name, double by, double half, Qt::BrushStyle fill) {
            rows_.push_back({name, kelvinText(by, true), at, at + by, half, fill});
            at += by;
        };
        add(say("another bench"), found->benchesK, found->scatterK.value_or(0), Qt::BDiagPattern);
        add(say("scatter of mounts"), found->byScatterK, 0, Qt::Dense6Pattern);
        add(say("left"), found->leftK, 0, Qt::NoBrush);
        rows_.push_back(
            {say("read elsewhere"), kelvinText(found->reportedK), 0, found->reportedK, 0, Qt::SolidPattern});
    }
    QStringList words;
    for (const Row& row : rows_) words << row.name + ": " + row.value;
    setAccessibleDescription(words.join("; "));
    updateGeometry();
    update();
}

QSize AccountBars::sizeHint() const { return {600, 5 * (fontMetrics().height() + 18) + 8}; }

void AccountBars::paintBar(QPainter& painter, const Row& row, const std::function<double(double)>& at,
                           double middle, double line) {
    const Colours& c = colours();
    const QRectF bar(QPointF(std::min(at(row.from), at(row.to)), middle - line / 2),
                     QPointF(std::max(at(row.from), at(row.to)), middle + line / 2));
    painter.setPen(QPen(c.ink, 1));
    painter.setBrush(row.fill == Qt::NoBrush ? QBrush(c.sheet) : QBrush(c.ink, row.fill));
    painter.drawRect(bar);
    if (!(row.half > 0)) return;
    const double left = at(row.to - row.half), right = at(row.to + row.half);
    painter.setPen(QPen(c.hot, 2));
    painter.drawLine(QPointF(left, middle), QPointF(right, middle));
    for (double end : {left, right}) painter.drawLine(QPointF(end, middle - 5), QPointF(end, middle + 5));
}

void AccountBars::paintEvent(QPaintEvent*) {
    if (rows_.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    painter.setFont(textFont(1));
    const double line = painter.fontMetrics().height(), height = line + 18;
    double lo = 0, hi = 0, names = 0, values = 0;
    for (const Row& row : rows_) {
        lo = std::min({lo, row.from, row.to - row.half});
        hi = std::max({hi, row.from, row.to + row.half});
        names = std::max<double>(names, painter.fontMetrics().horizontalAdvance(row.name));
        values = std::max<double>(values, painter.fontMetrics().horizontalAdvance(row.value));
    }
    const double from = names + 16, wide = std::max(40.0, width() - from - values - 24);
    const auto at = [&](double kelvin) { return from + wide * (kelvin - lo) / std::max(hi - lo, 1e-9); };
    painter.setPen(QPen(c.line, 1));
    painter.drawLine(QPointF(at(0), 0), QPointF(at(0), height * static_cast<double>(rows_.size())));
    double y = 0;
    for (std::size_t i = 0; i < rows_.size(); ++i, y += height) {
        const Row& row = rows_[i];
        const double middle = y + height / 2;
        painter.setPen(c.ink);
        painter.drawText(QRectF(0, y, names + 4, height), Qt::AlignRight | Qt::AlignVCenter, row.name);
        paintBar(painter, row, at, middle, line);
        painter.setPen(c.ink);
        painter.drawText(QRectF(width() - values - 4, y, values + 4, height),
                         Qt::AlignRight | Qt::AlignVCenter, row.value);
        if (i + 1 < rows_.size()) { // where the next one begins
            painter.setPen(QPen(c.quiet, 1, Qt::DotLine));
            if (i + 2 < rows_.size())
                painter.drawLine(QPointF(at(row.to), middle + line / 2),
                                 QPointF(at(row.to), middle + height - line / 2));
        }
    }
}

} // namespace ibuki
