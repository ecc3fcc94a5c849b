// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/atomic_file.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <QtTest>
#include <csignal>
#include <fstream>
#include <sys/resource.h>

using namespace ibuki;

class TestAtomicFile : public QObject {
    Q_OBJECT

    static std::string contents(const std::filesystem::path& path) {
        std::ifstream file(path, std::ios::binary);
        return {std::istreambuf_iterator<char>(file), {}};
    }

private slots:
    void replacesAFileWhole() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        writeFileAtomically(path, "first");
        writeFileAtomically(path, "second");
        QCOMPARE(contents(path), std::string("second"));
        QCOMPARE(std::distance(std::filesystem::directory_iterator(path.parent_path()), {}), 1);
    }
    void aMissingFolderIsOneClearSentence() {
        try {
            writeFileAtomically("/nowhere/at/all.txt", "x");
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("file-not-writable"));
            QCOMPARE(error.where.file, std::string("/nowhere/at/all.txt"));
        }
    }
    void whenTheDiskIsFullTheOldFileStays() { // a file-size limit stands in for a full disk
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        writeFileAtomically(path, "old");
        rlimit before{};
        ::getrlimit(RLIMIT_FSIZE, &before);
        std::signal(SIGXFSZ, SIG_IGN);
        const rlimit small{1024, before.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &small);
        QString code;
        try {
            writeFileAtomically(path, std::string(100'000, 'x'));
        } catch (const InputError& error) {
            code = QString::fromStdString(error.code);
        }
        ::setrlimit(RLIMIT_FSIZE, &before);
        QCOMPARE(code, QString("file-not-writable"));
        QCOMPARE(contents(path), std::string("old"));
        QCOMPARE(std::distance(std::filesystem::directory_iterator(path.parent_path()), {}), 1);
    }
};

IBUKI_TEST(TestAtomicFile)
#include "tst_atomic_file.moc"
