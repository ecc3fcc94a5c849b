// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/order_lines.h"

#include "app/question/chance_lines.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"

#include <cmath>

namespace ibuki {
namespace {

constexpr double driftExampleK = 0.05; ///< a mount, for the sentence

} // namespace

QStringList orderCostSentences(const OrderCosts& costs, const std::vector<std::string>& names) {
    QStringList words;
    if (names.size() < 2) return words;
    const auto name = [&](std::size_t i) { return qtext(names.at(i)); };
    if (costs.spread > 0.05)
        words << say("On average %1 stands %2 places later than %3: a bench that drifts by %4 K a mount "
                     "would show "
                     "%5 K between them that is not there.")
                     .arg(name(costs.latest))
                     .arg(costs.spread, 0, 'f', 1)
                     .arg(name(costs.earliest))
                     .arg(driftExampleK)
                     .arg(driftExampleK * costs.spread, 0, 'f', 2);
    else
        words << say("No level stands earlier than another on average: a steady drift of the bench cancels.");
    if (std::isinf(costs.driftInflation))
        words << say(
            "Order and level are the same thing here: no drift could ever be told from a difference.");
    else if (costs.driftInflation > 1.1)
        words << say("Taking a drift out afterwards would cost %1 % more mounts for the worst pair.")
                     .arg(100 * (costs.driftInflation - 1), 0, 'f', 0);
    for (std::size_t level : costs.alwaysFirst)
        words << say("%1 opens every block: what the first mount of an evening has in common is counted "
                     "as its own.")
                     .arg(name(level));
    for (std::size_t level : costs.gathered)
        words
            << say("All mounts of %1 stand in one row: its evening and its difference cannot be told apart.")
                   .arg(name(level));
    if (!costs.missing.empty())
        words << sayMany("One block lacks a level: comparing inside blocks is weaker there.",
                         "{count} times a block lacks a level: comparing inside blocks is weaker there.",
                         static_cast<qint64>(costs.missing.size()));
    return words;
}

QString extensionHint(const Document& document, const Question& question, const PlanFigures& figures) {
    QString hint = say("More mounts of each level");
    if (const auto own = ownScatter(document, question); own && own->df) {
        const auto levels = figures.analysis ? figures.analysis->levels.size() : 1;
        const int made = static_cast<int>(*own->df) / std::max(1, static_cast<int>(levels)) + 1;
        const int wanted = steinMounts(own->sd, *own->df, question.margin.value, question.confidence, made);
        hint = say("From the scatter alone (%1 %4, differences not shown) %2 mounts of each would do; "
                   "there are %3.\n"
                   "More mounts of each level")
                   .arg(own->sd, 0, 'f', responseDigits(responseUnit(question)).scatter)
                   .arg(wanted)
                   .arg(made)
                   .arg(qtext(responseUnit(question)));
    }
    if (document.where(&InterimLook::study, question.study).empty()) return hint;
    return say("The verdict was seen meanwhile: extending now is a look, and its verdict says so unless it "
               "was planned.\n")
           + hint;
}

} // namespace ibuki
