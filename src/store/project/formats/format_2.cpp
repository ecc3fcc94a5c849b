// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 2, the shelf: yes/no answers that may be unstated, a lot's condition and unit as words.
const char* const format2 = R"sql(
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
    "file_name" TEXT NOT NULL, "data" BLOB NOT NULL) STRICT;
CREATE TABLE "offcut" (
    id INTEGER PRIMARY KEY, "lot" INTEGER NOT NULL REFERENCES "lot"(id) DEFERRABLE INITIALLY DEFERRED,
    "width_mm" REAL NOT NULL, "length_mm" REAL NOT NULL, "used" INTEGER NOT NULL) STRICT;
CREATE TABLE "package" (
    id INTEGER PRIMARY KEY,
    "material" INTEGER NOT NULL REFERENCES "material"(id) DEFERRABLE INITIALLY DEFERRED,
    "content" REAL NOT NULL, "unit" TEXT NOT NULL, "price" REAL NOT NULL, "currency" TEXT NOT NULL,
    "note" TEXT NOT NULL) STRICT;
ALTER TABLE "application" ADD COLUMN "syringe_before_g" REAL;
ALTER TABLE "application" ADD COLUMN "syringe_after_g" REAL;
ALTER TABLE "application" ADD COLUMN "area_mm2" REAL;
ALTER TABLE "application" ADD COLUMN "spreads" INTEGER;
ALTER TABLE "application" ADD COLUMN "stays_put" INTEGER;
ALTER TABLE "application" ADD COLUMN "comes_off" INTEGER;
ALTER TABLE "application" ADD COLUMN "cleans_up" INTEGER;
ALTER TABLE "configuration" ADD COLUMN "pins_on_chip" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "configuration" ADD COLUMN "mount_force_N" REAL;
ALTER TABLE "configuration" ADD COLUMN "plate_thickness_mm" REAL;
ALTER TABLE "configuration" ADD COLUMN "plate_radius_mm" REAL;
ALTER TABLE "lot" ADD COLUMN "opened_condition" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "lot" ADD COLUMN "taken_before" REAL NOT NULL DEFAULT 0;
ALTER TABLE "lot" ADD COLUMN "sheet_width_mm" REAL;
ALTER TABLE "lot" ADD COLUMN "sheet_length_mm" REAL;
ALTER TABLE "material" ADD COLUMN "bond_line_um" REAL;
ALTER TABLE "material" ADD COLUMN "yield_Pa" REAL;
ALTER TABLE "material" ADD COLUMN "viscosity_Pas" REAL;
ALTER TABLE "material" ADD COLUMN "modulus_MPa" REAL;
ALTER TABLE "material" ADD COLUMN "coldest_C" REAL;
ALTER TABLE "material" ADD COLUMN "hottest_C" REAL;
ALTER TABLE "material" ADD COLUMN "conducts" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "material" ADD COLUMN "gallium" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "material" ADD COLUMN "used_again" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "material" ADD COLUMN "conditioning_cycles" INTEGER;
ALTER TABLE "material" ADD COLUMN "conditioning_low_C" REAL;
ALTER TABLE "material" ADD COLUMN "conditioning_high_C" REAL;
ALTER TABLE "material" ADD COLUMN "conditioning_rest_h" REAL;
ALTER TABLE "material" ADD COLUMN "reapply_years" REAL;
ALTER TABLE "site" ADD COLUMN "contacts_near" TEXT NOT NULL DEFAULT 'not stated';
ALTER TABLE "site" ADD COLUMN "aluminium_near" TEXT NOT NULL DEFAULT 'not stated';
-- A "no" of format 1 was only an unticked box.
UPDATE material SET conducts = 'yes' WHERE conducts_electricity = 1;
UPDATE material SET gallium = 'yes' WHERE contains_gallium = 1;
UPDATE material SET used_again = 'yes' WHERE reusable = 1;
UPDATE site SET contacts_near = 'yes' WHERE exposed_contacts = 1;
-- What has no word of its own now goes to the remarks, so that nothing is lost.
UPDATE lot SET opened_condition = CASE WHEN condition LIKE '%oil%' THEN 'oily'
    WHEN condition LIKE '%crack%' THEN 'cracked' WHEN condition LIKE '%dry%' THEN 'dry'
    WHEN condition = 'even' THEN 'even' ELSE 'not stated' END,
    note = CASE WHEN condition IN ('', 'even', 'oily', 'dry', 'cracked') THEN note
    ELSE trim(condition || '. ' || note) END;
ALTER TABLE material DROP COLUMN conducts_electricity;
ALTER TABLE material DROP COLUMN contains_gallium;
ALTER TABLE material DROP COLUMN reusable;
ALTER TABLE site DROP COLUMN exposed_contacts;
ALTER TABLE lot DROP COLUMN condition;
UPDATE lot SET content_unit = 'mm²' WHERE content_unit IN ('mm2', 'mm^2', 'sq mm');
UPDATE lot SET content_unit = 'mL' WHERE content_unit IN ('ml', 'cc');
UPDATE lot SET content_unit = 'g' WHERE content_unit IN ('', 'gram', 'grams');
UPDATE lot SET content_unit = 'sheets' WHERE content_unit IN ('sheet', 'pcs');
UPDATE lot SET note = trim('content in ' || content_unit || '. ' || note), content_unit = 'g'
    WHERE content_unit NOT IN ('g', 'mL', 'mm²', 'sheets');
-- Mounts did not take from a lot before: what was stated as remaining still is.
UPDATE lot SET taken_before = coalesce((SELECT sum(amount_g) FROM application
    WHERE application.lot = lot.id), 0) WHERE remaining IS NOT NULL AND content_unit = 'g';
)sql";

} // namespace ibuki
