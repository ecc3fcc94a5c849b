// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// docs/methods.md inside the program: what each figure is, by the same text that the developers work from.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

/// The whole document, Markdown.
std::string_view methodsText();

/// The section under that heading ("E.1", "Bond line"; letters stand for the heading that begins with them),
/// without the sections inside it; nothing when there is none.
std::optional<std::string> methodsSection(std::string_view heading);

/// What a figure in the window may be.
enum class Topic {
    delta,
    metric,
    trace,
    probe,
    rules,
    uncertainty,
    limit,
    chance,
    evenings,
    orderCost,
    expectedCurve,
    looks,
    ladder,
    verdict,
    dose,
    gap,
    cutting,
    typical,
    shelf,
    cautions,
    heatPath,
    peel,
    ageing,
    loadSteps,
    bursts,
    external,
    tape,
    gate,
    watch,
    checkUp,
    twoFactors,
    benchHealth,
    sweep,
    responses,
    value
};

struct TopicInfo {
    Topic topic = Topic::delta;
    const char* code = nullptr; ///< of its name in the catalogue; with ".what" its one sentence
    std::vector<std::string_view> sections;
};
const std::vector<TopicInfo>& topics();
const TopicInfo& topicInfo(Topic topic);

/// Formula and source of the topic: its sections one after the other, Markdown.
std::string topicText(Topic topic);

} // namespace ibuki
