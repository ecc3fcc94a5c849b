// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 3, the plan.
const char* const format3 = R"sql(
CREATE TABLE "follow_up" (
    id INTEGER PRIMARY KEY,
    "slot" INTEGER NOT NULL REFERENCES "slot"(id) DEFERRABLE INITIALLY DEFERRED,
    "after" TEXT NOT NULL, "done" INTEGER NOT NULL, "skipped_because" TEXT NOT NULL) STRICT;
CREATE TABLE "look" (
    id INTEGER PRIMARY KEY, "study" INTEGER NOT NULL, "at" TEXT NOT NULL, "mounts" INTEGER NOT NULL,
    "extended" INTEGER NOT NULL, "declared" INTEGER NOT NULL) STRICT;
CREATE TABLE "plan" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "mounts_per_level" INTEGER NOT NULL, "chance" REAL NOT NULL, "stated_scatter_K" REAL,
    "seed" INTEGER NOT NULL,
    "check_with" INTEGER REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "check_mounts" INTEGER NOT NULL, "baseline" INTEGER NOT NULL, "pattern" TEXT NOT NULL,
    "amount_g" REAL, "torque_Nm" REAL, "start" TEXT, "from_hour" REAL NOT NULL, "hours" REAL NOT NULL,
    "weekdays" TEXT NOT NULL, "zone" TEXT NOT NULL, "follow_ups" TEXT NOT NULL,
    "planned_looks" INTEGER NOT NULL) STRICT;
CREATE TABLE "protocol_step" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "load" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED, "position" INTEGER NOT NULL,
    "kind" TEXT NOT NULL, "minutes" REAL NOT NULL, "gate" TEXT NOT NULL, "gate_value" REAL NOT NULL,
    "unattended" INTEGER NOT NULL) STRICT;
CREATE TABLE "slot_level" (
    id INTEGER PRIMARY KEY,
    "slot" INTEGER NOT NULL REFERENCES "slot"(id) DEFERRABLE INITIALLY DEFERRED,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "level" INTEGER NOT NULL REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED) STRICT;
CREATE TABLE "step_time" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "kind" TEXT NOT NULL, "class" TEXT, "minutes" REAL NOT NULL) STRICT;
ALTER TABLE "configuration" ADD COLUMN "slowest_min" REAL;
ALTER TABLE "level" ADD COLUMN "lot" INTEGER REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "level" ADD COLUMN "amount_g" REAL;
ALTER TABLE "level" ADD COLUMN "pattern" TEXT NOT NULL DEFAULT '';
ALTER TABLE "level" ADD COLUMN "torque_Nm" REAL;
ALTER TABLE "level" ADD COLUMN "configuration" INTEGER REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "level" ADD COLUMN "of_second" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "level" ADD COLUMN "placement" TEXT NOT NULL DEFAULT 'automatic';
ALTER TABLE "level" ADD COLUMN "most_mounts" INTEGER;
ALTER TABLE "question" ADD COLUMN "goal" TEXT NOT NULL DEFAULT 'difference';
ALTER TABLE "question" ADD COLUMN "levels_from" INTEGER REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "slot" ADD COLUMN "second_level" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE "slot" ADD COLUMN "block" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "study" ADD COLUMN "began_as" TEXT NOT NULL DEFAULT 'own';
-- Every study there is gets a plan to begin with.
INSERT INTO plan SELECT (SELECT next_id FROM sequence) + row_number() OVER (ORDER BY id) - 1, id,
    3, 0.9, NULL, 1, NULL, 0, 0, '', NULL, NULL, NULL, 18, 4, 'Mon Tue Wed Thu Fri', 'UTC', '', 1 FROM study;
UPDATE sequence SET next_id = next_id + (SELECT count(*) FROM study);
)sql";

} // namespace ibuki
