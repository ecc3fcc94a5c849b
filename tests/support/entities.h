// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Domain values of which a test only cares for the name.

#include "core/domain/bench.h"
#include "core/domain/material.h"

namespace ibuki::story {

inline Bench benchNamed(const std::string& name) {
    Bench bench;
    bench.name = name;
    return bench;
}

inline Material materialNamed(const std::string& name) {
    Material material;
    material.name = name;
    return material;
}

inline Lot lotOf(Id<Material> material, const std::string& name) {
    Lot lot;
    lot.material = material;
    lot.name = name;
    return lot;
}

} // namespace ibuki::story
