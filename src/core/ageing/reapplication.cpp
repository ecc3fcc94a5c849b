// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/reapplication.h"

#include "core/ageing/joint_history.h"
#include "core/domain/lookup.h"
#include "core/quantity/span.h"
#include "core/shelf/class_defaults.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace ibuki {
namespace {

constexpr std::size_t mostNamed = 6;

Instant afterHours(Instant from, double hours) {
    return {from.ms + static_cast<std::int64_t>(std::min(hours, 200 * hoursPerYear) * msPerHour)};
}

/// Years an application lasts where no course tells it.
struct Lasting {
    double years = 0;
    DueFrom source = DueFrom::typical;
};

Lasting intervalFor(const Material& material, const AgeingRules& rules) {
    if (material.reapplyYears) return {*material.reapplyYears, DueFrom::stated};
    if (rules.typicalYears) return {*rules.typicalYears, DueFrom::bench};
    return {classDefaults(material.kind).reapplyYears, DueFrom::typical};
}

const GroupAgeing* courseOf(const AgeingJudgement& fleet, Id<Material> material) {
    for (const GroupAgeing& one : fleet.groups)
        if (one.group.material == material) return &one;
    return nullptr;
}

/// The mount that stands on a bench now; nullptr when none does.
const Mount* standingMount(const Document& document, Id<Bench> bench) {
    const auto mounts = mountsOf(document, bench);
    for (auto one = mounts.rbegin(); one != mounts.rend(); ++one)
        if (!(*one)->rejected) return openedAt(document, **one) ? nullptr : *one;
    return nullptr;
}

/// Hours of this mount for an amount of a clock, at the pace it has had so far.
std::optional<double> hoursFor(const MountHistory& history, AgeingClock clock, double amount, Instant now) {
    if (clock == AgeingClock::hours) return amount;
    const MountClock sofar = history.at(now);
    const auto passed = sofar.of(clock);
    if (sofar.statedHours + sofar.statedCycles <= 0)
        return std::nullopt; // recordings alone tell no pace of use
    if (!sofar.hours || !passed || *passed <= 0) return std::nullopt;
    return amount * *sofar.hours / *passed;
}

/// Times to a threshold, worked out once for each course and rise: most benches have the same.
class Thresholds {
public:
    const AgeingTime& of(const ClockedCourse& course, Kelvin rise) {
        const auto [found, isNew] = known_.try_emplace({&course, rise.value});
        if (isNew) found->second = timeToThreshold(*course.sample, course.course, rise.value);
        return found->second;
    }

private:
    std::map<std::pair<const ClockedCourse*, double>, AgeingTime> known_;
};

void dateByCourse(const Document& document, const GroupAgeing& ageing, const AgeingRules& rules, Instant now,
                  Thresholds& thresholds, MachineDue& due) {
    const ClockedCourse* course = ageing.lead();
    if (!course || !ageing.wearsOut) return;
    const AgeingClock clock = course->clock;
    const AgeingTime& time = thresholds.of(*course, rules.threshold);
    if (!time.at || time.farBeyond) return;
    const MountHistory history = jointHistory(document, due.mount);
    const auto hours = [&](double amount) { return hoursFor(history, clock, amount, now); };
    const auto at = hours(*time.at);
    if (!at) return;
    due.due = afterHours(*due.applied, *at);
    due.source = DueFrom::course;
    due.by = clock;
    if (!time.interval) return;
    due.dueFrom = afterHours(*due.applied, *hours(time.interval->lo));
    due.dueTo = afterHours(*due.applied, *hours(time.interval->hi));
}

MachineDue machineDue(const Document& document, const Bench& bench, const Mount& mount,
                      const AgeingJudgement& fleet, Instant now, Thresholds& thresholds) {
    MachineDue due;
    due.bench = bench.id;
    due.machine = bench.name;
    due.mount = mount.id;
    due.mountName = mount.name;
    due.applied = historyOf(document, mount.id).applied();
    const Material* material = materialOf(document, mount.id);
    if (material) {
        due.material = material->id;
        due.materialName = material->name;
    }
    if (!due.applied) {
        due.reason = Message{"due-not-told.undated", {}};
        return due;
    }
    if (!material) return due;
    const AgeingRules rules = ageingRulesOf(document, bench.id);
    const GroupAgeing* ageing = courseOf(fleet, material->id);
    if (ageing) dateByCourse(document, *ageing, rules, now, thresholds, due);
    if (due.due) return due;
    const Lasting typical = intervalFor(*material, rules);
    due.source = typical.source;
    due.due = afterHours(*due.applied, typical.years * hoursPerYear);
    return due;
}

/// "4 machines in spring 2033", the earliest first.
std::vector<Message> seasonMessages(const std::vector<MachineDue>& machines, Instant now) {
    std::map<std::pair<std::int64_t, int>, std::vector<std::string>> seasons; // year, quarter from winter
    std::vector<std::string> overdue;
    for (const MachineDue& one : machines) {
        if (!one.due) continue;
        if (*one.due < now) {
            overdue.push_back(one.machine);
            continue;
        }
        const std::string date = dateText(*one.due);
        const int month = std::stoi(date.substr(5, 2));
        const std::int64_t year = std::stoll(date.substr(0, 4)) + (month == 12 ? 1 : 0);
        seasons[{year, month % 12 / 3}].push_back(one.machine);
    }
    const auto names = [](std::vector<std::string> all) {
        if (all.size() > mostNamed) {
            all.resize(mostNamed);
            all.emplace_back("…");
        }
        return all;
    };
    std::vector<Message> reported;
    if (!overdue.empty())
        reported.push_back({"due-season.overdue", {{"count", overdue.size()}, {"names", names(overdue)}}});
    for (const auto& [season, machinesOf] : seasons) {
        const Fields fields{{"count", machinesOf.size()},
                            {"year", std::to_string(season.first)},
                            {"names", names(machinesOf)}};
        switch (season.second) {
        case 0:
            reported.push_back({"due-season.winter", fields});
            break;
        case 1:
            reported.push_back({"due-season.spring", fields});
            break;
        case 2:
            reported.push_back({"due-season.summer", fields});
            break;
        default:
            reported.push_back({"due-season.autumn", fields});
        }
    }
    return reported;
}

/// The cheapest lot of a material at a site.
std::optional<Money> applicationPrice(const Document& document, Id<Material> material, const Site& site,
                                      Instant now) {
    std::optional<Money> cheapest;
    for (const Lot* lot : document.where(&Lot::material, material))
        if (const auto price = costOf(document, *lot, &site, now).perApplication)
            if (!cheapest || price->amount < cheapest->amount) cheapest = price;
    return cheapest;
}

TenYears tenYearsOf(const Document& document, const Material& material, const Site* site,
                    const AgeingRules& rules, const AgeingJudgement& fleet, Instant now) {
    constexpr double decade = 10;
    TenYears cost;
    cost.material = material.id;
    cost.name = material.name;
    cost.kind = material.kind;
    const Lasting typical = intervalFor(material, rules);
    cost.years = typical.years;
    cost.source = typical.source;
    if (const GroupAgeing* ageing = courseOf(fleet, material.id))
        if (const ClockedCourse* course = ageing->by(AgeingClock::hours);
            course && ageing->wearsOut && course->threshold.at && !course->threshold.farBeyond) {
            cost.years = *course->threshold.at / hoursPerYear;
            cost.source = DueFrom::course;
        }
    if (cost.years > 0)
        cost.applications = std::max(1, static_cast<int>(std::ceil(decade / cost.years - 1e-9)));
    const auto price = site ? applicationPrice(document, material.id, *site, now) : std::nullopt;
    if (price) cost.materialCost = Money{price->amount * cost.applications, price->currency};
    if (rules.hourRate && rules.manualMinutes && !rules.currency.empty())
        cost.manualWorkCost =
            Money{*rules.hourRate * *rules.manualMinutes / 60 * cost.applications, rules.currency};
    if (cost.materialCost && cost.manualWorkCost)
        cost.total = sum({*cost.materialCost, *cost.manualWorkCost}, cost.materialCost->currency, document);
    else if (cost.materialCost)
        cost.total = cost.materialCost;
    return cost;
}

/// The site of stated size at which the most mounts stand in studies, the first of several; nullptr without
/// any.
const Site* mainSite(const Document& document) {
    std::map<Id<Site>, std::set<Id<Mount>>> mounts;
    for (const auto& [id, slot] : document.all<Slot>())
        if (const Question* question = slot.mount ? firstQuestion(document, slot.study) : nullptr)
            mounts[question->site].insert(*slot.mount);
    const Site* best = nullptr;
    std::size_t most = 0;
    for (const auto& [id, there] : mounts) {
        const Site* site = document.find(id);
        if (!site || !site->width || !site->length || there.size() <= most) continue;
        best = site;
        most = there.size();
    }
    return best;
}

/// Both in one currency, the cheapest of each.
std::optional<Message> sheetOrPaste(const std::vector<TenYears>& costs) {
    const auto cheapest = [&](auto&& wanted) {
        return std::find_if(costs.begin(), costs.end(),
                            [&](const TenYears& one) { return wanted(one.kind); });
    };
    const auto paste = cheapest([](MaterialClass kind) { return kind == MaterialClass::paste; });
    const auto sheet = cheapest([](MaterialClass kind) {
        return kind == MaterialClass::sheet || kind == MaterialClass::phaseChange;
    });
    if (paste == costs.end() || sheet == costs.end() || paste->total->currency != sheet->total->currency)
        return std::nullopt;
    const auto money = [](const TenYears& one) {
        return fmt::format("{:.2f} {}", one.total->amount, one.total->currency);
    };
    const bool sheetLess = sheet->total->amount < paste->total->amount;
    return Message{sheetLess ? "ten-years.sheet-less" : "ten-years.paste-less",
                   {{"sheet", sheet->name},
                    {"paste", paste->name},
                    {"less", money(sheetLess ? *sheet : *paste)},
                    {"more", money(sheetLess ? *paste : *sheet)}}};
}

} // namespace

