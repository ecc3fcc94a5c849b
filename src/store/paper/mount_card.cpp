// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/mount_card.h"

#include "core/domain/words.h"
#include "core/plan/step_times.h"
#include "store/paper/ladder_svg.h"
#include "store/paper/sentences.h"
#include "words/words.h"

#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>

namespace ibuki {
namespace {

std::string amountWords(const MountBrief& brief) {
    if (brief.areaMm2) return words::say("{area:.0f} mm² cut to the face", {{"area", *brief.areaMm2}});
    if (!brief.grams) return "";
    return brief.gramsAreUsual ? words::say("{amount:.2f} g (usual dose)", {{"amount", *brief.grams}})
                               : fmt::format("{:.2f} g", *brief.grams);
}

std::string boxed(const std::string& text) {
    return "<tr><td width='34' valign='top'>☐</td><td>" + xmlText(text) + "</td></tr>";
}

} // namespace

std::string manualWorkLine(const MountBrief& brief) {
    std::vector<std::string> words;
    if (brief.staysMounted) {
        words.push_back(words::say("leave it mounted and change only this"));
        if (brief.torqueNm) words.push_back(fmt::format("{:g} N·m", *brief.torqueNm));
        if (!brief.rig.empty()) words.push_back(brief.rig);
        return fmt::format("{}", fmt::join(words, ", "));
    }
    if (const std::string amount = amountWords(brief); !amount.empty()) words.push_back(amount);
    if (brief.pattern != ApplicationPattern::notStated && brief.pattern != ApplicationPattern::other)
        words.push_back(words::say(brief.pattern == ApplicationPattern::fiveDots
                                       ? words::mark("as {pattern}")
                                       : words::mark("as a {pattern}"),
                                   {{"pattern", Term{word(brief.pattern)}}}));
    if (brief.torqueNm) words.push_back(fmt::format("{:g} N·m", *brief.torqueNm));
    if (brief.lot) words.push_back(words::say("from {lot}", {{"lot", brief.lot->name}}));
    if (!brief.rig.empty()) words.push_back(words::say("on {rig}", {{"rig", brief.rig}}));
    for (const std::string& other : brief.otherLevels) words.push_back(other);
    return fmt::format("{}", fmt::join(words, ", "));
}

std::string stepLine(const StepOccurrence& step) {
    const Fields fields{{"step", words::capital(words::term(word(step.kind)))},
                        {"load", step.load},
                        {"lasts", lastsMessage(std::round(step.minutes), step.gate, step.gateValue)}};
    return step.load.empty() ? words::say("{step}, {lasts}", fields)
                             : words::say("{step} under {load}, {lasts}", fields);
}

std::string mountCardHtml(const MountBrief& brief) {
    std::string html = "<html><body>";
    html += fmt::format("<p style='font-size:11pt'>{} · {} · {}{}</p>", xmlText(brief.study),
                        xmlText(brief.bench), xmlText(brief.site),
                        brief.block > 0 ? " · " + words::say("block {block}", {{"block", brief.block}}) : "");
    html +=
        fmt::format("<p style='font-size:30pt; font-weight:600'>{}</p>", xmlText(words::text(brief.title)));
    if (const std::string manualWork = manualWorkLine(brief); !manualWork.empty())
        html += fmt::format("<p style='font-size:18pt'>{}</p>", xmlText(manualWork));
    if (brief.plannedFor)
        html += fmt::format("<p style='font-size:12pt'>{}</p>",
                            xmlText(words::say("Planned for {weekday} {day}",
                                               {{"weekday", Term{weekdayText(*brief.plannedFor)}},
                                                {"day", dateTimeText(*brief.plannedFor)}})));
    html += "<table cellpadding='5' style='font-size:15pt'>";
    for (const StepOccurrence& step : brief.steps) html += boxed(stepLine(step));
    html += "</table>";
    if (!brief.heldConstant.empty())
        html += fmt::format("<p style='font-size:12pt'><b>{}</b> {}</p>",
                            xmlText(words::say("Stays as it is:")), xmlText(brief.heldConstant));
    if (!brief.cautions.empty()) {
        html += "<p style='font-size:12pt'><b>" + xmlText(words::say("Heed"))
                + "</b></p><ul style='font-size:11pt'>";
        for (const Caution& caution : brief.cautions)
            html += "<li>" + xmlText(cautionText(caution)) + "</li>";
        html += "</ul>";
    }
    html += fmt::format("<p style='font-size:10pt'>{}</p>", xmlText(words::text({"caution-preamble", {}})));
    return html + "</body></html>";
}

} // namespace ibuki
