// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/reproducibility.h"

#include "core/comparison/group_runs.h"
#include "core/distributions/summary.h"
#include "core/models/linear_model.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

struct People {
    std::vector<double> y; ///< mount means
    Columns levels{0, 0};
    Columns persons{0, 0};
    Columns both{0, 0};
};

People laidOut(const std::vector<GroupRuns>& groups) {
    std::map<std::int64_t, std::size_t> personAt;
    People people;
    for (const GroupRuns& group : groups)
        for (const MountRuns& mount : group.mounts) {
            personAt.try_emplace(mount.block.id, personAt.size());
            people.y.push_back(mean(mount.values));
        }
    const std::size_t rows = people.y.size();
    people.levels = Columns(rows, groups.size());
    people.persons = Columns(rows, personAt.size());
    people.both = Columns(rows, groups.size() + personAt.size());
    std::size_t row = 0;
    for (std::size_t g = 0; g < groups.size(); ++g)
        for (const MountRuns& mount : groups[g].mounts) {
            const std::size_t person = personAt.at(mount.block.id);
            people.levels[g][row] = people.both[g][row] = 1;
            people.persons[person][row] = people.both[groups.size() + person][row] = 1;
            ++row;
        }
    return people;
}

} // namespace

std::optional<Reproducibility> reproducibilityOf(const std::vector<RunValue>& runs) {
    const People people = laidOut(gather(runs, true));
    if (people.persons.columns() < 2) return std::nullopt;
    const LinearModel reduced(people.levels, people.y);
    const LinearModel full(people.both, people.y);
    const auto df1 = static_cast<double>(full.rank()) - static_cast<double>(reduced.rank());
    const double df = static_cast<double>(people.y.size()) - static_cast<double>(full.rank());
    if (!(df1 > 0) || !(df > 0)) return std::nullopt;
    // What one unit of the people's variance adds to their mean square.
    double share = 0;
    for (std::size_t p = 0; p < people.persons.columns(); ++p)
        share += LinearModel(people.levels, people.persons[p]).rss();
    const double repeat = full.residualVariance(df);
    const double square = std::max(0.0, reduced.rss() - full.rss()) / df1;
    const double between = std::max(0.0, (square - repeat) / (share / df1));
    Reproducibility found;
    found.persons = static_cast<int>(people.persons.columns());
    found.repeatabilitySd = std::sqrt(repeat);
    found.betweenPersonsSd = std::sqrt(between);
    found.reproducibilitySd = std::sqrt(between + repeat);
    found.df = df;
    return found;
}

} // namespace ibuki
