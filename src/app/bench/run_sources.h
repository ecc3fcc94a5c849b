// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/domain/document.h"
#include "live/source.h"

namespace ibuki {

/// Specs of the bench's sources, in order.
std::vector<std::string> sourcesOf(const Document& document, Id<Bench> bench);

/// How a spec is told: "sensors of this machine", "the log run.csv".
std::string sourceTitle(const std::string& spec);

struct SourceReading {
    std::string spec;
    std::vector<SourceChannel> channels;
    std::vector<double> values;
    std::string trouble; ///< why it cannot be opened; empty: it can
};

/// Opens each and reads it once. May take as long as an instrument needs to answer.
std::vector<SourceReading> readOnce(const std::vector<std::string>& specs, const SourceOptions& options);

} // namespace ibuki
