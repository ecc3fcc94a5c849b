// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/ageing_desk.h"

#include "app/ageing/ageing_sheets.h"
#include "app/forms/ask.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/ageing/ageing_plan.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"

#include <QApplication>

namespace ibuki {
namespace {

constexpr const char* judgingName = words::mark("Following the mounts over time");

} // namespace

AgeingMatter ageingMatter(const Document& document, std::optional<Id<Question>> id, Instant now) {
    AgeingMatter matter;
    matter.document = document;
    matter.question = id;
    matter.now = now;
    matter.checks = dueChecks(document, now);
    if (const Question* question = document.find(id)) {
        matter.study = judgeAgeing(document, *question);
        for (GroupAgeing& ageing : matter.study.groups) drawMountsAnew(ageing, matter.study.rules);
        matter.tubes = shelfAge(document, *question);
    }
    matter.fleet = judgeFleet(document);
    matter.due = reapplication(document, matter.fleet, now);
    matter.outcomes = outcomeTables(document);
    return matter;
}

void AgeingDesk::refresh() {
    const Question* question = session_.question();
    const auto id = question ? std::optional(question->id) : std::nullopt;
    if (revision_ == session_.revision() && question_ == id) return;
    revision_ = session_.revision();
    question_ = id;
    session_.jobs().startNewest<std::shared_ptr<const AgeingMatter>>(
        judgingName, this,
        [document = session_.document(), id, now = session_.now()](const std::stop_token&, const Progress&) {
            return std::make_shared<const AgeingMatter>(ageingMatter(document, id, now));
        },
        [this](std::shared_ptr<const AgeingMatter> matter) {
            matter_ = std::move(matter);
            emit reported();
        },
        [this](const InputError& error) {
            revision_ = -1;
            session_.post(error);
        });
}

void AgeingDesk::openRules() {
    const Bench* bench = session_.bench();
    if (!bench) return;
    Id<AgeingRules> id;
    const auto stated = session_.document().where(&AgeingRules::bench, bench->id);
    if (stated.empty()) {
        Edit edit(session_.document(), titled("State what a change is that matters"));
        id = edit.add(ageingRulesOf(session_.document(), bench->id));
        if (!session_.perform(edit.finish())) return;
    } else {
        id = stated.front()->id;
    }
    openDialog(new AgeingRulesSheet(session_, id, QApplication::activeWindow()));
}

void AgeingDesk::openUse(Id<Mount> mount) {
    Id<MountUse> id;
    const auto stated = session_.document().where(&MountUse::mount, mount);
    if (stated.empty()) {
        const Mount* of = session_.document().find(mount);
        if (!of) return;
        Edit edit(session_.document(), titled("State how {mount} is used", {{"mount", of->name}}));
        MountUse use;
        use.mount = mount;
        id = edit.add(use);
        if (!session_.perform(edit.finish())) return;
    } else {
        id = stated.back()->id;
    }
    openDialog(new MountUseSheet(session_, id, QApplication::activeWindow()));
}

void AgeingDesk::openOutcome(Id<Mount> mount) {
    const Mount* of = session_.document().find(mount);
    if (!of) return;
    openDialog(new OutcomeSheet(session_, mount, QApplication::activeWindow()));
}

void AgeingDesk::planChecks(const GroupAgeing& ageing) {
    const Question* question = session_.question();
    if (!question) return;
    try {
        Edit edit(session_.document(),
                  titled("Plan mounts of {group} to come back to", {{"group", ageing.group.name}}));
        const int planned = planMountsToFollow(edit, *question, ageing);
        if (planned == 0) return session_.refuse(say("Mounts enough are planned already."));
        if (session_.perform(edit.finish()))
            session_.post(sayMany("{count} mount is on the tape, with the checks that follow it",
                                  "{count} mounts are on the tape, with the checks that follow them",
                                  planned));
    } catch (const InputError& error) {
        session_.refuse(error);
    }
}

void AgeingDesk::askOpened(Id<Mount> id) {
    const Mount* mount = session_.document().find(id);
    if (!mount) return;
    const auto opened = openedAt(session_.document(), *mount);
    askText(QApplication::activeWindow(),
            {say("When it was opened"),
             say("Day and time, as 2031-03-04 18:30; empty: it still stands, or as found"),
             qtext(dateTimeText(opened.value_or(session_.now())))},
            [this, id](const QString& text) {
                const auto at = parseInstant(text.trimmed().toStdString());
                if (!text.trimmed().isEmpty() && !at)
                    return say("A day and a time are written as 2031-03-04 18:30.");
                const Mount* there = session_.document().find(id);
                if (!there) return QString();
                Mount changed = *there;
                changed.opened = at;
                if (at && changed.at && *at < *changed.at)
                    return say("It cannot be opened before it was mounted.");
                Edit edit(session_.document(),
                          titled("State when {mount} was opened", {{"mount", changed.name}}));
                edit.put(changed);
                session_.perform(edit.finish());
                return QString();
            });
}

} // namespace ibuki
