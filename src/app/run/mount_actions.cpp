// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/mount_actions.h"

#include "app/forms/ask.h"
#include "app/forms/caution_panel.h"
#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/run/application_sheet.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/evidence/look_rejections.h"
#include "core/import/import.h"
#include "core/import/stated_figures.h"

namespace ibuki {

CautionSubject cautionSubject(const Session& session, const Mount& mount) {
    const Document& document = session.document();
    const Question* question = session.question();
    CautionSubject subject;
    subject.configuration = document.find(mount.configuration);
    subject.mount = &mount;
    if (!question) return subject;
    const Application* application = applicationAt(document, mount.id, question->site);
    subject.material = materialAt(document, mount.id, question->site);
    subject.lot = application ? document.find(application->lot) : nullptr;
    subject.site = document.find(question->site);
    return subject;
}

void openCautions(Session& session, QWidget* parent) {
    const Mount* mount = session.mount();
    if (mount) openDialog(new CautionSheet(session, cautionSubject(session, *mount), parent));
}

void openApplication(Session& session, QWidget* parent) {
    const Mount* mount = session.mount();
    const Question* question = session.question();
    if (!mount || !question) return;
    const Id<Mount> id = mount->id;
    if (const auto application = statedApplication(session, id, question->site))
        openDialog(new ApplicationSheet(session, *application, id, parent));
}

namespace {

/// Rejects with a reason; takes the rejection back without one.
void putRejected(Session& session, Id<Mount> id, const std::string& reason) {
    const Mount* mount = session.document().find(id);
    if (!mount) return;
    Edit edit(session.document(),
              titled(reason.empty() ? words::mark("Take back {mount}") : words::mark("Reject {mount}"),
                     {{"mount", mount->name}}));
    rejectMount(edit, id, reason);
    session.perform(edit.finish());
}

void putAmbient(Session& session, Id<Mount> id, std::optional<double> celsius) {
    const Mount* mount = session.document().find(id);
    if (!mount) return;
    Edit edit(session.document(), titled("Enter the room of {mount}", {{"mount", mount->name}}));
    for (const Run* run : runsOf(session.document(), id)) {
        Run changed = *run;
        changed.enteredAmbient = celsius ? std::optional(Celsius{*celsius}) : std::nullopt;
        edit.put(changed);
        if (session.document().find(run->recording)->state != RecordingState::figures) continue;
        for (const RunReduction* stored : edit.document().where(&RunReduction::run, run->id)) {
            RunReduction anew = *stored; // there is no log to reduce again
            anew.reduction.change([&](Reduction& reduction) { putRoomOfFigures(reduction, celsius); });
            edit.put(anew);
        }
    }
    auto tasks = reductionTasks(edit.document(), runsOf(edit.document(), id), session.question());
    session.performReduced(std::move(edit), std::move(tasks));
}

} // namespace

void rejectMount(Session& session, QWidget* parent) {
    const Mount* mount = session.mount();
    if (!mount) return;
    if (mount->rejected) {
        putRejected(session, mount->id, {});
        return;
    }
    askText(
        parent, {say("Reject this mount"), say("Why? The reason stays in the record and in the report."), {}},
        [&session, id = mount->id](const QString& answer) {
            const QString reason = answer.trimmed();
            if (reason.isEmpty())
                return say("A mount is rejected with a reason only: say what was physically wrong with it.");
            putRejected(session, id, reason.toStdString());
            return QString();
        });
}

void enterAmbient(Session& session, QWidget* parent) {
    const Mount* mount = session.mount();
    if (!mount) return;
    const auto runs = runsOf(session.document(), mount->id);
    if (runs.empty()) return;
    askText(parent,
            {say("Room temperature"), say("°C at the cooler's intake (empty: as logged)"),
             runs.front()->enteredAmbient ? numberText(runs.front()->enteredAmbient->value) : QString()},
            [&session, id = mount->id](const QString& typed) {
                const auto value = numberFrom(typed);
                if (!typed.trimmed().isEmpty() && !value)
                    return say("\"%1\" is no temperature. Write digits, such as 21.5.").arg(typed);
                putAmbient(session, id, value);
                return QString();
            });
}

void setMountTime(Session& session, QWidget* parent) {
    const Mount* mount = session.mount();
    if (!mount) return;
    askText(parent,
            {say("When was it mounted"), say("Date and time, such as 2031-03-04 18:30"),
             mount->at ? qtext(dateTimeText(*mount->at)) : QString()},
            [&session, id = mount->id](const QString& typed) {
                const auto at = parseInstant(typed.trimmed().toStdString());
                if (!at) return say("\"%1\" is no time. Write it as 2031-03-04 18:30.").arg(typed);
                const Mount* now = session.document().find(id);
                if (!now) return QString();
                Edit edit(session.document(), titled("Set the time of {mount}", {{"mount", now->name}}));
                placeMountAt(edit, id, *at);
                session.perform(edit.finish());
                return QString();
            });
}

} // namespace ibuki
