// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/sheet_preview.h"

#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>
#include <QSvgRenderer>

namespace ibuki {

SheetPreview::SheetPreview(QWidget* parent) : QWidget(parent) {
    setMinimumSize(260, 240);
    setAccessibleName(say("Cutting plan"));
}
SheetPreview::~SheetPreview() = default;

void SheetPreview::show(const std::string& page, const QRectF& partMm) {
    QString text = QString::fromStdString(page);
    page_ = std::make_unique<QSvgRenderer>(text.replace("Inter, sans-serif", textFont().family()).toUtf8());
    page_->setViewBox(partMm);
    update();
}

void SheetPreview::clear(const QString& why) {
    page_.reset();
    why_ = why;
    update();
}

void SheetPreview::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (!page_) {
        painter.setPen(colours().quiet);
        painter.drawText(rect().adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap, why_);
        return;
    }
    const QSizeF size =
        page_->viewBoxF().size().scaled(QSizeF(this->size()) - QSizeF(8, 8), Qt::KeepAspectRatio);
    const QRectF paper(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    painter.fillRect(paper, Qt::white); // paper is white in the dark too
    painter.setPen(colours().line);
    painter.drawRect(paper);
    page_->render(&painter, paper);
}

} // namespace ibuki
