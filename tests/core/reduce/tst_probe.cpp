// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/ambient.h"
#include "core/reduce/probe.h"
#include "core/reduce/reduce.h"
#include "core/simulate/simulated_bench.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

struct Pair {
    Trace log;
    Trace probe;
    double ambientMeanC = 0;
};

/// A simulated run whose room was read by a probe every 10 s, its clock behind by `shiftS`.
Pair pairOf(double swingK, double periodS, double shiftS, std::uint64_t seed) {
    SimulatedBench bench;
    bench.ambientSwingK = swingK;
    bench.ambientSwingPeriodS = periodS;
    SimulatedProtocol protocol;
    protocol.start = makeInstant(2031, 3, 4, 14 * 3'600'000LL);
    Pair pair;
    pair.log = simulate(bench, protocol, seed).trace;
    pair.probe.start = Instant{protocol.start->ms - static_cast<std::int64_t>(1000 * shiftS)};
    Channel room{"Probe", Unit::celsius, Role::ambient, 0, {}, {}};
    for (Channel& channel : pair.log.channels) {
        if (channel.role != Role::ambient) continue;
        for (std::size_t i = 0; i < channel.values.size(); i += 10) {
            pair.probe.timeS.push_back(pair.log.timeS[i]);
            room.values.push_back(channel.values[i]);
        }
        channel.role = Role::ignore;
    }
    pair.probe.channels.push_back(room);
    return pair;
}

} // namespace

