// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/import/check_up.h"

#include <QDialog>

namespace ibuki {

/// What a check-up of the bench found: noise, step and offset of each temperature, how slow the bench is, how
/// far the room differs; to be put on the bench's sheet, where plan, budget and watch take it from.
class CheckUpSheet : public QDialog {
    Q_OBJECT

public:
    CheckUpSheet(Session& session, Id<Bench> bench, CheckUp found, QWidget* parent = nullptr);

    void accept() override; ///< puts it on the bench's sheet

private:
    Session& session_;
    Id<Bench> bench_;
    CheckUp found_;
};

} // namespace ibuki
