// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPalette>
#include <QStyleFactory>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

Shade currentShade = Shade::light;
Colours current = coloursOf(Shade::light);
double currentScale = 1.0;

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
    return QString(R"(
        QToolTip { background: %2; color: %3; border: 1px solid %5; padding: 4px; }
        QLineEdit, QPlainTextEdit, QComboBox, QSpinBox, QListWidget, QTableWidget, QTreeWidget, QTextBrowser, QListView {
            background: %2; border: 1px solid %5; border-radius: 4px; padding: 3px; }
        QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus, QListWidget:focus, QTableWidget:focus,
        QTextBrowser:focus { border: 2px solid %3; padding: 2px; }
        QLineEdit[wrong="true"] { border: 2px solid %6; }
        QComboBox QAbstractItemView { background: %2; border: 1px solid %5; }
        QPushButton { background: %4; border: 1px solid %5; border-radius: 4px; padding: 6px 14px; }
        QPushButton:hover { border-color: %3; }
        QPushButton:focus { border: 2px solid %3; padding: 5px 13px; }
        QPushButton:disabled { color: %7; }
        QPushButton[main="true"] { background: %3; color: %2; }
        QPushButton[quiet="true"] { background: transparent; border: 1px solid transparent; padding: 4px 8px; }
        QPushButton[quiet="true"]:hover { border-color: %5; }
        QPushButton[quiet="true"]:focus { border: 2px solid %3; padding: 3px 7px; }
        QFrame[card="true"] { background: %2; border: 1px solid %5; border-radius: 6px; }
        QLabel[quiet="true"] { color: %7; }
        QHeaderView::section { background: %4; color: %7; border: none; border-bottom: 1px solid %5; padding: 4px 6px; }
        QTableWidget { gridline-color: %5; }
        QScrollArea { border: none; background: transparent; }
        QScrollArea > QWidget > QWidget { background: transparent; }
        QListWidget::item { padding: 5px; border-radius: 4px; }
        QListWidget::item:selected, QTableWidget::item:selected { background: %4; color: %3; }
        QMenu { background: %2; border: 1px solid %5; padding: 4px; }
        QMenu::item { padding: 5px 22px; }
        QMenu::item:selected { background: %4; color: %3; }
        QSplitter::handle { background: transparent; }
    )")
        .arg(c.ground.name(), c.sheet.name(), c.ink.name(), c.band.name(), c.line.name(), c.hot.name(),
             c.quiet.name());
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
}

QFont textFont(double size, QFont::Weight weight) {
    QFont font("Ibuki Text");
    font.setPointSizeF(10.0 * size * currentScale);
    font.setWeight(weight);
    return font;
}

double contrast(const QColor& a, const QColor& b) {
    const auto luminance = [](const QColor& colour) {
        const auto linear = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
    };
    const double x = luminance(a);
    const double y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

} // namespace ibuki
