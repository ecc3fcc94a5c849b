// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/run_protocol_json.h"

#include "core/base/input_error.h"
#include "core/domain/words.h"
#include "store/json/simulate_json.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

namespace ibuki {
namespace {

using PlainJson = nlohmann::json;

constexpr double mostMinutes = 100'000;
constexpr std::size_t mostSteps = 1'000;

struct Reader {
    std::string file;

    [[noreturn]] void refuse(const std::string& field) const {
        throw InputError("run-protocol", {file, {}, {}}, {{"field", field}});
    }
    void known(const PlainJson& json, std::initializer_list<std::string_view> names) const {
        if (!json.is_object()) refuse("{}");
        for (const auto& [name, value] : json.items())
            if (std::find(names.begin(), names.end(), name) == names.end()) refuse(name);
    }
    const PlainJson& list(const PlainJson& json, const char* field) const {
        static const PlainJson none = PlainJson::array();
        const auto at = json.find(field);
        if (at == json.end()) return none;
        if (!at->is_array() || at->size() > mostSteps) refuse(field);
        return *at;
    }
    std::string text(const PlainJson& json, const char* field) const {
        const auto at = json.find(field);
        if (at == json.end() || !at->is_string()) refuse(field);
        return at->get<std::string>();
    }
    double number(const PlainJson& json, const char* field, double otherwise, double most) const {
        const auto at = json.find(field);
        if (at == json.end() || at->is_null()) return otherwise;
        if (!at->is_number()) refuse(field);
        const double value = at->get<double>();
        if (!(value >= 0 && value <= most)) refuse(field);
        return value;
    }
};

std::vector<std::string> commandIn(const Reader& read, const PlainJson& json) {
    std::vector<std::string> command;
    for (const PlainJson& word : read.list(json, "command")) {
        if (!word.is_string() || word.get_ref<const std::string&>().find('\0') != std::string::npos)
            read.refuse("command");
        command.push_back(word.get<std::string>());
    }
    if (!command.empty() && command.front().empty()) read.refuse("command");
    return command;
}

ProtocolStep stepIn(const Reader& read, const PlainJson& json, const std::vector<Load>& loads) {
    read.known(json, {"kind", "load", "minutes", "gate", "gate_value"});
    ProtocolStep step;
    const auto kind = fromWord<StepKind>(read.text(json, "kind"));
    if (!kind) read.refuse("kind");
    step.kind = *kind;
    if (const auto load = json.find("load"); load != json.end() && !load->is_null()) {
        const std::string name = read.text(json, "load");
        const auto at =
            std::find_if(loads.begin(), loads.end(), [&](const Load& one) { return one.name == name; });
        if (at == loads.end()) read.refuse("load");
        step.load = at->id;
    }
    step.minutes = read.number(json, "minutes", 0, mostMinutes);
    if (const auto gate = json.find("gate"); gate != json.end() && !gate->is_null()) {
        const auto known = fromWord<GateKind>(read.text(json, "gate"));
        if (!known) read.refuse("gate");
        step.gate = *known;
    }
    step.gateValue = read.number(json, "gate_value", 0, 1e6);
    return step;
}

} // namespace

RunProtocol readRunProtocol(const std::string& file) {
    const Reader read{file};
    const PlainJson json = readJsonFile(file);
    read.known(json, {"loads", "steps"});
    RunProtocol protocol;
    for (const PlainJson& one : read.list(json, "loads")) {
        read.known(one, {"name", "power_W", "command"});
        Load load;
        load.id = Id<Load>{static_cast<std::int64_t>(protocol.loads.size()) + 1};
        load.name = read.text(one, "name");
        if (one.contains("power_W") && !one["power_W"].is_null())
            load.target = Watt{read.number(one, "power_W", 0, 1e6)};
        protocol.loads.push_back(std::move(load));
        protocol.commands.push_back(commandIn(read, one));
    }
    for (const PlainJson& one : read.list(json, "steps"))
        protocol.steps.push_back(stepIn(read, one, protocol.loads));
    if (protocol.steps.empty()) read.refuse("steps");
    for (std::size_t i = 0; i < protocol.steps.size(); ++i) protocol.steps[i].position = static_cast<int>(i);
    return protocol;
}

} // namespace ibuki
