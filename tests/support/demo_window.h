// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The main window on a copy of the demo project, shown at its usual size.

#include "app/shell/main_window.h"
#include "app/shell/theme.h"

#include <QApplication>
#include <memory>

namespace ibuki::story {

/// nullptr when the demo project cannot be opened. `settings` keeps the tests' settings apart.
inline std::unique_ptr<MainWindow> demoWindow(const QString& settings, const QString& copyTo) {
    QCoreApplication::setOrganizationName("ibuki-tests");
    QCoreApplication::setApplicationName(settings);
    applyTheme(*qApp, Shade::light);
    auto window = std::make_unique<MainWindow>(IBUKI_SAMPLE_PROJECT);
    window->resize(1280, 800);
    window->show();
    return window->openDemo(copyTo) ? std::move(window) : nullptr;
}

} // namespace ibuki::story
