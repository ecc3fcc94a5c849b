// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 1: the first that is published; until then it is edited in place (docs/file-format.md).
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
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED, "name" TEXT NOT NULL,
    "since" TEXT, "cooler" TEXT NOT NULL, "fan" TEXT NOT NULL, "fan_note" TEXT NOT NULL,
    "lid" TEXT NOT NULL, "power_limit_W" REAL, "temperature_limit_C" REAL, "pins_on_chip" TEXT NOT NULL,
    "mount_force_N" REAL, "plate_thickness_mm" REAL, "plate_radius_mm" REAL, "slowest_min" REAL,
    "variant_of" INTEGER REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "room_gradient_K" REAL, "stop_above_C" REAL) STRICT;
CREATE TABLE "site" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "kind" TEXT NOT NULL, "lower_face" TEXT NOT NULL, "upper_face" TEXT NOT NULL,
    "finish" TEXT NOT NULL, "width_mm" REAL, "length_mm" REAL, "gap_mm" REAL, "alike" INTEGER NOT NULL,
    "contacts_near" TEXT NOT NULL, "aluminium_near" TEXT NOT NULL) STRICT;
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
    "accuracy_K" REAL, "resolution_K" REAL, "offset_K" REAL, "accuracy_share" REAL, "lag_s" REAL,
    "noise_K" REAL) STRICT;
CREATE TABLE "material" (
    id INTEGER PRIMARY KEY, "name" TEXT NOT NULL, "class" TEXT NOT NULL,
    "claimed_conductivity_W_per_mK" REAL, "density_g_per_ml" REAL, "thickness_mm" REAL, "melts_C" REAL,
    "conditioning" TEXT NOT NULL, "note" TEXT NOT NULL, "bond_line_um" REAL, "yield_Pa" REAL,
    "viscosity_Pas" REAL, "modulus_MPa" REAL, "coldest_C" REAL, "hottest_C" REAL,
    "conducts" TEXT NOT NULL, "gallium" TEXT NOT NULL, "used_again" TEXT NOT NULL,
    "conditioning_cycles" INTEGER, "conditioning_low_C" REAL, "conditioning_high_C" REAL,
    "conditioning_rest_h" REAL, "reapply_years" REAL, "stated_mm2K_per_W" REAL) STRICT;
CREATE TABLE "lot" (
    id INTEGER PRIMARY KEY,
    "material" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "supplier" TEXT NOT NULL, "made" TEXT, "bought" TEXT, "opened" TEXT,
    "expires" TEXT, "storage" TEXT NOT NULL, "content" REAL, "remaining" REAL,
    "content_unit" TEXT NOT NULL, "price" REAL, "currency" TEXT NOT NULL, "note" TEXT NOT NULL,
    "opened_condition" TEXT NOT NULL, "taken_before" REAL NOT NULL, "sheet_width_mm" REAL,
    "sheet_length_mm" REAL) STRICT;
CREATE TABLE "application" (
    id INTEGER PRIMARY KEY, "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED,
    "lot" INTEGER REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED, "amount_g" REAL,
    "pattern" TEXT NOT NULL, "start" TEXT, "ended" TEXT, "note" TEXT NOT NULL, "syringe_before_g" REAL,
    "syringe_after_g" REAL, "area_mm2" REAL, "piece_width_mm" REAL, "piece_length_mm" REAL,
    "layers" INTEGER, "spreads" INTEGER, "stays_put" INTEGER, "comes_off" INTEGER,
    "cleans_up" INTEGER) STRICT;
CREATE TABLE "mount" (
    id INTEGER PRIMARY KEY,
    "configuration" INTEGER NOT NULL REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "name" TEXT NOT NULL, "at" TEXT, "at_assumed" INTEGER NOT NULL, "record_order" INTEGER NOT NULL,
    "block" TEXT NOT NULL, "torque_Nm" REAL, "rejected" INTEGER NOT NULL, "reason" TEXT NOT NULL,
    "note" TEXT NOT NULL, "mounted_by" TEXT NOT NULL, "opened" TEXT) STRICT;
