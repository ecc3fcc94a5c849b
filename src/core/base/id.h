// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Identity of a domain value inside one project. Zero means "not yet in a project"; ids are never reused.

#include <compare>
#include <cstdint>

namespace ibuki {

template <class Entity> struct Id {
    std::int64_t value = 0;

    explicit constexpr operator bool() const { return value != 0; }
    friend constexpr auto operator<=>(Id, Id) = default;
};

} // namespace ibuki
