// SPDX-License-Identifier: GPL-3.0-or-later
// What the live bench costs: pan and zoom of a long recording with every channel drawn, and a recording in
// real time with the window shown. bench-live [SECONDS]

#include "app/bench/bench_page.h"
#include "app/drawn/theme.h"
#include "app/frame/main_window.h"
#include "app/recording/live_panel.h"
#include "app/recording/live_plot.h"
#include "app/run/trace_plot.h"
#include "core/setup/bench_template.h"
#include "support/memory.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QTemporaryDir>
#include <QTimer>
#include <algorithm>
#include <cstdio>
#include <ctime>
#include <fmt/format.h>
#include <fstream>
#include <qcustomplot.h>
#include <sstream>

using namespace ibuki;

namespace {

constexpr int channels = 32;

/// 32 channels: cores, package, room, power, fan, clock.
SimulatedBench wideBench(int wanted) {
    SimulatedBench bench;
    bench.cores = wanted - 5;
    return bench;
}

bool begin(MainWindow& window, double speed, std::vector<StepOccurrence> steps, int wanted = channels,
           std::optional<Id<Mount>> mount = {}) {
    RunPlan plan;
    plan.wish.mount = mount;
    plan.wish.bench = window.session().bench()->id;
    plan.conduct.steps = std::move(steps);
    plan.conduct.rules = MonitorRules{};
    SourceOptions options;
    options.everyS = 0.1;
    options.speed = speed;
    plan.sources.push_back(openSimulatedBench("sim", wideBench(wanted), options));
    return window.liveRun().begin(std::move(plan));
}

double cpuSeconds() { return static_cast<double>(std::clock()) / CLOCKS_PER_SEC; }

void panAndZoom(QCustomPlot& plot, const char* what) {
    std::vector<double> ms;
    const double whole = plot.xAxis->range().size();
    for (int i = 0; i < 300; ++i) {
        QCPAxis* axis = plot.xAxis;
        if (i % 3 == 0)
            axis->scaleRange(i % 2 == 0 ? 0.8 : 1.2, axis->range().center());
        else
            axis->moveRange(whole / 200 * (i % 5 - 2));
        QElapsedTimer timer;
        timer.start();
        plot.replot(QCustomPlot::rpImmediateRefresh);
        ms.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    std::sort(ms.begin(), ms.end());
    fmt::print("pan and zoom, {}: median {:.1f} ms a frame, 95 % {:.1f}, worst {:.1f}\n", what, ms[150],
               ms[285], ms.back());
}

void frames(LivePlot& plot, const LiveRun& run, bool all) {
    plot.show(run, all);
    QCoreApplication::processEvents();
    panAndZoom(*plot.plot(), all ? "all temperatures" : "the difference");
}

/// Six hours of 64 channels, and then looked at as any mount's log.
void playBack(MainWindow& window) {
    Session& session = window.session();
    Edit edit(session.document(), "mount");
    Mount mount;
    mount.configuration = session.configuration()->id;
    mount.name = "long";
    const Id<Mount> id = edit.add(mount);
    session.acquire(edit.finish());
    QElapsedTimer timer;
    timer.start();
    if (!begin(window, 0, {{StepKind::idle, "", {}, 10}, {StepKind::measure, "load", 150, 350}}, 64, id))
        return;
    while (window.liveRun().isOn()) QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
    fmt::print("6 h of 64 channels at 10 Hz recorded and judged in {:.1f} s, {} rows, {:.0f} MB resident\n",
               static_cast<double>(timer.elapsed()) / 1e3, window.liveRun().extent().samples, residentMB());
    auto* plot = window.findChild<TracePlot*>()->findChild<QCustomPlot*>();
    double stall = 0;
    const auto turn = [&] {
        QElapsedTimer one;
        one.start();
        QCoreApplication::processEvents();
        stall = std::max(stall, static_cast<double>(one.nsecsElapsed()) / 1e6);
    };
    timer.restart();
    session.selectMount(id);
    stall = static_cast<double>(timer.nsecsElapsed()) / 1e6;
    while (plot->graphCount() < 3 && timer.elapsed() < 60'000) turn();
    turn();
    fmt::print("its curves {} after {:.2f} s, the window stalls {:.0f} ms at most, {:.0f} MB resident\n",
               plot->graphCount() < 3 ? "are not there" : "stand", static_cast<double>(timer.elapsed()) / 1e3,
               stall, residentMB());
    panAndZoom(*plot, "six hours of a mount");
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setApplicationName("ibuki-bench");
    applyTheme(application, Shade::light);
    const double seconds = argc > 1 ? std::stod(argv[1]) : 20;
    const QTemporaryDir folder;
    MainWindow window({});
    if (!window.session().createProject(folder.filePath("bench.ibuki"))) return 1;
    Edit edit(window.session().document(), "bench");
    Selection selection;
    selection.bench = addBench(edit, BenchTemplate::liddedChip, "node-2");
    window.session().acquire(edit.finish());
    window.session().select(selection);
    window.resize(1280, 800);
    window.show();
    window.showStage(Stage::bench);

    QElapsedTimer timer;
    timer.start();
    if (!begin(window, 0, {{StepKind::measure, "load", 150, 180}})) return 1;
    while (window.liveRun().isOn()) QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
    fmt::print("3 h of {} channels at 10 Hz recorded and judged in {:.1f} s, {} rows, {:.0f} MB resident\n",
               channels, static_cast<double>(timer.elapsed()) / 1e3, window.liveRun().extent().samples,
               residentMB());
    LivePlot plot;
    plot.resize(1'160, 560);
    static_cast<QWidget&>(plot).show();
    frames(plot, window.liveRun(), false);
    frames(plot, window.liveRun(), true);
    plot.hide();
    playBack(window);

    if (!begin(window, 1, {{StepKind::measure, "load", 150, 600}})) return 1;
    while (window.liveRun().extent().samples < 20) QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
    const double cpu = cpuSeconds();
    timer.restart();
    QEventLoop loop; // sleeps between events, as the application does
    QTimer::singleShot(static_cast<int>(1'000 * seconds), &loop, &QEventLoop::quit);
    loop.exec();
    const double wall = static_cast<double>(timer.elapsed()) / 1e3;
    fmt::print(
        "recording {} channels at 10 Hz with the window shown: {:.1f} % of one core, {:.0f} MB resident\n",
        channels, 100 * (cpuSeconds() - cpu) / wall, residentMB());
    window.liveRun().abort();
    while (window.liveRun().isOn()) QCoreApplication::processEvents(QEventLoop::AllEvents, 50);
    return 0;
}
