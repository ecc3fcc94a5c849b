// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/weights_json.h"

#include "store/json/json_fields.h"
#include "store/json/simulate_json.h"

#include <nlohmann/json.hpp>

namespace ibuki {

Weights readWeights(const std::filesystem::path& path) {
    const nlohmann::json json = readJsonFile(path);
    const std::string file = path.string();
    JsonFields fields(json, file, {"docs/cli.md, \"value\""});
    Weights weights{};
    for (std::size_t c = 0; c < criteria; ++c)
        fields.take(criterionColumn(static_cast<Criterion>(c)).data(), weights[c], notNegative);
    fields.finish();
    return weights;
}

} // namespace ibuki
