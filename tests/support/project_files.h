// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Project files as tests ask of them: whether two documents are the same, and with which code something is
// refused.

#include "core/base/input_error.h"
#include "core/domain/document.h"

#include <QString>
#include <functional>

namespace ibuki::story {

inline QString codeOf(const std::function<void()>& action) {
    try {
        action();
        return "nothing thrown";
    } catch (const InputError& error) {
        return QString::fromStdString(error.code);
    }
}

template <class E> bool sameTable(const Document& a, const Document& b) { return a.all<E>() == b.all<E>(); }
inline bool same(const Document& a, const Document& b) {
    bool equal = a.nextId == b.nextId;
    Entities::each([&]<class E>() { equal = equal && sameTable<E>(a, b); });
    return equal;
}

} // namespace ibuki::story
