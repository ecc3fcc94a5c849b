// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 1: the bench, its materials, mounts, recordings, studies, their history.
const char* const format1 = R"sql(
CREATE TABLE history (
    number INTEGER PRIMARY KEY, at TEXT NOT NULL, action TEXT NOT NULL, title TEXT NOT NULL,
    changes TEXT NOT NULL) STRICT;
CREATE TABLE "sequence" (
    next_id INTEGER NOT NULL) STRICT;
CREATE TABLE "bench" (
    id INTEGER PRIMARY KEY, "name" TEXT NOT NULL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "configuration" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "since" TEXT, "cooler" TEXT NOT NULL, "fan" TEXT NOT NULL,
    "fan_note" TEXT NOT NULL, "lid" TEXT NOT NULL, "power_limit_W" REAL, "temperature_limit_C" REAL) STRICT;
CREATE TABLE "site" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "kind" TEXT NOT NULL, "lower_face" TEXT NOT NULL,
    "upper_face" TEXT NOT NULL, "finish" TEXT NOT NULL, "width_mm" REAL, "length_mm" REAL,
    "gap_mm" REAL, "alike" INTEGER NOT NULL, "exposed_contacts" INTEGER NOT NULL) STRICT;
CREATE TABLE "layer" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "kind" TEXT NOT NULL, "name" TEXT NOT NULL, "metal" TEXT NOT NULL,
    "width_mm" REAL, "length_mm" REAL, "thickness_mm" REAL, "conductivity_W_per_mK" REAL,
    "site" INTEGER REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED) STRICT;
CREATE TABLE "sensor" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "role" TEXT NOT NULL, "idx" INTEGER NOT NULL, "log_column" TEXT NOT NULL, "reads" TEXT NOT NULL,
    "accuracy_K" REAL, "resolution_K" REAL, "offset_K" REAL) STRICT;
CREATE TABLE "material" (
    id INTEGER PRIMARY KEY, "name" TEXT NOT NULL, "class" TEXT NOT NULL,
    "claimed_conductivity_W_per_mK" REAL, "density_g_per_ml" REAL, "thickness_mm" REAL,
    "melts_C" REAL, "conducts_electricity" INTEGER NOT NULL, "contains_gallium" INTEGER NOT NULL,
    "reusable" INTEGER NOT NULL, "conditioning" TEXT NOT NULL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "lot" (
    id INTEGER PRIMARY KEY,
    "material" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "supplier" TEXT NOT NULL, "made" TEXT, "bought" TEXT, "opened" TEXT,
    "expires" TEXT, "storage" TEXT NOT NULL, "condition" TEXT NOT NULL, "content" REAL,
    "remaining" REAL, "content_unit" TEXT NOT NULL, "price" REAL, "currency" TEXT NOT NULL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "application" (
    id INTEGER PRIMARY KEY,
    "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED,
    "lot" INTEGER REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED, "amount_g" REAL,
    "pattern" TEXT NOT NULL, "start" TEXT, "ended" TEXT, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "mount" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "at" TEXT, "at_assumed" INTEGER NOT NULL, "record_order" INTEGER NOT NULL,
    "block" TEXT NOT NULL, "torque_Nm" REAL, "rejected" INTEGER NOT NULL, "reason" TEXT NOT NULL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "mount_application" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "application" INTEGER NOT NULL REFERENCES "application"(id) DEFERRABLE INITIALLY DEFERRED,
    "is_new" INTEGER NOT NULL) STRICT;
CREATE TABLE "recording" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "file_name" TEXT NOT NULL, "sha256" TEXT NOT NULL, "bytes" INTEGER NOT NULL, "start" TEXT,
    "start_assumed" INTEGER NOT NULL, "samples" INTEGER NOT NULL, "duration_s" REAL NOT NULL,
    "withdrawn" INTEGER NOT NULL) STRICT;
CREATE TABLE "run" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "recording" INTEGER NOT NULL REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED,
    "load_index" INTEGER NOT NULL, "load" TEXT NOT NULL, "repeat" INTEGER NOT NULL,
    "purpose" TEXT NOT NULL, "since_application_h" REAL, "under_load_h" REAL, "cycles" INTEGER,
    "entered_ambient_C" REAL, "entered_ambient_u_K" REAL, "rejected" INTEGER NOT NULL,
    "reason" TEXT NOT NULL) STRICT;
CREATE TABLE "run_reduction" (
    id INTEGER PRIMARY KEY, "run" INTEGER NOT NULL REFERENCES "run"(id) DEFERRABLE INITIALLY DEFERRED,
    "reduction" TEXT NOT NULL) STRICT;
CREATE TABLE "study" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "state" TEXT NOT NULL, "held_constant" TEXT NOT NULL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "question" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED,
    "factor" TEXT NOT NULL, "second_factor" TEXT, "metric" TEXT NOT NULL, "reference" TEXT NOT NULL,
    "normalisation" TEXT NOT NULL, "nominal_power_W" REAL, "margin_K" REAL NOT NULL,
    "confidence" REAL NOT NULL, "reference_level" INTEGER, "frozen" INTEGER NOT NULL) STRICT;
CREATE TABLE "level" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "name" TEXT NOT NULL,
    "material" INTEGER REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED) STRICT;
CREATE TABLE "load" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "name" TEXT NOT NULL, "target_W" REAL, "duration_s" REAL) STRICT;
CREATE TABLE "slot" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "kind" TEXT NOT NULL,
    "level" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED,
    "mount" INTEGER REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED, "planned_for" TEXT,
    "skipped_because" TEXT NOT NULL) STRICT;
CREATE TABLE "channel" (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    position INTEGER NOT NULL, log_column TEXT NOT NULL, role TEXT NOT NULL, idx INTEGER NOT NULL,
    unit INTEGER NOT NULL, kind TEXT NOT NULL, samples INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, position)) STRICT;
CREATE TABLE "time_axis" (
    recording INTEGER PRIMARY KEY REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    samples INTEGER NOT NULL, clock_jumps INTEGER NOT NULL, gaps INTEGER NOT NULL,
    duplicates INTEGER NOT NULL, data BLOB NOT NULL) STRICT;
INSERT INTO sequence VALUES (1);
)sql";

} // namespace ibuki