CREATE TABLE "mount_application" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "application" INTEGER NOT NULL REFERENCES "application"(id) DEFERRABLE INITIALLY DEFERRED,
    "use" TEXT NOT NULL) STRICT;
CREATE TABLE "recording" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "file_name" TEXT NOT NULL, "sha256" TEXT NOT NULL, "bytes" INTEGER NOT NULL, "start" TEXT,
    "start_assumed" INTEGER NOT NULL, "samples" INTEGER NOT NULL, "duration_s" REAL NOT NULL,
    "withdrawn" INTEGER NOT NULL, "read_as" TEXT NOT NULL,
    "probe" INTEGER REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED, "probe_shift_s" REAL,
    "state" TEXT NOT NULL) STRICT;
CREATE TABLE "run" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "recording" INTEGER NOT NULL REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED,
    "load_index" INTEGER NOT NULL, "repeat" INTEGER NOT NULL, "purpose" TEXT NOT NULL,
    "entered_ambient_C" REAL, "entered_ambient_u_K" REAL,
    "stated_age_h" REAL, "stated_cycles" REAL, "rejected" INTEGER NOT NULL,
    "reason" TEXT NOT NULL, "load_start_s" REAL, "load_end_s" REAL, "window_start_s" REAL,
    "window_end_s" REAL, "use_asymptote" INTEGER NOT NULL,
    "load" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED) STRICT;
CREATE TABLE "run_reduction" (
    id INTEGER PRIMARY KEY, "run" INTEGER NOT NULL REFERENCES "run"(id) DEFERRABLE INITIALLY DEFERRED,
    "reduction" TEXT NOT NULL, "hottest_C" REAL, "settings" TEXT NOT NULL) STRICT;
CREATE TABLE "study" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED, "name" TEXT NOT NULL,
    "state" TEXT NOT NULL, "held_constant" TEXT NOT NULL, "note" TEXT NOT NULL, "began_as" TEXT NOT NULL) STRICT;
CREATE TABLE "question" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED, "factor" TEXT NOT NULL,
    "second_factor" TEXT, "metric" TEXT NOT NULL, "reference" TEXT NOT NULL,
    "normalisation" TEXT NOT NULL, "nominal_power_W" REAL, "margin_K" REAL NOT NULL,
    "confidence" REAL NOT NULL, "reference_level" INTEGER, "frozen" INTEGER NOT NULL,
    "goal" TEXT NOT NULL, "levels_from" INTEGER REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "load" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED, "block_by" TEXT,
    "order_taken_out" INTEGER NOT NULL, "covariate" TEXT, "spread" TEXT NOT NULL, "fixed_metric" TEXT,
    "fixed_reference" TEXT, "fixed_normalisation" TEXT, "step_read_s" REAL) STRICT;
CREATE TABLE "level" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "name" TEXT NOT NULL,
    "material" INTEGER REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "lot" INTEGER REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED, "amount_g" REAL,
    "pattern" TEXT NOT NULL, "torque_Nm" REAL,
    "configuration" INTEGER REFERENCES "configuration"(id) DEFERRABLE INITIALLY DEFERRED,
    "of_second" INTEGER NOT NULL, "placement" TEXT NOT NULL, "most_mounts" INTEGER,
    "together" INTEGER NOT NULL) STRICT;
CREATE TABLE "load" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "name" TEXT NOT NULL, "target_W" REAL, "duration_s" REAL,
    "planned" INTEGER NOT NULL, "same_as" INTEGER REFERENCES "load"(id) DEFERRABLE INITIALLY DEFERRED,
    "command" TEXT NOT NULL) STRICT;
CREATE TABLE "slot" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "kind" TEXT NOT NULL,
    "level" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED,
    "mount" INTEGER REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED, "planned_for" TEXT,
    "skipped_because" TEXT NOT NULL,
    "second_level" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED,
    "block" INTEGER NOT NULL) STRICT;
