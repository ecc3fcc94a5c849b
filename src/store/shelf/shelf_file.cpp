// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/shelf/shelf_file.h"

#include "core/base/input_error.h"
#include "core/domain/material.h"
#include "core/shelf/shelf.h"
#include "store/json/json_limits.h"
#include "store/json/json_text.h"
#include "store/log/text.h"
#include "store/project/columns.h"
#include "store/table/table.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <functional>
#include <nlohmann/json.hpp>
#include <utility>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;
constexpr const char* jsonSchema = "ibuki-shelf-1";

template <class E> constexpr const char* prefix();
template <> constexpr const char* prefix<Material>() { return "material"; }
template <> constexpr const char* prefix<Lot>() { return "lot"; }

/// "name" is the thing itself, "note" stands in both tables.
template <class E> std::string columnName(const char* name) {
    const std::string_view plain(name);
    if (plain == "name") return prefix<E>();
    if (plain == "note") return std::string(prefix<E>()) + "_note";
    return name;
}

/// Every stored member except the reference of a lot to its material and bookkeeping.
template <class E> std::vector<ColumnInfo> fieldsOf() {
    std::vector<ColumnInfo> fields;
    for (const ColumnInfo& column : tableOf(kindOf<E>).columns)
        if (!column.refersTo && std::string_view(column.name) != "taken_before") fields.push_back(column);
    return fields;
}

std::string textOf(const Cell& cell) {
    if (const auto* text = std::get_if<std::string>(&cell)) {
        const std::string_view midnight = "T00:00:00.000";
        return text->ends_with(midnight) ? text->substr(0, text->size() - midnight.size()) : *text;
    }
    if (const auto* whole = std::get_if<std::int64_t>(&cell)) return fmt::format("{}", *whole);
    if (const auto* number = std::get_if<double>(&cell)) return fmt::format("{}", *number);
    return {};
}

/// The sentence that says what such a column may hold.
const char* complaintOf(const ColumnInfo& column) {
    switch (column.form) {
    case CellForm::number:
    case CellForm::whole:
        return "shelf-cell.number";
    case CellForm::date:
        return "shelf-cell.date";
    case CellForm::choice:
        return "shelf-cell.choice";
    default:
        return "shelf-cell.text";
    }
}

std::vector<std::string> wordsOf(const ColumnInfo& column) {
    return {column.words.begin(), column.words.end()};
}

/// A cell of the column's form from what stands in a field; nothing for text that does not fit.
std::optional<Cell> cellFrom(const ColumnInfo& column, const std::string& text) {
    if (column.sqlType() == "TEXT") return text.empty() && column.optional ? Cell{} : Cell{text};
    if (text.empty()) return Cell{};
    auto number = parseNumber(text, '.');
    if (!number) number = parseNumber(text, ',');
    if (!number || !std::isfinite(*number)) return std::nullopt;
    if (column.form == CellForm::number) return Cell{*number};
    if (*number != std::trunc(*number) || std::abs(*number) >= 1e9) return std::nullopt;
    return Cell{static_cast<std::int64_t>(*number)};
}

bool put(void* entity, const ColumnInfo& column, const std::string& text) {
    const auto cell = cellFrom(column, text);
    if (!cell || column.isTooLarge(*cell)) return false; // below zero the shelf says why it cannot be
    try {
        column.set(entity, *cell);
        return true;
    } catch (const InputError&) {
        return false;
    }
}

/// One row or object being read: hands out the text of a field, and says where it stands.
struct Source {
    std::function<std::optional<std::string>(const std::string& column)> text;
    std::function<InputError::Where(const std::string& column)> where;
};

template <class E> void readInto(E& entity, const Source& source) {
    for (const ColumnInfo& column : fieldsOf<E>()) {
        const std::string name = columnName<E>(column.name);
        const auto text = source.text(name);
        if (text && !put(&entity, column, *text))
            throw InputError(complaintOf(column), source.where(name),
                             {{"text", *text}, {"name", name}, {"words", wordsOf(column)}});
    }
}

