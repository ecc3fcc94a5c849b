// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/plausible.h"

#include "core/distributions/summary.h"

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

/// The nearest reading before i, or behind it; missing cells are passed over.
std::optional<double> nearest(const std::vector<double>& x, std::size_t i, bool before) {
    constexpr std::size_t reach = 4;
    for (std::size_t k = 1; k <= reach; ++k) {
        if (before ? k > i : i + k >= x.size()) return std::nullopt;
        const double v = before ? x[i - k] : x[i + k];
        if (std::isfinite(v)) return v;
    }
    return std::nullopt;
}

/// How many samples from i on (one, or two) stand apart from their neighbours on both sides; 0 for none.
std::size_t spikeAt(const std::vector<double>& x, std::size_t i, double spike) {
    const auto before = nearest(x, i, true);
    if (!before || !(std::abs(x[i] - *before) >= spike)) return 0;
    for (std::size_t length : {std::size_t{1}, std::size_t{2}}) {
        const std::size_t last = i + length - 1;
        const auto after = last < x.size() ? nearest(x, last, false) : std::nullopt;
        if (!after) return 0;
        if (std::abs(*after - *before) < spike / 3 && std::abs(x[last] - *after) >= spike) return length;
    }
    return 0;
}

/// The nearest four readings on either side of [from, to).
std::vector<double> neighbours(const std::vector<double>& x, std::size_t from, std::size_t to) {
    constexpr std::size_t each = 4;
    std::vector<double> found;
    for (std::size_t i = from; i-- > 0 && found.size() < each;)
        if (std::isfinite(x[i])) found.push_back(x[i]);
    const std::size_t enough = found.size() + each;
    for (std::size_t i = to; i < x.size() && found.size() < enough; ++i)
        if (std::isfinite(x[i])) found.push_back(x[i]);
    return found.size() == 2 * each ? found : std::vector<double>{};
}

/// Power that stays within a tenth over [from, to) and its neighbours carries no heat of its own.
bool staysSame(const std::vector<double>& power, std::size_t from, std::size_t to) {
    const std::vector<double> around = neighbours(power, from, to);
    if (around.empty()) return false;
    const double typical = median(around);
    const auto same = [&](double p) { return std::isfinite(p) && std::abs(p - typical) <= 0.1 * typical; };
    return typical > 0 && std::all_of(around.begin(), around.end(), same)
           && std::all_of(power.begin() + static_cast<std::ptrdiff_t>(from),
                          power.begin() + static_cast<std::ptrdiff_t>(to), same);
}

/// A smaller step there and back of a quiet chip, while its power stays what it is.
std::size_t quietSpikeAt(const std::vector<double>& x, const std::vector<double>& power, std::size_t i) {
    constexpr double leastK = 12;
    const std::size_t length = spikeAt(x, i, leastK);
    if (length == 0) return 0;
    const std::vector<double> around = neighbours(x, i, i + length);
    if (around.empty()) return 0;
    const auto [low, high] = std::minmax_element(around.begin(), around.end());
    const double step = std::max(leastK, 4 * (*high - *low));
    return spikeAt(x, i, step) == length && staysSame(power, i, i + length) ? length : 0;
}

/// The power that heats this channel's chip; nothing when it is not logged.
const std::vector<double>* powerOf(const Trace& trace, Role chip) {
    const bool graphics = chip != Role::core && chip != Role::package;
    for (const Channel& channel : trace.channels)
        if (channel.role == (graphics ? Role::gpuPower : Role::packagePower)
            && channel.values.size() == trace.samples())
            return &channel.values;
    return nullptr;
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
        if (const auto* power = isChipTemperature(channel.role) ? powerOf(trace, channel.role) : nullptr)
            for (std::size_t i = 1; i < x.size(); ++i)
                for (std::size_t k = quietSpikeAt(x, *power, i); k > 0; --k) blanker.blank(i + k - 1);
        if (blanker.cells().count == 0) continue;
        trace.impossible += blanker.cells().count;
        found.push_back(blanker.cells());
    }
    return found;
}

} // namespace ibuki
