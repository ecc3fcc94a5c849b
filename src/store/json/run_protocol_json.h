// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The steps of a recording as a file (docs/cli.md, "record").

#include "core/domain/plan.h"
#include "core/domain/study.h"

#include <string>
#include <vector>

namespace ibuki {

struct RunProtocol {
    std::vector<Load> loads;                        ///< with ids of their own, from 1
    std::vector<std::vector<std::string>> commands; ///< of each load; empty: none
    std::vector<ProtocolStep> steps;
};

/// Throws InputError (file-missing, json-invalid, json-field).
RunProtocol readRunProtocol(const std::string& file);

} // namespace ibuki
