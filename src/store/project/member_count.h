// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Holds how many members a plain struct has: a structured binding of another number does not compile.

#include <cstddef>

namespace ibuki {

template <std::size_t n, class E> constexpr void hasMembers(const E& entity) {
    if constexpr (n == 3) {
        [[maybe_unused]] const auto& [m0, m1, m2] = entity;
    } else if constexpr (n == 4) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3] = entity;
    } else if constexpr (n == 5) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4] = entity;
    } else if constexpr (n == 6) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5] = entity;
    } else if constexpr (n == 7) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6] = entity;
    } else if constexpr (n == 8) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7] = entity;
    } else if constexpr (n == 9) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8] = entity;
    } else if constexpr (n == 10) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9] = entity;
    } else if constexpr (n == 11) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10] = entity;
    } else if constexpr (n == 12) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11] = entity;
    } else if constexpr (n == 13) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12] = entity;
    } else if constexpr (n == 14) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13] = entity;
    } else if constexpr (n == 15) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14] =
            entity;
    } else if constexpr (n == 16) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15] =
            entity;
    } else if constexpr (n == 17) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16] = entity;
    } else if constexpr (n == 18) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17] = entity;
    } else if constexpr (n == 19) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18] = entity;
    } else if constexpr (n == 20) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18, m19] = entity;
    } else if constexpr (n == 21) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18, m19, m20] = entity;
    } else if constexpr (n == 22) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18, m19, m20, m21] = entity;
    } else if constexpr (n == 23) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18, m19, m20, m21, m22] = entity;
    } else if constexpr (n == 24) {
        [[maybe_unused]] const auto& [m0, m1, m2, m3, m4, m5, m6, m7, m8, m9, m10, m11, m12, m13, m14, m15,
                                      m16, m17, m18, m19, m20, m21, m22, m23] = entity;
    } else
        static_assert(n < 3, "write one more line above");
}

} // namespace ibuki
