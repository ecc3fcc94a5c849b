// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/ageing_csv.h"

#include "core/ageing/ageing_curves.h"
#include "core/domain/words.h"
#include "store/table/table.h"

#include <array>
#include <fmt/format.h>

namespace ibuki {
namespace {

std::string cell(const std::optional<double>& value) {
    return value ? fmt::format("{}", *value) : std::string();
}
std::string cell(const std::optional<Instant>& at) { return at ? isoText(*at) : std::string(); }

std::string_view sourceWord(DueFrom source) {
    switch (source) {
    case DueFrom::course:
        return "measured";
    case DueFrom::stated:
        return "stated";
    case DueFrom::bench:
        return "bench";
    case DueFrom::typical:
        return "usual";
    }
    return {};
}

} // namespace

std::string ageingCsv(const AgeingJudgement& judged) {
    std::string text = "material,mount,at,hours,load_hours,cycles,melt_cycles,value_K,change_K,room_C\n";
    for (const GroupAgeing& ageing : judged.groups) {
        const AgeingCurves curves = ageingCurves(ageing, AgeingClock::hours);
        std::size_t m = 0;
        for (const MountSeries& mount : ageing.group.mounts) {
            if (mount.points.empty()) continue;
            for (std::size_t i = 0; i < mount.points.size(); ++i) {
                const AgeingPoint& point = mount.points[i];
                text += fmt::format("{},{},{},{},{},{},{},{},{},{}\n", csvField(ageing.group.name),
                                    csvField(mount.name), cell(point.at), cell(point.clock.hours),
                                    point.clock.loadHours, point.clock.cycles, point.clock.meltCycles,
                                    point.valueK, curves.mounts[m][i].changeK, cell(point.ambientC));
            }
            ++m;
        }
    }
    return text;
}

std::string checksDueCsv(const std::vector<DueCheck>& checks) {
    constexpr std::array<std::string_view, 5> states{"later", "soon", "due", "overdue", "lost"};
    std::string text = "mount,after,due,answers_until,state\n";
    for (const DueCheck& check : checks)
        text += fmt::format("{},{},{},{},{}\n", csvField(check.name), check.after.text(), isoText(check.due),
                            isoText(check.latest), states.at(static_cast<std::size_t>(check.state)));
    return text;
}

std::string acceleratedCsv(const Accelerated& test, double years) {
    return fmt::format("years,factor,test_days,test_cycles\n{},{},{},{}\n", years, test.factor, test.testDays,
                       test.testCycles);
}

std::string machinesCsv(const Reapplication& due) {
    std::string text = "machine,mount,material,mounted,due,from,to,source\n";
    for (const MachineDue& one : due.machines)
        text += fmt::format("{},{},{},{},{},{},{},{}\n", csvField(one.machine), csvField(one.mountName),
                            csvField(one.materialName), cell(one.applied), cell(one.due), cell(one.dueFrom),
                            cell(one.dueTo), sourceWord(one.source));
    return text;
}

std::string tubesCsv(const ShelfAge& tubes, const std::vector<OutcomeTable>& outcomes) {
    std::string text =
        "what,material,lot,condition,made_years,open_years,mounts,mean_K,happened,share_low,share_high\n";
    for (const LotFigures& lot : tubes.lots)
        text += fmt::format("lot,{},{},{},{},{},{},{},,,\n", csvField(lot.material), csvField(lot.name),
                            word(lot.condition), cell(lot.madeYears), cell(lot.openYears), lot.mountsK.size(),
                            cell(lot.meanK()));
    for (const OutcomeTable& table : outcomes)
        for (const MaterialOutcome& one : table.materials)
            text += fmt::format("{},{},,,,,{},,{},{},{}\n", word(table.kind), csvField(one.name),
                                one.trials(), one.happened, one.share.lo, one.share.hi);
    return text;
}

} // namespace ibuki
