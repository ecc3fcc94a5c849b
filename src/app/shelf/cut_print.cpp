// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/cut_print.h"

#include "app/drawn/theme.h"
#include "app/say.h"
#include "store/atomic_file.h"
#include "store/paper/cut_svg.h"

#include <QBuffer>
#include <QFileInfo>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QPrinter>
#include <QSvgRenderer>

namespace ibuki {
namespace {

constexpr double mmPerInch = 25.4;
constexpr int dotsPerInch = 1200;

/// Width and height as the page states them, in mm.
QSizeF sizeMm(const QSvgRenderer& page) { return page.viewBoxF().size(); }

/// Qt's SVG knows no list of families: the application's own font is named.
QByteArray withFont(const std::string& page) {
    QString text = QString::fromStdString(page);
    return text.replace("Inter, sans-serif", textFont().family()).toUtf8();
}

/// Onto a device of `dpi` whose origin is the paper's corner.
void render(QSvgRenderer& page, QPainter& painter, double dpi) {
    const QSizeF size = sizeMm(page) * (dpi / mmPerInch);
    page.render(&painter, QRectF(QPointF(), size));
}

} // namespace

std::vector<std::string> cutPages(const CutJob& job, const CutPlan& plan, const QString& title) {
    std::vector<std::string> pages;
    for (std::size_t i = 0; i < plan.layouts.size(); ++i)
        pages.push_back(
            cutSvg(job, plan.layouts[i],
                   say("%1, sheet %2 of %3").arg(title).arg(i + 1).arg(plan.layouts.size()).toStdString()));
    return pages;
}

QStringList writeCutSvg(const std::vector<std::string>& pages, const QString& path) {
    const QFileInfo info(path);
    QStringList written;
    for (std::size_t i = 0; i < pages.size(); ++i) {
        const QString one = pages.size() == 1 ? path
                                              : info.path() + "/" + info.completeBaseName()
                                                    + QStringLiteral(" %1.svg").arg(i + 1);
        writeFileAtomically(one.toStdString(), pages[i]);
        written << one;
    }
    return written;
}

void writeCutPdf(const std::vector<std::string>& pages, const QString& path) {
    QByteArray bytes;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setResolution(dotsPerInch);
        writer.setTitle(say("Ibuki cutting plan"));
        QPainter painter;
        for (const std::string& text : pages) {
            QSvgRenderer page(withFont(text));
            writer.setPageSize(QPageSize(sizeMm(page), QPageSize::Millimeter, {}, QPageSize::ExactMatch));
            writer.setPageMargins(QMarginsF());
            if (painter.isActive())
                writer.newPage();
            else
                painter.begin(&writer);
            render(page, painter, dotsPerInch);
        }
    }
    writeFileAtomically(path.toStdString(),
                        std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

bool printCut(const std::vector<std::string>& pages, QPrinter& printer) {
    printer.setFullPage(true); // the paper's corner is the origin, whatever margin the printer needs
    QPainter painter;
    for (const std::string& text : pages) {
        QSvgRenderer page(withFont(text));
        if (painter.isActive())
            printer.newPage();
        else if (!painter.begin(&printer))
            return false;
        render(page, painter, printer.resolution());
    }
    return painter.isActive();
}

} // namespace ibuki
