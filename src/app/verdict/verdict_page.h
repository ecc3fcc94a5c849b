// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "app/session/qtext.h"
#include "core/domain/document.h"
#include "core/evidence/side_responses.h"

namespace ibuki {

/// What the pages of the verdict show: what a question's mounts can bear.
struct VerdictMatter {
    const Document& document;
    const Question& question;
    const Evidence& evidence;
    const std::vector<SideComparison>& sides;
    std::string unit; ///< of the question's response
    Instant now;
    std::optional<Id<Mount>> selected;
};

/// One page of the verdict. It is filled when it is looked at.
class VerdictPage : public ExportedPage {
    Q_OBJECT

public:
    using ExportedPage::ExportedPage;

    virtual void fill(const VerdictMatter& matter) = 0;

signals:
    void mountMeant(ibuki::Id<ibuki::Mount> mount);
    void pairMeant(std::optional<std::size_t> pair); ///< index into Comparison::pairs; none: not on a pair
};

} // namespace ibuki