Reapplication reapplication(const Document& document, const AgeingJudgement& fleet, Instant now) {
    Reapplication made;
    Thresholds thresholds;
    for (const auto& [id, bench] : document.all<Bench>())
        if (const Mount* mount = standingMount(document, id))
            made.machines.push_back(machineDue(document, bench, *mount, fleet, now, thresholds));
    std::stable_sort(
        made.machines.begin(), made.machines.end(),
        [](const MachineDue& a, const MachineDue& b) { return a.due && (!b.due || *a.due < *b.due); });
    made.reported = seasonMessages(made.machines, now);
    const Site* site = mainSite(document);
    const AgeingRules rules = site && document.find(site->configuration)
                                  ? ageingRulesOf(document, document.find(site->configuration)->bench)
                                  : AgeingRules{};
    for (const auto& [id, material] : document.all<Material>()) {
        TenYears cost = tenYearsOf(document, material, site, rules, fleet, now);
        if (cost.total) made.costs.push_back(std::move(cost));
    }
    std::stable_sort(made.costs.begin(), made.costs.end(), [](const TenYears& a, const TenYears& b) {
        return std::pair(a.total->currency, a.total->amount) < std::pair(b.total->currency, b.total->amount);
    });
    made.sheetOrPaste = sheetOrPaste(made.costs);
    return made;
}

} // namespace ibuki
