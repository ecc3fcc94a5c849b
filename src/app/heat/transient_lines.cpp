// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/transient_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"

namespace ibuki {
namespace {

QString number(double value, int digits) {
    return QString::number(value, 'f', digits).replace('-', QChar(0x2212));
}

QString secondsText(double seconds) { return say("%1 s").arg(QString::number(seconds, 'g', 3)); }

QString sightText(const TransientStudy& study) {
    const QString sampled =
        say("Sampled every %1 s in steps of %2 K")
            .arg(QString::number(study.intervalS, 'g', 3), QString::number(study.sensorStepK, 'g', 3));
    switch (study.sight) {
    case TransientSight::sum:
        return sampled
               + say(": chip, joint and plate are seen as one. Mounts can be told apart, layers cannot: that "
                     "takes 20 readings a second in steps of 0.125 K for where curves part, 1,000 for a "
                     "structure function.");
    case TransientSight::joint:
        return sampled
               + say(
                   ": where two curves part is seen, if barely. Layers are not: that takes 1,000 readings a "
                   "second with noise below 0.02 K.");
    case TransientSight::layers:
        return sampled + say(": layers are seen; choose a mount for its structure function.");
    }
    return {};
}

QString leftOutText(const std::string& code, int runs) {
    const QString count = sayMany("{count} run", "{count} runs", runs);
    if (code == "transient-no-power") return say("%1 without a logged power of its device.").arg(count);
    if (code == "transient-no-rest") return say("%1 without a rest before the load.").arg(count);
    if (code == "transient-unrested") return say("%1 still cooling when the load came.").arg(count);
    if (code == "transient-ramp") return say("%1 whose power came as a ramp, not a step.").arg(count);
    if (code == "transient-moved")
        return say("%1 not logged, or with another power, at that time.").arg(count);
    if (code == "transient-no-metric") return say("%1 without the question's temperature.").arg(count);
    return say("%1 without a step of power.").arg(count);
}

QString curveText(const TransientStudy& study, const TransientPair& pair) {
    if (pair.apartFromS) return say("apart from %1 on").arg(secondsText(*pair.apartFromS));
    if (pair.curves.leastP > 1 - study.comparison->options.confidence) return say("too few mounts to tell");
    return say("nowhere apart (p %1)").arg(QString::number(pair.curves.p, 'g', 2));
}

} // namespace

QStringList transientLines(const TransientStudy& study, std::optional<double> declaredS) {
    QStringList reported;
    if (!declaredS)
        reported << say(
            "No time was declared for this question: declare it before looking at others, or one of "
            "them will show a difference by chance.");
    else if (*declaredS != study.atS)
        reported << say("Declared is %1: what this time shows was looked for.").arg(secondsText(*declaredS));
    if (study.intervalS > 0) reported << sightText(study);
    if (study.startKPerW > 0)
        reported << say("When the step began is known to ± %1 s; that alone leaves ± %2 K/W in each reading.")
                        .arg(QString::number(study.intervalS / 2, 'g', 2), number(study.startKPerW, 4));
    if (!study.isAmbientKnown && study.intervalS > 0)
        reported << say("Not every log has a room: its changes are still in these curves.");
    if (study.comparison && study.comparison->options.spread == SpreadModel::welch)
        reported << sayText({"own-spread", {}}) + ".";
    for (const auto& [code, runs] : study.leftOut) reported << leftOutText(code, runs);
    if (study.reason) reported << sayText(*study.reason) + ".";
    return reported;
}

QStringList transientHeads(const TransientStudy& study) {
    return {say("Pair"),
            say("K/W at %1").arg(secondsText(study.atS)),
            say("Interval"),
            say("K at %1 W").arg(study.stepW, 0, 'f', 0),
            say("K/W when steady"),
            say("Whole curves")};
}

QStringList transientRow(const TransientStudy& study, const TransientPair& pair) {
    const auto& groups = study.comparison->groups;
    const PairComparison& read = pair.read;
    const bool isReported = read.verdict == Verdict::different;
    const double z = read.difference.value_or(0);
    return {say("%1 less %2").arg(qtext(groups[read.a].name), qtext(groups[read.b].name)),
            (isReported ? QStringLiteral("✓ ") : QString()) + number(z, 4),
            read.ci ? say("%1 to %2").arg(number(read.ci->lo, 4), number(read.ci->hi, 4)) : QString(),
            number(z * study.stepW, 1),
            pair.steadyKPerW ? number(*pair.steadyKPerW, 4) : QString(),
            curveText(study, pair)};
}

} // namespace ibuki
