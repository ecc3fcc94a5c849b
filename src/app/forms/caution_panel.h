// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/caution/caution.h"
#include "core/domain/mount.h"

#include <QDialog>
#include <QWidget>

class QVBoxLayout;

namespace ibuki {

/// The cautions for what is chosen, gravest first. Each can be acknowledged by a role; a stop wants a reason,
/// and the one that nothing lifts has no button. What is not known yet can be answered here.
class CautionPanel : public QWidget {
    Q_OBJECT

public:
    explicit CautionPanel(Session& session, QWidget* parent = nullptr);

    void show(const CautionSubject& subject);
    void showAgain();                    ///< what was shown, as the document has it now
    int count() const { return count_; } ///< handling cautions aside

private:
    /// Ids, since pointers do not outlive a change.
    struct Subject {
        std::optional<Id<Material>> material;
        std::optional<Id<Lot>> lot;
        std::optional<Id<Site>> site;
        std::optional<Id<Configuration>> configuration;
        std::optional<Id<Mount>> mount;
    };
    CautionSubject subject() const;
    QWidget* line(const Caution& caution);
    QLayout* answers(const Caution& caution);
    void acknowledge(const std::string& rule);
    void askReason(const CautionRule& rule, const std::string& role);
    void keepRead(const CautionRule& rule, const std::string& role, const std::string& reason);
    void withdraw(Id<Acknowledgement> id);

    Session& session_;
    QVBoxLayout* layout_;
    Subject subject_;
    int count_ = 0;
};

/// The same for one mount, as a dialog.
class CautionSheet : public QDialog {
    Q_OBJECT

public:
    CautionSheet(Session& session, const CautionSubject& subject, QWidget* parent = nullptr);
};

/// Dangers and stops of the subject in words, gravest first; those of handling belong to every mount and are
/// left out.
QStringList graveCautions(const Document& document, const CautionSubject& subject, Instant now);

} // namespace ibuki
