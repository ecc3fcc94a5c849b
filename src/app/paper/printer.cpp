// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/printer.h"

#include "app/drawn/theme.h"
#include "app/say.h"
#include "store/atomic_file.h"

#include <QBuffer>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgRenderer>
#include <QTextDocument>

namespace ibuki {
namespace {

/// Qt's rich text knows no inline SVG: the drawing becomes an image resource.
QImage rendered(const QByteArray& svg, int width, int pixelsPerUnit, QSize& size) {
    QSvgRenderer renderer(svg);
    size = renderer.defaultSize();
    size = QSize(width, size.height() * width / std::max(1, size.width()));
    QImage image(size * pixelsPerUnit, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    QPainter painter(&image);
    renderer.render(&painter);
    return image;
}

} // namespace

void fillDocument(QTextDocument& text, const std::string& report, const DrawingSize& image) {
    QString html = QString::fromStdString(report);
    for (int number = 1;; ++number) {
        const auto begin = html.indexOf("<svg");
        const auto end = html.indexOf("</svg>", begin);
        if (begin < 0 || end < begin) break;
        QString svg = html.mid(begin, end + 6 - begin);
        svg.replace("Inter, sans-serif", textFont().family());
        const QString name = QStringLiteral("drawing-%1").arg(number);
        QSize size;
        text.addResource(QTextDocument::ImageResource, QUrl(name),
                         rendered(svg.toUtf8(), image.width, image.pixelsPerUnit, size));
        html.replace(begin, end + 6 - begin,
                     QString("<p><img src=\"%1\" width=\"%2\" height=\"%3\"></p>")
                         .arg(name)
                         .arg(size.width())
                         .arg(size.height()));
    }
    // Rules that Qt's rich text does not read as a browser would.
    html.replace("<table>", "<table cellpadding=\"3\" cellspacing=\"0\" width=\"97%\">");
    html.replace("font:14px/1.5 Inter,'Liberation Sans',sans-serif;",
                 ""); // the document's own font, in points
    html.replace("font-size:24px", "font-size:18pt").replace("font-size:16px", "font-size:12pt");
    html.remove("max-width:820px;margin:32px auto;padding:0 24px");
    html.replace("class=\"n\"", "align=\"right\"");
    text.setDefaultFont([] {
        QFont font = textFont();
        font.setPointSizeF(10);
        return font;
    }());
    text.setHtml(html);
}

void printReport(const std::string& report, const QString& path) {
    QByteArray bytes;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF()); // the text document keeps its own margin of 2 cm
        writer.setTitle(say("Ibuki report"));
        QTextDocument text;
        fillDocument(text, report, {600, 4});
        text.print(&writer);
    }
    writeFileAtomically(path.toStdString(),
                        std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

} // namespace ibuki
