// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The small forms of drift: what a bench calls a change that matters, how a mount is used, what befell it.

#include "app/session/session.h"
#include "core/domain/ageing.h"

#include <QDialog>

class QComboBox;
class QLineEdit;

namespace ibuki {

class AgeingRulesSheet : public QDialog {
    Q_OBJECT

public:
    AgeingRulesSheet(Session& session, Id<AgeingRules> rules, QWidget* parent = nullptr);
};

class MountUseSheet : public QDialog {
    Q_OBJECT

public:
    MountUseSheet(Session& session, Id<MountUse> use, QWidget* parent = nullptr);
};

/// One thing that happened, or was looked for and had not.
class OutcomeSheet : public QDialog {
    Q_OBJECT

public:
    OutcomeSheet(Session& session, Id<Mount> mount, QWidget* parent = nullptr);
    void accept() override;

private:
    Session& session_;
    Id<Mount> mount_;
    QComboBox* kind_;
    QComboBox* happened_;
    QLineEdit* at_;
    QLineEdit* coldest_;
    QLineEdit* cycles_;
    QLineEdit* note_;
};

} // namespace ibuki
