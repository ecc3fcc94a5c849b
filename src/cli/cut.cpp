// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut.h"
#include "cli/verb.h"
#include "store/atomic_file.h"
#include "store/json/cut_json.h"
#include "store/json/json_text.h"
#include "store/json/simulate_json.h"
#include "store/paper/cut_svg.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct CutArguments {
    std::string job;
    std::string svg;
    bool json = false;
};

void printPlan(std::ostream& out, const CutPlan& plan, const CutJob& job) {
    fmt::print(out, "{}\n",
               words::say("{fullSheets} full sheets, {offcutSheets} off-cuts, waste {waste:.1f} %",
                          {{"fullSheets", plan.fullSheets},
                           {"offcutSheets", plan.offcutSheets},
                           {"waste", 100 * plan.waste()}}));
    for (const auto& [piece, count] : plan.missing)
        fmt::print(out, "{}\n",
                   words::say("no room for {count} of {piece}",
                              {{"count", count}, {"piece", job.pieces[piece].name}}));
    for (std::size_t i = 0; i < plan.layouts.size(); ++i) {
        const CutLayout& layout = plan.layouts[i];
        fmt::print(out, "\nsheet {}: {}\n{:<16} {:>8} {:>8} {:>8} {:>8}\n", i + 1,
                   job.sheets[layout.sheet].name, "piece", "x mm", "y mm", "width", "length");
        for (const CutPlacement& placement : layout.placements)
            fmt::print(out, "{:<16} {:>8.2f} {:>8.2f} {:>8.2f} {:>8.2f}\n", job.pieces[placement.piece].name,
                       placement.at.x, placement.at.y, placement.at.width, placement.at.length);
    }
}

/// "pads.svg" becomes "pads-2.svg" for the second sheet of several.
std::string numbered(const std::string& path, std::size_t number, std::size_t count) {
    if (count == 1) return path;
    const auto dot = path.rfind('.');
    const auto stem = dot == std::string::npos ? path : path.substr(0, dot);
    return fmt::format("{}-{}{}", stem, number, dot == std::string::npos ? "" : path.substr(dot));
}

} // namespace

VerbBody addCut(Options options) {
    auto arguments = std::make_shared<CutArguments>();
    options.add("job", arguments->job, words::say("Pieces and sheets (JSON, docs/cli.md)")).required();
    options.add("--svg", arguments->svg, words::say("Also draw each sheet at 1:1; several get -1, -2, …"));
    options.addJson(arguments->json);
    options.example("ibuki-cli cut pads.json --svg pads.svg");
    return [arguments](std::ostream& out) {
        const CutJob job = cutJobFromJson(readJsonFile(arguments->job), arguments->job);
        const CutPlan plan = planCuts(job);
        const std::size_t sheets = arguments->svg.empty() ? 0 : plan.layouts.size();
        for (std::size_t i = 0; i < sheets; ++i)
            refuseInputAsTarget(numbered(arguments->svg, i + 1, sheets), {arguments->job});
        if (arguments->json)
            out << jsonText(toJson(plan, job));
        else
            printPlan(out, plan, job);
        for (std::size_t i = 0; i < sheets; ++i)
            writeFileAtomically(numbered(arguments->svg, i + 1, sheets),
                                cutSvg(job, plan.layouts[i], fmt::format("Sheet {}", i + 1)));
    };
}

} // namespace ibuki
