// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/step_title.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/words.h"

namespace ibuki {

QString stepTitle(const StepOccurrence& step, bool load) {
    QString title = sayTerm(word(step.kind));
    if (step.cycle > 0)
        title = step.load.empty() ? say("cycle %1, cooling").arg(step.cycle)
                                  : say("cycle %1, heating").arg(step.cycle);
    return load && !step.load.empty() ? title + ", " + qtext(step.load) : title;
}

} // namespace ibuki
