// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 8: a recording may be made here, row by row.
const char* const format8 = R"sql(
ALTER TABLE "recording" ADD COLUMN "state" TEXT NOT NULL DEFAULT 'closed';
CREATE TABLE "live_rows" (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    block INTEGER NOT NULL, samples INTEGER NOT NULL, width INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, block)) STRICT;
)sql";

} // namespace ibuki
