// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/migrations.h"

#include "store/project/formats/format_steps.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <cassert>
#include <fmt/format.h>
#include <iterator>

namespace ibuki {
namespace {

struct Step {
    void (*before)(SQLite::Database&); ///< what statements alone cannot do; nullptr: nothing
    const char* const* statements;
};

/// steps[n] leads from format n to format n + 1.
constexpr Step steps[] = {{nullptr, &format1},       {nullptr, &format2},  {nullptr, &format3},
                          {nullptr, &format4},       {nullptr, &format5},  {beforeFormat6, &format6},
                          {beforeFormat7, &format7}, {nullptr, &format8},  {nullptr, &format9},
                          {nullptr, &format10},      {nullptr, &format11}, {nullptr, &format12},
                          {nullptr, &format13}};
static_assert(std::size(steps) == newestFormat);

} // namespace

void migrate(SQLite::Database& database, int from) {
    assert(from >= 0 && from <= newestFormat);
    SQLite::Transaction transaction(database);
    for (int version = from; version < newestFormat; ++version) {
        if (steps[version].before) steps[version].before(database);
        database.exec(*steps[version].statements);
    }
    database.exec(fmt::format("PRAGMA user_version = {}", newestFormat));
    transaction.commit();
}

} // namespace ibuki
