// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one clock of a mount: hours since it was applied, hours under load, thermal cycles, hours above the
// melt of what lies in it; from its recordings and from how it is said to be used between them
// (docs/methods.md, G.5). Worked out from what is stored for every moment that is asked for, and stored
// nowhere.

#include "core/distributions/rainflow.h"
#include "core/domain/document.h"
#include "core/quantity/instant.h"
#include "core/quantity/quantity.h"
#include "core/quantity/temperature.h"

#include <optional>
#include <vector>

namespace ibuki {

constexpr double leastCycleK = 10; ///< a smaller swing is no thermal cycle
constexpr double overMeltK = 5;    ///< a cycle counts as one through the melt from here on

enum class AgeingClock { hours, loadHours, cycles, meltCycles };
inline constexpr std::array ageingClocks{AgeingClock::hours, AgeingClock::loadHours, AgeingClock::cycles,
                                         AgeingClock::meltCycles};

struct MountClock {
    std::optional<double> hours; ///< nothing: when it was applied is not stated
    double loadHours = 0;
    double cycles = 0; ///< of at least leastCycleK; what has not closed counts by halves
    double aboveMeltHours = 0;
    double meltCycles = 0;   ///< loads in which the joint was overMeltK above its melt
    double statedHours = 0;  ///< of loadHours: as the use says
    double statedCycles = 0; ///< of cycles

    std::optional<double> of(AgeingClock clock) const;
};

class MountHistory {
public:
    /// jointKPerW: from the chip down to the joint, of what melts; nothing: the joint is taken to be as hot
    /// as the chip.
    MountHistory(const Document& document, Id<Mount> mount, std::optional<double> jointKPerW = std::nullopt);

    std::optional<Instant> applied() const { return applied_; } ///< else when it was mounted
    /// Taken apart: as stated, else when its joint was looked at, else when the next mount was made on the
    /// bench.
    std::optional<Instant> opened() const { return opened_; }
    /// The end of its last recording that has a course.
    std::optional<Instant> lastRecorded() const {
        return marks_.empty() ? std::nullopt : std::optional(marks_.back().at);
    }
    std::optional<Celsius> melts() const { return melts_; }
    bool jointAssumed() const { return jointAssumed_; } ///< the joint is taken to be as hot as the chip
    std::optional<double> hottestJointC() const { return hottestJointC_; }
    std::optional<double> coldestC() const {
        return coldestC_;
    } ///< of the chip, in recordings and stated use
    MountClock at(Instant moment) const;
    std::vector<CountedCycle> cycles() const; ///< of all recordings

private:
    /// What had come together by then; between two it grows evenly.
    struct Mark {
        Instant at;
        double loadHours = 0;
        double aboveMeltHours = 0;
        double meltCycles = 0;
    };
    struct CycleMark {
        Instant at;
        double cycles = 0;
    };
    struct Use {
        Instant from;
        std::optional<Instant> until;
        double hoursPerDay = 0;
        double cyclesPerDay = 0;
        bool melts = false;
    };

    struct Timeline;
    void readRecordings(const Document& document, Id<Mount> mount);
    void countCycles(const Timeline& timeline);
    void countHeat(const Timeline& timeline);
    void readUses(const Document& document, Id<Mount> mount);

    std::optional<Instant> applied_;
    std::optional<Instant> opened_;
    std::optional<Celsius> melts_;
    double jointKPerW_ = 0;
    bool jointAssumed_ = true;
    std::optional<double> hottestJointC_;
    std::optional<double> coldestC_;
    std::vector<Mark> marks_;
    std::vector<CycleMark> cycleMarks_;
    std::vector<Use> uses_;
    RainflowCounter counter_;
};

/// Without a joint's K/W (its hours and cycles do not depend on it), once a snapshot. Valid as long as that.
const MountHistory& historyOf(const Document& document, Id<Mount> mount);

/// When a run's load began; nothing where its recording has no date.
std::optional<Instant> loadBegan(const Document& document, const Run& run);

/// The middle of the stretch that a run's figure is of; nothing where its recording has no date.
std::optional<Instant> measuredAt(const Document& document, const Run& run);

/// How old a run's mount was when its load began: as stated, else by its clock; nothing where it has no date.
struct RunAge {
    std::optional<double> hours;
    std::optional<double> cycles;
};
RunAge ageOf(const Document& document, const Run& run);

} // namespace ibuki