/// What the forms of the window refuse, a file must not bring in either.
void checkMaterial(const Material& material) {
    const auto above = [](const auto& value) {
        if constexpr (requires { value->value; })
            return !value || value->value > 0;
        else
            return !value || *value > 0;
    };
    if (!above(material.thickness) || !above(material.densityGPerMl) || !above(material.bondLine))
        throw InputError("shelf-value.thickness", {});
    if (!above(material.modulusMPa) || !above(material.yieldPa) || !above(material.viscosityPaS)
        || !above(material.claimedConductivity) || !above(material.reapplyYears)
        || !above(material.statedMm2KPerW))
        throw InputError("shelf-value.stiffness", {});
    if (material.conditioningCycles && *material.conditioningCycles < 0)
        throw InputError("shelf-value.conditioning", {});
}

class Importer {
public:
    explicit Importer(Edit& edit) : edit_(edit) {}

    /// The material named in the row, as found or new, with the row's fields.
    Id<Material> material(const Source& source) {
        return take<Material>(
            source, [](Material&) {}, checkMaterial);
    }

    void lot(const Source& source, Id<Material> material) {
        take<Lot>(
            source, [material](Lot& lot) { lot.material = material; }, checkLot,
            [material](const Lot& lot) { return lot.material == material; });
    }

    const ShelfImport& result() const { return result_; }

private:
    template <class E>
    Id<E> take(
        const Source& source, const std::function<void(E&)>& prepare,
        const std::function<void(const E&)>& check,
        const std::function<bool(const E&)>& belongs = [](const E&) { return true; }) {
        const std::string name = source.text(prefix<E>()).value_or("");
        if (name.empty())
            throw InputError("shelf-name", source.where(prefix<E>()),
                             {{"kind", Term{prefix<E>()}}, {"column", prefix<E>()}});
        const E* found = nullptr;
        for (const E* known : edit_.document().template where(&E::name, name))
            if (belongs(*known)) found = known;
        E entity = found ? *found : E{};
        prepare(entity);
        readInto(entity, source);
        if constexpr (std::is_same_v<E, Lot>)
            if (found && entity.remaining != found->remaining) // counts from now: mounts took before
                entity.takenBefore = lotState(edit_.document(), *found, {}).taken;
        try {
            check(entity);
        } catch (const InputError& error) {
            throw InputError(source.where(prefix<E>()), error.message);
        }
        if (!found) {
            (std::is_same_v<E, Lot> ? result_.newLots : result_.newMaterials) += 1;
            return edit_.add(entity);
        }
        if (!(entity == *found)) {
            ++result_.changed;
            edit_.put(entity);
        }
        return entity.id;
    }

    Edit& edit_;
    ShelfImport result_;
};

template <class E> void collectNames(std::vector<std::string>& names) {
    for (const ColumnInfo& column : fieldsOf<E>()) names.push_back(columnName<E>(column.name));
}

std::vector<std::string> csvColumns() {
    std::vector<std::string> names;
    collectNames<Material>(names);
    collectNames<Lot>(names);
    return names;
}

template <class E> std::string fields(const E* entity) {
    std::string line;
    bool first = std::is_same_v<E, Material>;
    for (const ColumnInfo& column : fieldsOf<E>()) {
        if (!std::exchange(first, false)) line += ',';
        if (entity) line += csvField(textOf(column.get(entity)));
    }
    return line;
}

ShelfImport fromTable(Edit& edit, const Table& table, const std::string& fileName) {
    const auto known = csvColumns();
    for (std::size_t i = 0; i < table.columns().size(); ++i)
        if (std::find(known.begin(), known.end(), table.columns()[i]) == known.end())
            throw InputError("shelf-column", {fileName, 1, static_cast<long>(i + 1)},
                             {{"column", table.columns()[i]}});
    table.need("material");
    Importer importer(edit);
    for (std::size_t row = 0; row < table.rows(); ++row) {
        Source source;
        source.text = [&](const std::string& column) -> std::optional<std::string> {
            const auto index = table.find(column);
            return index ? std::optional(table.text(row, *index)) : std::nullopt;
        };
        source.where = [&](const std::string& column) {
            const auto index = table.find(column);
            return InputError::Where{fileName, table.line(row),
                                     index ? std::optional(static_cast<long>(*index + 1)) : std::nullopt};
        };
        const Id<Material> material = importer.material(source);
        if (!source.text("lot").value_or("").empty()) importer.lot(source, material);
    }
    return importer.result();
}