class TestProbe : public QObject {
    Q_OBJECT
private slots:
    void aShiftIsFoundWithinItsUncertainty() {
        int held = 0;
        int found = 0;
        for (const double shift : {-180.0, -60.0, 0.0, 45.0, 120.0, 240.0})
            for (std::uint64_t seed : {1U, 2U}) {
                const Pair pair = pairOf(1.2, 1500, shift, seed);
                const ProbeFit fit = alignProbe(pair.log, pair.probe);
                found += fit.found ? 1 : 0;
                held +=
                    fit.found && std::abs(fit.shiftS - shift) < std::max(60.0, 3 * fit.uncertaintyS) ? 1 : 0;
            }
        QCOMPARE(found, 12);
        QVERIFY2(held >= 11, qPrintable(QString::number(held)));
    }
    void aCalmRoomTellsNothing() {
        Pair pair = pairOf(0.0, 1500, 60, 3);
        for (double& v : pair.probe.channels.front().values) v = 22.0;
        const ProbeFit fit = alignProbe(pair.log, pair.probe);
        QVERIFY(!fit.found);
        QCOMPARE(fit.shiftS, 0.0);
        const Trace joined = withProbe(pair.log, pair.probe, alignmentFor(pair.log, pair.probe, {}));
        const Reduction reduction = reduce(joined);
        QVERIFY(hasFlag(reduction.flags, "probe-shift-assumed"));
        for (const Flag& flag : reduction.flags)
            if (flag.code == "probe-shift-assumed")
                QCOMPARE(flag.severity, Severity::info); // a calm room forgives it
    }
    void theProbeTakesTheColumnsPlace() {
        const Pair pair = pairOf(0.4, 1500, 0, 4);
        const Trace joined = withProbe(pair.log, pair.probe, {0, 0, true});
        QCOMPARE(channelsOf(joined, Role::ambient).size(), std::size_t{1});
        const Reduction reduction = reduce(joined);
        QCOMPARE(reduction.main()->ambient.source, AmbientSource::probe);
        QCOMPARE(reduction.main()->ambient.probeShiftS, std::optional(0.0));
        QVERIFY(!hasFlag(reduction.flags, "probe-shift-assumed"));
    }
    void beyondTheProbesEndsNothingIsMadeUp() {
        Pair pair = pairOf(0.4, 1500, 0, 5);
        Trace half = pair.probe;
        half.timeS.resize(half.timeS.size() / 2);
        half.channels.front().values.resize(half.timeS.size());
        const Trace joined = withProbe(pair.log, half, {0, 0, true});
        const Channel& room = *channelsOf(joined, Role::ambient).front();
        QVERIFY(std::isfinite(room.values.front()));
        QVERIFY(!std::isfinite(room.values.back()));
        QVERIFY(!withProbe(pair.log, Trace{}, {0, 0, true}).probe); // an empty probe changes nothing
    }
    /// Summer time or another zone, while the room warms steadily: nothing but the hour tells where the probe
    /// belongs.
    void aClockThatIsWholeHoursOffIsMoved() {
        for (const double hours : {1.0, -1.0, 2.0, -9.0, 5.5}) {
            Pair pair = pairOf(0, 1500, 0, 6);
            for (std::size_t i = 0; i < pair.probe.timeS.size(); ++i)
                pair.probe.channels.front().values[i] = 21 + 1.5 * pair.probe.timeS[i] / 3600;
            pair.probe.start->ms += static_cast<std::int64_t>(3'600'000 * hours);
            const ProbeAlignment alignment = alignmentFor(pair.log, pair.probe, {});
            QCOMPARE(alignment.zoneS, -3'600 * hours);
            QVERIFY(alignment.cover > 0.95);
            const Reduction reduction = reduce(withProbe(pair.log, pair.probe, alignment));
            QVERIFY(hasFlag(reduction.flags, "probe-hour"));
            const auto& ambient = reduction.main()->ambient;
            QCOMPARE(ambient.source, AmbientSource::probe);
            QCOMPARE(*ambient.probeShiftS, -3'600 * hours);
            const double middleS = (reduction.main()->window->startS + reduction.main()->window->endS) / 2;
            QVERIFY_NEAR(*ambient.meanC, 21 + 1.5 * middleS / 3600, 0.05);
        }
    }
    void anHourIsPreferredThatTheRoomTells() { // a probe's long log covers the run at several hours
        Pair pair = pairOf(1.2, 1500, 0, 7);
        Trace& probe = pair.probe;
        std::vector<double>& room = probe.channels.front().values;
        const double lengthS = probe.timeS.back();
        std::vector<double> calm;
        for (double t = -7'200; t < 0; t += 10) calm.push_back(22);
        const std::vector<double> run = room;
        room = calm;
        room.insert(room.end(), run.begin(), run.end());
        room.insert(room.end(), calm.begin(), calm.end());
        probe.timeS.clear();
        for (std::size_t i = 0; i < room.size(); ++i) probe.timeS.push_back(10.0 * double(i));
        QVERIFY(probe.timeS.back() > lengthS + 14'000);
        probe.start->ms += -7'200'000 + 3'600'000; // an hour fast
        const ProbeAlignment alignment = alignmentFor(pair.log, probe, {});
        QCOMPARE(alignment.zoneS, -3'600.0);
        QVERIFY_NEAR(alignment.shiftS, -3'600, 90);
    }
    void aProbeOfAnotherTimeIsNotTaken() {
        Pair pair = pairOf(0.4, 1500, 0, 8);
        pair.probe.start->ms += 1000LL * 3'600 * 20 + 900'000;
        Reduction reduction = reduce(withProbe(pair.log, pair.probe, alignmentFor(pair.log, pair.probe, {})));
        QVERIFY(hasFlag(reduction.flags, "probe-apart"));
        QVERIFY(hasFlag(reduction.flags, "ambient-missing"));
        pair.probe.start->ms -=
            1000LL * 3'600 * 19 + 900'000; // an hour off, but of a room hotter than the chip
        for (double& v : pair.probe.channels.front().values) v = 75;
        reduction = reduce(withProbe(pair.log, pair.probe, alignmentFor(pair.log, pair.probe, {})));
        QVERIFY(hasFlag(reduction.flags, "probe-apart"));
    }
    void aProbesLagIsTakenOut() {
        // A ramp of 3 K/h read through a lag of 120 s stands 0.1 K too low.
        Trace trace;
        Channel room{"Room [°C]", Unit::celsius, Role::ambient, 0, {}, {}};
        for (int i = 0; i <= 3600; ++i) {
            trace.timeS.push_back(i);
            room.values.push_back(22 + 3.0 * (i - 120) / 3600);
        }
        trace.channels.push_back(room);
        ReduceSettings settings;
        settings.probeLagS = 120;
        const AmbientSeries series = ambientSeries(trace, settings);
        QVERIFY_NEAR(series.valuesC[1800], 22 + 3.0 * 1800 / 3600, 1e-9);
    }
};

IBUKI_TEST(TestProbe)
#include "tst_probe.moc"
