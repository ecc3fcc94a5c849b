// SPDX-License-Identifier: GPL-3.0-or-later
// How long planning keeps the hand waiting: 18 materials × 4 mounts ordered and laid into evenings, the
// analysis that follows the slider, the Question view drawn anew. A frame of a 60 Hz screen, 16.7 ms, stands
// beside each.

#include "app/drawn/theme.h"
#include "app/question/question_view.h"
#include "app/session/session.h"
#include "core/domain/lookup.h"
#include "core/plan/power_analysis.h"
#include "core/setup/bench_template.h"
#include "core/setup/plan_setup.h"
#include "core/setup/study_setup.h"
#include "support/stopwatch.h"

#include <QApplication>
#include <QImage>
#include <QSlider>
#include <QTemporaryDir>

using namespace ibuki;

namespace {

const Instant now = *parseInstant("2031-03-03");

ChangeSet eighteenMaterials(const Document& document) {
    Edit edit(document, "ask");
    const Id<Bench> bench = addBench(edit, BenchTemplate::liddedChip, "node-2");
    std::vector<Id<Material>> materials;
    for (int i = 0; i < 18; ++i) {
        Material material;
        material.name = "Tern " + std::to_string(i);
        material.kind = i % 6 == 5 ? MaterialClass::phaseChange : MaterialClass::paste;
        materials.push_back(edit.add(material));
    }
    const Id<Study> study = addStudy(edit, {StudyTemplate::rankMaterials, bench, "eighteen", materials}, now);
    Plan plan = *planOf(edit.document(), study);
    plan.mountsPerLevel = 4;
    edit.put(plan);
    return edit.finish();
}

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    applyTheme(application, Shade::light);
    const QTemporaryDir folder;
    Session session;
    session.createProject(folder.filePath("plan.ibuki"));
    session.perform(eighteenMaterials(session.document()));
    const Question question = *session.question();
    const Plan plan = planFor(session.document(), question.study);
    const Design design = designOf(session.document(), question);
    const auto order = orderMounts(orderInput(session.document(), question, plan, now));
    const auto steps = stepsOf(session.document(), question, plan, design, order);
    Schedule laid;
    bench::time("18 materials x 4 mounts: ordered", 41, [&](int i) {
        Plan other = plan;
        other.seed = i + 1;
        orderMounts(orderInput(session.document(), question, other, now));
    });
    bench::time("18 materials x 4 mounts: laid into evenings", 41,
                [&](int) { laid = schedule(steps, eveningsOf(plan, now)); });
    std::printf("  they fill %zu evenings\n", laid.evenings.size());
    bench::time("power analysis of 18 materials for another number", 21, [&](int i) {
        Plan other = plan;
        other.mountsPerLevel = 2 + i % 10;
        powerAnalysisOf(session.document(), question, other, now);
    });
    QuestionView view(session);
    view.resize(1160, 560);
    view.showPage(QuestionView::Page::chances);
    view.show();
    QCoreApplication::processEvents();
    auto* slider = view.findChild<QSlider*>("Mounts of each level");
    slider->setSliderDown(true); // figures follow, nothing is stored yet
    QImage picture(view.size(), QImage::Format_ARGB32_Premultiplied);
    bench::time("Question: slider moved, figures and chances drawn", 21, [&](int i) {
        slider->setValue(2 + i % 10);
        view.render(&picture);
    });
    return 0;
}
