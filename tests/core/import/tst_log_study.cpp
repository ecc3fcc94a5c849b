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
    void logsMakeABenchAndAStudyOfTheirNames() {
        Document document;
        Edit edit(document, "logs");
        const std::vector<ImportedLog> logs{log("before.csv"), log("after_1.csv"), log("after_2.csv")};
        const auto made = addStudyOfLogs(edit, {{}, "bench 1", "Logs", plainly, {}}, logs,
                                         statedByNames(logs, knownNames(document, {})));
        apply(document, edit.finish());
        const Question* question = firstQuestion(document, made.study);
        QVERIFY(question && question->factor == Factor::beforeAfter);
        const auto levels = levelsOf(document, question->id);
        QCOMPARE(levels.size(), std::size_t{2});
        QCOMPARE(levels[0]->name, std::string("before"));
        QCOMPARE(levels[1]->name, std::string("after"));
        QCOMPARE(document.find(document.find(made.study)->bench)->name, std::string("bench 1"));
        Edit again(document, "more"); // the bench that is there is taken
        QCOMPARE(
            addStudyOfLogs(again, {made.bench, "bench 2", "More", plainly, {}}, {log("x.csv")}, {{}}).bench,
            made.bench);
        QVERIFY(document.where(&Load::study, made.study).empty()); // what is brought in brings them
    }
    void namesOfTheShelfAreItsMaterials() {
        Document document;
        Edit shelf(document, "shelf");
        Material tern;
        tern.name = "Tern 11";
        const Id<Material> material = shelf.add(tern);
        apply(document, shelf.finish());
        Edit edit(document, "logs");
        const std::vector<ImportedLog> logs{log("TERN-11_m1.csv"), log("tern.11 m2.csv")};
        const auto made = addStudyOfLogs(edit, {{}, "bench 1", "Logs", plainly, {}}, logs,
                                         statedByNames(logs, knownNames(document, {})));
        const Question* question = firstQuestion(edit.document(), made.study);
        QCOMPARE(question->factor, Factor::material);
        const auto levels = levelsOf(edit.document(), question->id);
        QCOMPARE(levels.size(), std::size_t{1});
        QCOMPARE(levels[0]->name, std::string("Tern 11"));
        QCOMPARE(levels[0]->material, std::optional(material));
    }
    void theMetricIsOneThatTheLogsHave() {
        const auto metricOf = [](const std::vector<std::vector<Metric>>& each) {
            Document document;
            Edit edit(document, "logs");
            std::vector<ImportedLog> logs;
            for (const auto& metrics : each) {
                logs.push_back(log("x.csv"));
                LoadReduction load;
                for (Metric metric : metrics) load.metrics[metric] = {60, 40, {}};
                logs.back().reduction.loads = {load};
            }
            const auto made =
                addStudyOfLogs(edit, {{}, "b", "s", plainly, {}}, logs, std::vector<StatedRow>(logs.size()));
            return firstQuestion(edit.document(), made.study)->metric;
        };
        using enum Metric;
        QCOMPARE(metricOf({{package}, {hottest, package}}), hottest); // where a row has it
        QCOMPARE(metricOf({{package, gpu}, {gpu, hotspot}}), gpu);    // the first that all have
        QCOMPARE(metricOf({{package}, {package}}), package);
    }
};

IBUKI_TEST(TestLogStudy)
#include "tst_log_study.moc"
