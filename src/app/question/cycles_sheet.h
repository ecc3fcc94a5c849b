// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QDialog>

namespace ibuki {

/// The cycles of a conditioning step: how many, up to which temperature of the chip, down to which; its long
/// load follows them.
class CyclesSheet : public QDialog {
    Q_OBJECT

public:
    CyclesSheet(Session& session, Id<ProtocolStep> step, QWidget* parent = nullptr);
};

} // namespace ibuki
