// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the bench's record gains when a run is recorded here: a mount in its place when it begins, so that
// whatever happens to it belongs there; its figures and clocks when it ends.

#include "core/domain/edit.h"
#include "core/domain/plan.h"
#include "core/domain/study.h"
#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

#include <string>
#include <vector>

namespace ibuki {

struct RecordingWish {
    Id<Bench> bench;
    std::optional<Id<Slot>> slot;         ///< its mount is made now
    std::optional<Id<Mount>> mount;       ///< another run of it; neither: it belongs to no mount
    std::optional<Id<FollowUp>> followUp; ///< that the run of the mount is; it is done by it
    std::string name;                     ///< of a new mount that has no level: a check mount, the baseline
    std::vector<std::string> sources;
    Instant at;
    std::optional<Instant> manualWorkBegan; ///< the application's; at is when they were done
};

struct RecordingBegun {
    ChangeSet set;
    Id<Recording> recording;
    std::optional<Id<Mount>> mount;
};

/// Throws InputError (record-slot: filled or skipped; record-held: a caution holds its material).
RecordingBegun beginRecording(const Document& document, const RecordingWish& wish);

/// Rows that are stored of it, and when the first one was, where its source knows.
struct RecordedExtent {
    std::int64_t samples = 0;
    double durationS = 0;
    std::optional<Instant> start;
};

/// Closes it; with a trace its run gets figures, one run for each load. Also of one
/// that was interrupted. An InputError of the reduction is no error here: the recording stays.
ChangeSet endRecording(const Document& document, Id<Recording> recording, const RecordedExtent& extent,
                       const Trace* trace);

/// Recordings made here whose run never got figures, since the program ended before.
std::vector<Id<Recording>> recordingsWithoutFigures(const Document& document);

/// The study of which the mount fills a slot; nothing: none.
std::optional<Id<Study>> studyOf(const Document& document, Id<Mount> mount);

} // namespace ibuki
