// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/weights_json.h"

#include "core/base/input_error.h"
#include "store/json/simulate_json.h"

#include <nlohmann/json.hpp>

namespace ibuki {

std::string_view criterionColumn(Criterion criterion) {
    static constexpr std::array<std::string_view, criteria> names{
        "delta_K", "price_per_application", "ease", "cleanup", "lifetime_y", "safety"};
    return names[static_cast<std::size_t>(criterion)];
}

Weights readWeights(const std::filesystem::path& path) {
    const nlohmann::json json = readJsonFile(path);
    const auto refuse = [&](const std::string& field) {
        throw InputError("weights", {path.string(), {}, {}}, {{"field", field}});
    };
    if (!json.is_object()) refuse("{}");
    Weights weights{};
    for (const auto& [name, value] : json.items()) {
        std::size_t place = 0;
        while (place < criteria && criterionColumn(static_cast<Criterion>(place)) != name) ++place;
        if (place == criteria || !value.is_number()) refuse(name);
        weights[place] = value.get<double>();
    }
    return weights;
}

} // namespace ibuki
