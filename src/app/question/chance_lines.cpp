// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chance_lines.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "store/paper/sentences.h"

namespace ibuki {
namespace {

QString scatterText(const Scatter& scatter, std::string_view unit) {
    const int decimals = responseDigits(unit).scatter;
    const QString sd = QString("%1 %2").arg(scatter.sd, 0, 'f', decimals).arg(qtext(unit));
    switch (scatter.source) {
    case ScatterSource::stated:
        return sd + say(", as stated");
    case ScatterSource::finishedStudies:
        return sayMany("%1 from {count} finished study on this bench (%2 degrees of freedom, 95 % interval "
                       "%3 to %4)",
                       "%1 from {count} finished studies on this bench (%2 degrees of freedom, 95 % interval "
                       "%3 to "
                       "%4)",
                       scatter.studies)
            .arg(sd)
            .arg(*scatter.df)
            .arg(scatter.ci->lo, 0, 'f', decimals)
            .arg(scatter.ci->hi, 0, 'f', decimals);
    case ScatterSource::typical:
        return sd + say(", usual for these classes; no finished study on this bench tells yet");
    }
    return sd;
}

QString titleOf(const PowerAnalysis& analysis, const Question& question) {
    if (analysis.isChange) return say("One level, seen again later: the change inside each mount counts");
    const QString margin = qtext(amountText(question.margin.value, responseUnit(question)));
    return question.goal == Goal::difference ? say("Chance to tell a pair apart that differs by ") + margin
                                             : say("Chance to show that a pair is the same within ") + margin;
}

QString needText(const MaterialNeed& need) {
    const bool area = need.unit == ContentUnit::squareMillimetre;
    const QString unit = sayTerm(word(need.unit));
    QString text = need.known ? QString("%1 %2").arg(need.amount, 0, 'f', area ? 0 : 2).arg(unit)
                              : say("dose not known: state the site's size and a lot");
    if (need.left) text += say(" of %1 %2 left").arg(*need.left, 0, 'f', area ? 0 : 1).arg(unit);
    if (need.cost) text += ", " + moneyText(*need.cost);
    return text;
}

QStringList helpsOf(const PowerAnalysis& analysis) {
    QStringList words;
    for (const Message& note : analysis.notes) words << "▸ " + sayText(note) + ".";
    if (analysis.resolvable) return words;
    words << say("%1 mounts of each would not do. What would help:").arg(sensibleMounts);
    for (const Improvement& help : analysis.improvements)
        words << QString("▸ %1: %2 (%3).")
                     .arg(sayText(help.what),
                          help.mountsPerLevel ? say("%1 mounts of each").arg(*help.mountsPerLevel)
                                              : say("still not enough alone"),
                          sayText(help.assumption));
    return words;
}

} // namespace

QString percent(double share) { return QString("%1 %").arg(100 * share, 0, 'f', 0); }

ChanceLines chanceLines(const Document& document, const Question& question, const PlanFigures& figures) {
    const PowerAnalysis& analysis = *figures.analysis;
    ChanceLines reported;
    reported.title = titleOf(analysis, question);
    const auto add = [&](const QString& name, const QString& value) {
        reported.figures.emplace_back(name, value);
    };
    add(say("Scatter between mounts"), scatterText(analysis.scatter, responseUnit(question)));
    if (analysis.anyChance && question.goal == Goal::difference)
        add(say("To notice that any of them differs"), percent(*analysis.anyChance));
    if (analysis.cautiousChance) add(say("At the cautious end of it"), percent(*analysis.cautiousChance));
    add(say("For a chance of %1 %").arg(100 * figures.plan.chance, 0, 'f', 0),
        analysis.neededMounts ? say("%1 mounts of each").arg(*analysis.neededMounts)
                              : say("more mounts than anybody makes"));
    add(say("Hands on"), say("%1 h of %2 h on the bench")
                             .arg(analysis.schedule.manualMinutes / 60, 0, 'f', 1)
                             .arg(analysis.schedule.benchMinutes / 60, 0, 'f', 1));
    if (!analysis.schedule.evenings.empty())
        add(say("Last evening"), qtext(dateText(analysis.schedule.evenings.back().start)));
    for (const MaterialNeed& need : analysis.needs)
        if (const Material* material = document.find(need.material))
            add(qtext(material->name), needText(need));
    reported.helps = helpsOf(analysis);
    return reported;
}

} // namespace ibuki
