// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/plan.h"
#include "core/import/header_roles.h"
#include "store/log/log_batch.h"
#include "store/log/log_writer.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QDateTime>
#include <QFileInfo>
#include <QTemporaryDir>
#include <fstream>

using namespace ibuki;

class TestLogBatch : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;

    std::string file(const char* name, const std::string& text) {
        const std::string path = folder_.filePath(name).toStdString();
        std::ofstream(path) << text;
        return path;
    }
    static ReadLog read(const std::string& path, const BatchRules& rules = {}) {
        return readOneLog(path, rules, {}, {});
    }
    static Role roleOf(const Trace& trace, const std::string& column) {
        for (const Channel& channel : trace.channels)
            if (channel.column == column) return channel.role;
        return Role::time;
    }

    /// A minute of numbers under headers of two columns.
    static std::string columns(const std::string& first, const std::string& second) {
        std::string text = "Time [s]," + first + "," + second + "\n";
        for (int i = 0; i < 60; ++i)
            text += std::to_string(i) + "," + std::to_string(40 + i % 3) + "," + std::to_string(22 + i % 2)
                    + "\n";
        return text;
    }

private slots:
    void oneLogComesWithAllThatImportNeeds() {
        const std::string text = logText(story::trace("Tern 11", 1));
        const ReadLog one = read(file("tern-11_1.csv", text));
        QCOMPARE(one.log.fileName, std::string("tern-11_1.csv"));
        QCOMPARE(one.log.bytes, static_cast<std::int64_t>(text.size()));
        QCOMPARE(one.log.sha256.size(), std::size_t{64});
        QVERIFY(one.log.fileTime.has_value());
        QVERIFY(one.log.reduction.main() && !one.log.reduction.others.empty());
        QCOMPARE(static_cast<std::size_t>(
                     std::count(one.source.keptRows.begin(), one.source.keptRows.end(), true)),
                 one.log.trace.samples());
        QVERIFY(one.source.stamp == MappedFile(one.source.path).stamp());
    }
    void whatWasSaidOfSuchAHeaderIsKnownAtTheFirstReading() {
        const std::string path = file("named.csv", columns("Alpha", "Beta"));
        BatchRules rules;
        LogOptions stated;
        stated.roles = {{"Alpha", Role::core}, {"Beta", Role::ambient}};
        rules.remembered[readLogReported(columns("Alpha", "Beta"), "named.csv", stated).report.fingerprint] =
            stated.roles;
        int readings = 0;
        LogOptions watched;
        double last = 2;
        watched.progress = [&](double share) { // begins anew with every reading
            readings += share < last ? 1 : 0;
            last = share;
        };
        const ReadLog one = readOneLog(path, rules, watched, {});
        QVERIFY(readings <= 1);
        QCOMPARE(roleOf(one.log.trace, "Alpha"), Role::core);
        QCOMPARE(roleOf(one.log.trace, "Beta"), Role::ambient);
        QCOMPARE(one.source.options.roles, stated.roles); // so that it is remembered again
        QVERIFY(one.source.options.rolesByHeader.empty());
        const ReadLog other = read(file("other.csv", columns("Core 0 [°C]", "Gamma")), rules);
        QCOMPARE(roleOf(other.log.trace, "Core 0 [°C]"), Role::core);
        QVERIFY(other.source.options.roles.empty());
    }
    void aProbesOneColumnIsTheRoomWhateverItsName() {
        const ReadLog probe = read(file("probe.csv", columns("Alpha", "Beta")));
        QCOMPARE(roleOf(probe.log.trace, "Alpha"), Role::ambient);
        QVERIFY(probe.source.options.ambientOnly);
    }
    void manyAtATimeAreAsOneAfterTheOther() {
        std::vector<std::string> files;
        for (int i = 0; i < 12; ++i)
            files.push_back(i % 5 == 4 ? folder_.filePath("gone" + QString::number(i)).toStdString()
                                       : file(("many" + std::to_string(i) + ".csv").c_str(),
                                              logText(story::trace(i % 2 ? "Tern 11" : "Dunlin C", i))));
        std::size_t good = 0;
        const LogBatch batch = readLogBatch(files, {}, {}, [](double) {});
        for (const std::string& path : files) {
            if (path.find("gone") != std::string::npos) continue;
            const ReadLog alone = readOneLog(path, {}, {}, {});
            QCOMPARE(batch.sources[good].path, path);
            QVERIFY(batch.logs[good].reduction == alone.log.reduction);
            QCOMPARE(batch.logs[good].sha256, alone.log.sha256);
            ++good;
        }
        QCOMPARE(batch.logs.size(), good);
        QCOMPARE(batch.refused.size(), files.size() - good);
        QVERIFY(batch.refused.front().where.file.find("gone4") != std::string::npos);
        std::stop_source source; // called off while it reads
        const auto stopAtHalf = [&](double share) {
            if (share > 0.5) source.request_stop();
        };
        QVERIFY_THROWS_EXCEPTION(Cancelled, readLogBatch(files, {}, source.get_token(), stopAtHalf));
    }
    void aBadFileIsNamedAndTheOthersGoOn() {
        const std::string good = file("tern-11_1.csv", logText(story::trace("Tern 11", 1)));
        double last = 0;
        const LogBatch batch =
            readLogBatch({file("empty.csv", ""), good, folder_.filePath("gone.csv").toStdString()}, {}, {},
                         [&](double share) { last = share; });
        QCOMPARE(batch.logs.size(), std::size_t{1});
        QCOMPARE(batch.sources.front().path, good);
        QCOMPARE(batch.refused.size(), std::size_t{2});
        QVERIFY(batch.refused.front().where.file.find("empty.csv") != std::string::npos);
        QCOMPARE(batch.refused.back().code, std::string("file-missing"));
        QCOMPARE(last, 1.0);
    }
    void aRowsOtherProbeIsLaidBesideItsLogBeforeItIsBroughtIn() {
        LogBatch batch;
        for (int mount : {1, 2}) {
            ReadLog one = read(file(("tern-11_" + std::to_string(mount) + ".csv").c_str(),
                                    logText(story::trace("Tern 11", mount))));
            batch.logs.push_back(one.log);
            batch.sources.push_back(one.source);
        }
        batch.reducedBeside.resize(2);
        std::vector<ImportRow> rows(2);
        QVERIFY(probeChanges(batch, rows).empty());
        batch.logs[1].trace.start = batch.logs[0].trace.start;
        rows[1].probeOf = 0;
        auto changes = probeChanges(batch, rows);
        QCOMPARE(changes.size(), std::size_t{1});
        QCOMPARE(changes.front().log, std::size_t{0});
        reduceChanges(changes, {}, [](double) {});
        takeChanges(batch, std::move(changes));
        QCOMPARE(batch.logs[0].reduction.main()->ambient.source, AmbientSource::probe);
        QVERIFY(probeChanges(batch, rows).empty());
        replaceLog(batch, 1, read(batch.sources[1].path), std::nullopt); // read anew, it is another room
        QCOMPARE(probeChanges(batch, rows).size(), std::size_t{1});
        rows[1].probeOf.reset();
        changes = probeChanges(batch, rows);
        reduceChanges(changes, {}, [](double) {});
        takeChanges(batch, std::move(changes));
        QCOMPARE(batch.logs[0].reduction.main()->ambient.source, AmbientSource::column);
    }
    void rulesAreThoseOfTheBenchTheStudyAndWhatWasSaid() {
        story::Asked asked = story::ask();
        QVERIFY(!batchRules({}, nullptr, {}).settings.limitC);
        Edit edit(asked.document, "rules");
        Configuration rig = *currentConfiguration(edit.document(), asked.bench);
        rig.temperatureLimit = Celsius{95};
        edit.put(rig);
        ReductionRules own;
        own.study = asked.study;
        own.windowMaxS = 200;
        edit.add(own);
        rememberRoles(edit, "print", {{"Alpha", Role::core}});
        apply(asked.document, edit.finish());
        const Configuration* bench = currentConfiguration(asked.document, asked.bench);
        const BatchRules rules = batchRules(asked.document, bench, asked.study);
        QCOMPARE(*rules.settings.limitC, 95.0);
        QCOMPARE(rules.settings.windowMaxS, 200.0);
        QCOMPARE(rules.remembered.at("print").at("Alpha"), Role::core);
        QVERIFY(batchRules(asked.document, bench, {}).settings.windowMaxS != 200.0); // of no study
    }
    void aFilesTimeIsThatOfTheWallClock() { // second road: Qt's
        const std::string path = file("clock.csv", logText(story::trace("Tern 11", 1)));
        const QDateTime changed = QFileInfo(QString::fromStdString(path)).lastModified();
        QCOMPARE(dateTimeText(*read(path).log.fileTime), changed.toString("yyyy-MM-dd HH:mm").toStdString());
    }
    void calledOffItStops() {
        std::stop_source stop;
        stop.request_stop();
        const std::vector<std::string> files{file("tern-11_1.csv", logText(story::trace("Tern 11", 1)))};
        QVERIFY_THROWS_EXCEPTION(Cancelled, readLogBatch(files, {}, stop.get_token(), [](double) {}));
    }
    void aLogIsReducedBesideItsProbeAndWithoutItAgain() {
        ImportedLog log = story::nineLogs().front();
        ImportedLog probe;
        probe.trace.timeS = log.trace.timeS;
        probe.trace.start = log.trace.start;
        for (const Channel& channel : log.trace.channels)
            if (channel.role == Role::ambient) probe.trace.channels.push_back(channel);
        for (double& value : probe.trace.channels.front().values) value += 5; // a warmer room
        std::erase_if(log.trace.channels,
                      [](const Channel& channel) { return channel.role == Role::ambient; });
        reduceWith(log, nullptr);
        QCOMPARE(log.reduction.main()->ambient.source, AmbientSource::none);
        reduceWith(log, &probe);
        const auto room = log.reduction.main()->ambient;
        QCOMPARE(room.source, AmbientSource::probe);
        const double mean = story::nineLogs().front().reduction.main()->ambient.meanC.value();
        QVERIFY(std::abs(*room.meanC - (mean + 5)) < 0.2);
        reduceWith(log, nullptr);
        QCOMPARE(log.reduction.main()->ambient.source, AmbientSource::none);
    }
};

IBUKI_TEST(TestLogBatch)
#include "tst_log_batch.moc"
