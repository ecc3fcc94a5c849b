// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What leads from one format of the project file to the next, frozen: statements as they were written for
// that format. A step that has been published is never edited; today's columns (columns.h) play no part in
// it. A new project goes through all of them.

namespace ibuki {

extern const char* const format1;

} // namespace ibuki
