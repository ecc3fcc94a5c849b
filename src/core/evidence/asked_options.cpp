// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/asked_options.h"

#include "core/domain/words.h"
#include "core/evidence/interim_look.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

bool isKnown(const std::vector<RunValue>& values) {
    return std::all_of(values.begin(), values.end(),
                       [](const RunValue& value) { return std::isfinite(value.covariate); });
}

double middleOf(const std::vector<RunValue>& values) {
    double sum = 0;
    for (const RunValue& value : values) sum += value.covariate;
    return sum / static_cast<double>(values.size());
}

} // namespace

bool areBlocksStated(const std::vector<RunValue>& values) {
    return std::none_of(values.begin(), values.end(),
                        [](const RunValue& value) { return value.block.name.empty(); });
}

AskedOptions askedOptions(const Document& document, const Question& question,
                          const std::vector<RunValue>& values) {
    AskedOptions asked;
    CompareOptions& options = asked.options;
    options.margin = question.margin.value;
    options.confidence = 1 - nominalAlpha(1 - question.confidence, plannedLooks(document, question.study));
    options.drift = question.orderTakenOut;
    if (question.blocks && areBlocksStated(values)) options.blocks = true;
    if (question.blocks && !options.blocks)
        asked.flags.push_back(
            makeFlag(Severity::warn, "blocks-unknown", {{"what", Term{word(*question.blocks)}}}));
    if (question.covariate && isKnown(values)) options.covariate = true;
    if (question.covariate && !options.covariate)
        asked.flags.push_back(
            makeFlag(Severity::warn, "covariate-unknown", {{"what", Term{word(*question.covariate)}}}));
    if (question.secondFactor
        && (options.drift || options.covariate || question.spread == MountSpread::own)) {
        asked.flags.push_back(makeFlag(Severity::info, "left-with-two-factors"));
        options.drift = options.covariate = false;
        return asked;
    }
    if (question.spread == MountSpread::own && !options.takesOut()) options.spread = SpreadModel::welch;
    if (question.spread == MountSpread::own && options.takesOut())
        asked.flags.push_back(makeFlag(Severity::info, "own-spread-left"));
    return asked;
}

std::vector<Flag> takenOutFlags(const Comparison& comparison, const Question& question,
                                const std::vector<RunValue>& values) {
    std::vector<Flag> flags;
    const auto line = [&](const char* code, const std::optional<Drift>& found, Fields fields) {
        if (!found) return;
        fields.push_back({"slope", found->slope});
        fields.push_back({"lo", found->ci.lo});
        fields.push_back({"hi", found->ci.hi});
        flags.push_back(makeFlag(Severity::info, code, std::move(fields)));
    };
    if (comparison.options.blocks)
        flags.push_back(
            makeFlag(Severity::info, "blocks-taken-out", {{"what", Term{word(*question.blocks)}}}));
    line("order-taken-out", comparison.drift, {});
    const bool room = question.covariate == Covariate::room;
    if (comparison.options.covariate)
        line(room ? "covariate-taken-out.room" : "covariate-taken-out.power", comparison.covariate, {});
    if (comparison.equalSlopes && comparison.equalSlopes->p < 1 - comparison.options.confidence)
        flags.push_back(makeFlag(Severity::warn, room ? "slopes-differ.room" : "slopes-differ.power",
                                 {{"at", middleOf(values)}}));
    if (comparison.options.spread == SpreadModel::welch)
        flags.push_back(makeFlag(Severity::info, "own-spread"));
    return flags;
}

} // namespace ibuki
