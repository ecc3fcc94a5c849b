// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From the document to the readings of mounts that were left alone: what a question takes from each run, with
// the clocks it was taken at. A check that cannot be one is left out and said so.

#include "core/clock/mount_history.h"
#include "core/distributions/interval.h"
#include "core/domain/ageing.h"
#include "core/evidence/run_rows.h"

#include <array>
#include <memory>

namespace ibuki {

struct AgeingPoint {
    Id<Run> run;
    std::optional<Instant> at;
    MountClock clock;
    double valueK = 0; ///< over room; of K/W at the evidence's power
    std::optional<double> ambientC;
    std::optional<double> fan;
};

struct MountSeries {
    Id<Mount> mount;
    std::string name;
    std::vector<AgeingPoint> points;             ///< by hours
    std::shared_ptr<const MountHistory> history; ///< its clocks
};

struct SeriesGroup {
    std::int64_t id = 0; ///< of the level
    std::string name;
    std::optional<Id<Material>> material;
    MaterialClass kind = MaterialClass::unknown;
    std::vector<MountSeries> mounts;
    int readings() const;
    bool isFollowed() const; ///< a mount of it was read twice
};

/// What the bench did by itself over calendar time, from its check mounts.
struct BenchDrift {
    int checks = 0;
    double spanDays = 0;                ///< from the first to the last
    std::optional<double> kelvinPerDay; ///< nothing: fewer than 3, or all on one day
    std::optional<Interval> interval;   ///< 95 %; nothing below 3 checks
    bool takenOut = false;              ///< told apart from none, so it was
};

struct AgeingSeries {
    std::vector<SeriesGroup> groups; ///< in the order of levels
    bool perWatt = false;            ///< K/W was followed, told at powerW
    double powerW = 0;
    Id<Load> load;
    BenchDrift bench;
    std::vector<Message> leftOut; ///< what was not followed, and why
};

/// Of the question's mounts under the compared load.
AgeingSeries ageingSeries(const Document& document, const Question& question);

/// The rules of a bench: as stated, else the defaults.
AgeingRules ageingRulesOf(const Document& document, Id<Bench> bench);

} // namespace ibuki
