// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/ageing_model.h"

#include <cmath>

namespace ibuki {

std::string_view ageingModelName(AgeingModel model) {
    static constexpr std::array<std::string_view, ageingModels.size()> names{
        "constant", "linear", "sqrt", "log", "exponential", "hyperbolic"};
    return names.at(static_cast<std::size_t>(model));
}

bool endsSomewhere(AgeingModel model) {
    return model == AgeingModel::exponential || model == AgeingModel::hyperbolic;
}

double ageingShape(AgeingModel model, double t, double tau) {
    switch (model) {
    case AgeingModel::constant:
        return 0;
    case AgeingModel::linear:
        return t;
    case AgeingModel::squareRoot:
        return std::sqrt(t);
    case AgeingModel::logarithmic:
        return std::log1p(t);
    case AgeingModel::exponential:
        return -std::expm1(-t / tau);
    case AgeingModel::hyperbolic:
        return t / (t + tau);
    }
    return 0;
}

double ageingShapeByTau(AgeingModel model, double t, double tau) {
    if (model == AgeingModel::exponential) return -t / (tau * tau) * std::exp(-t / tau);
    if (model == AgeingModel::hyperbolic) return -t / ((t + tau) * (t + tau));
    return 0;
}

} // namespace ibuki
