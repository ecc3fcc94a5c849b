// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/live_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "app/session/step_title.h"
#include "core/domain/words.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

QString aboutMinutes(double seconds) {
    const double minutes = seconds / 60;
    return minutes < 1 ? say("less than a minute") : say("%1 min").arg(minutes, 0, 'f', 0);
}

QString gateFigure(const StepOccurrence& step, const GateReading& gate) {
    if (!gate.figure) return {};
    const double figure = *gate.figure;
    switch (step.gate) {
    case GateKind::chipSlopeBelow:
    case GateKind::ambientSlopeBelow:
        return say("%1 K/min, until below %2").arg(figure, 0, 'f', 2).arg(step.gateValue);
    case GateKind::remainingBelow:
        return say("%1 K left to rise, until below %2").arg(figure, 0, 'f', 2).arg(step.gateValue);
    case GateKind::aboveIdleBelow:
        return say("%1 K above idle, until below %2").arg(figure, 0, 'f', 1).arg(step.gateValue);
    case GateKind::chipAbove:
    case GateKind::chipBelow:
        return say("%1 °C, until %2").arg(figure, 0, 'f', 1).arg(step.gateValue);
    case GateKind::none:
        return {};
    }
    return {};
}

/// When the step ends, as far as it can be told.
QString untilText(const StepOccurrence& step, const RunStatus& status, double inStepS) {
    const double leftS = std::max(0.0, 60 * step.minutes - inStepS);
    if (status.waitsForLoad) return say("waits for the load; %1 at most").arg(clockText(leftS));
    if (step.gate == GateKind::none) return say("%1 left").arg(clockText(leftS));
    if (!status.gate) return {};
    const GateReading& gate = *status.gate;
    if (gate.opensInS) {
        QString text = say("steady in about %1").arg(aboutMinutes(*gate.opensInS));
        if (gate.opensBetweenS)
            text += say(" (%1 to %2)")
                        .arg(gate.opensBetweenS->lo / 60, 0, 'f', 0)
                        .arg(std::ceil(gate.opensBetweenS->hi / 60), 0, 'f', 0);
        return text;
    }
    const QString figure = gateFigure(step, gate);
    return figure.isEmpty() ? say("judging; %1 at most").arg(clockText(leftS)) : figure;
}

void addManualWork(LiveLines& reported, const LiveRun& run, const StepOccurrence& step) {
    reported.figure = clockText(run.handSeconds());
    reported.unit = say("since this began");
    reported.until = say("usually about %1 min").arg(step.minutes, 0, 'f', 0);
    reported.next = say("Space: done");
    reported.share = std::min(1.0, run.handSeconds() / (60 * std::max(0.1, step.minutes)));
}

void addStep(LiveLines& reported, const LiveRun& run, const StepOccurrence& step) {
    const RunStatus& status = run.status();
    const double inStepS = std::max(0.0, status.sample.timeS - status.stepBeganS);
    reported.until = status.paused ? say("Paused: no load. P goes on.") : untilText(step, status, inStepS);
    if (status.gate && status.gate->opensInS) reported.next = gateFigure(step, *status.gate);
    const double wholeS =
        status.gate && status.gate->opensInS ? inStepS + *status.gate->opensInS : 60 * step.minutes;
    reported.share = wholeS > 0 ? std::min(1.0, inStepS / wholeS) : 0;
    if (status.waitsForLoad)
        reported.doubts << (run.askedLoad().empty()
                                ? say("The load is not seen yet: %1").arg(qtext(step.load))
                                : say("Start your load now: %1").arg(qtext(run.askedLoad())));
    if (!status.unsteady.empty()) {
        QStringList reasons;
        for (const Message& reason : status.unsteady) reasons << sayText(reason);
        reported.doubts << say("Late, since %1.").arg(reasons.join(say(" and ")));
    }
}

} // namespace

QString clockText(double seconds) {
    const auto whole = static_cast<qint64>(std::max(0.0, seconds));
    const QString minutes = QStringLiteral("%1:%2")
                                .arg(whole / 60 % 60, whole >= 3600 ? 2 : 1, 10, QLatin1Char('0'))
                                .arg(whole % 60, 2, 10, QLatin1Char('0'));
    return whole >= 3600 ? QStringLiteral("%1:%2").arg(whole / 3600).arg(minutes) : minutes;
}

QString markLine(const LiveMark& mark) { return clockText(mark.atS) + "  " + sayText(mark.message); }

LiveLines liveLines(const LiveRun& run) {
    LiveLines reported;
    const BenchSample& sample = run.sample();
    const RunStatus& status = run.status();
    reported.isHot = run.mustStop();
    reported.figure = QStringLiteral("–");
    if (sample.chipC && sample.ambientC) {
        reported.figure = QString::number(*sample.chipC - *sample.ambientC, 'f', 1);
        reported.unit = say("K over room");
    } else if (sample.chipC) {
        reported.figure = QString::number(*sample.chipC, 'f', 1);
        reported.unit = say("°C, no room is read");
    } else {
        reported.unit = say("no chip temperature is read");
    }
    if (run.stage() == RunStage::judging) {
        reported.step = say("Figures are worked out");
        return reported;
    }
    if (status.step) {
        reported.step = stepTitle(*status.step);
        if (run.stage() == RunStage::manualWork)
            addManualWork(reported, run, *status.step);
        else
            addStep(reported, run, *status.step);
    } else {
        reported.step = say("Recording");
        reported.until = clockText(run.extent().durationS);
    }
    for (const Message& warning : run.warnings()) reported.doubts << sayText(warning) + ".";
    if (reported.isHot) reported.doubts.prepend(say("Too hot: the load was stopped."));
    return reported;
}

std::vector<StatusLightLine> statusLightLines(const LiveRun& run) {
    const BenchSample& sample = run.sample();
    const auto& statusLights = run.status().statusLights;
    const auto text = [](const std::optional<double>& value, int digits, const QString& unit) {
        return value ? QString::number(*value, 'f', digits) + " " + unit : QString();
    };
    const auto statusLightOf = [&](StatusLights which, bool read) {
        const StatusLight statusLight = statusLights.at(static_cast<std::size_t>(which)).statusLight;
        return statusLight == StatusLight::dark && read ? StatusLight::good : statusLight;
    };
    const auto left = statusLights.at(static_cast<std::size_t>(StatusLights::limit)).value;
    return {{say("room"), text(sample.ambientC, 1, "°C"),
             statusLightOf(StatusLights::room, sample.ambientC.has_value())},
            {say("power"), text(sample.powerW, 0, "W"),
             statusLightOf(StatusLights::power, sample.powerW.has_value())},
            {say("fan"), text(sample.fanRpm, 0, "rpm"),
             statusLightOf(StatusLights::fan, sample.fanRpm.has_value())},
            {say("limit"),
             !left          ? QString()
             : *left >= 0.5 ? say("%1 K below").arg(*left, 0, 'f', 0)
                            : say("at it"),
             statusLightOf(StatusLights::limit, false)},
            {say("sensors"), text(sample.chipC, 1, "°C"),
             statusLightOf(StatusLights::sensors, sample.chipC.has_value())}};
}

} // namespace ibuki
