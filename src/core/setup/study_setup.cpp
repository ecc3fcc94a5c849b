// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/study_setup.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/setup/question_setup.h"
#include "core/shelf/shelf.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr int many = 99;

/// The site a kind of study asks about: under the lid for its own kind, else where the cooler sits.
Id<Site> siteFor(const Document& document, Id<Bench> bench, StudyTemplate which) {
    const Configuration* configuration = currentConfiguration(document, bench);
    const auto sites =
        configuration ? document.where(&Site::configuration, configuration->id) : std::vector<const Site*>{};
    if (sites.empty()) throw InputError("study-bench", {});
    const bool below = which == StudyTemplate::underTheLid;
    const SiteKind wanted = below ? SiteKind::dieLid : SiteKind::lidPlate;
    for (const Site* site : sites)
        if (site->kind == wanted) return site->id;
    if (below) throw InputError("study-site", {});
    return sites.front()->id;
}

struct Builder {
    Edit& edit;
    const NewStudy& wanted;
    Question question;
    Plan plan;
    std::string constant;
    int position = 0;

    const Material* material(std::size_t i = 0) const {
        return i < wanted.materials.size() ? edit.document().find(wanted.materials[i]) : nullptr;
    }
    Level& fresh(const std::string& name) {
        levels.push_back({});
        levels.back().name = name;
        levels.back().position = position++;
        if (const Material* only = material()) levels.back().material = only->id;
        return levels.back();
    }
    void materials() {
        for (std::size_t i = 0; i < wanted.materials.size(); ++i) {
            Level& level = fresh(material(i)->name);
            level.material = wanted.materials[i];
        }
    }
    void lots(const char* complaint) {
        const auto all = edit.document().where(&Lot::material, wanted.materials.front());
        if (all.size() < 2)
            throw InputError(complaint, {}, {{"material", material()->name}, {"count", all.size()}});
        for (const Lot* lot : all) {
            Level& level = fresh(lot->name);
            level.lot = lot->id;
        }
    }

    std::vector<Level> levels;
};

/// Shares of the usual dose; by weight when neither lot nor site tells one.
void addAmounts(Builder& builder) {
    double typical = 0.2;
    const Document& document = builder.edit.document();
    const Site* site = document.find(builder.question.site);
    for (const Lot* lot : document.where(&Lot::material, builder.wanted.materials.front()))
        if (const auto needed = site && lot->contentUnit == ContentUnit::gram
                                    ? neededAt(*builder.material(), *lot, *site)
                                    : std::nullopt)
            typical = *needed;
    for (double share : {0.4, 0.7, 1.0, 1.5, 2.2}) {
        const double grams = std::round(typical * share * 100) / 100;
        if (grams <= 0) continue;
        builder.fresh(fmt::format("{:.2f} g", grams)).amount = Gram{grams};
    }
}

/// What stood on the bench when one came.
Level& asFound(Builder& b) {
    Level& found = b.fresh(b.wanted.wording({"as found", {}}));
    found.material.reset();
    found.mostMounts = 1;
    return found;
}

void addBeforeAndAfter(Builder& b) {
    asFound(b).placement = Placement::firstOfAll;
    b.fresh(b.material()->name);
    b.plan.baseline = true;
    b.constant = b.wanted.wording({"held-constant.before-and-after", {}});
}

void addPatterns(Builder& b) {
    for (ApplicationPattern pattern :
         {ApplicationPattern::dot, ApplicationPattern::line, ApplicationPattern::cross,
          ApplicationPattern::fiveDots, ApplicationPattern::film})
        b.fresh(b.wanted.wording({std::string(word(pattern)), {}})).pattern = pattern;
}

void addTorques(Builder& b) {
    for (double torque : {0.2, 0.4, 0.6, 0.8})
        b.fresh(fmt::format("{:.1f} N·m", torque)).torque = NewtonMetre{torque};
}

