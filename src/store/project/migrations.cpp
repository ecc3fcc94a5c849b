// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/migrations.h"

#include "store/project/formats/format_steps.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <array>
#include <cassert>
#include <fmt/format.h>

namespace ibuki {

std::span<const FormatStep> formatSteps() {
    static const std::array steps{FormatStep{nullptr, format1}};
    static_assert(std::tuple_size_v<decltype(steps)> == newestFormat);
    return steps;
}

void migrate(SQLite::Database& database, int from, std::span<const FormatStep> steps) {
    assert(from >= 0 && from <= static_cast<int>(steps.size()));
    SQLite::Transaction transaction(database);
    for (const FormatStep& step : steps.subspan(static_cast<std::size_t>(from))) {
        if (step.before) step.before(database);
        database.exec(step.statements);
    }
    database.exec(fmt::format("PRAGMA user_version = {}", steps.size()));
    transaction.commit();
}

} // namespace ibuki
