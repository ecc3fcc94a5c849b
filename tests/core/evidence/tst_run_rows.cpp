// SPDX-License-Identifier: GPL-3.0-or-later
// The rules by which a mount's runs are averaged, each shown; clocks of logs that were brought in.
#include "core/clock/mount_history.h"
#include "core/evidence/run_rows.h"
#include "store/table/tidy_row.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <fmt/format.h>

using namespace ibuki;

namespace {

RunRow row(std::int64_t mount, double response) {
    RunRow made;
    made.mountId = {mount};
    made.mount = "m" + std::to_string(mount);
    made.loadId = {1};
    made.cell = 0;
    made.response = response;
    return made;
}

/// Values of the mounts by a rule, "40 41".
std::string means(const std::vector<RunRow>& rows, const MountRule& rule,
                  std::optional<Id<Load>> load = Id<Load>{1}) {
    std::string text;
    for (const MountFigure& figure : mountFigures(rows, load, rule))
        text += (text.empty() ? "" : " ") + fmt::format("{:g}", figure.value);
    return text;
}

} // namespace

class TestRunRows : public QObject {
    Q_OBJECT
private slots:
    void runsAreAveragedInsideOneMountAndLoad() {
        std::vector<RunRow> rows{row(1, 40), row(2, 50), row(1, 42), row(1, 60)};
        rows[3].loadId = {2};
        QCOMPARE(means(rows, {}), std::string("41 50"));
        QCOMPARE(means(rows, {}, Id<Load>{2}), std::string("60"));
        rows[0].powerW = 100;
        rows[2].powerW = 110;
        const auto figures = mountFigures(rows, Id<Load>{1}, {});
        QCOMPARE(figures[0].runs, 2);
        QVERIFY_NEAR(*figures[0].powerW, 105, 1e-12);
        QVERIFY(!figures[1].powerW && !figures[1].ambientC);
    }
    void checkMountsComeInByRule() {
        std::vector<RunRow> rows{row(1, 40), row(2, 50)};
        rows[1].kind = SlotKind::checkMount;
        MountRule rule;
        QCOMPARE(means(rows, rule), std::string("40"));
        rule.checkMounts = true;
        QCOMPARE(means(rows, rule), std::string("40 50"));
        rule.levels = false;
        QCOMPARE(means(rows, rule), std::string("50"));
        QCOMPARE(exportedPurpose(rows[1]), Purpose::check);
    }
    void rejectedOnesComeInByRule() {
        std::vector<RunRow> rows{row(1, 40), row(1, 44)};
        rows[1].excluded = true;
        MountRule rule;
        QCOMPARE(means(rows, rule), std::string("40"));
        rule.rejected = true;
        QCOMPARE(means(rows, rule), std::string("42"));
        QVERIFY(mountFigures(rows, std::nullopt, rule).front().excluded);
    }
    void runsAtTheLimitComeInByRule() {
        std::vector<RunRow> rows{row(1, 40), row(1, 44)};
        rows[1].censored = true;
        MountRule rule;
        QCOMPARE(means(rows, rule), std::string("42"));
        QVERIFY(mountFigures(rows, std::nullopt, rule).front().censored);
        rule.atLimit = false;
        QCOMPARE(means(rows, rule), std::string("40"));
    }
    void laterLooksComeInByRule() {
        std::vector<RunRow> rows{row(1, 40), row(1, 44)};
        rows[1].purpose = Purpose::check;
        MountRule rule;
        QCOMPARE(means(rows, rule), std::string("40"));
        rule.onlyFresh = false;
        QCOMPARE(means(rows, rule), std::string("42"));
    }
    void theValueIsNamedByTheRule() {
        std::vector<RunRow> rows{row(1, 40), row(2, 41)};
        rows[0].rthKPerW = 0.25;
        MountRule rule;
        rule.value = &RunRow::rthKPerW;
        QCOMPARE(means(rows, rule), std::string("0.25")); // what lacks it does not count
    }
    void logsThatWereBroughtInHaveTheirClocks() {
        const auto asked = story::measured();
        const Question& question = *firstQuestion(asked.document, asked.study);
        const auto rows = runRows(asked.document, question);
        QVERIFY(!rows.empty());
        for (const RunRow& one : rows) {
            const TidyRow tidy = tidyRow(asked.document, question, one);
            QVERIFY(tidy.ageH && *tidy.ageH >= 0 && *tidy.ageH < 1); // the idle part of its own log
            QVERIFY(tidy.cycles && *tidy.cycles >= 0);
            const Run& run = *asked.document.find(one.runId);
            const MountClock clock =
                historyOf(asked.document, one.mountId).at(*loadBegan(asked.document, run));
            QCOMPARE(tidy.ageH, clock.hours);
        }
    }
};
IBUKI_TEST(TestRunRows)
#include "tst_run_rows.moc"
