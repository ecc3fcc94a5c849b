// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/plausible.h"

#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

struct Bounds {
    double least;
    double most;
    double spike; ///< a step of one or two samples there and back that cannot be; 0: not looked for
};

/// °C, W, MHz, rpm. Wide on purpose: what is merely odd stays.
std::optional<Bounds> boundsOf(Role role) {
    if (isChipTemperature(role)) return Bounds{-50, 150, 40};
    switch (role) {
    case Role::coolant:
        return Bounds{-50, 120, 15};
    case Role::ambient:
        return Bounds{-40, 80, 10};
    case Role::packagePower:
    case Role::gpuPower:
        return Bounds{0, 3'000, 0};
    case Role::wallPower:
        return Bounds{0, 10'000, 0};
    case Role::clock:
    case Role::gpuClock:
        return Bounds{0, 20'000, 0};
    case Role::fan:
        return Bounds{0, 50'000, 0};
    default:
        return std::nullopt;
    }
}

/// A temperature of exactly 0 is a sensor that dropped out where the channel usually reads well above.
bool zeroIsDropout(const Channel& channel) {
    if (!isTemperature(channel.role)) return false;
    if (std::find(channel.values.begin(), channel.values.end(), 0.0) == channel.values.end()) return false;
    std::vector<double> finite;
    for (double v : channel.values)
        if (std::isfinite(v)) finite.push_back(v);
    return median(finite) > 10;
}

/// How many samples from i on stand apart from their neighbours on both sides; 0 for none.
std::size_t spikeAt(const std::vector<double>& x, std::size_t i, double spike) {
    if (i == 0 || !std::isfinite(x[i - 1]) || std::abs(x[i] - x[i - 1]) < spike) return 0;
    for (std::size_t length : {std::size_t{1}, std::size_t{2}}) {
        if (i + length >= x.size()) return 0;
        const double after = x[i + length];
        if (std::isfinite(after) && std::abs(after - x[i - 1]) < spike / 3
            && std::abs(x[i + length - 1] - after) >= spike)
            return length;
    }
    return 0;
}

class Blanker {
public:
    explicit Blanker(Channel& channel) : x_(channel.values) { cells_.column = channel.column; }

    void blank(std::size_t row) {
        if (!std::isfinite(x_[row])) return;
        if (cells_.count++ == 0) {
            cells_.firstRow = row;
            cells_.first = x_[row];
        }
        x_[row] = std::numeric_limits<double>::quiet_NaN();
    }
    const ImpossibleCells& cells() const { return cells_; }

private:
    std::vector<double>& x_;
    ImpossibleCells cells_;
};

} // namespace

std::vector<ImpossibleCells> blankImpossible(Trace& trace) {
    std::vector<ImpossibleCells> found;
    for (Channel& channel : trace.channels) {
        const auto bounds = boundsOf(channel.role);
        if (!bounds || channel.values.empty()) continue;
        const bool noZero = zeroIsDropout(channel);
        Blanker blanker(channel);
        std::vector<double>& x = channel.values;
        for (std::size_t i = 0; i < x.size(); ++i)
            if (x[i] < bounds->least || x[i] > bounds->most || (noZero && x[i] == 0)) blanker.blank(i);
        for (std::size_t i = 1; i < x.size() && bounds->spike > 0; ++i)
            for (std::size_t k = spikeAt(x, i, bounds->spike); k > 0; --k) blanker.blank(i + k - 1);
        if (blanker.cells().count == 0) continue;
        trace.impossible += blanker.cells().count;
        found.push_back(blanker.cells());
    }
    return found;
}

} // namespace ibuki
