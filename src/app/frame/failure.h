// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A mistake of our own that nothing caught: it is written down, the project is closed in order, and the user
// is told where the report is. Qt cannot carry an exception through its event loop.

#include <QApplication>
#include <QString>
#include <functional>

namespace ibuki {

/// Runs the call; what it throws is handed to `failed` in words, and false is returned.
bool guarded(const std::function<void()>& call, const std::function<void(const QString& what)>& failed);

/// Writes what happened, when, and in which version into a file of the folder. Returns its path; empty when
/// it cannot be written.
QString writeFailureReport(const QString& folder, const QString& what);

/// An application whose events cannot end it.
class GuardedApplication : public QApplication {
    Q_OBJECT

public:
    GuardedApplication(int& argc, char** argv) : QApplication(argc, argv) {}
    bool notify(QObject* receiver, QEvent* event) override;

signals:
    /// Once the event is over, or was given up.
    void failed(const QString& what);

private:
    bool failing_ = false;
};

} // namespace ibuki
