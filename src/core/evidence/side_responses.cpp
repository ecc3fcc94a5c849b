// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/side_responses.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/mount.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/asked_options.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace ibuki {
namespace {

/// One response and its value of each row, beside the rows.
struct Found {
    SideResponse response = SideResponse::score;
    std::string name;
    std::string unit;
    Better better = Better::neither;
    std::vector<std::optional<double>> values;
};

std::string fanUnit(const Document& document, const std::vector<RunRow>& rows) {
    for (const RunRow& row : rows)
        if (const Reduction* reduction = reductionOf(document, row.runId))
            for (const ChannelInfo& channel : reduction->channels)
                if (channel.role == Role::fan && channel.unit != Unit::none)
                    return std::string(unitName(channel.unit));
    return typicalOf(SideResponse::fanSpeed).unit;
}

void addMeasured(std::vector<Found>& all, const Document& document, const std::vector<RunRow>& rows) {
    const auto add = [&](SideResponse response, std::optional<double> RunRow::*member) {
        const auto [unit, better] = typicalOf(response);
        Found found{response, "", unit, better, {}};
        for (const RunRow& row : rows) found.values.push_back(row.*member);
        all.push_back(std::move(found));
    };
    add(SideResponse::power, &RunRow::powerW);
    add(SideResponse::perWatt, &RunRow::rthKPerW);
    add(SideResponse::clock, &RunRow::clockMHz);
    add(SideResponse::fanSpeed, &RunRow::fan);
    all.back().unit = fanUnit(document, rows);
}

/// Several readings of one kind in a run are averaged; what another unit has is another response.
void addRead(std::vector<Found>& all, const Document& document, const std::vector<RunRow>& rows) {
    const std::size_t measured = all.size();
    std::map<std::pair<std::size_t, std::size_t>, int> counts;
    for (std::size_t row = 0; row < rows.size(); ++row)
        for (const EnteredReading* reading : document.where(&EnteredReading::run, rows[row].runId)) {
            const auto at = std::find_if(all.begin() + static_cast<std::ptrdiff_t>(measured), all.end(),
                                         [&](const Found& one) {
                                             return one.response == reading->kind && one.name == reading->name
                                                    && one.unit == reading->unit;
                                         });
            const auto place = static_cast<std::size_t>(at - all.begin());
            if (at == all.end())
                all.push_back({reading->kind, reading->name, reading->unit, reading->better,
                               std::vector<std::optional<double>>(rows.size())});
            std::optional<double>& value = all[place].values[row];
            const int before = counts[{place, row}]++;
            value = (value.value_or(0) * before + reading->value) / (before + 1);
        }
    std::stable_sort(all.begin() + static_cast<std::ptrdiff_t>(measured), all.end(),
                     [](const Found& a, const Found& b) { return a.response < b.response; });
}

/// The rows as the response judges them; nothing is censored.
std::vector<RunValue> valuesOf(const Found& found, const Question& question, const Evidence& evidence) {
    std::vector<RunRow> rows = evidence.rows;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        rows[i].response = found.values[i];
        rows[i].censored = false;
    }
    return comparedRuns(rows, evidence.load, evidence.design, question);
}

double meanOf(const std::vector<RunValue>& values) {
    double sum = 0;
    for (const RunValue& value : values) sum += value.value;
    return values.empty() ? 0 : sum / static_cast<double>(values.size());
}

std::size_t groupsIn(const std::vector<RunValue>& values) {
    std::set<std::int64_t> groups;
    for (const RunValue& value : values) groups.insert(value.group.id);
    return groups.size();
}

std::optional<double> statedMargin(const Document& document, const Question& question, const Found& found) {
    for (const SideMargin* one : document.where(&SideMargin::question, question.id))
        if (one->response == found.response && one->name == found.name) return one->margin;
    return std::nullopt;
}

void compareBy(SideComparison& side, const Document& document, const Question& question,
               const Evidence& evidence, const std::vector<RunValue>& values) {
    CompareOptions options = askedOptions(document, question, values).options;
    options.margin = side.margin;
    options.mostFurtherMounts = 0; // dear, and told of the question's own response only
    options.tellP = false;
    options.lowerIsBetter = side.better != Better::higher;
    if (evidence.comparison && evidence.comparison->options.reference) {
        const auto held = *evidence.comparison->options.reference;
        if (std::any_of(values.begin(), values.end(),
                        [&](const RunValue& one) { return one.group.id == held; }))
            options.reference = held;
    }
    static_cast<Judged&>(side) = judge(values, options);
}

} // namespace

namespace {

/// To two digits: what matters is not known to three.
double rounded(double value) {
    if (!(value > 0)) return 1e-9;
    const double unit = std::pow(10, std::floor(std::log10(value)) - 1);
    return std::round(value / unit) * unit;
}

} // namespace

double typicalMargin(SideResponse response, double mean, const Question& question, double meanPowerW) {
    switch (response) {
    case SideResponse::power:
    case SideResponse::wallPower:
    case SideResponse::fanSpeed:
        return rounded(0.02 * std::abs(mean));
    case SideResponse::perWatt:
        return meanPowerW > 0 ? rounded(question.margin.value / meanPowerW) : rounded(0.02 * std::abs(mean));
    case SideResponse::noise:
        return 1;
    case SideResponse::fanShare:
        return 2;
    default:
        return rounded(0.01 * std::abs(mean));
    }
}

std::vector<SideComparison> sideComparisons(const Document& document, const Question& question,
                                            const Evidence& evidence) {
    std::vector<Found> all;
    addMeasured(all, document, evidence.rows);
    addRead(all, document, evidence.rows);
    const double power = meanOf(valuesOf(all.front(), question, evidence));
    std::vector<SideComparison> sides;
    for (const Found& found : all) {
        // The question's own response is on the ladder.
        if (found.response == SideResponse::perWatt && question.normalisation == Normalisation::perWatt)
            continue;
        const auto values = valuesOf(found, question, evidence);
        if (groupsIn(values) < 2) continue;
        SideComparison side{{}, found.response, found.name, found.unit, found.better};
        const auto stated = statedMargin(document, question, found);
        side.marginStated = stated.has_value();
        side.margin = stated.value_or(typicalMargin(found.response, meanOf(values), question, power));
        compareBy(side, document, question, evidence, values);
        sides.push_back(std::move(side));
    }
    return sides;
}

std::optional<PairComparison> pairBetween(const Comparison& comparison, std::int64_t a, std::int64_t b) {
    const auto turned = [](const std::optional<Interval>& ci) -> std::optional<Interval> {
        if (!ci) return std::nullopt;
        return Interval{-ci->hi, -ci->lo};
    };
    for (PairComparison pair : comparison.pairs) {
        const std::int64_t first = comparison.groups[pair.a].id;
        const std::int64_t second = comparison.groups[pair.b].id;
        if (first == a && second == b) return pair;
        if (first != b || second != a) continue;
        std::swap(pair.a, pair.b);
        if (pair.difference) pair.difference = -*pair.difference;
        pair.ci = turned(pair.ci);
        pair.equivalenceCi = turned(pair.equivalenceCi);
        return pair;
    }
    return std::nullopt;
}

} // namespace ibuki