void addSteps(Builder& b) {
    asFound(b);
    b.fresh(b.wanted.wording({"cleaned", {}}));
    b.levels.back().material.reset();
    b.materials();
    b.plan.baseline = true;
    b.constant = b.wanted.wording({"held-constant.step-by-step", {}});
}

void addCoolers(Builder& b) {
    b.materials();
    b.question.secondFactor = Factor::cooler;
    for (const char* cooler : {"this cooler", "other cooler"}) {
        Level& level = b.fresh(b.wanted.wording({cooler, {}}));
        level.ofSecond = true;
        level.material.reset();
    }
}

void build(Builder& b) {
    b.question.factor = templateInfo(b.wanted.which).factor;
    switch (b.wanted.which) {
    case StudyTemplate::own:
    case StudyTemplate::rankMaterials:
        b.materials();
        break;
    case StudyTemplate::benchReference:
        b.materials();
        b.plan.mountsPerLevel = 5;
        b.constant = b.wanted.wording({"held-constant.bench-reference", {}});
        break;
    case StudyTemplate::beforeAndAfter:
        addBeforeAndAfter(b);
        break;
    case StudyTemplate::asGood:
        b.materials();
        b.question.goal = Goal::equivalence;
        break;
    case StudyTemplate::originalOrLookAlike:
        b.lots("study-lots.look-alike");
        break;
    case StudyTemplate::howMuch:
        addAmounts(b);
        break;
    case StudyTemplate::whichPattern:
        addPatterns(b);
        break;
    case StudyTemplate::whichTorque:
        addTorques(b);
        break;
    case StudyTemplate::breakIn:
        b.materials();
        b.plan.followUps = parseDelays("2 h, 24 h, 3 d");
        break;
    case StudyTemplate::ageing:
        b.materials();
        b.plan.followUps = parseDelays("1 w, 1 mo, 6 mo, 1 y");
        break;
    case StudyTemplate::oldAgainstNew:
        b.lots("study-lots.old-new");
        break;
    case StudyTemplate::underTheLid:
        b.materials();
        b.constant = b.wanted.wording({"held-constant.under-the-lid", {}});
        break;
    case StudyTemplate::stepByStep:
        addSteps(b);
        break;
    case StudyTemplate::materialByCooler:
        addCoolers(b);
        break;
    }
}

void checkMaterials(const StudyTemplateInfo& info, std::size_t count) {
    const auto least = static_cast<std::size_t>(info.leastMaterials);
    const auto most = static_cast<std::size_t>(info.mostMaterials);
    if (count >= least && count <= most) return;
    throw InputError(least == most ? "study-materials" : "study-materials.at-least", {},
                     {{"which", Term{word(info.which)}}, {"count", least}, {"has", count}});
}

} // namespace

const std::vector<StudyTemplateInfo>& studyTemplates() {
    using enum StudyTemplate;
    static const std::vector<StudyTemplateInfo> all{{rankMaterials, Factor::material, 2, many},
                                                    {benchReference, Factor::material, 2, many},
                                                    {beforeAndAfter, Factor::beforeAfter, 1, 1},
                                                    {asGood, Factor::material, 2, 2},
                                                    {originalOrLookAlike, Factor::supplier, 1, 1},
                                                    {howMuch, Factor::amount, 1, 1},
                                                    {whichPattern, Factor::pattern, 1, 1},
                                                    {whichTorque, Factor::torque, 1, 1},
                                                    {breakIn, Factor::material, 1, many},
                                                    {ageing, Factor::material, 1, many},
                                                    {oldAgainstNew, Factor::age, 1, 1},
                                                    {underTheLid, Factor::material, 2, many},
                                                    {stepByStep, Factor::beforeAfter, 1, many},
                                                    {materialByCooler, Factor::material, 2, many},
                                                    {own, Factor::material, 0, many}};
    return all;
}

const StudyTemplateInfo& templateInfo(StudyTemplate which) {
    const auto& all = studyTemplates();
    return *std::find_if(all.begin(), all.end(), [&](const auto& info) { return info.which == which; });
}

Message purposeOf(StudyTemplate which) { return {"study-purpose." + std::string(word(which)), {}}; }

