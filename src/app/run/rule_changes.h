// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What other rules of reduction make of a study's figures, without widgets.

#include "core/domain/document.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"

#include <QString>
#include <vector>

namespace ibuki {

struct RuleChange {
    QString run; ///< mount, and which repeat
    QString before;
    QString after;
    QString change;
    QString flags; ///< after
};

struct RuleChanges {
    std::vector<RuleChange> lines;
    int changed = 0;
    QString summary;
};

/// `fresh` against what the document has; runs that it has no reduction of are left out.
RuleChanges ruleChanges(const Document& document, const Question& question,
                        const std::vector<RunReduction>& fresh);

} // namespace ibuki
