// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "store/atomic_file.h"
#include "store/json/simulate_json.h"
#include "store/log/log_writer.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct SimulateArguments {
    std::string bench;
    std::string protocol;
    std::uint64_t seed = 1;
    std::string output;
};

} // namespace

VerbBody addSimulate(Options options) {
    auto arguments = std::make_shared<SimulateArguments>();
    options.add("--bench", arguments->bench, words::say("Bench file (JSON)")).required();
    options.add("--protocol", arguments->protocol, words::say("Protocol file (JSON)")).required();
    options.add("--seed", arguments->seed, words::say("Seed: the same seed gives the same bytes"));
    options.add("-o,--output", arguments->output, words::say("Log to write")).required();
    options.example("ibuki-cli simulate --bench bench.json --protocol protocol.json --seed 7 -o run.csv");
    return [arguments](std::ostream& out) {
        refuseInputAsTarget(arguments->output, {arguments->bench, arguments->protocol});
        const auto bench = benchFromJson(readJsonFile(arguments->bench), arguments->bench);
        const auto protocol = protocolFromJson(readJsonFile(arguments->protocol), arguments->protocol);
        const SimulatedRun run = simulate(bench, protocol, arguments->seed);
        writeFileAtomically(arguments->output, logText(run.trace));
        fmt::print(out, "{}\n",
                   words::say("{file}: {samples} samples, true steady difference {delta:.3f} K{limit}",
                              {{"file", arguments->output},
                               {"samples", run.trace.samples()},
                               {"delta", run.trueDeltaK},
                               {"limit", run.limited ? ", held at the temperature limit" : ""}}));
    };
}

} // namespace ibuki
