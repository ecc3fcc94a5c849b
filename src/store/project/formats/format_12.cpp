// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 12: looks at a joint after the cooler came off, with their pictures and masks.
const char* const format12 = R"sql(
CREATE TABLE "joint_look" (
    id INTEGER PRIMARY KEY,
    "mount" INTEGER NOT NULL REFERENCES "mount"(id) DEFERRABLE INITIALLY DEFERRED,
    "site" INTEGER NOT NULL REFERENCES "site"(id) DEFERRABLE INITIALLY DEFERRED,
    "at" TEXT, "spread" INTEGER NOT NULL, "dry" INTEGER NOT NULL, "cracked" INTEGER NOT NULL,
    "torn" INTEGER NOT NULL, "slipped" INTEGER NOT NULL, "overhung" INTEGER NOT NULL,
    "pumped_out" INTEGER NOT NULL, "residue" INTEGER NOT NULL, "stained" INTEGER NOT NULL,
    "bowed" INTEGER NOT NULL, "imprint_uneven" INTEGER NOT NULL, "came_off" TEXT NOT NULL, "effort" INTEGER,
    "clean_min" REAL, "wipes" INTEGER, "damage" TEXT NOT NULL, "join_sides" TEXT NOT NULL,
    "rejects" INTEGER NOT NULL, "figure_known" INTEGER NOT NULL, "note" TEXT NOT NULL) STRICT;
CREATE TABLE "joint_picture" (
    id INTEGER PRIMARY KEY,
    "look" INTEGER NOT NULL REFERENCES "joint_look"(id) DEFERRABLE INITIALLY DEFERRED,
    "side" TEXT NOT NULL, "file_name" TEXT NOT NULL, "sha256" TEXT NOT NULL, "bytes" INTEGER NOT NULL,
    "width_px" INTEGER NOT NULL, "height_px" INTEGER NOT NULL, "corners_px" TEXT, "face_width_mm" REAL,
    "face_length_mm" REAL, "threshold" REAL, "mask_sha256" TEXT NOT NULL, "covered" REAL, "covered_low" REAL,
    "covered_high" REAL, "outside_mm2" REAL, "film_lightness" REAL, "film_a" REAL, "film_b" REAL,
    "flags" TEXT NOT NULL) STRICT;
)sql";

} // namespace ibuki
