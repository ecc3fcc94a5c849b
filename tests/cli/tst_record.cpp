// SPDX-License-Identifier: GPL-3.0-or-later
// The verbs around recordings, as a user runs them; what survives a kill.

#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/simulate/simulated_bench.h"
#include "store/log/log_writer.h"
#include "store/project/project.h"
#include "support/command.h"
#include "support/laid.h"
#include "support/live.h"
#include "support/near.h"
#include "support/places.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QProcess>
#include <QTemporaryDir>
#include <csignal>
#include <nlohmann/json.hpp>

using namespace ibuki;
using story::put;
using story::run;
namespace fs = std::filesystem;
using Json = nlohmann::json;

class TestRecord : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;
    std::string bench_;
    std::string fresh(const char* ending) {
        return folder_.filePath(QString("%1%2").arg(++count_).arg(ending)).toStdString();
    }
    std::string project(const char* which = "lidded-chip") {
        const std::string path = fresh(".ibuki");
        return run({"new", path, "--bench", "node-2", "--template", which}).code == 0 ? path : std::string();
    }
    static std::vector<Json> lines(const std::string& text) {
        std::vector<Json> all;
        std::istringstream in(text);
        for (std::string line; std::getline(in, line);) all.push_back(Json::parse(line));
        return all;
    }
    static Json listed(const std::string& path) {
        return Json::parse(run({"recordings", path, "--json"}).out);
    }
    std::string traceOf(const std::string& path, std::int64_t recording) {
        const std::string file = fresh(".csv");
        run({"trace", path, std::to_string(recording), "-o", file});
        std::ifstream in(file, std::ios::binary);
        return {std::istreambuf_iterator<char>(in), {}};
    }
    /// What the simulated bench gives, as the trace of a recording tells it.
    static std::string simulated(std::size_t rows, std::uint64_t seed) {
        BenchSimulation simulation({}, 1, seed);
        Trace trace;
        trace.channels = simulation.channels();
        for (std::size_t i = 0; i < rows; ++i) {
            trace.timeS.push_back(static_cast<double>(i));
            const auto values = simulation.next(std::nullopt);
            for (std::size_t k = 0; k < values.size(); ++k) trace.channels[k].values.push_back(values[k]);
        }
        return exactLogText(trace);
    }

    /// A protocol whose load writes its name into a file while it runs; the file.
    std::pair<std::string, std::string> protocolWithCommand(const char* minutes) {
        const std::string file = fresh(".txt");
        const std::string steps = fresh(".json");
        const std::string script = fresh(".sh");
        put(script, "trap 'echo term >> " + file + "; exit 0' TERM\necho begun >> " + file
                        + "\nsleep 300 & while true; do wait; sleep 0.05; done\n");
        put(steps, "{\"loads\": [{\"name\": \"march\", \"power_W\": 100, \"command\": [\"sh\", \"" + script
                       + "\"]}], \"steps\": [{\"kind\": \"soak\", \"minutes\": " + minutes
                       + "}, {\"kind\": \"cool\", \"minutes\": 0.02}]}");
        return {steps, file};
    }
    static std::string contentOf(const std::string& file) {
        std::ifstream in(file);
        return {std::istreambuf_iterator<char>(in), {}};
    }
    QProcess& started(QProcess& recorder, const std::string& path, const std::string& steps, bool consent) {
        QStringList words{"record",
                          QString::fromStdString(path),
                          "--bench",
                          "node-2",
                          "--loose",
                          "--source",
                          QString::fromStdString("sim:" + bench_),
                          "--protocol",
                          QString::fromStdString(steps),
                          "--json"};
        if (consent) words << "--start-load";
        recorder.start(places::command, words);
        return recorder;
    }

    /// The story's study with its nine mounts on the tape; its load as stated.
    std::string plannedProject(std::vector<std::string> command = {}) {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            for (const Load* load : loadsOf(edit.document(), laid.asked.study)) {
                Load stated = *load;
                stated.target = Watt{150};
                stated.command = command;
                edit.put(stated);
            }
        });
        const std::string path = fresh(".ibuki");
        Project::create(path).apply(story::everythingOf(laid.asked.document));
        return path;
    }
    std::vector<std::string> next(const std::string& path, std::vector<std::string> more = {}) {
        const Project stored = Project::open(path, Access::readOnly);
        const Study& study = stored.document().all<Study>().begin()->second;
        std::vector<std::string> words{
            "record",  path,       "--bench",  stored.document().find(study.bench)->name,
            "--next",  study.name, "--source", "sim:" + bench_,
            "--speed", "max"};
        words.insert(words.end(), more.begin(), more.end());
        return words;
    }

