// SPDX-License-Identifier: GPL-3.0-or-later
// Golden cases run through the command. A case is plain text in tests/data/golden/*.txt: see README.md there.

#include "support/places.h"
#include "support/test_class.h"

#include <QDir>
#include <QProcess>
#include <QTemporaryDir>
#include <QtTest>

class TestGolden : public QObject {
    Q_OBJECT

    struct Case {
        QString command;
        int exitCode = 0;
        QStringList lines; ///< each must appear in the output, in this order
    };

    static QList<Case> casesOf(const QString& path) {
        QFile file(path);
        QList<Case> cases;
        if (!file.open(QIODevice::ReadOnly)) return cases;
        for (const QString& line : QString::fromUtf8(file.readAll()).split('\n')) {
            if (line.startsWith("$ "))
                cases << Case{line.mid(2), 0, {}};
            else if (line.startsWith("exit ") && !cases.isEmpty())
                cases.back().exitCode = line.mid(5).toInt();
            else if (line.startsWith("\t") && !cases.isEmpty())
                cases.back().lines << line.mid(1).trimmed();
        }
        return cases;
    }

private slots:
    void golden_data() {
        QTest::addColumn<QString>("path");
        const QDir folder(QString(ibuki::places::testData) + "/golden");
        for (const QString& name : folder.entryList({"*.txt"}))
            QTest::newRow(qPrintable(name)) << folder.filePath(name);
    }
    void golden() {
        QFETCH(QString, path);
        const auto cases = casesOf(path);
        QVERIFY2(!cases.isEmpty(), "a golden file without a case");
        const QTemporaryDir scratch;
        for (const Case& one : cases) {
            QStringList words = QProcess::splitCommand(one.command);
            QVERIFY2(words.takeFirst() == "ibuki-cli", qPrintable(one.command));
            for (QString& word : words) word.replace("SCRATCH", scratch.path());
            QProcess process;
            process.setWorkingDirectory(ibuki::places::testData);
            process.start(ibuki::places::command, words);
            QVERIFY(process.waitForFinished());
            const QString output =
                QString::fromUtf8(process.readAllStandardOutput() + process.readAllStandardError());
            QVERIFY2(process.exitCode() == one.exitCode, qPrintable(one.command + "\n" + output));
            qsizetype from = 0;
            for (const QString& line : one.lines) {
                const qsizetype at = output.indexOf(line, from);
                QVERIFY2(at >= 0, qPrintable(one.command + "\nmissing: " + line + "\n" + output));
                from = at + line.size();
            }
        }
    }
};

IBUKI_TEST(TestGolden)
#include "tst_golden.moc"
