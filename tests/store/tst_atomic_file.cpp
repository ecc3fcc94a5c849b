// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/atomic_file.h"
#include "store/project/project.h"
#include "support/project_files.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <QtTest>
#include <csignal>
#include <fstream>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

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
    void aPlantedPartFileIsNotFollowed() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        const std::filesystem::path victim = folder.filePath("victim").toStdString();
        std::ofstream(victim) << "precious";
        // Wherever the next part would stand, and where it stood in older versions.
        for (int i = 0; i < 200; ++i)
            std::filesystem::create_symlink(
                victim,
                path.parent_path() / (".ibuki-part-" + std::to_string(::getpid()) + "-" + std::to_string(i)));
        std::filesystem::create_symlink(victim, path.string() + ".part-" + std::to_string(::getpid()));
        try {
            writeFileAtomically(path, "mine");
            QCOMPARE(contents(path), std::string("mine"));
        } catch (const InputError& error) { // refusing is as good
            QCOMPARE(error.code, std::string("file-not-writable"));
        }
        QCOMPARE(contents(victim), std::string("precious"));
    }
    void theModeStays() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        std::ofstream(path) << "secret";
        std::filesystem::permissions(path, std::filesystem::perms(0600));
        writeFileAtomically(path, "secret still");
        QCOMPARE(static_cast<int>(std::filesystem::status(path).permissions()), 0600);
    }
    void aKillLeavesNothingBehind() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.txt").toStdString();
        const std::string large(200'000'000, 'x');
        const pid_t child = ::fork();
        if (child == 0) {
            for (;;) writeFileAtomically(path, large);
        }
        QTest::qWait(60);
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        writeFileAtomically(folder.filePath("b.txt").toStdString(), "small");
        for (const auto& entry : std::filesystem::directory_iterator(path.parent_path()))
            QVERIFY2(entry.path() == path || entry.path().filename() == "b.txt", entry.path().c_str());
    }
    void aProjectIsNoTarget() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.ibuki").toStdString();
        {
            const Project project = Project::create(path);
            QCOMPARE(story::codeOf([&] { writeFileAtomically(path, "x"); }),
                     "target-is-project"); // open here
        }
        const std::string before = contents(path);
        QCOMPARE(story::codeOf([&] { writeFileAtomically(path, "x"); }), "target-is-project");
        QCOMPARE(contents(path), before);
    }
    void anInputIsNoTarget() {
        const QTemporaryDir folder;
        const std::filesystem::path path = folder.filePath("a.json").toStdString();
        std::ofstream(path) << "{}";
        const std::filesystem::path link = folder.filePath("b.json").toStdString();
        std::filesystem::create_symlink(path, link);
        QCOMPARE(story::codeOf([&] { refuseInputAsTarget(link, {path}); }), "target-is-input");
        QCOMPARE(story::codeOf([&] { refuseInputAsTarget(path.string() + ".new", {path}); }),
                 "nothing thrown");
    }
};

IBUKI_TEST(TestAtomicFile)
#include "tst_atomic_file.moc"
