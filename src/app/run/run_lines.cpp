// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/run_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/evidence/response.h"
#include "store/paper/sentences.h"

namespace ibuki {
namespace {

QString steadyText(const Steady& steady) {
    if (!steady.reached) return say("cannot tell whether it was steady");
    if (!*steady.reached) return say("not steady yet");
    return say("steady");
}

QString unitText(const Question& question) {
    if (responseUnit(question) != "K") return "K/W";
    return question.reference == ReferenceTemperature::room ? say("K over room") : say("K over coolant");
}

QString figureText(const LoadReduction* load, const Question& question) {
    const auto response = load ? responseOf(*load, question) : std::nullopt;
    if (!response) return "–";
    const QString number = QString::number(*response, 'f', responseDigits(responseUnit(question)).glanced);
    return load->limit.censored ? "≥ " + number : number;
}

QStringList loadConditions(const LoadReduction& load, Metric metric) {
    QStringList parts;
    if (load.ambient.meanC) parts << say("room %1 °C").arg(*load.ambient.meanC, 0, 'f', 1);
    if (load.powerW) parts << QString("%1 W").arg(*load.powerW, 0, 'f', 1);
    if (const auto rth = countedRthKPerW(load, metric)) parts << say("%1 K⁠/⁠W").arg(*rth, 0, 'f', 3);
    parts << steadyText(load.steady);
    if (load.steady.asymptoteK && load.steady.asymptoteIntervalK && load.steady.reached
        && !*load.steady.reached)
        parts << say("tail leads to %1 K (%2 to %3)")
                     .arg(*load.steady.asymptoteK, 0, 'f', 1)
                     .arg(load.steady.asymptoteIntervalK->lo, 0, 'f', 1)
                     .arg(load.steady.asymptoteIntervalK->hi, 0, 'f', 1);
    if (load.ambient.probeShiftS)
        parts << say("probe's clock %1 s").arg(*load.ambient.probeShiftS, 0, 'f', 0);
    return parts;
}

QStringList doubtsOf(const Mount& mount, const Reduction& reduction, const LoadReduction* load,
                     Metric metric) {
    QStringList words;
    if (mount.rejected) words << say("Rejected: ") + qtext(mount.reason);
    std::vector<Flag> flags = *judgedBy(reduction, metric).flags;
    for (const Flag& flag : load ? load->flags : std::vector<Flag>{}) addFlag(flags, flag);
    for (const Flag& flag : flags)
        if (flag.severity != Severity::info || flag.code == "set-by-hand")
            words << "▸ " + sayText(flag.message);
    return words;
}

std::vector<MetricLine> metricLines(const LoadReduction& load) {
    const auto number = [](const std::optional<double>& value, int decimals) {
        return value ? QString::number(*value, 'f', decimals) : QString("–");
    };
    std::vector<MetricLine> lines;
    for (const auto& [metric, value] : load.metrics)
        lines.push_back({sayTerm(metricTitle(metric)), number(value.temperatureC, 1), number(value.deltaK, 1),
                         number(value.seK, 2)});
    return lines;
}

} // namespace

RunLines runLines(const Mount& mount, const Reduction& reduction, const LoadReduction* load,
                  const Question& question) {
    RunLines reported;
    reported.figure = figureText(load, question);
    reported.unit = unitText(question);
    reported.title = qtext(mount.name) + (mount.rejected ? say("  (rejected)") : QString());
    if (mount.at)
        reported.conditions << qtext(dateTimeText(*mount.at))
                                   + (mount.atAssumed ? say(" (assumed)") : QString());
    if (load) reported.conditions << loadConditions(*load, question.metric);
    if (mount.torque) reported.conditions << QString("%1 N·m").arg(mount.torque->value);
    if (!mount.mountedBy.empty()) reported.conditions << say("mounted by %1").arg(qtext(mount.mountedBy));
    reported.doubts = doubtsOf(mount, reduction, load, question.metric);
    if (load) reported.metrics = metricLines(*load);
    return reported;
}

} // namespace ibuki
