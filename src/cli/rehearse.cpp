// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/plan/rehearsal.h"
#include "store/json/json_text.h"
#include "store/json/rehearsal_json.h"
#include "store/json/simulate_json.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct RehearseArguments {
    std::string scenario;
    int campaigns = static_cast<int>(RehearsalOptions{}.campaigns);
    std::uint64_t seed = 1;
    bool json = false;
};

void print(std::ostream& out, const Rehearsal& rehearsal, const RehearsalScenario& scenario) {
    fmt::print(out, "{:<28} {:>7} {:>8} {:>8} {:>8}\n", "practice", "mounts", "right %", "wrong %", "none %");
    for (std::size_t i = 0; i < rehearsal.practices.size(); ++i) {
        const RehearsedOutcome& outcome = rehearsal.practices[i];
        fmt::print(out, "{:<28} {:>7} {:>8.1f} {:>8.1f} {:>8.1f}\n", scenario.practices[i].name,
                   outcome.totalMounts, 100 * outcome.rightBest, 100 * outcome.wrongBest,
                   100 * outcome.noCall);
        if (scenario.practices[i].judge == RehearsedJudge::rank) continue;
        for (const RehearsedPair& pair : outcome.pairs)
            fmt::print(out, "    {}\n",
                       words::say("{a} and {b}, truly {d:+.2f} K: different {different:.1f} %, the wrong way "
                                  "{wrong:.1f} %, equivalent {equivalent:.1f} %",
                                  {{"a", scenario.materials[pair.a].name},
                                   {"b", scenario.materials[pair.b].name},
                                   {"d", pair.trueDifferenceK},
                                   {"different", 100 * pair.different},
                                   {"wrong", 100 * pair.wrongWay},
                                   {"equivalent", 100 * pair.equivalent}}));
    }
}

void runRehearse(const RehearseArguments& arguments, std::ostream& out) {
    const auto scenario = rehearsalFromJson(readJsonFile(arguments.scenario), arguments.scenario);
    RehearsalOptions options;
    options.campaigns = arguments.campaigns;
    options.seed = arguments.seed;
    Rehearsal rehearsal;
    try {
        rehearsal = rehearse(scenario, options);
    } catch (const InputError& error) {
        throw InputError({arguments.scenario, {}, {}}, error.message);
    }
    if (arguments.json)
        out << jsonText(toJson(rehearsal, scenario));
    else
        print(out, rehearsal, scenario);
}

} // namespace

VerbBody addRehearse(Options options) {
    auto arguments = std::make_shared<RehearseArguments>();
    options.add("SCENARIO", arguments->scenario, words::say("Materials, scatter and practices (JSON)"))
        .required();
    options.add("--campaigns", arguments->campaigns, words::say("How many campaigns are drawn"))
        .tellDefault();
    options.add("--seed", arguments->seed, words::say("Seed: the same seed gives the same figures"))
        .tellDefault();
    options.addJson(arguments->json);
    options.example("ibuki-cli rehearse scenario.json --campaigns 10000 --json");
    return [arguments](std::ostream& out) { runRehearse(*arguments, out); };
}

} // namespace ibuki
