// SPDX-License-Identifier: GPL-3.0-or-later
// However a log is written, the figure is the same: each way of writing alone, then many at once.

#include "core/base/input_error.h"
#include "core/reduce/probe.h"
#include "core/reduce/reduce.h"
#include "store/log/log_reader.h"
#include "support/messy_log.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"
#include "support/trials.h"
#include "words/words.h"

using namespace ibuki;
using story::LogStyle;
using story::Stamps;
using story::Tongue;

namespace {

struct Checked {
    bool right = false;
    std::string why;
};

/// Within 0.15 K or three standard errors, borders within two samples or ten seconds, the flags that are due
/// and no other warning.
Checked checkedLog(const Trace& trace, const Reduction& plain, const LogStyle& style, Random& random) {
    const Phase load = plain.main()->phases[1];
    const Trace kept = story::kept(trace, style, load.startS, load.endS);
    const std::string bytes = story::writtenLog(kept, style, random);
    LogStyle plainly;
    plainly.stamps = story::hasDate(style.stamps) ? Stamps::iso : style.stamps;
    const std::string roomBytes =
        story::writtenLog(story::ambientLog(trace, style.probeHours), plainly, random);
    Reduction found;
    try {
        LogOptions options;
        options.roles = story::rolesOf(kept, style);
        Trace read = readLog(bytes, "messy.csv", options);
        if (style.probe) {
            const Trace room = readLog(roomBytes, "room.csv");
            const ProbeAlignment alignment = alignmentFor(read, room, {});
            read = withProbe(std::move(read), room, alignment);
        }
        found = reduce(read);
    } catch (const InputError& error) {
        return {false, words::sentence(error)};
    }
    if (!found.main()) return {false, "no load"};
    const MetricValue& wanted = plain.main()->metrics.at(Metric::hottest);
    const auto value = found.main()->metrics.find(Metric::hottest);
    if (value == found.main()->metrics.end() || !value->second.deltaK) return {false, "no figure"};
    const double off = std::abs(*value->second.deltaK - *wanted.deltaK);
    if (off > std::max(0.15, 3 * value->second.seK.value_or(0)))
        return {false, fmt::format("found {:.3f}, wanted {:.3f}", *value->second.deltaK, *wanted.deltaK)};
    const auto due = story::dueFlags(style, plain.intervalS);
    const double reach = std::max(10.0, 2 * plain.intervalS);
    const auto& phases = found.main()->phases;
    const auto loaded =
        std::find_if(phases.begin(), phases.end(), [](const Phase& p) { return p.name == "load"; });
    for (std::size_t i = 0; i < 2; ++i) {
        const double border = i == 0 ? loaded->startS : loaded->endS;
        const double wholly = i == 0 ? load.startS : load.endS;
        const double true_ = !style.loadOnly ? wholly : i == 0 ? 0.0 : kept.timeS.back();
        if (std::abs(border - true_) > reach)
            return {false, fmt::format("border at {:.1f}, not {:.1f}", border, true_)};
    }
    for (const std::string& code : due)
        if (!hasFlag(found.flags, code)) return {false, "flag missing: " + code};
    for (const Flag& flag : found.flags)
        if (flag.severity != Severity::info && !due.contains(flag.code) && !hasFlag(plain.flags, flag.code)
            && !(style.impossible && flag.code == "impossible-values")
            && !(style.probe && flag.code == "probe-shift-assumed"))
            return {false, "flag too many: " + flag.code};
    return {true, {}};
}

/// Benches of all kinds: cool and hot, quiet and noisy, fine and coarse sensors, slow and fast loggers.
Trace someBench(Random& random) {
    const auto between = [&](double low, double high) { return low + (high - low) * random.uniform(); };
    const auto oneOf = [&](std::initializer_list<double> values) {
        return values.begin()[static_cast<std::size_t>(random.uniform() * double(values.size()))];
    };
    SimulatedBench bench;
    bench.interfaceKPerW = between(0.005, 0.1);
    bench.sensorStepK = oneOf({0.1, 0.5, 1});
    bench.sensorNoiseK = between(0.1, 0.6);
    bench.cores = int(oneOf({4, 8, 16}));
    bench.coreSeed = std::uint64_t(between(1, 1000));
    bench.ambientSwingK = between(0, 0.3);
    SimulatedProtocol protocol;
    protocol.intervalS = oneOf({0.5, 1, 2, 5});
    protocol.loadS = between(900, 1800);
    protocol.powerW = between(80, 220);
    protocol.start =
        *makeInstant(2031, 3, 1 + unsigned(between(0, 27)), std::llround(between(0, 86'400)) * 1000);
    return simulate(bench, protocol, std::uint64_t(between(0, 1e9))).trace;
}

} // namespace

class TestMessyLogs : public QObject {
    Q_OBJECT

    Trace trace_ = story::trace("Plover 4", 2);
    Reduction plain_ = reduce(trace_);

    static void check(const Trace& trace, const Reduction& plain, Random& random,
                      std::vector<std::string>& wrong) {
        const LogStyle style = story::randomStyle(random);
        const Checked checked = checkedLog(trace, plain, style, random);
        if (!checked.right) wrong.push_back(style.name() + ": " + checked.why);
    }
    static void verifyMostAreRight(const std::vector<std::string>& wrong, int of) {
        for (const std::string& line : wrong) qInfo("%s", line.c_str());
        qInfo("%d of %d are wrong", int(wrong.size()), of);
        QVERIFY(int(wrong.size()) * 50 <= of); // 98 % are right
    }

private slots:
    void eachWayAlone_data() {
        QTest::addColumn<int>("way");
        static const char* names[] = {"semicolon",
                                      "tab",
                                      "bar",
                                      "decimal comma",
                                      "quoted decimal comma",
                                      "fahrenheit",
                                      "milliwatt",
                                      "shuffled",
                                      "crlf",
                                      "trailing separator",
                                      "JSON Lines",
                                      "units in cells",
                                      "footer",
                                      "header again",
                                      "same names",
                                      "cut off",
                                      "preamble",
                                      "units (…)",
                                      "units behind a comma",
                                      "units in a row",
                                      "no units",
                                      "mark",
                                      "UTF-16 LE",
                                      "UTF-16 BE",
                                      "Latin-1",
                                      "German",
                                      "Japanese",
                                      "Chinese",
                                      "Spanish",
                                      "missing cells",
                                      "impossible cells",
                                      "stuck core",
                                      "duplicates",
                                      "gap",
                                      "clock jump",
                                      "elapsed ms",
                                      "ISO",
                                      "ISO with zone",
                                      "D.M.Y",
                                      "M/D/Y 12 h",
                                      "date and clock",
                                      "clock alone",
                                      "epoch s",
                                      "epoch ms",
                                      "epoch us",
                                      "serial",
                                      "年月日",
                                      "下午",
                                      "wide spaces",
                                      "spaces",
                                      "under load throughout",
                                      "temperature only",
                                      "temperature only, throughout",
                                      "nameless",
                                      "nameless, temperature only",
                                      "room probe",
                                      "room probe an hour fast",
                                      "room probe two hours slow"};
        int way = 0;
        for (const char* name : names) QTest::newRow(name) << way++;
    }
    void eachWayAlone() {
        QFETCH(int, way);
        LogStyle style;
        if (way <= 2) style.separator = ";\t|"[way];
        if (way == 3) style.separator = ';', style.decimalComma = true;
        if (way == 4) style.quoted = style.decimalComma = true;
        bool* const flags[] = {&style.fahrenheit,  &style.milliwatt, &style.shuffled,     &style.crlf,
                               &style.trailing,    &style.jsonLines, &style.unitsInCells, &style.footer,
                               &style.headerAgain, &style.sameNames, &style.cutOff};
        if (way >= 5 && way <= 15) *flags[way - 5] = true;
        if (way == 16) style.preamble = 3;
        if (way >= 17 && way <= 20) style.unitMarks = way - 16;
        if (way == 18) style.separator = ';';
        if (way >= 21 && way <= 24) style.encoding = way - 20;
        if (way >= 25 && way <= 28) style.tongue = static_cast<Tongue>(way - 24);
        bool* const damages[] = {&style.missing,    &style.impossible, &style.stuck,
                                 &style.duplicates, &style.gap,        &style.jump};
        if (way >= 29 && way <= 34) *damages[way - 29] = true;
        if (way >= 35 && way <= 47) style.stamps = static_cast<Stamps>(way - 34);
        if (way == 48) style.separator = wideBlanks;
        if (way == 49) style.separator = blanks, style.unitMarks = 3;
        style.loadOnly = way == 50 || way == 52;
        style.temperatureOnly = way == 51 || way == 52 || way == 54;
        style.nameless = way == 53 || way == 54;
        style.probe = way >= 55;
        if (way >= 55) style.stamps = Stamps::iso;
        if (way == 56) style.probeHours = 1;
        if (way == 57) style.probeHours = -2;
        if (way == 11) style.unitMarks = 4;
        Random random(7);
        const Checked checked = checkedLog(trace_, plain_, style, random);
        QVERIFY2(checked.right, checked.why.c_str());
    }
    void manyWaysAtOnce() {
        Random random(2031);
        std::vector<std::string> wrong;
        constexpr int trials = test::trials(120);
        for (int trial = 0; trial < trials; ++trial) check(trace_, plain_, random, wrong);
        verifyMostAreRight(wrong, trials);
    }
    void manyBenches() {
        Random random(61);
        std::vector<std::string> wrong;
        constexpr int benches = test::trials(24);
        constexpr int styles = 10;
        for (int i = 0; i < benches; ++i) {
            const Trace trace = someBench(random);
            const Reduction plain = reduce(trace);
            QVERIFY(plain.main());
            for (int k = 0; k < styles; ++k) check(trace, plain, random, wrong);
        }
        verifyMostAreRight(wrong, benches * styles);
    }
};

IBUKI_TEST(TestMessyLogs)
#include "tst_messy_logs.moc"
