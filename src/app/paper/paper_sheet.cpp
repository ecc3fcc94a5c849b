// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paper/paper_sheet.h"

#include "app/paper/printer.h"
#include "app/say.h"

#include <QAbstractTextDocumentLayout>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QGuiApplication>
#include <QMenu>
#include <QPainter>
#include <QScrollBar>

namespace ibuki {
namespace {

constexpr int borderPx = 20;
constexpr int betweenPx = 16; ///< a document of its own does not keep its first margin
const QColor ink(0x1f, 0x1b, 0x16);

/// The report cut before each of its titles; each part a page that stands alone.
std::vector<std::string> sectionsOf(const std::string& report) {
    const std::size_t body = report.find("<body>");
    if (body == std::string::npos) return {report};
    const std::string head = report.substr(0, body + 6);
    std::vector<std::string> sections;
    std::size_t begin = body + 6;
    while (begin < report.size()) {
        const std::size_t end = std::min(report.find("<h2>", begin + 1), report.size());
        sections.push_back(head + report.substr(begin, end - begin));
        begin = end;
    }
    // The study's name stands in every head: a section is the same when what it shows is.
    const std::size_t title = head.find("<title>");
    const std::size_t close = head.find("</title>");
    if (title != std::string::npos && close != std::string::npos)
        for (std::string& section : sections) section.erase(title, close + 8 - title);
    return sections;
}

} // namespace

PaperSheet::PaperSheet(QWidget* parent) : QAbstractScrollArea(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setStyleSheet("ibuki--PaperSheet { background: #fffefa; }"); // paper is white in a dark room too
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    verticalScrollBar()->setSingleStep(24);
}

void PaperSheet::show(const std::string& report) {
    std::vector<Section> before = std::exchange(sections_, {});
    for (std::string& html : sectionsOf(report)) {
        const auto same = std::find_if(before.begin(), before.end(),
                                       [&](const Section& s) { return s.text && s.html == html; });
        if (same != before.end()) {
            sections_.push_back(std::move(*same));
            continue;
        }
        sections_.push_back({std::move(html), std::make_unique<QTextDocument>(), {}, 0});
        fillDocument(*sections_.back().text, sections_.back().html, DrawingSize{});
        sections_.back().plain = sections_.back().text->toPlainText();
        layOut(sections_.back());
    }
    fitScrollBar();
    setAccessibleDescription(text());
    viewport()->update();
}

QString PaperSheet::text() const {
    QStringList texts;
    for (const Section& section : sections_) texts << section.plain;
    return texts.join("\n\n");
}

void PaperSheet::layOut(Section& section) {
    section.text->setTextWidth(std::max(100, viewport()->width() - 2 * borderPx));
    section.heightPx = section.text->size().height() + betweenPx;
    ++laidOut_;
}

void PaperSheet::fitScrollBar() {
    double heightPx = 2 * borderPx;
    for (const Section& section : sections_) heightPx += section.heightPx;
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(heightPx) - viewport()->height()));
}

void PaperSheet::paintEvent(QPaintEvent* event) {
    QPainter painter(viewport());
    const QRectF seen(event->rect());
    double top = borderPx - verticalScrollBar()->value();
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette.setColor(QPalette::Text, ink);
    for (const Section& section : sections_) {
        const QRectF place(borderPx, top, section.text->textWidth(), section.heightPx);
        top += section.heightPx;
        if (!place.intersects(seen)) continue;
        painter.save();
        painter.translate(place.topLeft());
        context.clip = seen.intersected(place).translated(-place.topLeft());
        section.text->documentLayout()->draw(&painter, context);
        painter.restore();
    }
}

void PaperSheet::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    if (event->size().width() != event->oldSize().width())
        for (Section& section : sections_) layOut(section);
    fitScrollBar();
}

void PaperSheet::changeEvent(QEvent* event) {
    QAbstractScrollArea::changeEvent(event);
    if (event->type() != QEvent::FontChange && event->type() != QEvent::StyleChange) return;
    for (Section& section : sections_) { // the text's size follows the look
        fillDocument(*section.text, section.html, DrawingSize{});
        layOut(section);
    }
    fitScrollBar();
}

void PaperSheet::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Copy)) {
        copyText();
        return;
    }
    if (event->key() == Qt::Key_Home)
        verticalScrollBar()->setValue(0);
    else if (event->key() == Qt::Key_End)
        verticalScrollBar()->setValue(verticalScrollBar()->maximum());
    else
        QAbstractScrollArea::keyPressEvent(event);
}

void PaperSheet::contextMenuEvent(QContextMenuEvent* event) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->addAction(say("Copy the text"), this, [this] { copyText(); });
    menu->popup(event->globalPos());
}

void PaperSheet::copyText() const { QGuiApplication::clipboard()->setText(text()); }

} // namespace ibuki
