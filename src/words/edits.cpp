// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// What the core does to a project, as the undo menu and the history tell it.
std::span<const Entry> edits() {
    static constexpr Entry entries[] = {
        many("edit-import", "Bring in a log", "Bring in {count} logs"),
        one("edit-new-bench", "Describe the bench {bench}"),
        one("edit-record", "Record {name}"),
        one("edit-record-mark", "Mark a moment of a recording"),
        one("edit-record-end", "End of {name}"),
        one("edit-recover", "Keep what an interrupted recording had stored"),
        one("edit-see-verdict", "See the verdict of {study}"),
    };
    return entries;
}

} // namespace ibuki::words
