// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/formats/format_steps.h"

namespace ibuki {

// Format 5: a question may name the load whose runs it compares.
const char* const format5 = R"sql(
ALTER TABLE "question" ADD COLUMN "load" TEXT NOT NULL DEFAULT '';
)sql";

} // namespace ibuki