template <class E> Json jsonFields(const E& entity) {
    Json json = Json::object();
    for (const ColumnInfo& column : fieldsOf<E>()) {
        const Cell cell = column.get(&entity);
        if (const auto* number = std::get_if<double>(&cell))
            json[columnName<E>(column.name)] = *number;
        else if (const auto* whole = std::get_if<std::int64_t>(&cell))
            json[columnName<E>(column.name)] = *whole;
        else if (const std::string text = textOf(cell); !text.empty())
            json[columnName<E>(column.name)] = text;
    }
    return json;
}

template <class E> Source sourceOf(const Json& json, const std::string& fileName, const std::string& place) {
    if (!json.is_object())
        throw InputError("shelf-column.object", {fileName, {}, {}},
                         {{"place", place}, {"kind", prefix<E>()}});
    std::vector<std::string> known;
    collectNames<E>(known);
    for (const auto& [name, value] : json.items())
        if (name != "lots" && std::find(known.begin(), known.end(), name) == known.end())
            throw InputError("shelf-column.field", {fileName, {}, {}}, {{"place", place}, {"name", name}});
    Source source;
    source.text = [json](const std::string& name) -> std::optional<std::string> {
        if (!json.contains(name) || json[name].is_null()) return std::nullopt;
        return json[name].is_string() ? json[name].get<std::string>() : json[name].dump();
    };
    source.where = [fileName, place](const std::string& name) {
        return InputError::Where{fileName + ": " + place + ", " + name, {}, {}};
    };
    return source;
}

ShelfImport fromJson(Edit& edit, std::string_view bytes, const std::string& fileName) {
    const Json json = soundJson(bytes).value_or(Json());
    if (!json.is_object() || !json.contains("schema") || json["schema"] != jsonSchema
        || !json.contains("materials") || !json["materials"].is_array())
        throw InputError("shelf-column.schema", {fileName, {}, {}}, {{"jsonSchema", jsonSchema}});
    Importer importer(edit);
    std::size_t number = 0;
    for (const Json& entry : json["materials"]) {
        const std::string place = fmt::format("material {}", ++number);
        const Id<Material> material = importer.material(sourceOf<Material>(entry, fileName, place));
        if (!entry.contains("lots")) continue;
        if (!entry["lots"].is_array())
            throw InputError("shelf-column.lots", {fileName, {}, {}}, {{"place", place}});
        std::size_t lot = 0;
        for (const Json& inside : entry["lots"])
            importer.lot(sourceOf<Lot>(inside, fileName, fmt::format("{}, lot {}", place, ++lot)), material);
    }
    return importer.result();
}

/// With what is left by now in place of what was left when it was last weighed.
Lot asItStands(const Document& document, const Lot& lot) {
    Lot now = lot;
    now.remaining = lotState(document, lot, {}).left;
    return now;
}

} // namespace

std::string shelfCsv(const Document& document) {
    std::string text;
    for (const std::string& name : csvColumns()) text += (text.empty() ? "" : ",") + name;
    text += '\n';
    for (const auto& [id, material] : document.all<Material>()) {
        const auto lots = document.where(&Lot::material, id);
        if (lots.empty()) text += fields(&material) + fields<Lot>(nullptr) + '\n';
        for (const Lot* lot : lots) {
            const Lot now = asItStands(document, *lot);
            text += fields(&material) + fields(&now) + '\n';
        }
    }
    return text;
}

std::string shelfJson(const Document& document) {
    Json materials = Json::array();
    for (const auto& [id, material] : document.all<Material>()) {
        Json entry = jsonFields(material);
        entry["lots"] = Json::array();
        for (const Lot* lot : document.where(&Lot::material, id))
            entry["lots"].push_back(jsonFields(asItStands(document, *lot)));
        materials.push_back(entry);
    }
    return jsonText(Json{{"schema", jsonSchema}, {"materials", materials}});
}

ShelfImport importShelf(Edit& edit, std::string_view bytes, const std::string& fileName) {
    const auto first = bytes.find_first_not_of(" \t\r\n\xEF\xBB\xBF");
    if (first != std::string_view::npos && bytes[first] == '{')
        return fromJson(edit, bytes.substr(first), fileName);
    return fromTable(edit, readTable(bytes, fileName), fileName);
}

} // namespace ibuki
