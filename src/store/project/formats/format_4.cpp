// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 4, reductions by hand: borders, settings, rules; how many impossible cells a log had.
const char* const format4 = R"sql(
CREATE TABLE "channel_block" (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    position INTEGER NOT NULL, block INTEGER NOT NULL, samples INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, position, block)) STRICT;
CREATE TABLE "header_role" (
    id INTEGER PRIMARY KEY, "fingerprint" TEXT NOT NULL, "log_column" TEXT NOT NULL,
    "role" TEXT NOT NULL) STRICT;
CREATE TABLE "reduction_rules" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "window_min_s" REAL NOT NULL, "window_max_s" REAL NOT NULL, "guard_s" REAL NOT NULL,
    "slope_limit_K_per_h" REAL NOT NULL, "remaining_limit_K" REAL NOT NULL,
    "min_power_step_W" REAL NOT NULL, "hold_s" REAL NOT NULL, "limit_share" REAL NOT NULL) STRICT;
ALTER TABLE "configuration" ADD COLUMN "variant_of" INTEGER REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "configuration" ADD COLUMN "room_gradient_K" REAL;
ALTER TABLE "level" ADD COLUMN "together" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "recording" ADD COLUMN "read_as" TEXT NOT NULL DEFAULT '';
ALTER TABLE "recording" ADD COLUMN "probe" INTEGER REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "recording" ADD COLUMN "probe_shift_s" REAL;
ALTER TABLE "run" ADD COLUMN "load_start_s" REAL;
ALTER TABLE "run" ADD COLUMN "load_end_s" REAL;
ALTER TABLE "run" ADD COLUMN "window_start_s" REAL;
ALTER TABLE "run" ADD COLUMN "window_end_s" REAL;
ALTER TABLE "run" ADD COLUMN "use_asymptote" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "run_reduction" ADD COLUMN "settings" TEXT NOT NULL DEFAULT '{"metric":"hottest"}';
ALTER TABLE "sensor" ADD COLUMN "accuracy_share" REAL;
ALTER TABLE "sensor" ADD COLUMN "lag_s" REAL;
ALTER TABLE "time_axis" ADD COLUMN "impossible" INTEGER NOT NULL DEFAULT 0;
)sql";

} // namespace ibuki
