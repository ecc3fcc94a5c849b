// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/message_json.h"

#include "core/base/input_error.h"
#include "store/json/json_limits.h"
#include "words/words.h"

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

Json valueJson(const Message::Field::Value& value) {
    return std::visit(
        []<class T>(const T& known) -> Json {
            if constexpr (std::is_same_v<T, Term>) {
                return {{"term", known.word}};
            } else if constexpr (std::is_same_v<T, std::vector<Message>>) {
                Json list = Json::array();
                for (const Message& message : known) list.push_back(toJson(message));
                return list;
            } else {
                return known;
            }
        },
        value);
}

Message::Field::Value valueFrom(const Json& json) {
    if (json.is_string()) return json.get<std::string>();
    if (json.is_number_integer()) return json.get<std::int64_t>();
    if (json.is_number()) return json.get<double>();
    if (json.is_null()) return std::numeric_limits<double>::quiet_NaN(); // JSON has no word for it
    if (json.is_object()) return Term(json.at("term").get<std::string>());
    if (!json.empty() && json.front().is_object()) {
        std::vector<Message> messages;
        for (const Json& message : json) messages.push_back(messageFromJson(message));
        return messages;
    }
    return json.get<std::vector<std::string>>();
}

void tell(Json& flags) {
    for (Json& flag : flags)
        if (flag.contains("message") && flag["message"].is_object())
            flag["message"] = words::text(messageFromJson(flag["message"]));
}

} // namespace

Json toJson(const Message& message) {
    Json fields = Json::object();
    for (const Message::Field& field : message.fields) fields[field.name] = valueJson(field.value);
    return {{"code", message.code}, {"fields", std::move(fields)}};
}

Message messageFromJson(const Json& json) {
    Message message;
    message.code = json.at("code").get<std::string>();
    for (const auto& [name, value] : json.at("fields").items()) {
        Message::Field field(name, "");
        field.value = valueFrom(value);
        message.fields.push_back(std::move(field));
    }
    return message;
}

std::string messageText(const Message& message) {
    return message.code.empty() ? std::string()
                                : toJson(message).dump(-1, ' ', false, Json::error_handler_t::replace);
}

Message messageFromText(const std::string& text) {
    if (text.empty()) return {};
    const auto json = soundJson(text);
    if (!json) throw InputError("project-damaged.message", {}, {{"reason", "no JSON"}});
    try {
        return messageFromJson(*json);
    } catch (const nlohmann::json::exception& error) {
        throw InputError("project-damaged.message", {}, {{"reason", error.what()}});
    }
}

Json storedJson(const std::vector<Flag>& flags) {
    Json array = Json::array();
    for (const Flag& flag : flags)
        array.push_back({{"code", flag.code},
                         {"severity", severityName(flag.severity)},
                         {"message", toJson(flag.message)}});
    return array;
}

std::vector<Flag> flagsFromJson(const Json& json) {
    std::vector<Flag> flags;
    for (const Json& flag : json) {
        Severity severity = Severity::info;
        for (Severity candidate : {Severity::warn, Severity::reject})
            if (flag.at("severity") == severityName(candidate)) severity = candidate;
        flags.push_back({flag.at("code"), severity, messageFromJson(flag.at("message"))});
    }
    return flags;
}

Json reported(Json json) {
    if (json.is_object() || json.is_array())
        for (auto& [name, value] : json.items()) {
            if (json.is_object() && name == "flags") tell(value);
            value = reported(std::move(value));
        }
    return json;
}

} // namespace ibuki
