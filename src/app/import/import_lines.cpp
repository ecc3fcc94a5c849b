// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"

#include <QStringList>
#include <cmath>

namespace ibuki {
namespace {

QString figureText(const Reduction& reduction, const Question& question) {
    const LoadReduction* load = judgedBy(reduction, question.metric).load(-1);
    if (!load) return say("no load");
    const auto value = responseOf(*load, question);
    if (!value) return say("no room");
    return (load->limit.censored ? "≥ " : "")
           + QString("%1 %2")
                 .arg(*value, 0, 'f', responseDigits(responseUnit(question)).reported)
                 .arg(qtext(responseUnit(question)));
}

/// "room 22.3 °C": the mean of what a probe read.
QString ambientText(const Trace& trace) {
    double sum = 0;
    int count = 0;
    for (const Channel* channel : channelsOf(trace, Role::ambient))
        for (double v : channel->values)
            if (std::isfinite(v)) {
                sum += v;
                ++count;
            }
    return count > 0 ? say("room %1 °C").arg(sum / count, 0, 'f', 1) : say("no room");
}

QStringList doubtsOf(const ImportedLog& log, const ImportRow& row) {
    QStringList looks;
    if (row.doubt) looks << sayText(*row.doubt);
    if (row.atAssumed) looks << say("time assumed");
    for (const Flag& flag : row.flags)
        if (flag.code != "already-there") looks << qtext(words::flagName(flag.code)); // the doubt says that
    if (!row.probeOf)
        for (const Flag& flag : log.reduction.flags)
            if (flag.severity != Severity::info && flag.code != "no-load-found")
                looks << qtext(words::flagName(flag.code));
    return looks;
}

} // namespace

QString steadyText(const ImportedLog& log, const ImportRow& row, const Question* question) {
    if (row.probeOf) return ambientText(log.trace);
    return question ? figureText(log.reduction, *question) : QString();
}

QString loadText(const Document& document, const ImportRow& row) {
    QStringList loads;
    for (const RunChoice& run : row.runs) {
        const Load* known = document.find(run.load);
        QString text = qtext(known ? known->name : run.newLoad);
        if (run.purpose != Purpose::fresh) text += ", " + sayTerm(word(run.purpose));
        if (!loads.contains(text)) loads << text;
    }
    return loads.join("; ");
}

QString doubtText(const ImportedLog& log, const ImportRow& row) { return doubtsOf(log, row).join("; "); }
int doubtCount(const ImportedLog& log, const ImportRow& row) {
    return static_cast<int>(doubtsOf(log, row).size());
}

} // namespace ibuki
