// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/failure.h"

#include "app/say.h"
#include "core/base/input_error.h"
#include "store/atomic_file.h"

#include <QDateTime>
#include <QDir>
#include <QSysInfo>
#include <new>

namespace ibuki {

bool guarded(const std::function<void()>& call, const std::function<void(const QString& what)>& failed) {
    try {
        call();
        return true;
    } catch (const InputError& error) {
        failed(saySentence(error));
    } catch (const std::bad_alloc&) {
        failed(say("There is not enough memory for that."));
    } catch (const std::exception& error) {
        failed(QString::fromUtf8(error.what()));
    } catch (...) {
        failed(say("Something of an unknown kind was thrown."));
    }
    return false;
}

QString writeFailureReport(const QString& folder, const QString& what) {
    const QDateTime now = QDateTime::currentDateTimeUtc();
    const QString path = QDir(folder).filePath(QStringLiteral("failure-")
                                               + now.toString(QStringLiteral("yyyy-MM-dd-HHmmss-zzz"))
                                               + QStringLiteral(".txt"));
    const QString text =
        QStringLiteral("%1\n%2 %3\n%4, Qt %5\n")
            .arg(what, QCoreApplication::applicationName(), QCoreApplication::applicationVersion(),
                 QSysInfo::prettyProductName(), QString::fromLatin1(qVersion()));
    QDir().mkpath(folder);
    try {
        writeFileAtomically(path.toStdString(), text.toStdString());
        return path;
    } catch (const InputError&) {
        return {};
    }
}

bool GuardedApplication::notify(QObject* receiver, QEvent* event) {
    bool taken = false;
    guarded([&] { taken = QApplication::notify(receiver, event); },
            [&](const QString& what) {
                if (failing_) return; // while it is told about one, further ones change nothing
                failing_ = true;
                QMetaObject::invokeMethod(
                    this,
                    [this, what] {
                        emit failed(what);
                        failing_ = false;
                    },
                    Qt::QueuedConnection);
            });
    return taken;
}

} // namespace ibuki
