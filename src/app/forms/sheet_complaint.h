// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Why something was not taken, told in the open sheet beside the field it is about, not on the window behind
// it.

#include <QString>

class QDialog;

namespace ibuki {

/// The sheet that lies on top; nullptr when none is open. Progress and choosing of files are no sheets.
QDialog* openSheet();

/// Shows the refusal under the field that is marked wrong, else under what has the focus or the row it stands
/// in, else above the sheet's buttons. It takes the place of the one before and goes when a field is changed.
void complainIn(QDialog& sheet, const QString& why);
void endComplaint(QDialog& sheet);

} // namespace ibuki
