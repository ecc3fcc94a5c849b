// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A locale is the whole program's: what is told in another language is looked at in a program of its own.

#include <QCoreApplication>
#include <QProcess>
#include <QProcessEnvironment>

namespace ibuki::test {

inline constexpr const char* otherLanguage = "IBUKI_TEST_LANGUAGE"; ///< set in that program

/// Runs one function of a test class in the made-up language with longer words. Empty when it passed, else
/// what it said.
inline QByteArray failureInOtherLanguage(const QString& testClass, const QString& function) {
    QProcess own;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("LANGUAGE", "qps");
    environment.insert("LC_ALL", "C.UTF-8");
    environment.insert(otherLanguage, "1");
    own.setProcessEnvironment(environment);
    own.start(QCoreApplication::applicationFilePath(), {testClass, function});
    if (!own.waitForFinished(120'000)) return "it did not end";
    return own.exitCode() == 0 ? QByteArray() : own.readAllStandardOutput() + "it failed";
}

} // namespace ibuki::test
