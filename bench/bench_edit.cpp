// SPDX-License-Identifier: GPL-3.0-or-later
// How long one edit and the refresh that follows keep the hand waiting on a project of 200 studies and 5,000
// runs, and how much memory the project takes. A frame of a 60 Hz screen, 16.7 ms, stands beside each.
// bench-edit [VIEW]: one view alone, many times, for a profiler.

#include "app/drawn/theme.h"
#include "app/frame/main_window.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/reduce/reduce.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"
#include "core/simulate/simulated_bench.h"
#include "support/memory.h"
#include "support/stopwatch.h"

#include <QApplication>
#include <QTemporaryDir>
#include <fstream>

using namespace ibuki;

namespace {

const Instant now = *parseInstant("2031-03-03");
constexpr int studies = 200;
constexpr int mountsEach = 25;

void addMount(Edit& edit, const Question& question, const Level& level, int order,
              const Reduction& reduction) {
    const Study& study = *edit.document().find(question.study);
    Mount mount;
    mount.configuration = currentConfiguration(edit.document(), study.bench)->id;
    mount.name = level.name + " " + std::to_string(order);
    mount.order = order;
    mount.at = Instant{now.ms + order * 3'600'000LL};
    const Id<Mount> made = edit.add(mount);
    Slot slot;
    slot.study = study.id;
    slot.position = order;
    slot.level = level.id;
    slot.mount = made;
    edit.add(slot);
    Recording recording;
    recording.bench = study.bench;
    Run run;
    run.mount = made;
    run.recording = edit.add(recording);
    run.load = loadsOf(edit.document(), study.id).front()->id;
    const Id<Run> added = edit.add(run);
    edit.add(RunReduction::with({}, added, reduction, {}));
}

ChangeSet largeProject(const Document& document) {
    Edit edit(document, "many studies");
    const Id<Bench> bench = addBench(edit, BenchTemplate::liddedChip, "node-2");
    std::vector<Id<Material>> materials;
    for (int i = 0; i < 5; ++i) {
        Material material;
        material.name = "Tern " + std::to_string(i);
        materials.push_back(edit.add(material));
    }
    const Reduction reduction = reduceByEveryMetric(simulate({}, {}, 1).trace);
    int order = 0;
    for (int s = 0; s < studies; ++s) {
        const Id<Study> study = addStudy(
            edit, {StudyTemplate::rankMaterials, bench, "study " + std::to_string(s), materials}, now);
        const Question question = *firstQuestion(edit.document(), study);
        std::vector<Level> levels;
        for (const Level* level : levelsOf(edit.document(), question.id)) levels.push_back(*level);
        for (int m = 0; m < mountsEach; ++m)
            addMount(edit, question, levels[static_cast<std::size_t>(m) % levels.size()], ++order, reduction);
    }
    return edit.finish();
}

void refreshed() {
    for (int i = 0; i < 3; ++i) QCoreApplication::processEvents();
}

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    applyTheme(application, Shade::light);
    const QTemporaryDir folder;
    const double before = residentMB();
    MainWindow window({});
    Session& session = window.session();
    session.createProject(folder.filePath("large.ibuki"));
    session.perform(largeProject(session.document()));
    session.undoStack().clear();
    std::printf("%zu studies, %zu runs; resident %.0f MB more than without\n",
                session.document().all<Study>().size(), session.document().all<Run>().size(),
                residentMB() - before);
    bench::time("copy of the document", 41, [&](int) { const Document copy = session.document(); });
    const Id<Run> id = session.document().all<Run>().begin()->first;
    const auto change = [&](int i) {
        Run run = *session.document().find(id);
        run.reason = std::to_string(i);
        Edit edit(session.document(), "change a run");
        edit.put(run);
        session.perform(edit.finish());
    };
    bench::time("edit of a run, stored", 41, change);
    window.show();
    for (const auto& [stage, name] : {std::pair{Stage::question, "edit and refresh of Question"},
                                      std::pair{Stage::bench, "edit and refresh of Bench"},
                                      std::pair{Stage::verdict, "edit and refresh of Verdict"},
                                      std::pair{Stage::paper, "edit and refresh of Paper"},
                                      std::pair{Stage::shelf, "edit and refresh of Shelf"}}) {
        if (argc > 1 && !std::string_view(name).ends_with(argv[1])) continue;
        window.showStage(stage);
        refreshed();
        bench::time(name, argc > 1 ? 501 : 21, [&](int i) {
            change(i);
            refreshed();
        });
    }
    window.showStage(Stage::paper);
    refreshed();
    bench::time("edit that the report tells, with refresh of Paper", 21, [&](int i) {
        Study study = *session.study();
        study.name = "study " + std::to_string(1000 + i);
        Edit edit(session.document(), "rename a study");
        edit.put(study);
        session.perform(edit.finish());
        refreshed();
    });
    bench::time("edit of the margin, with refresh of Paper", 21, [&](int i) {
        Question question = *session.question();
        question.margin = Kelvin{1.0 + 0.01 * (i + 1)};
        Edit edit(session.document(), "change the margin");
        edit.put(question);
        session.perform(edit.finish());
        refreshed();
    });
    return 0;
}
