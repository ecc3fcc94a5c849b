// SPDX-License-Identifier: GPL-3.0-or-later
// Ten years of monthly checks of 200 machines: how long the view takes to show what was worked out (100 ms
// stand beside it), and how long that takes beside the window.

#include "app/ageing/ageing_view.h"
#include "app/ageing/course_page.h"
#include "app/drawn/theme.h"
#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"
#include "support/stopwatch.h"

#include <QApplication>
#include <QComboBox>
#include <QTemporaryDir>
#include <cmath>

using namespace ibuki;

namespace {

constexpr int machines = 200;
constexpr int checks = 120;
const Instant begin = *parseInstant("2021-01-04T10:00");

Reduction reductionOf(double deltaK) {
    Reduction made;
    made.durationS = 2'400;
    LoadReduction load;
    load.phases = {{"idle", 0, 300}, {"load", 300, 2'100}, {"cooldown", 2'100, 2'400}};
    load.window = Phase{"window", 1'200, 1'800};
    load.metrics[Metric::hottest] = {22 + deltaK, deltaK, 0.05};
    load.powerW = 120;
    load.rthKPerW = deltaK / 120;
    load.ambient.meanC = 22;
    made.loads = {load};
    made.longest = 0;
    made.others[Metric::coreAverage] = {made.loads, 0, {}};
    for (int i = 0; i < 20; ++i) {
        made.course.atS.push_back(120.0 * i);
        made.course.chipC.push_back(i < 2 || i > 17 ? 27 : 22 + deltaK);
        made.course.powerW.push_back(i < 2 || i > 17 ? 10 : 120);
    }
    return made;
}

void addMachine(Edit& edit, int number, const std::vector<Id<Material>>& materials, Random& random) {
    const Id<Bench> bench = addBench(edit, BenchTemplate::liddedChip, "machine-" + std::to_string(number));
    const Id<Material> material = materials[static_cast<std::size_t>(number) % materials.size()];
    const Id<Study> study = addStudy(
        edit, {StudyTemplate::ageing, bench, "Does it last " + std::to_string(number), {material}}, begin);
    const Question* question = firstQuestion(edit.document(), study);
    Mount mount;
    mount.configuration = currentConfiguration(edit.document(), bench)->id;
    mount.name = "mount of " + std::to_string(number);
    mount.at = Instant{begin.ms + number * 86'400'000LL};
    const Id<Mount> id = edit.add(mount);
    Slot slot;
    slot.study = study;
    slot.level = levelsOf(edit.document(), question->id).front()->id;
    slot.mount = id;
    edit.add(slot);
    const double start = 30 + random.normal();
    for (int c = 0; c < checks; ++c) {
        const double hours = 730.5 * c;
        Recording recording;
        recording.bench = bench;
        recording.start = Instant{mount.at->ms + static_cast<std::int64_t>(hours * 3'600'000)};
        Run run;
        run.mount = id;
        run.recording = edit.add(recording);
        run.load = loadsOf(edit.document(), study).front()->id;
        run.purpose = c == 0 ? Purpose::fresh : Purpose::check;
        const Id<Run> added = edit.add(run);
        edit.add(RunReduction::with(
            {}, added, reductionOf(start + 0.009 * std::sqrt(hours) + 0.1 * random.normal()), {}));
    }
}

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    applyTheme(application, Shade::light);
    const QTemporaryDir folder;
    Session session;
    session.createProject(folder.filePath("fleet.ibuki"));
    Edit edit(session.document(), said("fleet"));
    std::vector<Id<Material>> materials;
    for (const char* name : {"Tern 11", "Plover 4", "Heron HV", "Slate 25"}) {
        Material material;
        material.name = name;
        materials.push_back(edit.add(material));
    }
    Random random(3);
    for (int number = 0; number < machines; ++number) addMachine(edit, number, materials, random);
    session.perform(edit.finish());
    bench::time("worked out beside the window", 3, [&](int) {
        const AgeingMatter matter = ageingMatter(session.document(), session.question()->id, session.now());
        if (matter.due.machines.size() != machines) std::abort();
    });
    AgeingView view(session);
    view.resize(1'100, 600);
    view.show();
    while (!view.matter()) QCoreApplication::processEvents();
    auto* course = view.findChild<CoursePage*>();
    auto* scope = view.findChild<QComboBox*>("Which mounts");
    for (int item = 0; item < 2; ++item) {
        scope->setCurrentIndex(item);
        bench::time(qPrintable("shown: " + scope->currentText()), 15, [&](int) {
            course->refresh();
            QCoreApplication::processEvents();
        });
    }
    return 0;
}
