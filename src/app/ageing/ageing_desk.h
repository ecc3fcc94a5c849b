// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/ageing/outcomes.h"
#include "core/ageing/reapplication.h"
#include "core/ageing/shelf_age.h"
#include "core/setup/follow_ups.h"

#include <QObject>
#include <memory>

namespace ibuki {

/// All that the view of drift shows, worked out from one snapshot.
struct AgeingMatter {
    Document document; ///< the snapshot
    std::optional<Id<Question>> question;
    AgeingJudgement study;
    AgeingJudgement fleet;
    Reapplication due;
    std::vector<DueCheck> checks;
    ShelfAge tubes;
    std::vector<OutcomeTable> outcomes;
    Instant now;
};

AgeingMatter ageingMatter(const Document& document, std::optional<Id<Question>> question, Instant now);

/// Works it out beside the window, and makes the edits of the view.
class AgeingDesk : public QObject {
    Q_OBJECT

public:
    explicit AgeingDesk(Session& session) : session_(session) {}

    Session& session() { return session_; }
    /// nullptr until the first one is there.
    const AgeingMatter* matter() const { return matter_.get(); }
    /// Works it out anew where something changed since.
    void refresh();

    void openRules();
    void openUse(Id<Mount> mount);
    void openOutcome(Id<Mount> mount);
    void askOpened(Id<Mount> mount);
    /// Puts the mounts that a break-in still needs on the tape, each to be seen again when the others were.
    void planChecks(const GroupAgeing& ageing);

signals:
    void reported(); ///< matter() is new

private:
    Session& session_;
    std::shared_ptr<const AgeingMatter> matter_;
    int revision_ = -1; ///< of what is at work or was told
    std::optional<Id<Question>> question_;
};

} // namespace ibuki
