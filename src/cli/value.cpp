// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/comparison/value_front.h"
#include "store/json/comparison_json.h"
#include "store/json/json_text.h"
#include "store/json/weights_json.h"
#include "store/table/table.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct ValueArguments {
    std::string table;
    std::string weights;
    bool json = false;
};

std::vector<ValueRow> readRows(const std::string& file) {
    const Table table = readTableFile(file);
    const std::size_t material = table.need("material");
    const std::size_t se = table.need("delta_se_K");
    std::array<std::optional<std::size_t>, criteria> columns;
    for (std::size_t c = 0; c < criteria; ++c) {
        const auto criterion = static_cast<Criterion>(c);
        const std::string name(criterionColumn(criterion));
        const bool due = criterion == Criterion::delta || criterion == Criterion::price;
        columns[c] = due ? std::optional(table.need(name)) : table.find(name);
    }
    std::vector<ValueRow> rows;
    for (std::size_t row = 0; row < table.rows(); ++row) {
        ValueRow one{table.text(row, material), {}, table.number(row, se)};
        for (std::size_t c = 0; c < criteria; ++c)
            if (columns[c] && !table.text(row, *columns[c]).empty())
                one.values[c] = table.number(row, *columns[c]);
        for (const Criterion due : {Criterion::delta, Criterion::price})
            if (!one.of(due)) (void)table.number(row, *columns[static_cast<std::size_t>(due)]); // says so
        rows.push_back(std::move(one));
    }
    return rows;
}

void print(std::ostream& out, const ValueFront& front, const std::vector<ValueRow>& rows) {
    fmt::print(out, "{:<20} {:>9} {:>9} {:>8} {:>8}  {}\n", "material", "delta K", "price", "score",
               "first %", "dominated by");
    for (std::size_t i = 0; i < rows.size(); ++i)
        fmt::print(out, "{:<20} {:>9.3f} {:>9.3f} {:>8} {:>8.1f}  {}\n", rows[i].material,
                   *rows[i].of(Criterion::delta), *rows[i].of(Criterion::price),
                   front.rows[i].score ? fmt::format("{:.3f}", *front.rows[i].score) : "-",
                   100 * front.rows[i].firstShare,
                   front.rows[i].dominatedBy ? rows[*front.rows[i].dominatedBy].material : "-");
    for (const Breakpoint& point : front.breakpoints)
        fmt::print(out, "{}\n",
                   words::say("From a weight of {weight:.3f} on temperature on {to} stands before {from}",
                              {{"weight", point.weightOnDelta},
                               {"to", rows[point.to].material},
                               {"from", rows[point.from].material}}));
}

void runValue(const ValueArguments& arguments, std::ostream& out) {
    const auto rows = readRows(arguments.table);
    const auto weights =
        arguments.weights.empty() ? std::nullopt : std::optional(readWeights(arguments.weights));
    ValueFront front;
    try {
        front = judgeValue(rows, weights);
    } catch (const InputError& error) {
        const bool ofWeights = error.code == "value-weight";
        throw InputError({ofWeights ? arguments.weights : arguments.table, {}, {}}, error.message);
    }
    if (arguments.json)
        out << jsonText(toJson(front, rows));
    else
        print(out, front, rows);
}

} // namespace

VerbBody addValue(Options options) {
    auto arguments = std::make_shared<ValueArguments>();
    options.add("TABLE", arguments->table, words::say("One row a material")).required();
    options.add("--weights", arguments->weights, words::say("Weights of the criteria (JSON)"));
    options.addJson(arguments->json);
    options.example("ibuki-cli value materials.csv --weights weights.json --json");
    return [arguments](std::ostream& out) { runValue(*arguments, out); };
}

} // namespace ibuki
