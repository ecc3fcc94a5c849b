// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "store/atomic_file.h"
#include "store/json/simulate_json.h"
#include "store/log/log_writer.h"

#include <CLI/CLI.hpp>
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

VerbBody addSimulate(CLI::App& app) {
    auto arguments = std::make_shared<SimulateArguments>();
    app.add_option("--bench", arguments->bench, "Bench file (JSON)")->required();
    app.add_option("--protocol", arguments->protocol, "Protocol file (JSON)")->required();
    app.add_option("--seed", arguments->seed, "Seed: the same seed gives the same bytes");
    app.add_option("-o,--output", arguments->output, "Log to write")->required();
    app.footer(
        "Example:\nibuki-cli simulate --bench bench.json --protocol protocol.json --seed 7 -o run.csv");
    return [arguments](std::ostream& out) {
        const auto bench = benchFromJson(readJsonFile(arguments->bench), arguments->bench);
        const auto protocol = protocolFromJson(readJsonFile(arguments->protocol), arguments->protocol);
        const SimulatedRun run = simulate(bench, protocol, arguments->seed);
        writeFileAtomically(arguments->output, logText(run.trace));
        fmt::print(out, "{}: {} samples, true steady difference {:.3f} K{}\n", arguments->output,
                   run.trace.samples(), run.trueDeltaK, run.limited ? ", held at the temperature limit" : "");
    };
}

} // namespace ibuki
