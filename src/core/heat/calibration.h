// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is measured closes what is assumed: from ΔT and power of the mounts of one configuration the cooler's
// resistance and every mount's R″ are solved, anchored on one material whose R″ is stated or assumed.
// Differences of R″ do not depend on the anchor (docs/methods.md H.8; JCGM 100).

#include "core/distributions/interval.h"
#include "core/evidence/run_rows.h"
#include "core/heat/bench_path.h"

namespace ibuki {

/// A mount as the calibration reads it.
struct PathMount {
    Id<Mount> mount;
    std::size_t group = 0;
    double kPerW = 0; ///< ΔT/P, mean of its runs
    double powerW = 0;
    double ambientC = 0;
    bool censored = false; ///< a run of it reached the limit: K/W is measured there too
};

struct PathGroup {
    std::string name;
    const Material* material = nullptr; ///< at the site; may be unknown
};

struct CalibrationInput {
    BenchPath bench; ///< studied is set
    std::vector<PathGroup> groups;
    std::vector<PathMount> mounts;
    std::size_t anchor = 0; ///< group whose R″ is taken as given
    double anchorMm2KPerW = 0;
    double anchorU = 0;        ///< its standard uncertainty, mm²·K/W
    double powerScaleU = 0.01; ///< relative standard uncertainty of the power's scale, common to all mounts
    double confidence = 0.95;
};

struct CalibratedMount {
    Id<Mount> mount;
    std::size_t group = 0;
    double mm2KPerW = 0; ///< below 0 where scatter, cooler or anchor leave nothing for the joint
};

struct CalibratedGroup {
    int mounts = 0;
    double kPerW = 0;
    double mm2KPerW = 0;
    std::optional<Interval> ci; ///< with the anchor's uncertainty
};

struct ResistanceDifference {
    std::size_t a = 0, b = 0;   ///< groups, a < b
    double mm2KPerW = 0;        ///< a − b
    std::optional<Interval> ci; ///< nothing where no group has two mounts
};

struct Calibration {
    CalibrationInput input;
    double coolerKPerW = 0;
    std::optional<Interval> coolerCi;
    double effectiveAreaMm2 = 0; ///< of the studied interface, with the anchor on it
    double sdKPerW = 0;          ///< between mounts of a group, without groups that reached the limit
    double df = 0;
    std::vector<CalibratedMount> mounts; ///< as in the input
    std::vector<CalibratedGroup> groups;
    std::vector<ResistanceDifference> differences;
};

/// Throws InputError heat-calibration.* when there is no mount of the anchor, or when the path without a
/// cooler resists more than what was measured.
Calibration calibrate(const CalibrationInput& input);

/// What R″ must differ by to be told apart at the confidence of the input, by its pair alone; and
/// if the room had been as steady as its line through them: what follows the room is then no scatter.
struct TellableDifference {
    double mounts = 0; ///< of each, mean over the groups
    double mm2KPerW = 0;
    std::optional<double>
        inSteadyAmbientMm2KPerW; ///< nothing where the mounts are too few or the room never moved
};
/// Nothing where no material was mounted twice.
std::optional<TellableDifference> tellableDifference(const Calibration& calibration);

/// Without a cooler, at the mean power and room of all mounts, with the anchor's R″ at the studied joint.
HeatPath anchoredPath(const CalibrationInput& input);

/// The path with the calibrated cooler and this R″ at the studied interface.
HeatPath calibratedPath(const Calibration& calibration, double mm2KPerW, double powerW, double ambientC);

/// R″ at the studied interface with which the path has this total, K/W; may be below 0.
double solveResistance(HeatPath path, std::size_t interface, double totalKPerW);
/// The cooler with which the path has it; may be below 0.
double solveCooler(HeatPath path, double totalKPerW);

/// The cooler alone, with the anchor on the mean power and room of all mounts. Throws what calibrate throws.
double calibratedCooler(const CalibrationInput& input);

/// What a study gives: fresh mounts of levels and checks in one configuration (nothing: the one of the most
/// runs) under the compared load. `anchor`: group that the user chose, else the first whose material states
/// R″, else the first. Nothing with a reason where there is nothing to calibrate by.
struct StudyMeasurements {
    std::optional<CalibrationInput> input;
    std::optional<Message> reason;
    bool anchorAssumed = false;
};
StudyMeasurements measurementsOf(const Document& document, const Question& question,
                                 const std::vector<RunRow>& rows, Id<Load> load,
                                 std::optional<Id<Configuration>> configuration = std::nullopt,
                                 std::optional<std::size_t> anchor = std::nullopt);

} // namespace ibuki
