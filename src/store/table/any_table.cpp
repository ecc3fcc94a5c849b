// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/table/any_table.h"

namespace ibuki {

Table readAnyTable(const std::string& path, const std::string&) { return readTableFile(path); }

} // namespace ibuki
