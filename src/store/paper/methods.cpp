// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/methods.h"

#include <algorithm>

namespace ibuki {
namespace {

struct Line {
    std::string_view text;
    std::size_t end = 0; ///< behind its newline
};

Line lineAt(std::string_view text, std::size_t from) {
    const std::size_t newline = text.find('\n', from);
    const std::size_t end = newline == std::string_view::npos ? text.size() : newline;
    return {text.substr(from, end - from), std::min(end + 1, text.size())};
}

std::string_view headingOf(std::string_view line) {
    if (!line.starts_with("#")) return {};
    const std::size_t at = line.find_first_not_of('#');
    return at == std::string_view::npos || line[at] != ' ' ? std::string_view{} : line.substr(at + 1);
}

bool names(std::string_view heading, std::string_view wanted) {
    return heading == wanted || heading.starts_with(std::string(wanted) + " ");
}

} // namespace

std::optional<std::string> methodsSection(std::string_view wanted) {
    const std::string_view text = methodsText();
    for (std::size_t at = 0; at < text.size();) {
        const Line line = lineAt(text, at);
        at = line.end;
        const std::string_view heading = headingOf(line.text);
        if (heading.empty() || !names(heading, wanted)) continue;
        std::size_t end = at;
        while (end < text.size() && headingOf(lineAt(text, end).text).empty()) end = lineAt(text, end).end;
        return "### " + std::string(heading) + "\n" + std::string(text.substr(at, end - at));
    }
    return std::nullopt;
}

const std::vector<TopicInfo>& topics() {
    static const std::vector<TopicInfo> all{
        {Topic::delta, "topic-delta", {"A.4", "A.6", "A.7", "A.9"}},
        {Topic::metric, "topic-metric", {"A.2"}},
        {Topic::trace, "topic-trace", {"A.5", "A.6", "A.7"}},
        {Topic::probe, "topic-probe", {"A.4b"}},
        {Topic::rules, "topic-rules", {"A.5", "A.6", "A.7"}},
        {Topic::uncertainty, "topic-uncertainty", {"B.1", "B.4", "A.9"}},
        {Topic::limit, "topic-limit", {"A.10", "D.12"}},
        {Topic::chance, "topic-chance", {"E.1", "E.2", "E.3"}},
        {Topic::evenings, "topic-evenings", {"E.7", "E.4"}},
        {Topic::orderCost, "topic-order-cost", {"E.5"}},
        {Topic::expectedCurve, "topic-expected-curve", {"E.8"}},
        {Topic::looks, "topic-looks", {"E.6"}},
        {Topic::ladder, "topic-ladder", {"D.1", "D.3", "D.4", "D.6", "D.9", "D.13", "D.16", "D.17"}},
        {Topic::verdict, "topic-verdict", {"D.14", "Sentences", "D.2", "D.11", "D.23", "D.24"}},
        {Topic::dose, "topic-dose", {"Dose and spread", "Bond line"}},
        {Topic::gap, "topic-gap", {"Pads and gaps"}},
        {Topic::cutting, "topic-cutting", {"Cutting"}},
        {Topic::typical, "topic-typical", {"Typical values"}},
        {Topic::shelf, "topic-shelf", {"The shelf"}},
        {Topic::cautions, "topic-cautions", {"Cautions"}},
        {Topic::heatPath, "topic-heat-path", {"H.1", "H.2", "H.3", "H.4", "H.5", "H.7", "H.8", "H.9"}},
        {Topic::peel, "topic-peel", {"Looks"}},
        {Topic::ageing, "topic-drift", {"G.1", "G.2", "G.4", "G.5", "G.6", "G.7", "G.8", "G.9"}},
        {Topic::loadSteps, "topic-load-steps", {"H.10"}},
        {Topic::bursts, "topic-bursts", {"H.12"}},
        {Topic::external, "topic-elsewhere", {"H.11"}},
        {Topic::tape, "topic-tape", {"A.4", "A.10"}},
        {Topic::gate, "topic-gate", {"E.9"}},
        {Topic::watch, "topic-watch", {"E.10"}},
        {Topic::checkUp, "topic-check-up", {"E.11"}},
        {Topic::twoFactors, "topic-two-factors", {"D.18"}},
        {Topic::benchHealth, "topic-bench-health", {"D.20", "D.8"}},
        {Topic::sweep, "topic-sweep", {"D.19"}},
        {Topic::responses, "topic-responses", {"D.22"}},
        {Topic::value, "topic-value", {"D.21"}}};
    return all;
}

const TopicInfo& topicInfo(Topic topic) {
    return *std::find_if(topics().begin(), topics().end(),
                         [topic](const TopicInfo& info) { return info.topic == topic; });
}

std::string topicText(Topic topic) {
    std::string text;
    for (std::string_view heading : topicInfo(topic).sections)
        if (const auto section = methodsSection(heading)) text += *section + "\n";
    return text;
}

} // namespace ibuki
