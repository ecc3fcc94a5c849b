// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/prior_scatter.h"

#include "core/models/anova.h"

#include <algorithm>
#include <cmath>

namespace ibuki {

ModeratedScatter moderated(double variance, double df, const KnownScatter& prior) {
    ModeratedScatter found{variance, df, std::sqrt(variance), df, prior};
    if (df > 0) {
        const double above = fTest(variance / prior.sd / prior.sd, df, prior.df).p;
        found.conflictP = std::min(1.0, 2 * std::min(above, 1 - above));
    }
    if (found.isConflict()) return found;
    found.df = prior.df + df;
    found.variance = (prior.df * prior.sd * prior.sd + df * variance) / found.df;
    return found;
}

Flag scatterFlag(const ModeratedScatter& scatter) {
    const Fields fields{{"prior", scatter.prior.sd},
                        {"prior_df", scatter.prior.df},
                        {"data", scatter.dataSd},
                        {"data_df", scatter.dataDf}};
    if (scatter.isConflict()) return makeFlag(Severity::warn, "scatter-conflict", fields);
    const bool alone = !(scatter.dataDf > 0);
    return {"scatter-moderated", Severity::info,
            Message{alone ? "scatter-moderated.alone" : "scatter-moderated", fields}};
}

} // namespace ibuki