private slots:
    void initTestCase() {
        bench_ = fresh(".json");
        put(bench_, "{}");
    }
    void aProjectIsMadeWithItsBench() {
        const std::string path = project("graphics-card");
        const Project made = Project::open(path, Access::readOnly);
        QCOMPARE(made.document().all<Bench>().size(), std::size_t{1});
        QCOMPARE(made.document().all<Bench>().begin()->second.name, std::string("node-2"));
        QCOMPARE(run({"new", path, "--bench", "x"}).code, 1); // there already
        QCOMPARE(run({"new", fresh(".ibuki"), "--bench", "x", "--template", "teapot"}).code, 2);
        QCOMPARE(run({"new", fresh(".ibuki"), "--bench", " "}).code, 2);
    }
    void aSimulatedRecordingIsWhatItsSeedSays() {
        const std::string path = project();
        const auto outcome = run({"record", path, "--bench", "node-2", "--loose", "--source", "sim:" + bench_,
                                  "--speed", "max", "--for", "900", "--seed", "11", "--json"});
        QCOMPARE(outcome.code, 0);
        const auto events = lines(outcome.out);
        QCOMPARE(events.front()["event"], Json("opened"));
        QCOMPARE(events.front()["channels"].size(), std::size_t{13});
        QCOMPARE(events.front()["channels"][0]["role"], Json("core"));
        QCOMPARE(events.back()["event"], Json("closed"));
        QCOMPARE(events.back()["samples"], Json(901));
        QCOMPARE(events.back()["duration_s"], Json(900.0));
        QCOMPARE(events.back()["lost"], Json(0));
        const Json all = listed(path);
        QCOMPARE(all.size(), std::size_t{1});
        QCOMPARE(all[0]["state"], Json("closed"));
        QCOMPARE(all[0]["samples"], Json(901));
        QVERIFY(all[0]["mount"].is_null());
        QCOMPARE(traceOf(path, all[0]["recording"]), simulated(901, 11));
    }
    void aTraceIsALogThatCanBeReduced() {
        const std::string log = fresh(".csv");
        const SimulatedRun truth = simulate({}, {}, 3);
        std::ofstream(log) << exactLogText(truth.trace);
        const std::string path = project();
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "follow:" + log,
                      "--from-start", "--for", "3000"})
                     .code,
                 0);
        const std::string out = fresh(".csv");
        QCOMPARE(
            run({"trace", path, std::to_string(listed(path)[0]["recording"].get<int>()), "-o", out}).code, 0);
        const Json direct = Json::parse(run({"reduce", log, "--json"}).out);
        const Json again = Json::parse(run({"reduce", out, "--json"}).out);
        QVERIFY_NEAR(again["loads"][0]["metrics"]["hottest"]["delta_K"].get<double>(),
                     direct["loads"][0]["metrics"]["hottest"]["delta_K"].get<double>(), 0.02);
    }
    void aRecordingOfAMountHasItsRun() {
        const std::string path = project();
        {
            Project made = Project::open(path);
            Edit edit(made.document(), "mount");
            Mount mount;
            mount.configuration = made.document().all<Configuration>().begin()->first;
            mount.name = "Tern 11 1";
            edit.add(mount);
            made.apply(edit.finish());
        }
        QCOMPARE(run({"record", path, "--bench", "node-2", "--mount", "Tern 11 1", "--source",
                      "sim:" + bench_, "--speed", "max", "--for", "60"})
                     .code,
                 0);
        QCOMPARE(listed(path)[0]["mount"], Json("Tern 11 1"));
        const Project made = Project::open(path, Access::readOnly);
        QCOMPARE(made.document().all<Run>().size(), std::size_t{1});
    }
    void theNextMountIsRecordedByItsProtocol() {
        const std::string path = plannedProject();
        const auto reported = run(next(path, {"--json"}));
        QCOMPARE(reported.code, 0);
        std::vector<std::string> kinds;
        for (const Json& line : lines(reported.out))
            if (line["event"] == "step" && line["state"] == "begun") kinds.push_back(line["kind"]);
        QCOMPARE(kinds, (std::vector<std::string>{"settle", "idle", "soak", "measure", "cool"}));
        const Project stored = Project::open(path, Access::readOnly);
        const Document& document = stored.document();
        QCOMPARE(document.all<Mount>().size(), std::size_t{1});
        const Study& study = document.all<Study>().begin()->second;
        const Slot& first = *slotsOf(document, study.id).front();
        QVERIFY(first.mount);
        const Run& made = *runsOf(document, *first.mount).front();
        QVERIFY(made.load.has_value());
        const Reduction* reduction = reductionOf(document, made.id);
        QVERIFY(reduction && reduction->longest);
        // 150 W over 0.267 K/W of ladder and hot spot, and the hottest core's offset.
        const double delta =
            reduction->loads[*reduction->longest].metrics.at(Metric::hottest).deltaK.value_or(0);
        QVERIFY_NEAR(delta, BenchSimulation({}, 1, 1).trueDeltaK(150), 0.5);
        QCOMPARE(run(next(path)).code, 0); // and then the second
        QCOMPARE(Project::open(path, Access::readOnly).document().all<Mount>().size(), std::size_t{2});
    }
    void whatHasNoNextIsRefused() {
        const std::string path = plannedProject();
        auto words = next(path);
        words[5] = "no such study";
        QCOMPARE(run(words).code, 1);
        for (int mount = 0; mount < 9; ++mount) QCOMPARE(run(next(path, {"--for", "5"})).code, 0);
        const auto none = run(next(path));
        QCOMPARE(none.code, 1);
        QVERIFY(none.err.find("nothing is planned") != std::string::npos);
        QCOMPARE(Project::open(path, Access::readOnly).document().all<Recording>().size(), std::size_t{9});
    }
    void aCommandOfTheProjectStartsOnlyByTheUsersWord() {
        const std::string witness = fresh(".txt");
        const std::string path = plannedProject({"sh", "-c", "echo begun > " + witness});
        QCOMPARE(run(next(path)).code, 0);
        QVERIFY(!fs::exists(witness));
        auto words = next(path, {"--start-load"});
        words[9] = "300"; // long enough for a shell to begin
        QCOMPARE(run(words).code, 0);
        QVERIFY(fs::exists(witness));
    }
    void whatCannotBeIsRefusedBeforeAnythingIsStored() {
        const std::string path = project();
        const std::string sim = "sim:" + bench_;
        QCOMPARE(run({"record", path, "--bench", "no", "--loose", "--source", sim}).code, 1);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--mount", "no", "--source", sim}).code, 1);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "follow:/nowhere"}).code,
                 1);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "tea:x"}).code, 1);
        QCOMPARE(run({"record", "/nowhere.ibuki", "--bench", "node-2", "--loose", "--source", sim}).code, 1);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--source", sim}).code, 2);
        QCOMPARE(
            run({"record", path, "--bench", "node-2", "--loose", "--source", sim, "--speed", "fast"}).code,
            2);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", sim, "--every", "0"}).code,
                 2);
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", sim, "--start-load"}).code,
                 2);
        QVERIFY(listed(path).empty());
        QCOMPARE(run({"trace", path, "99", "-o", fresh(".csv")}).code, 1);
        QCOMPARE(run({"trace", path, "x", "-o", fresh(".csv")}).code, 1);
    }
    void aProtocolIsWalkedThroughByItsGates() {
        const std::string path = project();
        const std::string steps = fresh(".json");
        put(steps, R"({"loads": [{"name": "150 W", "power_W": 150}], "steps": [
            {"kind": "settle", "load": null, "minutes": 10, "gate": "chip slope below", "gate_value": 0.1},
            {"kind": "idle", "minutes": 3}, {"kind": "soak", "load": "150 W", "minutes": 30,
            "gate": "remaining below", "gate_value": 0.2}, {"kind": "measure", "minutes": 4},
            {"kind": "cool", "minutes": 1, "gate": "above idle below", "gate_value": 0.5}]})");
        const auto record = [&](const char* seed) {
            return run({"record", path, "--bench", "node-2", "--loose", "--source", "sim:" + bench_,
                        "--protocol", steps, "--speed", "max", "--seed", seed, "--json"});
        };
        const auto outcome = record("4");
        QCOMPARE(outcome.code, 0);
        std::vector<std::string> reported;
        double soakS = 0;
        for (const Json& event : lines(outcome.out)) {
            if (event["event"] != "step") continue;
            reported.push_back(event["kind"].get<std::string>() + " " + event["state"].get<std::string>());
            if (event["kind"] == "soak") soakS = event["t_s"].get<double>() - soakS;
            if (event["kind"] == "measure") QCOMPARE(event["load"], Json("150 W"));
        }
        QCOMPARE(reported, (std::vector<std::string>{"settle begun", "settle done", "idle begun", "idle done",
                                                     "soak begun", "soak done", "measure begun",
                                                     "measure done", "cool begun", "cool timed-out"}));
        QVERIFY(soakS > 200 && soakS < 600); // 59 s of the slowest part
        record("4");
        QCOMPARE(traceOf(path, listed(path)[0]["recording"]), traceOf(path, listed(path)[1]["recording"]));
        const std::string log = fresh(".csv");
        put(log, traceOf(path, listed(path)[0]["recording"]));
        const Json reduced = Json::parse(run({"reduce", log, "--json"}).out);
        QCOMPARE(reduced["loads"].size(), std::size_t{1});
        QVERIFY(std::abs(reduced["loads"][0]["power_W"].get<double>() - 150) < 1);
    }
    void withoutASimulationTheLoadIsAskedFor() {
        const std::string path = project();
        const std::string log = fresh(".csv");
        std::string text = "Time [s],Core 0 [°C]\n";
        for (int i = 0; i < 200; ++i) text += std::to_string(i) + ",40\n";
        put(log, text);
        const std::string steps = fresh(".json");
        put(steps,
            R"({"loads": [{"name": "slow march", "power_W": 90}], "steps": [{"kind": "idle", "minutes": 0.5},
            {"kind": "soak", "minutes": 1}, {"kind": "measure", "minutes": 0.5}]})");
        const auto outcome = run({"record", path, "--bench", "node-2", "--loose", "--source", "follow:" + log,
                                  "--from-start", "--protocol", steps, "--json"});
        QCOMPARE(outcome.code, 0);
        int asked = 0;
        for (const Json& event : lines(outcome.out))
            if (event["event"] == "flag" && event["code"] == "start-load") {
                ++asked;
                QCOMPARE(event["t_s"], Json(30.0));
                QVERIFY(event["message"].get<std::string>().find("slow march") != std::string::npos);
            }
        QCOMPARE(asked, 1);
        QCOMPARE(listed(path)[0]["samples"], Json(121));
    }
    void aLoadRunsOnlyByTheUsersWord() {
        const std::string path = project();
        const auto [steps, file] = protocolWithCommand("0.03");
        QProcess silent;
        QVERIFY(started(silent, path, steps, false).waitForFinished(20'000));
        QCOMPARE(silent.exitCode(), 0);
        QVERIFY(!fs::exists(file)); // a protocol alone starts nothing
        QProcess agreed;
        QVERIFY(started(agreed, path, steps, true).waitForFinished(20'000));
        QCOMPARE(contentOf(file), std::string("begun\nterm\n")); // and it ends with its step
    }
    void aLoadDiesWithTheRecorder() { // also by a kill, with all that it started
        const std::string path = project();
        const auto [steps, file] = protocolWithCommand("60");
        QProcess recorder;
        started(recorder, path, steps, true);
        QTRY_COMPARE_WITH_TIMEOUT(contentOf(file), std::string("begun\n"), 20'000);
        ::kill(static_cast<pid_t>(recorder.processId()), SIGKILL);
        recorder.waitForFinished();
        QTRY_COMPARE_WITH_TIMEOUT(contentOf(file), std::string("begun\nterm\n"), 10'000);
        QCOMPARE(Project::open(path).document().all<Recording>().begin()->second.state,
                 RecordingState::interrupted);
    }
    void theStandInForInstrumentsIsRecorded() { // some of its answers come late
        QProcess device;
        device.start(places::simulatedInstrument, {"--late", "0.3"});
        QVERIFY(device.waitForReadyRead(20'000));
        const std::string port = device.readLine().trimmed().toStdString();
        const std::string config = fresh(".json");
        put(config,
            "{\"connect\": \"tcp:127.0.0.1:" + port
                + "\", \"timeout_s\": 0.1, \"channels\": [{\"column\": \"Room probe\", \"query\": "
                  "\"MEAS:TEMP? 1\", \"role\": \"ambient\", \"unit\": \"degC\"}, {\"column\": \"Wall\", "
                  "\"query\": \"MEAS:POW?\", \"role\": \"wall-power\", \"unit\": \"W\"}]}");
        const std::string path = project();
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "instrument:" + config,
                      "--every", "0.05", "--for", "2"})
                     .code,
                 0);
        const Project made = Project::open(path, Access::readOnly);
        const Trace trace = made.loadTrace(made.document().all<Recording>().begin()->first);
        int read = 0;
        for (std::size_t i = 0; i < trace.samples(); ++i) {
            const double room = trace.channels[0].values[i];
            const double wall = trace.channels[1].values[i];
            QVERIFY(std::isnan(room) || (room > 20 && room < 24)); // nobody else's answer
            QVERIFY(std::isnan(wall) || (wall > 60 && wall < 85));
            read += std::isfinite(room) ? 1 : 0;
        }
        QVERIFY(read > 5);
        device.kill();
        device.waitForFinished();
    }
    void protocolsThatCannotBeAreRefused() {
        const std::string path = project();
        for (const char* text :
             {"{}", "[]", "{\"steps\": []}", "{\"steps\": [{\"kind\": \"brew\", \"minutes\": 1}]}",
              "{\"steps\": [{\"kind\": \"idle\", \"minutes\": -1}]}",
              "{\"steps\": [{\"kind\": \"idle\", \"minutes\": 1, \"gate\": \"wide\"}]}",
              "{\"steps\": [{\"kind\": \"soak\", \"load\": \"none such\", \"minutes\": 1}]}",
              "{\"colour\": 1, \"steps\": [{\"kind\": \"idle\", \"minutes\": 1}]}",
              "{\"loads\": [{\"name\": \"x\", \"command\": \"rm\"}], \"steps\": [{\"kind\": \"idle\", "
              "\"minutes\": 1}]}"}) {
            const std::string steps = fresh(".json");
            put(steps, text);
            QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "sim:" + bench_,
                          "--protocol", steps, "--speed", "max", "--for", "5"})
                         .code,
                     1);
        }
        QVERIFY(listed(path).empty());
    }
    void sensorsAreListed() {
        const auto outcome = run({"sensors", "--source", "sim:" + bench_, "--json"});
        QCOMPARE(outcome.code, 0);
        const Json source = Json::parse(outcome.out)["sources"][0];
        QCOMPARE(source["channels"].size(), std::size_t{13});
        QCOMPARE(source["channels"][0]["resolution"], Json(0.5));
        QVERIFY(source["channels"][0]["reading"].is_number());
    }
    void aRunningRecordingIsReadAndClosedByTerminate() {
        const std::string path = project();
        QProcess recorder;
        recorder.start(places::command,
                       {"record", QString::fromStdString(path), "--bench", "node-2", "--loose", "--source",
                        QString::fromStdString("sim:" + bench_), "--speed", "100", "--seed", "5", "--json"});
        QVERIFY(recorder.waitForStarted());
        QByteArray reported;
        QTRY_VERIFY_WITH_TIMEOUT((reported += recorder.readAllStandardOutput()).count("\"saved\"") >= 2,
                                 20'000);
        const Json open = listed(path)[0];
        QCOMPARE(open["state"], Json("open"));
        const auto seen = open["samples"].get<std::size_t>();
        QVERIFY(seen > 0);
        const std::string trace = traceOf(path, open["recording"]);
        QVERIFY(simulated(100'000, 5).starts_with(trace)); // every number, as far as it is
        QCOMPARE(run({"record", path, "--bench", "node-2", "--loose", "--source", "sim:" + bench_}).code,
                 1);                                         // in use
        recorder.closeReadChannel(QProcess::StandardOutput); // nobody listens any more: that ends nothing
        QTest::qWait(700);
        QCOMPARE(recorder.state(), QProcess::Running);
        recorder.terminate();
        QVERIFY(recorder.waitForFinished(20'000));
        QCOMPARE(recorder.exitStatus(), QProcess::NormalExit);
        QCOMPARE(recorder.exitCode(), 0);
        QCOMPARE(listed(path)[0]["state"], Json("closed"));
        QVERIFY(listed(path)[0]["samples"].get<std::size_t>() > seen);
    }
    /// 1,000 in the long form: IBUKI_LONG=1. Every round kills one recording of the same project.
    void aKillKeepsWhatWasSaved() {
        const std::string path = project();
        const int rounds = qEnvironmentVariableIsSet("IBUKI_LONG") ? 1'000 : 50;
        Random random(2031);
        std::map<std::int64_t, std::string> earlier;
        for (int round = 0; round < rounds; ++round) {
            const std::string seed = std::to_string(round + 1);
            QProcess recorder;
            recorder.start(places::command,
                           {"record", QString::fromStdString(path), "--bench", "node-2", "--loose",
                            "--source", QString::fromStdString("sim:" + bench_), "--speed", "4000", "--seed",
                            QString::fromStdString(seed), "--json"});
            QVERIFY(recorder.waitForStarted());
            QByteArray reported;
            QTRY_VERIFY_WITH_TIMEOUT((reported += recorder.readAllStandardOutput()).contains("\"opened\""),
                                     20'000);
            QTest::qWait(static_cast<int>(900 * random.uniform()));
            ::kill(static_cast<pid_t>(recorder.processId()), SIGKILL);
            recorder.waitForFinished();
            reported += recorder.readAllStandardOutput();
            std::size_t saved = 0;
            std::int64_t id = 0;
            for (const QByteArray& line : reported.split('\n')) {
                const Json event = Json::parse(line.toStdString(), nullptr, false);
                if (event.is_discarded()) continue; // cut off by the kill
                if (event["event"] == "opened") id = event["recording"];
                if (event["event"] == "saved") saved = event["samples"];
            }
            const Json all = listed(path); // read-only: it shows as interrupted, nothing is written
            QCOMPARE(all.size(), static_cast<std::size_t>(round + 1));
            QCOMPARE(all.back()["recording"], Json(id));
            QCOMPARE(all.back()["state"], Json("interrupted"));
            const auto samples = all.back()["samples"].get<std::size_t>();
            QVERIFY2(samples >= saved, qPrintable(QString("%1 of %2").arg(samples).arg(saved)));
            earlier[id] =
                samples > 0 ? simulated(samples, static_cast<std::uint64_t>(round + 1)) : std::string();
            if (samples > 0) QCOMPARE(traceOf(path, id), earlier[id]);
        }
        for (const auto& [id, text] : earlier)
            if (!text.empty()) QCOMPARE(traceOf(path, id), text); // byte for byte what they were
        Project::open(path);
        for (const Json& one : listed(path)) QCOMPARE(one["state"], Json("interrupted"));
    }
};

IBUKI_TEST(TestRecord)
#include "tst_record.moc"
