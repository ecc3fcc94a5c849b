// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 11: when load steps are read; results for a question's materials that were read elsewhere.
const char* const format11 = R"sql(
ALTER TABLE "question" ADD COLUMN "step_read_s" REAL;
CREATE TABLE "read_elsewhere" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "first" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "second" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "source" TEXT NOT NULL, "difference_K" REAL NOT NULL, "power_W" REAL NOT NULL, "chip_mm2" REAL NOT NULL,
    "lid" TEXT NOT NULL, "cooler_K_per_W" REAL, "mounts" INTEGER NOT NULL, "note" TEXT NOT NULL) STRICT;
)sql";

} // namespace ibuki
