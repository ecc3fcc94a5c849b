// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/run_protocol_json.h"

#include "core/domain/words.h"
#include "store/json/json_fields.h"
#include "store/json/simulate_json.h"

#include <nlohmann/json.hpp>

namespace ibuki {
namespace {

using PlainJson = nlohmann::json;

constexpr double mostMinutes = 100'000;
constexpr std::size_t mostSteps = 1'000;

constexpr JsonFieldErrors protocolFields{"docs/cli.md, \"record\""};

/// The words of an enumeration with their values.
template <class Choice> std::vector<std::pair<std::string, Choice>> wordsOf() {
    std::vector<std::pair<std::string, Choice>> words;
    for (std::size_t i = 0; i < Words<Choice>::all.size(); ++i)
        words.emplace_back(Words<Choice>::all.at(i), static_cast<Choice>(i));
    return words;
}

std::vector<std::string> commandIn(JsonFields& fields) {
    std::vector<std::string> command;
    fields.each("command", mostSteps, [&](const PlainJson& word, const std::string&) {
        if (!word.is_string() || word.get_ref<const std::string&>().find('\0') != std::string::npos)
            fields.refuse("json-field.command", "command");
        command.push_back(word.get<std::string>());
    });
    if (!command.empty() && command.front().empty()) fields.refuse("json-field.command", "command");
    return command;
}

ProtocolStep stepIn(JsonFields fields, const std::vector<Load>& loads) {
    ProtocolStep step;
    const auto kind = fields.takeWord<StepKind>("kind", wordsOf<StepKind>());
    if (!kind) fields.refuse("json-field.missing", "kind");
    step.kind = *kind;
    std::vector<std::pair<std::string, Id<Load>>> names;
    for (const Load& load : loads) names.emplace_back(load.name, load.id);
    step.load = fields.takeWord<Id<Load>>("load", names);
    fields.take("minutes", step.minutes, NumberRange{0, mostMinutes});
    if (const auto gate = fields.takeWord<GateKind>("gate", wordsOf<GateKind>())) step.gate = *gate;
    fields.take("gate_value", step.gateValue, NumberRange{0, 1e6});
    fields.finish();
    return step;
}

void loadIn(JsonFields fields, RunProtocol& protocol) {
    Load load;
    load.id = Id<Load>{static_cast<std::int64_t>(protocol.loads.size()) + 1};
    load.name = fields.needText("name");
    std::optional<double> power;
    fields.take("power_W", power, NumberRange{0, 1e6});
    if (power) load.target = Watt{*power};
    protocol.loads.push_back(std::move(load));
    protocol.commands.push_back(commandIn(fields));
    fields.finish();
}

} // namespace

RunProtocol readRunProtocol(const std::string& file) {
    const PlainJson json = readJsonFile(file);
    JsonFields fields(json, file, protocolFields);
    RunProtocol protocol;
    fields.each("loads", mostSteps, [&](const PlainJson& one, const std::string& at) {
        loadIn({one, file, protocolFields, at}, protocol);
    });
    fields.each("steps", mostSteps, [&](const PlainJson& one, const std::string& at) {
        protocol.steps.push_back(stepIn({one, file, protocolFields, at}, protocol.loads));
    });
    fields.finish();
    if (protocol.steps.empty()) fields.refuse("json-field.missing", "steps");
    for (std::size_t i = 0; i < protocol.steps.size(); ++i) protocol.steps[i].position = static_cast<int>(i);
    return protocol;
}

} // namespace ibuki
