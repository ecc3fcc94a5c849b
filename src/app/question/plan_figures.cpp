// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/plan_figures.h"

#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/calendar.h"
#include "store/paper/sentences.h"
#include "words/words.h"

namespace ibuki {

PlanFigures planFigures(const Document& document, const Question* question, Instant now,
                        std::optional<int> mounts) {
    PlanFigures figures;
    if (!question) return figures;
    figures.plan = planFor(document, question->study);
    if (mounts) figures.plan.mountsPerLevel = *mounts;
    try {
        figures.clock = wallClockOf(figures.plan.zone);
        figures.analysis = powerAnalysisOf(document, *question, figures.plan, now, figures.clock);
    } catch (const InputError& error) {
        figures.reason = qtext(words::complaint(error.message));
    }
    return figures;
}

QString sumsText(const std::vector<Money>& cost) {
    QStringList sums;
    for (const Money& money : cost) sums << moneyText(money);
    return sums.join(say(" and "));
}

QString powerLine(const PowerAnalysis& analysis, const Question& question) {
    QStringList words;
    const QString margin = qtext(amountText(question.margin.value, responseUnit(question)));
    if (analysis.chance && analysis.isChange)
        words << say("%1 % to see a change of %2").arg(100 * *analysis.chance, 0, 'f', 0).arg(margin);
    else if (analysis.chance)
        words << (question.goal == Goal::difference
                      ? say("%1 % to see %2").arg(100 * *analysis.chance, 0, 'f', 0).arg(margin)
                      : say("%1 % to show them the same within %2")
                            .arg(100 * *analysis.chance, 0, 'f', 0)
                            .arg(margin));
    else
        words << say("one mount of each tells no scatter");
    if (analysis.halfWidth) words << "± " + qtext(amountText(*analysis.halfWidth, responseUnit(question)));
    words << (analysis.mountsToCome < analysis.totalMounts
                  ? say("%1 mounts, %2 to come").arg(analysis.totalMounts).arg(analysis.mountsToCome)
                  : say("%1 mounts").arg(analysis.totalMounts));
    words << sayMany("%1 in {count} evening", "%1 in {count} evenings",
                     static_cast<qint64>(analysis.schedule.evenings.size()))
                 .arg(durationText(analysis.schedule.benchMinutes));
    double grams = 0;
    for (const MaterialNeed& need : analysis.needs)
        if (need.unit == ContentUnit::gram) grams += need.amount;
    if (grams > 0) words << QString("%1 g").arg(grams, 0, 'f', 1);
    if (!analysis.cost.empty()) words << sumsText(analysis.cost);
    return words.join("  ·  ");
}

} // namespace ibuki
