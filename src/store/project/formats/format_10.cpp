// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 10: whose hands made a mount; the response that a question was frozen with, what it takes out of its
// comparison, how its levels scatter, and what matters in the responses beside its own; what a material
// resists.
const char* const format10 = R"sql(
ALTER TABLE "mount" ADD COLUMN "mounted_by" TEXT NOT NULL DEFAULT '';
ALTER TABLE "question" ADD COLUMN "block_by" TEXT;
ALTER TABLE "question" ADD COLUMN "order_taken_out" INTEGER NOT NULL DEFAULT 0;
ALTER TABLE "question" ADD COLUMN "covariate" TEXT;
ALTER TABLE "question" ADD COLUMN "spread" TEXT NOT NULL DEFAULT 'shared';
ALTER TABLE "question" ADD COLUMN "fixed_metric" TEXT;
ALTER TABLE "question" ADD COLUMN "fixed_reference" TEXT;
ALTER TABLE "question" ADD COLUMN "fixed_normalisation" TEXT;
ALTER TABLE "material" ADD COLUMN "stated_mm2K_per_W" REAL;
CREATE TABLE "side_margin" (
    id INTEGER PRIMARY KEY,
    "question" INTEGER NOT NULL REFERENCES "question"(id) DEFERRABLE INITIALLY DEFERRED,
    "response" TEXT NOT NULL, "name" TEXT NOT NULL, "margin" REAL NOT NULL) STRICT;
)sql";

} // namespace ibuki
