// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/conduct/conductor.h"
#include "live/source.h"

#include <functional>
#include <mutex>

namespace ibuki {

/// The conductor among the threads of the sources: it follows the first source that reads a chip, in that
/// one's thread, so that a simulated bench feels its load with the very next sample.
class Driving {
public:
    /// load: told the power that is wanted, whenever a step begins or ends.
    Driving(std::vector<ConductedStep> steps, std::function<void(std::optional<double>)> load)
        : conductor_(std::move(steps)), load_(std::move(load)) {}

    void add(std::size_t source, const std::vector<SourceChannel>& channels);

    /// What a reading makes happen; times are since the first reading of the source that is followed.
    std::vector<StepEvent> take(std::size_t source, double arrivedS, const Reading& reading);

    const std::vector<ConductedStep>& steps() const { return conductor_.steps(); }

private:
    /// Calls what with each finite value and its role.
    template <class What> void each(std::size_t source, const Reading& reading, What&& what) const;
    std::optional<double> room(std::size_t source, const Reading& reading) const;
    std::optional<double> hottest(std::size_t source, const Reading& reading) const;

    std::mutex mutex_;
    Conductor conductor_;
    std::function<void(std::optional<double>)> load_;
    std::vector<std::vector<Role>> roles_; ///< of each source's channels
    std::optional<std::size_t> driver_;
    std::optional<double> roomC_;
    double roomAtS_ = 0; ///< steady clock
    std::optional<double> zeroS_;
};

} // namespace ibuki
