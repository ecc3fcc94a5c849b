// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Tables know names only: each gets an id.

#include "core/comparison/compare.h"

#include <map>

namespace ibuki {

/// Gives each name an id of its own, in order of first appearance.
class Naming {
public:
    Named operator()(const std::string& name) {
        const auto id = static_cast<std::int64_t>(ids_.size()) + 1;
        return {ids_.try_emplace(name, id).first->second, name};
    }

private:
    std::map<std::string, std::int64_t> ids_;
};

/// The rows of one table as the comparison reads them.
class RunNaming {
public:
    Named group(const std::string& name) { return groups_(name); }
    RunValue operator()(const TableRun& run) {
        RunValue named;
        named.group = groups_(run.group);
        named.mount = mounts_(run.mount);
        named.value = run.value;
        named.censored = run.censored;
        named.block = blocks_(run.block);
        named.order = run.order;
        named.covariate = run.covariate;
        return named;
    }

private:
    Naming groups_;
    Naming mounts_;
    Naming blocks_;
};

} // namespace ibuki