CREATE TABLE "time_axis" (
    recording INTEGER PRIMARY KEY REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    samples INTEGER NOT NULL, clock_jumps INTEGER NOT NULL, gaps INTEGER NOT NULL,
    duplicates INTEGER NOT NULL, data BLOB NOT NULL, "impossible" INTEGER NOT NULL) STRICT;
CREATE TABLE "acknowledgement" (
    id INTEGER PRIMARY KEY, "rule" TEXT NOT NULL,
    "material" INTEGER REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "lot" INTEGER REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED,
    "site" INTEGER REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED,
    "mount" INTEGER REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED, "role" TEXT NOT NULL,
    "at" TEXT NOT NULL, "reason" TEXT NOT NULL) STRICT;
CREATE TABLE "exchange_rate" (
    id INTEGER PRIMARY KEY, "from_currency" TEXT NOT NULL, "to_currency" TEXT NOT NULL,
    "rate" REAL NOT NULL) STRICT;
CREATE TABLE "lot_picture" (
    id INTEGER PRIMARY KEY, "lot" INTEGER NOT NULL REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED,
    "file_name" TEXT NOT NULL, "sha256" TEXT NOT NULL, "bytes" INTEGER NOT NULL) STRICT;
CREATE TABLE "offcut" (
    id INTEGER PRIMARY KEY, "lot" INTEGER NOT NULL REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED,
    "width_mm" REAL NOT NULL, "length_mm" REAL NOT NULL, "used" INTEGER NOT NULL) STRICT;
CREATE TABLE "package" (
    id INTEGER PRIMARY KEY,
    "material" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "content" REAL NOT NULL, "unit" TEXT NOT NULL, "price" REAL NOT NULL, "currency" TEXT NOT NULL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "follow_up" (
    id INTEGER PRIMARY KEY, "slot" INTEGER NOT NULL REFERENCES "slot"(id) DEFERRABLE INITIALLY DEFERRED,
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
    "unattended" INTEGER NOT NULL, "cycles" INTEGER NOT NULL, "hot_C" REAL, "cold_C" REAL) STRICT;
CREATE TABLE "slot_level" (
    id INTEGER PRIMARY KEY, "slot" INTEGER NOT NULL REFERENCES "slot"(id) DEFERRABLE INITIALLY DEFERRED,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "level" INTEGER NOT NULL REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED) STRICT;
CREATE TABLE "step_time" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED, "kind" TEXT NOT NULL,
    "class" TEXT, "minutes" REAL NOT NULL) STRICT;
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
CREATE TABLE "file" (
    sha256 TEXT PRIMARY KEY, data BLOB NOT NULL) STRICT;
CREATE TABLE "channel" (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    position INTEGER NOT NULL, log_column TEXT NOT NULL, role TEXT NOT NULL, idx INTEGER NOT NULL,
    unit TEXT NOT NULL, kind TEXT NOT NULL, samples INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, position)) STRICT;
CREATE TABLE "live_rows" (
    recording INTEGER NOT NULL REFERENCES recording(id) DEFERRABLE INITIALLY DEFERRED,
    block INTEGER NOT NULL, samples INTEGER NOT NULL, width INTEGER NOT NULL, data BLOB NOT NULL,
    PRIMARY KEY (recording, block)) STRICT;
CREATE TABLE "bench_source" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "position" INTEGER NOT NULL, "spec" TEXT NOT NULL) STRICT;
CREATE TABLE "recording_mark" (
    id INTEGER PRIMARY KEY,
    "recording" INTEGER NOT NULL REFERENCES "recording"(id) DEFERRABLE INITIALLY DEFERRED,
    "at_s" REAL NOT NULL, "kind" TEXT NOT NULL, "message" TEXT NOT NULL) STRICT;
