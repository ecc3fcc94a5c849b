// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What was done at the bench: applications of a lot at a site, mounts (one fastening, the experimental unit),
// recordings (one log as it came) and runs (one stretch of load in it). Nothing measured is ever deleted:
// runs and mounts are rejected with a reason, a recording is withdrawn.

#include "core/base/message.h"
#include "core/domain/bench.h"
#include "core/domain/entities.h"
#include "core/domain/material.h"
#include "core/domain/side_response.h"

namespace ibuki {

/// How paste is put on, or a sheet laid.
enum class ApplicationPattern { notStated, dot, line, cross, fiveDots, film, sheet, other };

/// A lot placed at one site; it can outlive a fastening. No lot: unknown, as found.
struct Application {
    Id<Application> id;
    Id<Site> site;
    std::optional<Id<Lot>> lot;
    std::optional<Gram> amount;        ///< as stated; the two weighings go before it
    std::optional<Gram> syringeBefore; ///< the syringe weighed before and after
    std::optional<Gram> syringeAfter;
    std::optional<SquareMillimetre> area;  ///< cut from a sheet, all pieces together
    std::optional<Millimetre> pieceWidth;  ///< of one piece of pad, sheet or film
    std::optional<Millimetre> pieceLength; ///< its other side
    std::optional<int> layers;             ///< pieces laid on each other; nothing: one
    ApplicationPattern pattern = ApplicationPattern::notStated;
    std::optional<Instant> start;
    std::optional<Instant> end;
    std::optional<int> spreads; ///< 1 to 5, as the hands found it
    std::optional<int> staysPut;
    std::optional<int> comesOff;
    std::optional<int> cleansUp;
    std::string note;
    bool operator==(const Application&) const = default;
};

/// One fastening of a bench in one configuration.
struct Mount {
    Id<Mount> id;
    Id<Configuration> configuration;
    std::string name;
    std::optional<Instant> at;
    bool atAssumed = false; ///< taken from a file's time, not stated
    int order = 0;          ///< place in the bench's record
    std::string block;      ///< day or session
    std::optional<NewtonMetre> torque;
    bool rejected = false;
    std::string reason;
    std::string note;
    std::string mountedBy;                        ///< whose hands; empty: not stated
    std::optional<Instant> opened = std::nullopt; ///< taken apart; nothing: not stated
    bool operator==(const Mount&) const = default;
};

/// How a mount came to an application: made for it; still lying there, since the joint was not opened in
/// between; or a piece that had been mounted before and was laid again.
enum class ApplicationUse { fresh, continued, laidAgain };

/// Which application a mount has at a site.
struct MountApplication {
    Id<MountApplication> id;
    Id<Mount> mount;
    Id<Application> application;
    ApplicationUse use = ApplicationUse::fresh;
    bool operator==(const MountApplication&) const = default;
};

/// Of a recording made here: rows are still added; or whoever added them ended before he said so. figures:
/// there is no log, its run's figures were stated.
enum class RecordingState { closed, open, interrupted, figures };

/// One log as it came, or one that was recorded here. Its channels are stored beside it in the project, by
/// column.
struct Recording {
    Id<Recording> id;
    Id<Bench> bench;
    std::string fileName;
    std::string sha256;
    std::int64_t bytes = 0;
    std::optional<Instant> start;
    bool startAssumed = false;
    std::int64_t samples = 0;
    double durationS = 0;
    bool withdrawn = false;
    Message readAs;                     ///< how the text was read: separator, header line, time
    std::optional<Id<Recording>> probe; ///< a room log of its own that belongs to this one
    std::optional<double> probeShiftS;  ///< added to the probe's clock, set by hand; nothing: found
    RecordingState state = RecordingState::closed;
    bool operator==(const Recording&) const = default;
};

enum class Purpose { baseline, fresh, conditioning, check };

/// A stretch of load on one mount. Its clocks follow from its recording (core/clock).
struct Run {
    Id<Run> id;
    Id<Mount> mount;
    Id<Recording> recording;
    int loadIndex = -1;           ///< which load of the recording; −1 the longest
    std::optional<Id<Load>> load; ///< the load step
    int repeat = 1;
    Purpose purpose = Purpose::fresh;
    std::optional<Celsius> enteredAmbient; ///< room read by hand when the log has none
    std::optional<Kelvin> enteredAmbientU;
    std::optional<double> statedAgeH; ///< since the mount was made, where somebody said so
    std::optional<double> statedCycles;
    std::optional<double> loadStartS; ///< borders moved by hand, seconds of the recording; nothing: as found
    std::optional<double> loadEndS;
    std::optional<double> windowStartS;
    std::optional<double> windowEndS;
    bool useAsymptote = false; ///< stopped early: counts with where its tail leads
    bool rejected = false;
    std::string reason;
    bool operator==(const Run&) const = default;
};

enum class MarkKind { remark, step, info, warning, stop };

/// Something that happened while a recording was made: a step, a flag, a remark, a moment.
struct RecordingMark {
    Id<RecordingMark> id;
    Id<Recording> recording;
    double atS = 0; ///< since its first row
    MarkKind kind = MarkKind::remark;
    Message message;
    bool operator==(const RecordingMark&) const = default;
};

/// A reading of a run that no sensor gave: typed, or brought in from a list.
struct EnteredReading {
    Id<EnteredReading> id;
    Id<Run> run;
    SideResponse kind = firstRead; ///< one of those that are read
    std::string name;              ///< of another kind; else empty
    std::string unit;
    double value = 0;
    Better better = Better::neither;
    std::optional<Instant> at;
    std::string note;
    bool operator==(const EnteredReading&) const = default;
};

/// What the user said a column of such logs is; told again by the header's fingerprint.
struct HeaderRole {
    Id<HeaderRole> id;
    std::string fingerprint; ///< of all column names, store/log/fingerprint.h
    std::string column;
    Role role = Role::ignore;
    bool operator==(const HeaderRole&) const = default;
};

/// A caution that someone has read and answered for; it stays with the thing it was about and goes into
/// reports.
struct Acknowledgement {
    Id<Acknowledgement> id;
    std::string rule;
    std::optional<Id<Material>> material;
    std::optional<Id<Lot>> lot;
    std::optional<Id<Site>> site;
    std::optional<Id<Mount>> mount;
    std::string role; ///< who: "first technician"
    Instant at;
    std::string reason; ///< typed for a stop; empty where reading is enough
    bool operator==(const Acknowledgement&) const = default;
};

} // namespace ibuki
