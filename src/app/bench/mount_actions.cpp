// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/mount_actions.h"

#include "app/bench/application_sheet.h"
#include "app/forms/caution_panel.h"
#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/import/import.h"

#include <QInputDialog>

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
    if (const auto application = statedApplication(session, mount->id, question->site))
        openDialog(new ApplicationSheet(session, *application, parent));
}

void rejectMount(Session& session, QWidget* parent) {
    const Document then = session.document();
    const Mount* mount = session.mount();
    if (!mount) return;
    Mount changed = *mount;
    changed.rejected = !mount->rejected;
    if (changed.rejected) {
        bool ok = false;
        const QString reason =
            QInputDialog::getText(parent, say("Reject this mount"),
                                  say("Why? The reason stays in the record and in the report."),
                                  QLineEdit::Normal, {}, &ok)
                .trimmed();
        if (!ok) return;
        if (reason.isEmpty()) {
            session.refuse(
                say("A mount is rejected with a reason only: say what was physically wrong with it."));
            return;
        }
        changed.reason = reason.toStdString();
    }
    Edit edit(session.document(),
              titled(changed.rejected ? words::mark("Reject {mount}") : words::mark("Take back {mount}"),
                     {{"mount", changed.name}}));
    edit.put(changed);
    session.perform(edit.finish());
}

void enterRoom(Session& session, QWidget* parent) {
    const Document then = session.document(); // what is pointed to stays while the dialog is open
    const Mount* mount = session.mount();
    if (!mount) return;
    const auto runs = runsOf(then, mount->id);
    if (runs.empty()) return;
    bool ok = false;
    const QString typed = QInputDialog::getText(
        parent, say("Room temperature"), say("°C at the cooler's intake (empty: as logged)"),
        QLineEdit::Normal,
        runs.front()->enteredAmbient ? numberText(runs.front()->enteredAmbient->value) : QString(), &ok);
    if (!ok) return;
    const auto value = numberFrom(typed);
    if (!typed.trimmed().isEmpty() && !value) {
        session.refuse(say("\"%1\" is no temperature. Write digits, such as 21.5.").arg(typed));
        return;
    }
    Edit edit(session.document(), titled("Enter the room of {mount}", {{"mount", mount->name}}));
    for (const Run* run : runs) {
        const Run* now = session.document().find(run->id); // work that ended meanwhile may have changed it
        if (!now) continue;
        Run changed = *now;
        changed.enteredAmbient = value ? std::optional(Celsius{*value}) : std::nullopt;
        edit.put(changed);
    }
    auto tasks = reductionTasks(edit.document(), runsOf(edit.document(), mount->id), session.question());
    session.performReduced(std::move(edit), std::move(tasks));
}

void setMountTime(Session& session, QWidget* parent) {
    const Document then = session.document();
    const Mount* mount = session.mount();
    if (!mount) return;
    bool ok = false;
    const QString typed = QInputDialog::getText(
        parent, say("When was it mounted"), say("Date and time, such as 2031-03-04 18:30"), QLineEdit::Normal,
        mount->at ? qtext(dateTimeText(*mount->at)) : QString(), &ok);
    if (!ok) return;
    const auto at = parseInstant(typed.trimmed().toStdString());
    if (!at) {
        session.refuse(say("\"%1\" is no time. Write it as 2031-03-04 18:30.").arg(typed));
        return;
    }
    Edit edit(session.document(), titled("Set the time of {mount}", {{"mount", mount->name}}));
    placeMountAt(edit, mount->id, *at);
    session.perform(edit.finish());
}

} // namespace ibuki
