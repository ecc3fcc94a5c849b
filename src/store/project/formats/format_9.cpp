// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 9: what a run needs while it is made: sources of the bench, marks of a recording, readings that are
// typed, the command of a load, conditioning by cycles, a limit that stops the load; and benches to practise
// on.
const char* const format9 = R"sql(
ALTER TABLE "configuration" ADD COLUMN "stop_above_C" REAL;
ALTER TABLE "sensor" ADD COLUMN "noise_K" REAL;
ALTER TABLE "load" ADD COLUMN "command" TEXT NOT NULL DEFAULT '';
ALTER TABLE "protocol_step" ADD COLUMN "cycles" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "protocol_step" ADD COLUMN "hot_C" REAL;
ALTER TABLE "protocol_step" ADD COLUMN "cold_C" REAL;
CREATE TABLE "bench_source" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "spec" TEXT NOT NULL) STRICT;
CREATE TABLE "recording_mark" (
    id INTEGER PRIMARY KEY,
    "recording" INTEGER NOT NULL REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED,
    "at_s" REAL NOT NULL, "kind" TEXT NOT NULL, "message" TEXT NOT NULL) STRICT;
CREATE TABLE "entered_reading" (
    id INTEGER PRIMARY KEY,
    "run" INTEGER NOT NULL REFERENCES "run"(id) DEFERRABLE INITIALLY DEFERRED,
    "kind" TEXT NOT NULL, "name" TEXT NOT NULL, "unit" TEXT NOT NULL, "value" REAL NOT NULL,
    "better" TEXT NOT NULL, "at" TEXT, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "practice" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "scenario" TEXT NOT NULL, "seed" INTEGER NOT NULL, "speed" REAL NOT NULL,
    "committed_best" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED,
    "conclusion" TEXT NOT NULL, "committed_at" TEXT) STRICT;
)sql";

} // namespace ibuki
