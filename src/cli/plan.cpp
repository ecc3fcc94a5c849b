// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/plan/sample_size.h"
#include "store/json/json_text.h"
#include "words/words.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>
#include <nlohmann/json.hpp>

namespace ibuki {
namespace {

struct PlanArguments {
    SampleSizeInput input;
    std::string comparison = "all-pairs";
    bool json = false;
};

PlannedComparison comparisonOf(const std::string& word) {
    if (word == "reference") return PlannedComparison::reference;
    return word == "two" ? PlannedComparison::two : PlannedComparison::allPairs;
}

void printSize(std::ostream& out, const SampleSize& size, const SampleSizeInput& input) {
    fmt::print(out, "{}\n",
               words::say("{mountsPerGroup} mounts of each level, {totalMounts} in all",
                          {{"mountsPerGroup", size.mountsPerGroup}, {"totalMounts", size.totalMounts}}));
    if (input.margin > 0)
        fmt::print(
            out, "{}\n",
            words::say("chance to show that two are the same within {margin:g} K: {achievedPower:.1f} %",
                       {{"margin", input.margin}, {"achievedPower", 100 * size.achievedPower}}));
    else
        fmt::print(
            out, "{}\n",
            words::say("chance to tell two apart that differ by {difference:g} K: {achievedPower:.1f} %",
                       {{"difference", input.difference}, {"achievedPower", 100 * size.achievedPower}}));
    fmt::print(out, "{}\n",
               words::say("half width of a difference's interval: {halfWidth:.2f} K",
                          {{"halfWidth", size.halfWidth}}));
}

} // namespace

VerbBody addPlan(Options options) {
    auto arguments = std::make_shared<PlanArguments>();
    SampleSizeInput& input = arguments->input;
    options.add("--groups", input.groups, words::say("Levels compared")).required();
    options.add("--mount-sd", input.mountSd, words::say("Standard deviation between mounts, K")).required();
    const Option difference =
        options.add("--difference", input.difference, words::say("Difference that must not be missed, K"));
    options.add("--power", input.power, words::say("Chance wanted")).tellDefault();
    options.add("--confidence", input.confidence, words::say("Confidence of the verdict")).tellDefault();
    options.add("--comparison", arguments->comparison, words::say("all-pairs, reference or two"))
        .oneOf({"all-pairs", "reference", "two"});
    const Option margin =
        options.add("--margin", input.margin, words::say("Show instead that two are the same within it, K"));
    options.addJson(arguments->json);
    options.example("ibuki-cli plan --groups 4 --mount-sd 0.4 --difference 1.0");
    return [arguments, difference, margin](std::ostream& out) {
        if (!difference.given() && !margin.given())
            throw UsageError(
                words::say("plan needs --difference, or --margin to show that two are the same"));
        if (margin.given() && !(arguments->input.margin > 0))
            throw InputError("plan-margin", {}, {{"margin", arguments->input.margin}});
        arguments->input.comparison = comparisonOf(arguments->comparison);
        const SampleSize size = sampleSize(arguments->input);
        if (!arguments->json) {
            printSize(out, size, arguments->input);
            return;
        }
        const nlohmann::ordered_json json{{"mounts_per_group", size.mountsPerGroup},
                                          {"achieved_power", size.achievedPower},
                                          {"half_width_K", size.halfWidth},
                                          {"total_mounts", size.totalMounts}};
        out << jsonText(json);
    };
}

} // namespace ibuki
