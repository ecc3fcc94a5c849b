// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/planned_lines.h"

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
    PlannedLines reported;
    reported.title = sayText(brief.title);
    reported.manualWork = qtext(manualWorkLine(brief));
    if (reported.manualWork.isEmpty())
        reported.manualWork = say("Dose and tube are not known: state the site's size and a lot.");
    if (brief.plannedFor) reported.when << dayTimeText(*brief.plannedFor);
    if (brief.block > 0) reported.when << say("block %1").arg(brief.block);
    for (const std::string& load : brief.loads) reported.when << qtext(load);
    if (!slot.skippedBecause.empty()) reported.when << say("skipped: ") + qtext(slot.skippedBecause);
    for (const StepOccurrence& step : brief.steps)
        reported.steps << QString("%1.  %2").arg(reported.steps.size() + 1).arg(qtext(stepLine(step)));
    reported.cautions = cautionsOf(brief);
    return reported;
}

PlannedLines followUpLines(const Document& document, const FollowUp& followUp) {
    const Slot* slot = document.find(followUp.slot);
    const Mount* mount = slot ? document.find(slot->mount) : nullptr;
    const WallClock clock = slot ? wallClockOf(planFor(document, slot->study).zone) : WallClock{};
    const auto due = dueAt(document, followUp, clock);
    PlannedLines reported;
    reported.title = say("Come back to %1").arg(mount ? qtext(mount->name) : say("the mount planned here"));
    reported.manualWork =
        say("After %1: run the same load on the untouched mount.").arg(qtext(followUp.after.text()));
    reported.when << (due ? say("Due %1").arg(dayTimeText(*due))
                          : say("Not dated: put the plan on the tape."));
    reported.steps << say("Record the load as before and bring the log in as a further run of this mount.");
    reported.cautions << sayText({"caution-preamble", {}});
    return reported;
}

} // namespace ibuki
