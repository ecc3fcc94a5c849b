// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/rows.h"

#include "store/project/cell.h"
#include "store/project/schema.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <type_traits>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

/// Calls visitor(column) for every column of E.
template <class E, class Visitor> void eachColumn(Visitor&& visitor) {
    std::apply([&](const auto&... columns) { (visitor(columns), ...); }, Schema<E>::columns);
}

template <class E, class T> std::string columnSql(const Column<E, T>& column) {
    std::string sql = fmt::format("\"{}\" {}", column.name, CellType<T>::sql);
    using To = typename Refers<T>::To;
    if constexpr (!std::is_void_v<To>)
        sql += fmt::format(" REFERENCES \"{}\"(id) DEFERRABLE INITIALLY DEFERRED", Schema<To>::table);
    return sql;
}

template <class E> std::string tableSql() {
    std::string sql = fmt::format("CREATE TABLE \"{}\" (id INTEGER PRIMARY KEY", Schema<E>::table);
    eachColumn<E>([&](const auto& column) { sql += ", " + columnSql(column); });
    return sql + ") STRICT";
}

template <class E> std::string columnNames() {
    std::string names = "id";
    eachColumn<E>([&](const auto& column) { names += fmt::format(", \"{}\"", column.name); });
    return names;
}

Cell cellOf(const SQLite::Column& column) {
    if (column.isNull()) return {};
    if (column.isInteger()) return column.getInt64();
    if (column.isFloat()) return column.getDouble();
    if (column.isBlob())
        return Bytes(std::string(static_cast<const char*>(column.getBlob()),
                                 static_cast<std::size_t>(column.getBytes())));
    return column.getString();
}

void bindCell(SQLite::Statement& statement, int index, const Cell& cell) {
    std::visit(
        [&](const auto& value) {
            if constexpr (std::is_same_v<std::decay_t<decltype(value)>, std::monostate>)
                statement.bind(index);
            else if constexpr (std::is_same_v<std::decay_t<decltype(value)>, Bytes>)
                statement.bind(index, value.content().data(), static_cast<int>(value.content().size()));
            else
                statement.bind(index, value);
        },
        cell);
}

template <class E> void readTable(SQLite::Database& database, Document& document) {
    SQLite::Statement query(database,
                            fmt::format("SELECT {} FROM \"{}\"", columnNames<E>(), Schema<E>::table));
    while (query.executeStep()) {
        E entity;
        entity.id = {query.getColumn(0).getInt64()};
        int index = 1;
        eachColumn<E>([&]<class T>(const Column<E, T>& column) {
            entity.*column.member = CellType<T>::from(cellOf(query.getColumn(index++)));
        });
        document.put(entity);
    }
}

template <class E> void writeRow(SQLite::Database& database, const E& entity) {
    std::string marks = "?";
    eachColumn<E>([&](const auto&) { marks += ", ?"; });
    std::string updates;
    eachColumn<E>([&](const auto& column) {
        updates +=
            fmt::format("{}\"{}\" = excluded.\"{}\"", updates.empty() ? "" : ", ", column.name, column.name);
    });
    SQLite::Statement statement(
        database, fmt::format("INSERT INTO \"{}\" ({}) VALUES ({}) ON CONFLICT(id) DO UPDATE SET {}",
                              Schema<E>::table, columnNames<E>(), marks, updates));
    statement.bind(1, entity.id.value);
    int index = 2;
    eachColumn<E>([&]<class T>(const Column<E, T>& column) {
        bindCell(statement, index++, CellType<T>::to(entity.*column.member));
    });
    statement.exec();
}

template <class E> void deleteRow(SQLite::Database& database, Id<E> id) {
    SQLite::Statement statement(database, fmt::format("DELETE FROM \"{}\" WHERE id = ?", Schema<E>::table));
    statement.bind(1, id.value);
    statement.exec();
}

