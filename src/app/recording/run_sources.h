// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/domain/document.h"
#include "core/domain/mount.h"
#include "core/domain/study.h"
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

/// Whom a run is recorded for: the mount of a planned slot, another run of a mount, or nobody.
struct RunFor {
    std::optional<Id<Slot>> slot;
    std::optional<Id<Mount>> mount;
    bool checkUp = false;                      ///< of the bench itself
    std::optional<Id<FollowUp>> followUp = {}; ///< of the mount: the later run that it is
};

/// The source of a spec; of a bench to practise on, with that mount on it. Throws what openSource throws.
std::unique_ptr<Source> openRunSource(const Document& document, const std::string& spec, const RunFor& whom,
                                      const SourceOptions& options);

/// Opens each and reads it once. May take as long as an instrument needs to answer.
std::vector<SourceReading> readOnce(const Document& document, const std::vector<std::string>& specs,
                                    const RunFor& whom);

} // namespace ibuki
