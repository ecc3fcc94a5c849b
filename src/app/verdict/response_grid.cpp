// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/response_grid.h"

#include "app/drawn/theme.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "store/paper/joint_sentences.h"

#include <QPainter>
#include <algorithm>

namespace ibuki {
namespace {

constexpr double gap = 18;
constexpr int leastColumn = 150; ///< px at the usual text size
constexpr double markRadius = 3.5;

QString betterText(Better better) {
    switch (better) {
    case Better::higher:
        return say("more is better");
    case Better::lower:
        return say("less is better");
    case Better::neither:
        break;
    }
    return say("no merit of its own");
}

} // namespace

ResponseGrid::ResponseGrid(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("Responses of the same mounts"));
}

void ResponseGrid::show(const std::vector<SideComparison>& sides, const std::vector<Named>& groups) {
    sides_ = sides;
    groups_ = groups;
    columns_.clear();
    QStringList reported;
    for (const SideComparison& side : sides_) {
        const Comparison* shown = side.shown();
        if (!shown) continue;
        Column column;
        column.head = qtext(sideName(side));
        column.note = qtext(side.unit) + ", " + betterText(side.better);
        column.decimals = sideDecimals(side);
        column.cells.assign(groups_.size(), nullptr);
        column.low = 1e300;
        column.high = -1e300;
        for (const GroupSummary& group : shown->groups) {
            for (std::size_t g = 0; g < groups_.size(); ++g)
                if (groups_[g].id == group.id) column.cells[g] = &group;
            for (double value : group.mountMeans) {
                column.low = std::min(column.low, value);
                column.high = std::max(column.high, value);
            }
        }
        const double room = std::max(column.high - column.low, side.margin);
        column.low -= 0.15 * room;
        column.high += 0.15 * room;
        reported << column.head;
        columns_.push_back(std::move(column));
    }
    setAccessibleDescription(reported.join("; "));
    updateGeometry();
    update();
}

namespace {

QFont nameFont() { return textFont(0.95, QFont::Medium); }
double headHeight() { return 2.2 * QFontMetricsF(nameFont()).height(); }
double rowHeight() { return 1.75 * QFontMetricsF(nameFont()).height(); }

} // namespace

double ResponseGrid::nameWidth() const {
    double widest = 60;
    for (const Named& group : groups_)
        widest = std::max(widest, QFontMetricsF(nameFont()).horizontalAdvance(qtext(group.name)));
    return widest + gap;
}

int ResponseGrid::columnsAt(int width) const {
    const double least = leastColumn * QFontMetricsF(nameFont()).height() / 16;
    const int fit = static_cast<int>((width - nameWidth()) / least);
    return std::clamp(fit, 1, std::max(1, static_cast<int>(columns_.size())));
}

int ResponseGrid::heightForWidth(int width) const {
    const int across = columnsAt(width);
    const int bands = (static_cast<int>(columns_.size()) + across - 1) / across;
    return static_cast<int>(bands * (headHeight() + rowHeight() * static_cast<double>(groups_.size()) + gap));
}

QSize ResponseGrid::sizeHint() const { return {640, heightForWidth(std::max(320, width()))}; }

void ResponseGrid::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const int across = columnsAt(width());
    const double left = nameWidth();
    const double column = (width() - left) / across;
    const double band = headHeight() + rowHeight() * static_cast<double>(groups_.size()) + gap;
    for (std::size_t c = 0; c < columns_.size(); ++c) {
        const int place = static_cast<int>(c) % across;
        const int row = static_cast<int>(c) / across;
        const double top = band * row;
        if (place == 0) paintNames(painter, top + headHeight());
        paintColumn(painter, columns_[c], QRectF(left + place * column, top, column - gap, band - gap));
    }
}

void ResponseGrid::paintNames(QPainter& painter, double top) const {
    painter.setFont(nameFont());
    painter.setPen(colours().ink);
    for (std::size_t g = 0; g < groups_.size(); ++g)
        painter.drawText(QRectF(0, top + static_cast<double>(g) * rowHeight(), nameWidth(), rowHeight()),
                         Qt::AlignVCenter | Qt::AlignLeft, qtext(groups_[g].name));
}

void ResponseGrid::paintColumn(QPainter& painter, const Column& column, const QRectF& area) const {
    const auto line = [&](const QFont& font, const QColor& colour, double top, const QString& text) {
        painter.setFont(font);
        painter.setPen(colour);
        const QFontMetricsF metrics(font);
        painter.drawText(QRectF(area.left(), top, area.width(), metrics.height()), Qt::AlignLeft,
                         metrics.elidedText(text, Qt::ElideRight, area.width()));
        return top + metrics.height();
    };
    const double below = line(nameFont(), colours().ink, area.top(), column.head);
    line(textFont(smallText), colours().quiet, below, column.note);
    for (std::size_t g = 0; g < groups_.size(); ++g) {
        const QRectF cell(area.left(), area.top() + headHeight() + static_cast<double>(g) * rowHeight(),
                          area.width(), rowHeight());
        painter.setPen(QPen(colours().line, 1));
        painter.drawLine(cell.topLeft(), cell.topRight());
        if (column.cells[g]) paintCell(painter, column, *column.cells[g], cell);
    }
}

void ResponseGrid::paintCell(QPainter& painter, const Column& column, const GroupSummary& group,
                             const QRectF& area) const {
    const auto x = [&](double value) {
        const double share = std::clamp((value - column.low) / (column.high - column.low), 0.0, 1.0);
        return area.left() + share * area.width();
    };
    const double y = area.center().y() + 0.16 * area.height();
    painter.setPen(QPen(colours().ink, 1.2));
    painter.setBrush(Qt::NoBrush);
    for (double value : group.mountMeans) painter.drawEllipse(QPointF(x(value), y), markRadius, markRadius);
    if (group.ci) {
        painter.setPen(QPen(colours().cold, 2));
        painter.drawLine(QPointF(x(group.ci->lo), y), QPointF(x(group.ci->hi), y));
    }
    const auto mean = group.adjusted ? group.adjusted : group.mean;
    if (!mean) return;
    painter.fillRect(QRectF(x(*mean) - 1.5, y - 6, 3, 12), colours().ink);
    painter.setFont(textFont(smallText));
    painter.setPen(colours().ink);
    painter.drawText(QRectF(area.left(), area.top() + 2, area.width(), painter.fontMetrics().height()),
                     Qt::AlignRight, QString::number(*mean, 'f', column.decimals));
}

} // namespace ibuki
