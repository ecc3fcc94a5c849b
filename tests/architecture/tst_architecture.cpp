// SPDX-License-Identifier: GPL-3.0-or-later
// The walls of the house: which floor may include which, and which libraries the command may link.

#include "support/places.h"
#include "support/test_class.h"

#include <QDirIterator>
#include <QProcess>
#include <QRegularExpression>
#include <QtTest>

class TestArchitecture : public QObject {
    Q_OBJECT

    static QStringList sources(const QString& folder) {
        QStringList files;
        QDirIterator walk(QString(ibuki::places::source) + "/src/" + folder, {"*.h", "*.cpp"}, QDir::Files,
                          QDirIterator::Subdirectories);
        while (walk.hasNext()) files << walk.next();
        return files;
    }
    static QStringList includes(const QString& file) {
        QFile source(file);
        if (!source.open(QIODevice::ReadOnly)) return {};
        QStringList found;
        static const QRegularExpression pattern("^\\s*#\\s*include\\s*[<\"]([^>\"]+)[>\"]",
                                                QRegularExpression::MultilineOption);
        auto matches = pattern.globalMatch(QString::fromUtf8(source.readAll()));
        while (matches.hasNext()) found << matches.next().captured(1);
        return found;
    }

private slots:
    void floorsIncludeOnlyFloorsBelow_data() {
        QTest::addColumn<QString>("floor");
        QTest::addColumn<QStringList>("allowed");
        QTest::newRow("core") << "core" << QStringList{"core/"};
        QTest::newRow("words") << "words" << QStringList{"core/base/", "words/"};
        QTest::newRow("store") << "store" << QStringList{"core/", "words/", "store/"};
        QTest::newRow("live") << "live" << QStringList{"core/", "words/", "store/", "live/"};
        QTest::newRow("cli") << "cli" << QStringList{"core/", "words/", "store/", "live/", "cli/"};
        QTest::newRow("app") << "app" << QStringList{"core/", "words/", "store/", "live/", "app/"};
    }
    void floorsIncludeOnlyFloorsBelow() {
        QFETCH(QString, floor);
        QFETCH(QStringList, allowed);
        const QStringList files = sources(floor);
        QVERIFY(files.size() > 5);
        static const QRegularExpression ours("^(core|words|store|live|cli|app)/");
        for (const QString& file : files)
            for (const QString& include : includes(file)) {
                if (!ours.match(include).hasMatch()) continue;
                bool fits = false;
                for (const QString& prefix : allowed) fits = fits || include.startsWith(prefix);
                QVERIFY2(fits, qPrintable(file + " includes " + include));
            }
    }
    void belowTheWindowThereIsNoQt() {
        for (const char* floor : {"core", "words", "store", "live", "cli"})
            for (const QString& file : sources(floor))
                for (const QString& include : includes(file))
                    QVERIFY2(!include.startsWith('Q') && !include.startsWith("qt"),
                             qPrintable(file + " includes " + include));
    }
    void roomsIncludeOnlyRoomsBefore_data() {
        QTest::addColumn<QString>("floor");
        QTest::addColumn<QStringList>("rooms");
        QTest::newRow("core") << "core" << QStringList{"base",       "quantity", "distributions", "models",
                                                       "comparison", "series",   "trace",         "reduce",
                                                       "domain",     "physics",  "look",          "shelf",
                                                       "caution",    "design",   "clock",         "evidence",
                                                       "heat",       "inspect",  "simulate",      "plan",
                                                       "conduct",    "setup",    "import",        "ageing",
                                                       "practice"};
        QTest::newRow("store") << "store" << QStringList{"log",      "table",   "json",  "picture",
                                                         "calendar", "project", "shelf", "paper"};
        QTest::newRow("app") << "app"
                             << QStringList{"drawn",   "jobs",      "session", "forms", "question", "shelf",
                                            "run",     "recording", "import",  "bench", "peel",     "ageing",
                                            "verdict", "heat",      "paper",   "frame"};
    }
    void roomsIncludeOnlyRoomsBefore() { // in this order: an arrow back would close a circle
        QFETCH(QString, floor);
        QFETCH(QStringList, rooms);
        QDir folder(QString(ibuki::places::source) + "/src/" + floor);
        QStringList there = folder.entryList(QDir::Dirs | QDir::NoDotAndDotDot);
        there.removeAll("resources");
        there.sort();
        QStringList listed = rooms;
        listed.sort();
        QCOMPARE(there, listed);
        const QStringList views{"question", "shelf", "bench", "peel", "ageing", "verdict", "heat", "paper"};
        for (const QString& room : rooms)
            for (const QString& file : sources(floor + "/" + room))
                for (const QString& include : includes(file)) {
                    const QStringList parts = include.split('/');
                    if (parts.size() < 3 || parts[0] != floor || parts[1] == room) continue;
                    QVERIFY2(rooms.indexOf(parts[1]) < rooms.indexOf(room),
                             qPrintable(file + " includes " + include));
                    const bool betweenViews =
                        floor == "app" && views.contains(room) && views.contains(parts[1]);
                    QVERIFY2(!betweenViews, qPrintable(file + " includes " + include));
                }
    }
    void onlyTheEdgesWordWhatIsSaid() { // what is read, kept and computed carries codes and fields
        for (const char* room : {"store/log", "store/table", "store/project", "store/shelf"})
            for (const QString& file : sources(room))
                for (const QString& include : includes(file))
                    QVERIFY2(!include.startsWith("words/"), qPrintable(file + " includes " + include));
    }
    void everyHeaderOfTheWindowSaysWhatItIsFor() {
        static const QRegularExpression atTheTop("#pragma once\\s+//");
        static const QRegularExpression atTheType("///[^\\n]+\\n(template[^\\n]*\\n)?(class|struct) ");
        for (const QString& file : sources("app")) {
            if (!file.endsWith(".h")) continue;
            QFile source(file);
            QVERIFY(source.open(QIODevice::ReadOnly));
            const QString text = QString::fromUtf8(source.readAll());
            QVERIFY2(text.contains(atTheTop) || text.contains(atTheType), qPrintable(file));
        }
    }
    void theWindowWaitsForNobody() { // no loop inside the loop: the document may change while a sheet is open
        static const QRegularExpression nested(
            "Q(Input|File|Message)\\w*::(get|question|warning|information|critical)"
            "|\\bexec\\(|QEventLoop");
        for (const QString& file : sources("app")) {
            if (file.endsWith("/main.cpp")) continue;
            QFile source(file);
            QVERIFY(source.open(QIODevice::ReadOnly));
            const QString text = QString::fromUtf8(source.readAll()).remove(QRegularExpression("//[^\\n]*"));
            QVERIFY2(!text.contains(nested), qPrintable(file));
        }
    }
    void coreTouchesNoFilesAndNoClock() {
        for (const QString& file : sources("core"))
            for (const QString& include : includes(file))
                for (const char* outside :
                     {"fstream", "filesystem", "cstdio", "ctime", "iostream", "unistd.h"})
                    QVERIFY2(include != outside, qPrintable(file + " includes " + include));
    }
    void theCommandLinksNoQt() {
        QProcess ldd;
        ldd.start("ldd", {ibuki::places::command});
        QVERIFY(ldd.waitForFinished());
        QCOMPARE(ldd.exitCode(), 0);
        const QString libraries = QString::fromUtf8(ldd.readAllStandardOutput());
        QVERIFY(libraries.contains("libc.so"));
        QVERIFY2(!libraries.contains("libQt", Qt::CaseInsensitive), qPrintable(libraries));
    }
    void everySourceNamesItsLicence() {
        for (const char* floor : {"core", "words", "store", "cli", "app"})
            for (const QString& file : sources(floor)) {
                QFile source(file);
                QVERIFY(source.open(QIODevice::ReadOnly));
                QVERIFY2(source.readLine().contains("SPDX-License-Identifier: GPL-3.0-or-later"),
                         qPrintable(file));
            }
    }
};

IBUKI_TEST(TestArchitecture)
#include "tst_architecture.moc"
