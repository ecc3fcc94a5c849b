// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_study.h"
#include "core/setup/bench_template.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestLogStudy : public QObject {
    Q_OBJECT

    static ImportedLog log(const std::string& name) {
        ImportedLog made;
        made.fileName = name;
        made.trace = story::trace("Tern 11", 1);
        return made;
    }

private slots:
    void aFilesNameTellsItsLevel() {
        QCOMPARE(levelNameOf("tern-11_2.csv"), std::string("tern-11"));
        QCOMPARE(levelNameOf("before.csv"), std::string("before"));
        QCOMPARE(levelNameOf("after cleaning 3.txt"), std::string("after cleaning"));
        QCOMPARE(levelNameOf("run7.csv"), std::string("run7")); // nothing stands between: it may be a name
        QCOMPARE(levelNameOf("2031-03-04.csv"), std::string("2031-03"));
        QCOMPARE(levelNameOf("12.csv"), std::string("12"));
        QCOMPARE(levelNameOf(".csv"), std::string(".csv"));
    }
    void logsMakeABenchAndAStudyOfTheirNames() {
        Document document;
        Edit edit(document, "logs");
        const auto made =
            addStudyOfLogs(edit, {}, {log("before.csv"), log("after_1.csv"), log("after_2.csv")}, "bench 1",
                           "Logs", plainly, {});
        apply(document, edit.finish());
        const Question* question = firstQuestion(document, made.study);
        QVERIFY(question && question->factor == Factor::beforeAfter);
        const auto levels = levelsOf(document, question->id);
        QCOMPARE(levels.size(), std::size_t{2});
        QCOMPARE(levels[0]->name, std::string("before"));
        QCOMPARE(levels[1]->name, std::string("after"));
        QCOMPARE(document.find(document.find(made.study)->bench)->name, std::string("bench 1"));
        Edit again(document, "more"); // the bench that is there is taken
        QCOMPARE(addStudyOfLogs(again, made.bench, {log("x.csv")}, "bench 2", "More", plainly, {}).bench,
                 made.bench);
    }
};

IBUKI_TEST(TestLogStudy)
#include "tst_log_study.moc"
