// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Load steps of a study's mounts against each other: Z at one declared time, one number a run, compared as
// every response is; the curves as a whole; and what came later than the joint (docs/methods.md H.10).

#include "core/comparison/curve_test.h"
#include "core/evidence/evidence.h"
#include "core/heat/step_response.h"
#include "core/reduce/settings.h"

#include <map>

namespace ibuki {

/// A run whose log holds a step to be read.
struct TransientTask {
    Id<Mount> mount;
    Id<Run> run;
    Id<Recording> recording;
    std::optional<double> probeShiftS;
    ReduceSettings settings;
    Phase load;
};
/// Of the runs that the question compares, each by the load it stands for.
std::vector<TransientTask> transientTasks(const Document& document, const Question& question,
                                          const Evidence& evidence);

struct TransientRun {
    Id<Mount> mount;
    Id<Run> run;
    StepResponse response;
};

/// When steps are read where no time was declared: some time constants of a lidded chip, long before its
/// cooler's.
double typicalReadS(const std::vector<TransientRun>& runs);

struct MountStep {
    Id<Mount> mount;
    std::string name;
    std::optional<std::size_t> group; ///< index into the comparison's groups
    std::vector<double> kPerW;        ///< at the study's times, mean of its runs
};

struct TransientPair {
    PairComparison read;               ///< of Z at the declared time, K/W
    std::optional<double> steadyKPerW; ///< the same difference of the steady K/W
    CurveTest curves;
    std::optional<double> apartFromS; ///< from when on the curves differ
};

struct TransientStudy : Judged { ///< of Z(atS)
    double atS = 0;
    std::vector<double> timesS; ///< evenly in ln t, as far as every step is steady
    std::vector<MountStep> steps;
    std::vector<TransientPair> pairs;
    std::map<std::string, int> leftOut; ///< runs by the code of what is missing; transient-moved: by then
    TransientSight sight = TransientSight::sum; ///< of the coarsest
    double intervalS = 0;                       ///< of the coarsest
    double sensorStepK = 0;
    double stepW = 0;           ///< mean
    double startKPerW = 0;      ///< what the start alone leaves uncertain in Z(atS), standard, largest
    bool isAmbientKnown = true; ///< in every run
};

/// margin: that of the question over the step's power, K/W.
TransientStudy transientStudy(const Document& document, const Question& question, const Evidence& evidence,
                              const std::vector<TransientRun>& runs, double atS);

} // namespace ibuki
