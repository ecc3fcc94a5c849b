// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/planned_lines.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/calendar.h"
#include "store/paper/mount_card.h"
#include "store/paper/sentences.h"

namespace ibuki {
namespace {

constexpr int mostCautions = 6; ///< beside the steps; the card has all

QStringList cautionsOf(const MountBrief& brief) {
    QStringList cautions;
    for (const BlockingCaution& one : brief.blocking)
        cautions << say("Held. ") + qtext(cautionText(one.caution));
    for (const Caution& caution : brief.cautions)
        if (caution.rule->severity >= CautionSeverity::warning && cautions.size() < mostCautions)
            cautions << qtext(cautionText(caution));
    cautions << sayText({"caution-preamble", {}});
    return cautions;
}

} // namespace

PlannedLines slotLines(const Document& document, const Slot& slot, Instant now) {
    const MountBrief brief = briefOf(document, slot, now);
    PlannedLines told;
    told.title = sayText(brief.title);
    told.hands = qtext(handsLine(brief));
    if (told.hands.isEmpty())
        told.hands = say("Dose and tube are not known: state the site's size and a lot.");
    if (brief.plannedFor) told.when << dayTimeText(*brief.plannedFor);
    if (brief.block > 0) told.when << say("block %1").arg(brief.block);
    for (const std::string& load : brief.loads) told.when << qtext(load);
    if (!slot.skippedBecause.empty()) told.when << say("skipped: ") + qtext(slot.skippedBecause);
    for (const StepOccurrence& step : brief.steps)
        told.steps << QString("%1.  %2").arg(told.steps.size() + 1).arg(qtext(stepLine(step)));
    told.cautions = cautionsOf(brief);
    return told;
}

PlannedLines followUpLines(const Document& document, const FollowUp& followUp) {
    const Slot* slot = document.find(followUp.slot);
    const Mount* mount = slot ? document.find(slot->mount) : nullptr;
    const WallClock clock = slot ? wallClockOf(planFor(document, slot->study).zone) : WallClock{};
    const auto due = dueAt(document, followUp, clock);
    PlannedLines told;
    told.title = say("Come back to %1").arg(mount ? qtext(mount->name) : say("the mount planned here"));
    told.hands = say("After %1: run the same load on the untouched mount.").arg(qtext(followUp.after.text()));
    told.when << (due ? say("Due %1").arg(dayTimeText(*due)) : say("Not dated: put the plan on the tape."));
    told.steps << say("Record the load as before and bring the log in as a further run of this mount.");
    told.cautions << sayText({"caution-preamble", {}});
    return told;
}

} // namespace ibuki
