// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/external_lines.h"

#include "app/say.h"
#include "core/domain/words.h"

#include <cmath>

namespace ibuki {
namespace {

constexpr double nothingK = 0.05; ///< shown to a tenth

QString hotter(double kelvin, const QString& first, const QString& second) {
    return kelvin < 0 ? say("%1 ran %2 cooler than %3").arg(first, kelvinText(-kelvin), second)
                      : say("%1 ran %2 hotter than %3").arg(first, kelvinText(kelvin), second);
}

} // namespace

QString kelvinText(double kelvin, bool withSign) {
    const QString sign = std::abs(kelvin) < nothingK ? QString()
                         : kelvin < 0                ? QString(QChar(0x2212))
                         : withSign                  ? QStringLiteral("+")
                                                     : QString();
    return sign + say("%1 K").arg(std::abs(kelvin), 0, 'f', 1);
}

QString accountText(const Disagreement& found, const QString& first, const QString& second, double herePowerW,
                    const ExternalResult& read) {
    QString text = say("Here %1 at %2 W.").arg(hotter(found.hereK, first, second)).arg(herePowerW, 0, 'f', 0);
    const QString interval =
        found.expectedCi
            ? say(" (%1 to %2)").arg(kelvinText(found.expectedCi->lo), kelvinText(found.expectedCi->hi))
            : QString();
    text +=
        " "
        + say("On a bench as theirs (%1 W, %2 mm², %3) the same joints would differ by %4%5; they read %6.")
              .arg(read.power.value, 0, 'f', 0)
              .arg(read.chipMm2, 0, 'f', 0)
              .arg(sayTerm(word(read.lid)), kelvinText(found.expectedK), interval,
                   kelvinText(found.reportedK));
    if (!found.scatterK)
        return text + " "
               + say(
                   "No material was mounted twice here: how much of the rest scatter explains is not known.");
    text +=
        " "
        + sayMany("With {count} mount of each there, scatter and what is known here allow ±",
                  "With {count} mounts of each there, scatter and what is known here allow ±", read.mounts)
        + " " + kelvinText(*found.scatterK) + ".";
    if (std::abs(found.leftK) < nothingK)
        return text + " " + say("So both results agree: bench and scatter explain the difference.");
    return text + " "
           + say("%1 are left: another lot, amount, age or surface, a limit that was reached, or an error in "
                 "one "
                 "of both.")
                 .arg(kelvinText(std::abs(found.leftK)));
}

} // namespace ibuki