Json jsonOf(const Cell& cell) {
    return std::visit(
        [](const auto& value) -> Json {
            if constexpr (std::is_same_v<std::decay_t<decltype(value)>, std::monostate>)
                return nullptr;
            else if constexpr (std::is_same_v<std::decay_t<decltype(value)>, Bytes>)
                return fmt::format("({} bytes)", value.content().size());
            else
                return value;
        },
        cell);
}

/// Members of `entity`, only those that differ from `other` when there is one.
template <class E> Json membersOf(const E& entity, const E* other) {
    Json json = Json::object();
    eachColumn<E>([&]<class T>(const Column<E, T>& column) {
        if (other && entity.*column.member == other->*column.member) return;
        if constexpr (std::is_same_v<T, Reduction>)
            json[column.name] = "(reduced anew)";
        else
            json[column.name] = jsonOf(CellType<T>::to(entity.*column.member));
    });
    return json;
}

template <class E> Json describeChange(const E& known, const Change& change) {
    const E* before = change.before ? std::get_if<E>(&*change.before) : nullptr;
    const E* after = change.after ? std::get_if<E>(&*change.after) : nullptr;
    return {{"table", Schema<E>::table},
            {"id", known.id.value},
            {"before", before ? membersOf(*before, after) : Json(nullptr)},
            {"after", after ? membersOf(*after, before) : Json(nullptr)}};
}

} // namespace

namespace {

std::string literal(const Cell& cell) {
    if (const auto* text = std::get_if<std::string>(&cell)) return fmt::format("'{}'", *text);
    if (const auto* whole = std::get_if<std::int64_t>(&cell)) return fmt::format("{}", *whole);
    if (const auto* number = std::get_if<double>(&cell)) return fmt::format("{}", *number);
    return "NULL";
}

template <class E> void addMissing(SQLite::Database& database) {
    if (!database.tableExists(Schema<E>::table)) {
        database.exec(tableSql<E>());
        return;
    }
    const E fresh;
    eachColumn<E>([&]<class T>(const Column<E, T>& column) {
        if (hasColumn(database, Schema<E>::table, column.name)) return;
        std::string sql =
            fmt::format("ALTER TABLE \"{}\" ADD COLUMN {}", Schema<E>::table, columnSql(column));
        if (std::string_view(CellType<T>::sql).ends_with("NOT NULL"))
            sql += " DEFAULT " + literal(CellType<T>::to(fresh.*column.member));
        database.exec(sql);
    });
}

} // namespace

bool hasColumn(SQLite::Database& database, const std::string& table, const std::string& column) {
    SQLite::Statement query(database, "SELECT count(*) FROM pragma_table_info(?) WHERE name = ?");
    query.bind(1, table);
    query.bind(2, column);
    query.executeStep();
    return query.getColumn(0).getInt() > 0;
}

void addMissingColumns(SQLite::Database& database) {
    Entities::each([&]<class E>() { addMissing<E>(database); });
}

std::vector<std::string> entityTables() {
    std::vector<std::string> statements;
    Entities::each([&]<class E>() { statements.push_back(tableSql<E>()); });
    return statements;
}

Document readDocument(SQLite::Database& database) {
    Document document;
    Entities::each([&]<class E>() { readTable<E>(database, document); });
    return document;
}

void writeChanges(SQLite::Database& database, const std::vector<Change>& changes) {
    for (const Change& change : changes) {
        if (change.after)
            std::visit([&](const auto& entity) { writeRow(database, entity); }, *change.after);
        else if (change.before)
            std::visit([&](const auto& entity) { deleteRow(database, entity.id); }, *change.before);
    }
}

Json describe(const std::vector<Change>& changes) {
    Json json = Json::array();
    for (const Change& change : changes) {
        const Entity& known = change.after ? *change.after : *change.before;
        json.push_back(std::visit([&](const auto& entity) { return describeChange(entity, change); }, known));
    }
    return json;
}

} // namespace ibuki
