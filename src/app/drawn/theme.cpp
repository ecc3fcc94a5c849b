// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPalette>
#include <QPointF>
#include <QStyleFactory>
#include <QWidget>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

Shade currentShade = Shade::light;
Colours current = coloursOf(Shade::light);
double currentScale = 1.0;
/// Size and weight that a widget's font was set by.
constexpr const char* fontProperty = "textFont";

void loadFonts() {
    static const bool loaded = [] {
        for (const char* name : {"Regular", "Medium", "SemiBold"})
            QFontDatabase::addApplicationFont(QString(":/fonts/IbukiText-%1.otf").arg(name));
        return true;
    }();
    Q_UNUSED(loaded);
}

QPalette paletteOf(const Colours& c) {
    QPalette palette;
    palette.setColor(QPalette::Window, c.ground);
    palette.setColor(QPalette::WindowText, c.ink);
    palette.setColor(QPalette::Base, c.sheet);
    palette.setColor(QPalette::AlternateBase, c.band);
    palette.setColor(QPalette::Text, c.ink);
    palette.setColor(QPalette::Button, c.band);
    palette.setColor(QPalette::ButtonText, c.ink);
    palette.setColor(QPalette::ToolTipBase, c.sheet);
    palette.setColor(QPalette::ToolTipText, c.ink);
    palette.setColor(QPalette::PlaceholderText, c.quiet);
    palette.setColor(QPalette::Highlight, c.ink);
    palette.setColor(QPalette::HighlightedText, c.sheet);
    palette.setColor(QPalette::Link, c.cold);
    palette.setColor(QPalette::Mid, c.line);
    palette.setColor(QPalette::Light, c.line);
    palette.setColor(QPalette::Dark, c.line);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, c.quiet);
    return palette;
}

QString styleSheet(const Colours& c) {
    QString sheet = R"(
        QToolTip { background: @sheet; color: @ink; border: 1px solid @line; padding: 4px; }
        QLineEdit, QPlainTextEdit, QComboBox, QSpinBox, QListWidget, QTableWidget, QTreeWidget, QTextBrowser, QListView,
        ibuki--PaperSheet {
            background: @sheet; border: 1px solid @line; border-radius: 4px; padding: 3px; }
        QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus, QListWidget:focus, QTableWidget:focus,
        QTextBrowser:focus, ibuki--PaperSheet:focus { border: 2px solid @ink; padding: 2px; }
        QLineEdit[wrong="true"] { border: 2px solid @hot; }
        QLabel[complaint="true"] { color: @hot; }
        QComboBox QAbstractItemView { background: @sheet; border: 1px solid @line; }
        QPushButton { background: @band; border: 1px solid @line; border-radius: 4px; padding: 6px 14px; }
        QPushButton:hover { border-color: @ink; }
        QPushButton:focus { border: 2px solid @ink; padding: 5px 13px; }
        QPushButton:disabled { color: @quiet; }
        QPushButton[main="true"] { background: @ink; color: @sheet; }
        QPushButton[main="true"]:disabled { background: @band; color: @quiet; }
        QPushButton[page="true"] { background: transparent; padding: 5px 12px; }
        QPushButton[page="true"]:focus { padding: 4px 11px; }
        QPushButton[page="true"]:checked { background: @band; border-color: @ink; }
        QToolButton[part="true"] { border: none; border-bottom: 2px solid @ink; background: transparent; color: @ink; padding: 0 1px; margin: 0; }
        QToolButton[part="true"]:hover { background: @band; }
        QToolButton[part="true"]:focus { background: @band; border-bottom: 3px solid @ink; }
        QPushButton[quiet="true"] { background: transparent; border: 1px solid transparent; padding: 4px 8px; }
        QPushButton[quiet="true"]:hover { border-color: @line; }
        QPushButton[quiet="true"]:focus { border: 2px solid @ink; padding: 3px 7px; }
        QFrame[tip="true"] { background: @band; border: none; border-radius: 4px; }
        QFrame[card="true"] { background: @sheet; border: 1px solid @line; border-radius: 6px; }
        QLabel[quiet="true"] { color: @quiet; }
        QHeaderView::section { background: @band; color: @quiet; border: none; border-bottom: 1px solid @line; padding: 4px 6px; }
        QTableWidget { gridline-color: @line; }
        QScrollArea { border: none; background: transparent; }
        QScrollArea > QWidget > QWidget { background: transparent; }
        QListWidget, QPushButton { outline: 0; }
        QListWidget::item { padding: 5px; border-radius: 4px; }
        QListWidget::item:selected, QTableWidget::item:selected { background: @band; color: @ink; }
        QMenu { background: @sheet; border: 1px solid @line; padding: 4px; }
        QMenu::item { padding: 5px 22px; }
        QMenu::item:selected { background: @band; color: @ink; }
        QPushButton::menu-indicator { image: none; width: 0; }
        QComboBox { padding-right: 22px; }
        QComboBox::drop-down { border: none; width: 20px; }
        QComboBox::down-arrow { image: url(:/down.svg); width: 10px; height: 10px; }
        QScrollBar { background: transparent; border: none; }
        QScrollBar:vertical { width: 11px; }
        QScrollBar:horizontal { height: 11px; }
        QScrollBar::handle { background: @line; border-radius: 4px; margin: 2px; min-width: 28px; min-height: 28px; }
        QScrollBar::handle:hover { background: @quiet; }
        QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
        QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
    )";
    const std::pair<const char*, const QColor&> names[] = {{"@sheet", c.sheet}, {"@ink", c.ink},
                                                           {"@band", c.band},   {"@line", c.line},
                                                           {"@hot", c.hot},     {"@quiet", c.quiet}};
    for (const auto& [name, colour] : names) sheet.replace(name, colour.name());
    return sheet;
}

} // namespace

