// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/rule_changes.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "store/paper/sentences.h"

#include <QStringList>
#include <cmath>

namespace ibuki {
namespace {

/// What the question takes from one reduction.
struct Figure {
    std::optional<double> value;
    QString text = "–";
    QString flags;
};

Figure figureOf(const Reduction& reduction, const Run& run, const Question& question) {
    Figure figure;
    const LoadReduction* load = loadOf(reduction, run, question.metric);
    if (!load) return figure;
    figure.value = responseOf(*load, question);
    if (figure.value) figure.text = qtext(amountText(*figure.value, responseUnit(question)));
    QStringList names;
    for (const Flag& flag : load->flags)
        if (flag.severity != Severity::info) names << qtext(words::flagName(flag.code));
    figure.flags = names.join(", ");
    return figure;
}

bool moved(const Figure& before, const Figure& after) {
    if (!before.value || !after.value) return before.value.has_value() != after.value.has_value();
    return std::abs(*after.value - *before.value) > 1e-9;
}

QString changeText(const Figure& before, const Figure& after) {
    if (!moved(before, after)) return say("same");
    if (!before.value || !after.value) return "–";
    return QString::asprintf("%+.3f", *after.value - *before.value);
}

} // namespace

RuleChanges ruleChanges(const Document& document, const Question& question,
                        const std::vector<RunReduction>& fresh) {
    RuleChanges reported;
    double most = 0;
    for (const RunReduction& reduced : fresh) {
        const Run* run = document.find(reduced.run);
        const Mount* mount = run ? document.find(run->mount) : nullptr;
        const Reduction* stored = run ? reductionOf(document, run->id) : nullptr;
        if (!mount || !stored) continue;
        const Figure before = figureOf(*stored, *run, question);
        const Figure after = figureOf(*reduced.reduction, *run, question);
        reported.changed += moved(before, after) ? 1 : 0;
        if (before.value && after.value) most = std::max(most, std::abs(*after.value - *before.value));
        const QString repeat = run->repeat > 1 ? QString(" / %1").arg(run->repeat) : QString();
        reported.lines.push_back(
            {qtext(mount->name) + repeat, before.text, after.text, changeText(before, after), after.flags});
    }
    reported.summary = say("%1 of %2 figures change, by %3 at most. Nothing is taken over yet.")
                           .arg(reported.changed)
                           .arg(reported.lines.size())
                           .arg(most, 0, 'f', 3);
    return reported;
}

} // namespace ibuki
