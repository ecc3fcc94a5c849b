// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/drift/outcomes.h"
#include "core/drift/reapplication.h"
#include "core/drift/shelf_age.h"
#include "core/setup/follow_ups.h"

#include <QObject>
#include <memory>

namespace ibuki {

/// All that the view of drift shows, worked out from one snapshot.
struct DriftMatter {
    Document document; ///< the snapshot
    std::optional<Id<Question>> question;
    DriftJudgement study;
    DriftJudgement fleet;
    Reapplication due;
    std::vector<DueCheck> checks;
    ShelfAge tubes;
    std::vector<OutcomeTable> outcomes;
    Instant now;
};

DriftMatter driftMatter(const Document& document, std::optional<Id<Question>> question, Instant now);

/// Works it out beside the window, and makes the edits of the view.
class DriftDesk : public QObject {
    Q_OBJECT

public:
    explicit DriftDesk(Session& session) : session_(session) {}

    Session& session() { return session_; }
    /// nullptr until the first one is there.
    const DriftMatter* matter() const { return matter_.get(); }
    /// Works it out anew where something changed since.
    void refresh();

    void openRules();
    void openUse(Id<Mount> mount);
    void openOutcome(Id<Mount> mount);
    void askOpened(Id<Mount> mount);
    /// Puts the mounts that a break-in still needs on the tape, each to be seen again when the others were.
    void planChecks(const GroupDrift& drift);

signals:
    void told(); ///< matter() is new

private:
    Session& session_;
    std::shared_ptr<const DriftMatter> matter_;
    int revision_ = -1; ///< of what is at work or was told
    std::optional<Id<Question>> question_;
};

} // namespace ibuki
