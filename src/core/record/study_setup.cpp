// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/record/study_setup.h"

#include "core/domain/lookup.h"

#include <algorithm>

namespace ibuki {

Id<Study> addStudy(Edit& edit, Id<Bench> bench, const std::string& name,
                   const std::vector<Id<Material>>& materials) {
    Study study;
    study.bench = bench;
    study.name = name;
    const Id<Study> id = edit.add(study);
    Question question;
    question.study = id;
    if (const Configuration* configuration = currentConfiguration(edit.document(), bench)) {
        const auto sites = edit.document().where(&Site::configuration, configuration->id);
        if (!sites.empty()) question.site = sites.front()->id;
        for (const Site* site : sites)
            if (site->kind == SiteKind::lidPlate) question.site = site->id;
        const auto sensors = edit.document().where(&Sensor::configuration, configuration->id);
        if (std::any_of(sensors.begin(), sensors.end(),
                        [](const Sensor* s) { return s->role == Role::hotspot; }))
            question.metric = "hotspot";
    }
    const Id<Question> of = edit.add(question);
    int position = 0;
    for (Id<Material> material : materials) {
        Level level;
        level.question = of;
        level.position = position++;
        level.material = material;
        if (const Material* known = edit.document().find(material)) level.name = known->name;
        edit.add(level);
    }
    Load load;
    load.study = id;
    load.name = "sustained load";
    edit.add(load);
    return id;
}

Id<Study> duplicateStudy(Edit& edit, Id<Study> id) {
    Study study = *edit.document().find(id);
    study.name += ", again";
    study.state = StudyState::draft;
    const Id<Study> copy = edit.add(study);
    std::vector<Question> questions;
    for (const Question* question : edit.document().where(&Question::study, id))
        questions.push_back(*question);
    for (Question question : questions) {
        const auto levels = levelsOf(edit.document(), question.id);
        std::vector<Level> copies;
        for (const Level* level : levels) copies.push_back(*level);
        question.study = copy;
        question.frozen = false;
        question.referenceLevel.reset();
        const Id<Question> of = edit.add(question);
        for (Level level : copies) {
            level.question = of;
            edit.add(level);
        }
    }
    std::vector<Load> loads;
    for (const Load* load : edit.document().where(&Load::study, id)) loads.push_back(*load);
    for (Load load : loads) {
        load.study = copy;
        edit.add(load);
    }
    return copy;
}

} // namespace ibuki