CREATE TABLE "entered_reading" (
    id INTEGER PRIMARY KEY, "run" INTEGER NOT NULL REFERENCES "run"(id) DEFERRABLE INITIALLY DEFERRED,
    "kind" TEXT NOT NULL, "name" TEXT NOT NULL, "unit" TEXT NOT NULL, "value" REAL NOT NULL,
    "better" TEXT NOT NULL, "at" TEXT, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "practice" (
    id INTEGER PRIMARY KEY,
    "study" INTEGER NOT NULL REFERENCES "study"(id) DEFERRABLE INITIALLY DEFERRED,
    "scenario" TEXT NOT NULL, "seed" INTEGER NOT NULL, "speed" REAL NOT NULL, "materials" TEXT NOT NULL,
    "committed_best" INTEGER REFERENCES "level"(id) DEFERRABLE INITIALLY DEFERRED,
    "conclusion" TEXT NOT NULL, "committed_at" TEXT) STRICT;
CREATE TABLE "side_margin" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "response" TEXT NOT NULL, "name" TEXT NOT NULL, "margin" REAL NOT NULL) STRICT;
CREATE TABLE "read_elsewhere" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "first" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "second" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "source" TEXT NOT NULL, "difference_K" REAL NOT NULL, "power_W" REAL NOT NULL,
    "chip_mm2" REAL NOT NULL, "lid" TEXT NOT NULL, "cooler_K_per_W" REAL, "mounts" INTEGER NOT NULL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "joint_look" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED, "at" TEXT,
    "spread" INTEGER NOT NULL, "dry" INTEGER NOT NULL, "cracked" INTEGER NOT NULL,
    "torn" INTEGER NOT NULL, "slipped" INTEGER NOT NULL, "overhung" INTEGER NOT NULL,
    "pumped_out" INTEGER NOT NULL, "residue" INTEGER NOT NULL, "stained" INTEGER NOT NULL,
    "bowed" INTEGER NOT NULL, "imprint_uneven" INTEGER NOT NULL, "came_off" TEXT NOT NULL,
    "effort" INTEGER, "clean_min" REAL, "wipes" INTEGER, "damage" TEXT NOT NULL,
    "join_sides" TEXT NOT NULL, "rejects" INTEGER NOT NULL, "figure_known" INTEGER NOT NULL,
    "note" TEXT NOT NULL) STRICT;
CREATE TABLE "joint_picture" (
    id INTEGER PRIMARY KEY,
    "look" INTEGER NOT NULL REFERENCES "joint_look"(id) DEFERRABLE INITIALLY DEFERRED,
    "side" TEXT NOT NULL, "file_name" TEXT NOT NULL, "sha256" TEXT NOT NULL, "bytes" INTEGER NOT NULL,
    "width_px" INTEGER NOT NULL, "height_px" INTEGER NOT NULL, "corners_px" TEXT, "face_width_mm" REAL,
    "face_length_mm" REAL, "threshold" REAL, "mask_sha256" TEXT NOT NULL, "covered" REAL,
    "covered_low" REAL, "covered_high" REAL, "outside_mm2" REAL, "film_lightness" REAL, "film_a" REAL,
    "film_b" REAL, "flags" TEXT NOT NULL) STRICT;
CREATE TABLE "mount_use" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED, "from_time" TEXT,
    "until_time" TEXT, "hours_per_day" REAL NOT NULL, "power_W" REAL, "cycles_per_day" REAL NOT NULL,
    "hottest_C" REAL, "coldest_C" REAL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "mount_outcome" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED, "kind" TEXT NOT NULL,
    "happened" INTEGER NOT NULL, "at" TEXT, "coldest_C" REAL, "cycles" REAL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "drift_rules" (
    id INTEGER PRIMARY KEY,
    "bench" INTEGER NOT NULL REFERENCES "bench"(id) DEFERRABLE INITIALLY DEFERRED,
    "threshold_K" REAL NOT NULL, "same_within_K" REAL NOT NULL, "settled_within_K" REAL NOT NULL,
    "usual_years" REAL, "hands_min" REAL, "hour_rate" REAL, "currency" TEXT NOT NULL) STRICT;
INSERT INTO sequence VALUES (1);
)sql";

} // namespace ibuki
