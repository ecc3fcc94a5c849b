// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/schedule.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr std::int64_t msPerMinute = 60'000;
constexpr std::size_t mostEvenings = 5'000; ///< thirteen years of every day
constexpr std::int64_t msPerDay = 86'400'000;

double minutesBetween(Instant a, Instant b) { return static_cast<double>(b.ms - a.ms) / msPerMinute; }

/// Monday 0 … Sunday 6; 1970-01-01 was a Thursday.
std::size_t weekdayOf(std::int64_t day) { return static_cast<std::size_t>(((day + 3) % 7 + 7) % 7); }

/// The evenings one after the other, as far as they are asked for.
class Calendar {
public:
    Calendar(const Evenings& evenings, const WallClock& clock) : evenings_(evenings), clock_(clock) {
        day_ = dayNumber(evenings.firstDay);
    }

    const Evening& at(std::size_t index) {
        if (index >= mostEvenings)
            throw InputError("plan-too-long", {}, {{"most", static_cast<int>(mostEvenings)}});
        while (made_.size() <= index) {
            while (!evenings_.weekdays.days.at(weekdayOf(day_))) ++day_;
            const Instant start{day_ * msPerDay
                                + static_cast<std::int64_t>(std::llround(evenings_.fromHour * 60))
                                      * msPerMinute};
            made_.push_back({start, clock_.after(start, 60 * evenings_.hours), 0, 0});
            ++day_;
        }
        return made_[index];
    }
    Evening& used(std::size_t index) {
        at(index);
        return made_[index];
    }
    std::vector<Evening> upTo(std::size_t count) {
        if (count > 0) at(count - 1);
        return {made_.begin(), made_.begin() + static_cast<std::ptrdiff_t>(count)};
    }

private:
    const Evenings& evenings_;
    const WallClock& clock_;
    std::int64_t day_ = 0;
    std::vector<Evening> made_;
};

class Layout {
public:
    Layout(const Evenings& evenings, const WallClock& clock)
        : clock_(clock), calendar_(evenings, clock), now_(calendar_.at(0).start) {}

    void add(const std::vector<StepOccurrence>& steps) {
        ScheduledMount mount;
        bool overlong = false;
        std::size_t i = 0;
        while (i < steps.size()) {
            if (steps[i].unattended) {
                place(mount, steps[i++]);
                continue;
            }
            std::size_t end = i;
            double manualWork = 0;
            while (end < steps.size() && !steps[end].unattended) manualWork += steps[end++].minutes;
            overlong = !waitForManualWork(manualWork) || overlong;
            if (mount.evening == 0) begin(mount);
            calendar_.used(evening_).manualMinutes += manualWork;
            plan_.manualMinutes += manualWork;
            while (i < end) place(mount, steps[i++]);
        }
        if (mount.evening == 0) begin(mount); // nothing in it needs hands
        mount.start = mount.steps.empty() ? now_ : *mount.steps.front().start;
        mount.end = now_;
        if (overlong) plan_.overlong.push_back(plan_.mounts.size());
        plan_.mounts.push_back(std::move(mount));
    }

    Schedule finish() {
        const auto all = calendar_.upTo(plan_.mounts.empty() ? 0 : evening_ + 1);
        std::vector<int> number(all.size() + 1, 0);
        for (std::size_t i = 0; i < all.size(); ++i) {
            if (all[i].mounts == 0 && all[i].manualMinutes == 0) continue;
            plan_.evenings.push_back(all[i]);
            number[i + 1] = static_cast<int>(plan_.evenings.size());
        }
        for (ScheduledMount& mount : plan_.mounts)
            mount.evening = number[static_cast<std::size_t>(mount.evening)];
        return std::move(plan_);
    }

private:
    void begin(ScheduledMount& mount) {
        mount.evening = static_cast<int>(evening_) + 1;
        ++calendar_.used(evening_).mounts;
    }

    /// Moves on to the first time at which so many minutes of hands fit; false when no evening is long
    /// enough.
    bool waitForManualWork(double minutes) {
        while (now_ >= calendar_.at(evening_).end) ++evening_;
        now_ = std::max(now_, calendar_.at(evening_).start);
        if (minutesBetween(now_, calendar_.at(evening_).end) + 1e-9 >= minutes) return true;
        const bool fitsWhole =
            minutesBetween(calendar_.at(evening_).start, calendar_.at(evening_).end) + 1e-9 >= minutes;
        if (now_ > calendar_.at(evening_).start) now_ = calendar_.at(++evening_).start;
        return fitsWhole;
    }

    void place(ScheduledMount& mount, const StepOccurrence& step) {
        const Instant end = clock_.after(now_, step.minutes);
        mount.steps.push_back(step);
        mount.steps.back().start = now_;
        mount.steps.back().end = end;
        plan_.benchMinutes += step.minutes;
        now_ = end;
    }

    const WallClock& clock_;
    Calendar calendar_;
    Instant now_;
    std::size_t evening_ = 0;
    Schedule plan_;
};

Instant plusMonths(Instant local, int months) {
    const std::int64_t day = dayNumber(local);
    const std::string date = dateText(local); // YYYY-MM-DD
    const int index = std::stoi(date.substr(0, 4)) * 12 + std::stoi(date.substr(5, 2)) - 1 + months;
    for (unsigned dayOfMonth = static_cast<unsigned>(std::stoi(date.substr(8, 2))); dayOfMonth > 27;
         --dayOfMonth)
        if (const auto made = makeInstant(index / 12, static_cast<unsigned>(index % 12 + 1), dayOfMonth,
                                          local.ms - day * msPerDay))
            return *made;
    return *makeInstant(index / 12, static_cast<unsigned>(index % 12 + 1),
                        static_cast<unsigned>(std::stoi(date.substr(8, 2))), local.ms - day * msPerDay);
}

} // namespace

Schedule schedule(const std::vector<std::vector<StepOccurrence>>& mounts, const Evenings& evenings,
                  const WallClock& clock) {
    if (!evenings.weekdays.any()) throw InputError("plan-weekdays.none", {});
    if (!(evenings.hours > 0 && evenings.hours <= 24) || !(evenings.fromHour >= 0 && evenings.fromHour < 24))
        throw InputError("plan-hours", {}, {{"fromHour", evenings.fromHour}, {"hours", evenings.hours}});
    Layout layout(evenings, clock);
    for (const auto& steps : mounts) layout.add(steps);
    return layout.finish();
}

Instant dueAfter(Instant local, const Delay& delay, const WallClock& clock) {
    switch (delay.unit) {
    case Delay::Unit::hours:
        return clock.after(local, 60.0 * delay.count);
    case Delay::Unit::days:
        return {local.ms + delay.count * msPerDay};
    case Delay::Unit::weeks:
        return {local.ms + 7 * delay.count * msPerDay};
    case Delay::Unit::months:
        return plusMonths(local, delay.count);
    case Delay::Unit::years:
        return plusMonths(local, 12 * delay.count);
    }
    return local;
}

} // namespace ibuki
