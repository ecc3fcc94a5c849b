// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/rows.h"

#include "core/base/input_error.h"
#include "core/domain/run_reduction.h"
#include "store/project/cell.h"
#include "store/project/columns.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <type_traits>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::int64_t mostRows = 2'000'000;
constexpr int mostTextBytes = 64 << 20;

Cell cellOf(const SQLite::Column& column) {
    if (column.isNull()) return {};
    if (column.isInteger()) return column.getInt64();
    if (column.isFloat()) return column.getDouble();
    if (column.isBlob()) throw InputError("project-damaged.bytes", {}); // files stand in a table of their own
    if (column.getBytes() > mostTextBytes) throw InputError("project-damaged.bytes", {});
    return column.getString();
}

void bindCell(SQLite::Statement& statement, int index, const Cell& cell) {
    std::visit(
        [&](const auto& value) {
            if constexpr (std::is_same_v<std::decay_t<decltype(value)>, std::monostate>)
                statement.bind(index);
            else
                statement.bind(index, value);
        },
        cell);
}

std::string columnNames(const TableInfo& table) {
    std::string names = "id";
    for (const ColumnInfo& column : table.columns) names += fmt::format(", \"{}\"", column.name);
    return names;
}

[[noreturn]] void refuse(const TableInfo& table, std::int64_t id, const ColumnInfo& column,
                         const InputError& error) {
    throw InputError("project-damaged.at-cell", error.where,
                     {{"wrong", error.message}, {"table", table.name}, {"column", column.name}, {"id", id}});
}

void readTable(SQLite::Database& database, const TableInfo& table, Document& document) {
    SQLite::Statement query(database,
                            fmt::format("SELECT {} FROM \"{}\" ORDER BY id", columnNames(table), table.name));
    for (std::int64_t rows = 0; query.executeStep();) {
        const std::int64_t id = query.getColumn(0).getInt64();
        if (id < 1 || id > mostId)
            throw InputError("project-damaged.id", {}, {{"table", table.name}, {"id", id}});
        if (++rows > mostRows) throw InputError("project-damaged.rows", {}, {{"table", table.name}});
        document.nextId = std::max(document.nextId, id + 1);
        const auto entity = table.fresh(id);
        int index = 1;
        for (const ColumnInfo& column : table.columns) {
            try {
                column.setChecked(entity.get(), cellOf(query.getColumn(index++)));
            } catch (const InputError& error) {
                refuse(table, id, column, error);
            }
        }
        document.put(Entity(table.kind, id, entity));
    }
}

const ColumnInfo& columnNamed(const TableInfo& table, std::string_view name) {
    return *std::find_if(table.columns.begin(), table.columns.end(),
                         [&](const ColumnInfo& column) { return column.name == name; });
}

/// Statements that write, one of each sort a table.
class Writer {
public:
    explicit Writer(SQLite::Database& database) : database_(database) {}

    void write(const Entity& entity) {
        const TableInfo& table = tableOf(entity.kind());
        SQLite::Statement& statement = prepared(upserts_, entity.kind(), [&] { return upsertSql(table); });
        statement.bind(1, entity.id());
        int index = 2;
        for (const ColumnInfo& column : table.columns)
            bindCell(statement, index++, column.get(entity.value().get()));
        statement.exec();
        statement.reset();
    }

    void remove(const Entity& entity) {
        SQLite::Statement& statement = prepared(deletes_, entity.kind(), [&] {
            return fmt::format("DELETE FROM \"{}\" WHERE id = ?", tableOf(entity.kind()).name);
        });
        statement.bind(1, entity.id());
        statement.exec();
        statement.reset();
    }

private:
    using Statements = std::map<EntityKind, SQLite::Statement>;

    template <class Sql> SQLite::Statement& prepared(Statements& among, EntityKind kind, Sql&& sql) {
        const auto found = among.find(kind);
        if (found != among.end()) return found->second;
        return among
            .emplace(std::piecewise_construct, std::forward_as_tuple(kind),
                     std::forward_as_tuple(database_, sql()))
            .first->second;
    }

    static std::string upsertSql(const TableInfo& table) {
        std::string marks = "?";
        std::string updates;
        for (const ColumnInfo& column : table.columns) {
            marks += ", ?";
            updates += fmt::format("{}\"{}\" = excluded.\"{}\"", updates.empty() ? "" : ", ", column.name,
                                   column.name);
        }
        return fmt::format("INSERT INTO \"{}\" ({}) VALUES ({}) ON CONFLICT(id) DO UPDATE SET {}", table.name,
                           columnNames(table), marks, updates);
    }

    SQLite::Database& database_;
    Statements upserts_;
    Statements deletes_;
};

Json jsonOf(const Cell& cell) {
    return std::visit(
        [](const auto& value) -> Json {
            if constexpr (std::is_same_v<std::decay_t<decltype(value)>, std::monostate>)
                return nullptr;
            else
                return value;
        },
        cell);
}

/// Members of `entity`, only those that differ from `other` when there is one.
Json membersOf(const TableInfo& table, const std::optional<Entity>& entity,
               const std::optional<Entity>& other) {
    if (!entity) return nullptr;
    Json json = Json::object();
    for (const ColumnInfo& column : table.columns) {
        if (other && column.equal(entity->value().get(), other->value().get())) continue;
        json[column.name] = column.form == CellForm::json ? Json("(reduced anew)")
                                                          : jsonOf(column.get(entity->value().get()));
    }
    return json;
}

} // namespace

void decodeAll(const Document& document, const std::stop_token& stopped) {
    for (const auto& [id, stored] : document.all<RunReduction>()) {
        if (stopped.stop_requested()) return;
        try {
            // A caution stands on the hottest: a column that says another than its reduction is damaged too.
            if (stored.reduction->hottestC != stored.hottestC) refuseCell("stored reduction");
        } catch (const InputError& error) {
            const TableInfo& table = tableOf(kindOf<RunReduction>);
            refuse(table, id.value, columnNamed(table, "reduction"), error);
        }
    }
}

Document readDocument(SQLite::Database& database) {
    Document document;
    for (const TableInfo& table : tables()) readTable(database, table, document);
    return document;
}

void writeChanges(SQLite::Database& database, const std::vector<Change>& changes) {
    Writer writer(database);
    for (const Change& change : changes) {
        if (change.after)
            writer.write(*change.after);
        else if (change.before)
            writer.remove(*change.before);
    }
}

Json describe(const std::vector<Change>& changes) {
    Json json = Json::array();
    for (const Change& change : changes) {
        const TableInfo& table = tableOf(change.known().kind());
        json.push_back({{"table", table.name},
                        {"id", change.known().id()},
                        {"before", membersOf(table, change.before, change.after)},
                        {"after", membersOf(table, change.after, change.before)}});
    }
    return json;
}

} // namespace ibuki
