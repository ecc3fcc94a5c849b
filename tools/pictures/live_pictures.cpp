// SPDX-License-Identifier: GPL-3.0-or-later
#include "live_pictures.h"

#include "app/bench/bench_page.h"
#include "app/bench/bench_view.h"
#include "app/frame/main_window.h"
#include "app/recording/check_up_sheet.h"
#include "app/recording/compact_window.h"
#include "app/recording/live_panel.h"
#include "app/verdict/practice_sheet.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "core/setup/run_setup.h"
#include "store/project/earlier_rises.h"

#include <QCoreApplication>
#include <QTemporaryDir>
#include <QThread>
#include <functional>

namespace ibuki {
namespace {

void waitFor(const std::function<bool()>& there) {
    for (int i = 0; i < 1'500 && !there(); ++i) {
        QCoreApplication::processEvents();
        QThread::msleep(10);
    }
    QCoreApplication::processEvents();
}

/// The demo's next mount, its loads 180 W.
RunPlan planOf(const Session& session, const Slot& slot, const SimulatedBench& bench, double speed) {
    const Document& document = session.document();
    RunPlan plan;
    plan.study = slot.study;
    plan.wish.bench = session.bench()->id;
    plan.wish.slot = slot.id;
    plan.wish.sources = {"sim"};
    plan.conduct.steps = runSteps(document, slot.study);
    for (StepOccurrence& step : plan.conduct.steps)
        if (!step.load.empty() && !step.powerW) step.powerW = 180;
    plan.conduct.rules = monitorRules(document, slot.study);
    plan.conduct.rules->limitC = bench.limitC;
    plan.earlier = earlierRises(Project::open(session.path().toStdString(), Access::readOnly), slot.study,
                                slot.id, session.question()->metric);
    plan.conduct.rules->earlier = plan.earlier;
    SourceOptions options;
    options.speed = speed;
    options.seed = 11;
    plan.sources.push_back(openSimulatedBench("sim", bench, options));
    return plan;
}

} // namespace

void pictureLive(MainWindow& window, const QString& folder, const QString& suffix) {
    Session& session = window.session();
    LiveRun& run = window.liveRun();
    for (const auto& [limitC, name] : {std::pair{95.0, "soaking"}, std::pair{58.0, "limit"}}) {
        const auto planned = plannedSlots(session.document(), session.study()->id);
        if (planned.empty()) return;
        SimulatedBench bench;
        bench.limitC = limitC;
        bench.fanRpm = 1'420;
        window.showStage(Stage::bench);
        if (!run.begin(planOf(session, *planned.front(), bench, limitC < 90 ? 300 : 90))) return;
        const bool limit = limitC < 90;
        waitFor([&] {
            const auto& status = run.status();
            if (!status.step || status.step->kind != StepKind::soak) return false;
            return limit ? status.statusLights[static_cast<std::size_t>(StatusLights::limit)].statusLight
                               == StatusLight::warn
                         : status.gate && status.gate->opensInS.has_value();
        });
        run.remark(QStringLiteral("A door was opened."));
        QCoreApplication::processEvents();
        window.benchPage().live().refresh();
        window.grab().save(folder + "/" + name + suffix + ".png");
        if (!limit) {
            CompactWindow compact(run);
            compact.show();
            QCoreApplication::processEvents();
            compact.grab().save(folder + "/compact" + suffix + ".png");
        }
        run.abort();
        waitFor([&] { return !run.isOn(); });
        window.session().undoStack().undo();
    }
}

void pictureCheckUp(MainWindow& window, const QString& folder, const QString& suffix) {
    RunPlan plan;
    Session& session = window.session();
    plan.wish.bench = session.bench()->id;
    plan.checkUp = true;
    plan.conduct.steps = checkUpSteps("load", 150);
    SourceOptions options;
    options.speed = 0;
    plan.sources.push_back(openSimulatedBench("sim", SimulatedBench{}, options));
    if (!window.liveRun().begin(std::move(plan))) return;
    waitFor([&] { return !window.liveRun().isOn(); });
    waitFor([&] { return window.findChild<CheckUpSheet*>() != nullptr; });
    session.undoStack().undo();
    auto* sheet = window.findChild<CheckUpSheet*>();
    if (!sheet) return;
    for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    sheet->grab().save(folder + "/check-up" + suffix + ".png");
    sheet->reject();
}

void picturePractice(MainWindow& window, const QString& folder, const QString& suffix) {
    const QTemporaryDir place;
    if (!window.practise(Scenario::threePastes, 21, place.filePath("practice.ibuki"))) return;
    Session& session = window.session();
    const Id<Study> study = session.study()->id;
    Edit edit(session.document(), "plan");
    Plan plan = planFor(session.document(), study);
    plan.mountsPerLevel = 2;
    putPlan(edit, plan);
    layPlan(edit, *session.question(), plan, session.now());
    session.perform(edit.finish());
    while (!plannedSlots(session.document(), study).empty()) {
        const Slot slot = *plannedSlots(session.document(), study).front();
        const Practice& practice = *practiceOf(session.document(), study);
        if (!window.liveRun().begin(
                planOf(session, slot, practiceMount(session.document(), practice, slot).bench, 0)))
            break;
        waitFor([&] { return !window.liveRun().isOn(); });
    }
    Practice practice = *practiceOf(session.document(), study);
    practice.committedBest = reviewOf(session.document(), practice).levels.front().truth.level;
    practice.committedAt = session.now();
    Edit commit(session.document(), "commit");
    commit.put(practice);
    session.acquire(commit.finish());
    PracticeSheet sheet(session, practice.id);
    sheet.show();
    for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    sheet.grab().save(folder + "/practice" + suffix + ".png");
}

} // namespace ibuki
