// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/mount.h"

#include <QDialog>
#include <QList>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;

namespace ibuki {

/// What a mount has at the site under study: which lot, how much, in which pattern, and how the hands found
/// it, and who mounted. The amount is taken off the lot.
class ApplicationSheet : public QDialog {
    Q_OBJECT

public:
    ApplicationSheet(Session& session, Id<Application> application, Id<Mount> mount,
                     QWidget* parent = nullptr);

private:
    void fillLots();
    void chooseLot(int index);
    void showRows(const Material* material);
    void tell();
    void keep(Edit edit);

    Session& session_;
    Id<Application> application_;
    QComboBox* lot_;
    QFormLayout* rows_ = nullptr;
    QList<QLineEdit*> dispensed_; ///< of what comes out of a tube
    QList<QLineEdit*> cut_;       ///< of what is cut
    QLabel* reported_;
};

/// The application of the mount at the site; one is stated, undoably, when there is none yet. nullopt with a
/// notice when that failed.
std::optional<Id<Application>> statedApplication(Session& session, Id<Mount> mount, Id<Site> site);

} // namespace ibuki