Id<Study> addStudy(Edit& edit, const NewStudy& wanted, Instant now) {
    checkMaterials(templateInfo(wanted.which), wanted.materials.size());
    Builder builder{edit, wanted, {}, {}, {}, 0, {}};
    builder.question.site = siteFor(edit.document(), wanted.bench, wanted.which);
    const Configuration* configuration = currentConfiguration(edit.document(), wanted.bench);
    for (const Sensor* sensor : edit.document().where(&Sensor::configuration, configuration->id))
        if (sensor->role == Role::hotspot) builder.question.metric = Metric::hotspot;
    build(builder);

    Study study;
    study.bench = wanted.bench;
    study.name = wanted.name;
    study.began = wanted.which;
    study.heldConstant = builder.constant;
    const Id<Study> id = edit.add(study);
    builder.question.study = id;
    const Id<Question> question = edit.add(builder.question);
    for (Level& level : builder.levels) {
        level.question = question;
        edit.add(level);
    }
    Load load;
    load.study = id;
    load.name = wanted.wording({"sustained load", {}});
    load.sameAs = earlierLoad(edit.document(), id, load.name);
    edit.add(load);
    builder.plan.study = id;
    builder.plan.start = Instant{dayNumber(now) * 86'400'000};
    edit.add(builder.plan);
    return id;
}

std::string proposedName(const Document& document, const std::string& kind,
                         const std::vector<std::string>& materials) {
    constexpr std::size_t mostNamed = 3;
    std::string name = kind;
    if (!materials.empty() && materials.size() <= mostNamed)
        name += fmt::format(": {}", fmt::join(materials, ", "));
    else if (!materials.empty())
        name += fmt::format(" ({})", materials.size());
    const auto isTaken = [&](const std::string& wanted) {
        const auto& studies = document.all<Study>();
        return std::any_of(studies.begin(), studies.end(),
                           [&](const auto& one) { return one.second.name == wanted; });
    };
    std::string free = name;
    for (int number = 2; isTaken(free); ++number) free = fmt::format("{} {}", name, number);
    return free;
}

Id<Study> duplicateStudy(Edit& edit, Id<Study> id) {
    const Document before = edit.document();
    Study study = *before.find(id);
    study.name += ", again";
    study.state = StudyState::draft;
    const Id<Study> copy = edit.add(study);
    std::map<Id<Question>, Id<Question>> questions;
    for (const Question* original : before.where(&Question::study, id)) {
        Question question = *original;
        question.study = copy;
        thawResponse(question);
        if (question.levelsFrom) question.levelsFrom = questions.at(*question.levelsFrom);
        std::optional<Id<Level>> reference;
        question.referenceLevel.reset();
        question.load = original->load; // the same step as before, whichever study it came with
        const Id<Question> of = questions[original->id] = edit.add(question);
        for (const Level* level : before.where(&Level::question, original->id)) {
            Level twin = *level;
            twin.question = of;
            const Id<Level> made = edit.add(twin);
            if (original->referenceLevel == level->id) reference = made;
        }
        if (!reference) continue;
        question.id = of;
        question.referenceLevel = reference;
        edit.put(question);
    }
    std::map<Id<Load>, Id<Load>> loads;
    for (const Load* load : before.where(&Load::study, id)) {
        if (!load->planned) continue;
        Load twin = *load;
        twin.study = copy;
        twin.sameAs = loadIdentity(*load);
        loads[load->id] = edit.add(twin);
    }
    for (const Plan* plan : before.where(&Plan::study, id)) {
        Plan twin = *plan;
        twin.study = copy;
        ++twin.seed; // the same question deserves a fresh order
        edit.add(twin);
    }
    for (const ProtocolStep* step : before.where(&ProtocolStep::study, id)) {
        ProtocolStep twin = *step;
        twin.study = copy;
        if (twin.load) twin.load = loads.at(*twin.load);
        edit.add(twin);
    }
    return copy;
}

} // namespace ibuki
