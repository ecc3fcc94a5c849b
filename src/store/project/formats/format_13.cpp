// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 13: when a mount was opened, how it is used between recordings, what befell it, and what a bench
// calls a change that matters.
const char* const format13 = R"sql(
ALTER TABLE "mount" ADD COLUMN "opened" TEXT;
CREATE TABLE "mount_use" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "from_time" TEXT, "until_time" TEXT, "hours_per_day" REAL NOT NULL, "power_W" REAL,
    "cycles_per_day" REAL NOT NULL, "hottest_C" REAL, "coldest_C" REAL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "mount_outcome" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "kind" TEXT NOT NULL, "happened" INTEGER NOT NULL, "at" TEXT, "coldest_C" REAL, "cycles" REAL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "drift_rules" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "threshold_K" REAL NOT NULL, "same_within_K" REAL NOT NULL, "settled_within_K" REAL NOT NULL,
    "usual_years" REAL, "hands_min" REAL, "hour_rate" REAL, "currency" TEXT NOT NULL) STRICT;
)sql";

} // namespace ibuki
