// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_subject.h"
#include "core/domain/study.h"

namespace ibuki {

const Site* shelfSite(const Session& session) {
    const Configuration* configuration = session.configuration();
    if (!configuration) return nullptr;
    const Document& document = session.document();
    const auto here = [&](const Site* site) { return site && site->configuration == configuration->id; };
    if (const Site* chosen = document.find(session.selection().site); here(chosen)) return chosen;
    if (const Question* question = session.question())
        if (const Site* asked = document.find(question->site); here(asked)) return asked;
    const auto sites = document.where(&Site::configuration, configuration->id);
    return sites.empty() ? nullptr : sites.front();
}

CautionSubject shelfSubject(const Session& session) {
    const Document& document = session.document();
    return {document.find(session.selection().material), document.find(session.selection().lot),
            shelfSite(session), session.configuration(), nullptr};
}

} // namespace ibuki
