// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/question_fields.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/evidence.h"
#include "core/evidence/reduction_task.h"
#include "core/evidence/response.h"

#include <QLabel>

namespace ibuki {
namespace {

qlonglong valueOf(auto id) { return static_cast<qlonglong>(id.value); }

} // namespace

QuestionFields::QuestionFields(Session& session, QFormLayout* form)
    : session_(session), form_(form), plain_(session, form, words::mark("question")) {}

void QuestionFields::addChoice(Choice choice) {
    auto* box = new QComboBox;
    addFormRow(form_, choice.label, box);
    QObject::connect(box, &QComboBox::activated, box, [this, box, choice](int index) {
        const qlonglong chosen = box->itemData(index).toLongLong();
        change(choice.title(chosen), [&](Question& question) { choice.take(question, chosen); });
    });
    loaders_.emplace_back([box, choice](const Question& question) {
        box->clear();
        for (const auto& [name, value] : choice.all(question)) box->addItem(name, value);
        box->setCurrentIndex(box->findData(choice.now(question)));
    });
}

void QuestionFields::addFactor() { plain_.choice(say("What varies"), &Question::factor); }
void QuestionFields::addGoal() { plain_.choice(say("To show"), &Question::goal); }
void QuestionFields::addReference() { plain_.choice(say("Measured over"), &Question::reference); }
void QuestionFields::addTaken() { plain_.choice(say("Taken"), &Question::normalisation); }
void QuestionFields::addNominalPower() {
    plain_.number(say("Nominal power, W"), &Question::nominalPower, 0, true);
}

void QuestionFields::addMargin() {
    auto* field = plain_.requiredNumber(
        say("Difference that matters"), [](const Question& q) { return q.margin.value; },
        [](Question& q, double v) { q.margin = Kelvin{v}; }, 0, true);
    auto* label = qobject_cast<QLabel*>(form_->labelForField(field));
    loaders_.push_back([label](const Question& question) { // in the unit that the question is judged by
        if (label) label->setText(say("Difference that matters, %1").arg(qtext(responseUnit(question))));
    });
}

void QuestionFields::addConfidence() {
    plain_.requiredNumber(
        say("Sure, in %"), [](const Question& q) { return 100 * q.confidence; },
        [](Question& q, double v) { q.confidence = v / 100; }, 50, true, 100);
}

template <class Word>
void QuestionFields::addOptional(const QString& label, const QString& none,
                                 std::optional<Word> Question::*member, const char* title) {
    addChoice({label,
               [none](const Question&) {
                   Choices all{{none, -1}};
                   for (std::size_t i = 0; i < Words<Word>::all.size(); ++i)
                       all.emplace_back(sayTerm(Words<Word>::all[i]), static_cast<qlonglong>(i));
                   return all;
               },
               [member](const Question& q) {
                   return q.*member ? static_cast<qlonglong>(*(q.*member)) : qlonglong{-1};
               },
               [member](Question& q, qlonglong chosen) {
                   q.*member = chosen < 0 ? std::nullopt : std::optional(static_cast<Word>(chosen));
               },
               [title](qlonglong) {
                   return Message{title, {}};
               }});
}

void QuestionFields::addSecondFactor() {
    addOptional(say("And"), say("nothing else"), &Question::secondFactor,
                words::mark("Change the second factor"));
}

void QuestionFields::addTakenOut() {
    addOptional(say("Taken out as blocks"), say("nothing"), &Question::blocks,
                words::mark("Change what is taken out"));
    addOptional(say("As a straight line"), say("nothing"), &Question::covariate,
                words::mark("Change what is taken out"));
    addChoice({say("Drift over the mounts"),
               [](const Question&) {
                   return Choices{{say("not taken out"), 0}, {say("taken out"), 1}};
               },
               [](const Question& q) { return qlonglong{q.orderTakenOut}; },
               [](Question& q, qlonglong chosen) { q.orderTakenOut = chosen == 1; },
               [](qlonglong) { return titled("Change what is taken out"); }});
}

void QuestionFields::addSpread() { plain_.choice(say("Spread between mounts"), &Question::spread); }

void QuestionFields::addSite() {
    addChoice({say("Site under study"),
               [this](const Question&) {
                   Choices all;
                   if (const Configuration* configuration = session_.configuration())
                       for (const Site* site :
                            session_.document().where(&Site::configuration, configuration->id))
                           all.emplace_back(qtext(site->name), valueOf(site->id));
                   return all;
               },
               [](const Question& q) { return valueOf(q.site); },
               [](Question& q, qlonglong chosen) { q.site = Id<Site>{chosen}; },
               [](qlonglong) { return titled("Change the site under study"); }});
}

void QuestionFields::addMetric() {
    addChoice(
        {say("Judged by"),
         [](const Question&) {
             Choices all;
             for (Metric metric : allMetrics)
                 all.emplace_back(sayTerm(metricTitle(metric)), static_cast<qlonglong>(metric));
             return all;
         },
         [](const Question& q) { return static_cast<qlonglong>(q.metric); },
         [](Question& q, qlonglong chosen) { q.metric = static_cast<Metric>(chosen); },
         [](qlonglong chosen) {
             return titled("Judge by {metric}", {{"metric", Term{metricTitle(static_cast<Metric>(chosen))}}});
         }});
}

void QuestionFields::addHeldAgainst() {
    addChoice({say("Held against"),
               [this](const Question& q) {
                   Choices all{{say("each other, all pairs"), 0}};
                   for (const Level* level : levelsOf(session_.document(), q.id))
                       all.emplace_back(qtext(level->name), valueOf(level->id));
                   return all;
               },
               [](const Question& q) { return q.referenceLevel ? valueOf(*q.referenceLevel) : 0; },
               [](Question& q, qlonglong chosen) {
                   q.referenceLevel = chosen == 0 ? std::nullopt : std::optional(Id<Level>{chosen});
               },
               [](qlonglong) { return titled("Change what the others are held against"); }});
}

void QuestionFields::addComparedLoad() {
    const auto now = [this](const Question& q) {
        const Load* named = session_.document().find(q.load);
        return named ? valueOf(loadIdentity(*named)) : 0;
    };
    addChoice({say("Compared under"),
               [this, now](const Question& q) {
                   Choices all{{say("the load of the most mounts"), 0}};
                   for (Id<Load> id : loadChoices(session_.document(), q.study)) {
                       const Load& load = *session_.document().find(id);
                       all.emplace_back(qtext(load.name), valueOf(loadIdentity(load)));
                   }
                   const bool known = std::any_of(all.begin(), all.end(),
                                                  [&](const auto& one) { return one.second == now(q); });
                   if (!known) all.emplace_back(qtext(session_.document().find(q.load)->name), now(q));
                   return all;
               },
               now,
               [](Question& q, qlonglong chosen) {
                   q.load = chosen == 0 ? std::nullopt : std::optional(Id<Load>{chosen});
               },
               [](qlonglong) { return titled("Change the load that is compared"); }});
}

void QuestionFields::refresh() {
    const Question* question = session_.question();
    if (!question) return;
    plain_.show(question->id);
    for (const auto& load : loaders_) load(*question);
}

void QuestionFields::change(const Message& title, const std::function<void(Question&)>& change) {
    const Question* question = session_.question();
    if (!question) return;
    Question changed = *question;
    change(changed);
    if (changed == *question) return;
    Edit edit(session_.document(), title);
    edit.put(changed);
    session_.perform(edit.finish());
}

} // namespace ibuki
