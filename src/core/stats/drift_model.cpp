// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/drift_model.h"

#include <cmath>

namespace ibuki {

std::string_view driftModelName(DriftModel model) {
    static constexpr std::array<std::string_view, driftModels.size()> names{
        "constant", "linear", "sqrt", "log", "exponential", "hyperbolic"};
    return names.at(static_cast<std::size_t>(model));
}

bool endsSomewhere(DriftModel model) {
    return model == DriftModel::exponential || model == DriftModel::hyperbolic;
}

double driftShape(DriftModel model, double t, double tau) {
    switch (model) {
    case DriftModel::constant:
        return 0;
    case DriftModel::linear:
        return t;
    case DriftModel::squareRoot:
        return std::sqrt(t);
    case DriftModel::logarithmic:
        return std::log1p(t);
    case DriftModel::exponential:
        return -std::expm1(-t / tau);
    case DriftModel::hyperbolic:
        return t / (t + tau);
    }
    return 0;
}

double driftShapeByTau(DriftModel model, double t, double tau) {
    if (model == DriftModel::exponential) return -t / (tau * tau) * std::exp(-t / tau);
    if (model == DriftModel::hyperbolic) return -t / ((t + tau) * (t + tau));
    return 0;
}

} // namespace ibuki