Colours coloursOf(Shade shade) {
    if (shade == Shade::light)
        return {"#f6f1e8", "#fffdf8", "#ece4d6", "#1f1b16", "#655d52", "#d9cfbf",
                "#b8431c", "#1d6a86", "#f0cdb8", "#cfe0e6", "#e2d9ca"};
    return {"#1b1815", "#25211d", "#322c26", "#efe8dc", "#b0a698", "#484036",
            "#ee8458", "#79bbd3", "#5d3423", "#274450", "#39322b"};
}

const Colours& colours() { return current; }
Shade shade() { return currentShade; }

void applyTheme(QApplication& application, Shade wanted, double textScale) {
    loadFonts();
    currentShade = wanted;
    current = coloursOf(wanted);
    currentScale = textScale;
    application.setStyle(QStyleFactory::create("Fusion"));
    application.setPalette(paletteOf(current));
    application.setFont(textFont());
    application.setStyleSheet(styleSheet(current));
    for (QWidget* widget : QApplication::allWidgets()) {
        const QVariant stated = widget->property(fontProperty);
        if (!stated.isValid()) continue;
        const QPointF font = stated.toPointF();
        widget->setFont(textFont(font.x(), static_cast<QFont::Weight>(static_cast<int>(font.y()))));
    }
}

void setTextFont(QWidget* widget, double size, QFont::Weight weight) {
    widget->setProperty(fontProperty, QPointF(size, static_cast<double>(weight)));
    widget->setFont(textFont(size, weight));
}

QFont textFont(double size, QFont::Weight weight) {
    QFont font("Ibuki Text");
    font.setPointSizeF(10.0 * size * currentScale);
    font.setWeight(weight);
    return font;
}

double contrast(const QColor& a, const QColor& b) {
    const auto luminance = [](const QColor& colour) {
        const auto linear = [](double v) {
            return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF())
               + 0.0722 * linear(colour.blueF());
    };
    const double x = luminance(a);
    const double y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

} // namespace ibuki
