// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/mount_card.h"

#include "core/domain/words.h"
#include "core/plan/step_times.h"
#include "store/paper/ladder_svg.h"
#include "store/paper/sentences.h"

#include <cctype>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>

namespace ibuki {
namespace {

std::string capital(std::string text) {
    if (!text.empty()) text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
}

std::string amountWords(const MountBrief& brief) {
    if (brief.areaMm2) return fmt::format("{:.0f} mm² cut to the face", *brief.areaMm2);
    if (!brief.grams) return "";
    return fmt::format("{:.2f} g{}", *brief.grams, brief.gramsAreUsual ? " (usual dose)" : "");
}

std::string boxed(const std::string& text) {
    return "<tr><td width='34' valign='top'>☐</td><td>" + xmlText(text) + "</td></tr>";
}

} // namespace

std::string handsLine(const MountBrief& brief) {
    std::vector<std::string> words;
    if (brief.staysMounted) {
        words.emplace_back("leave it mounted and change only this");
        if (brief.torqueNm) words.push_back(fmt::format("{:g} N·m", *brief.torqueNm));
        if (!brief.rig.empty()) words.push_back(brief.rig);
        return fmt::format("{}", fmt::join(words, ", "));
    }
    if (const std::string amount = amountWords(brief); !amount.empty()) words.push_back(amount);
    if (brief.pattern != ApplicationPattern::notStated && brief.pattern != ApplicationPattern::other)
        words.push_back((brief.pattern == ApplicationPattern::fiveDots ? "as " : "as a ")
                        + std::string(word(brief.pattern)));
    if (brief.torqueNm) words.push_back(fmt::format("{:g} N·m", *brief.torqueNm));
    if (brief.lot) words.push_back("from " + brief.lot->name);
    if (!brief.rig.empty()) words.push_back("on " + brief.rig);
    for (const std::string& other : brief.otherLevels) words.push_back(other);
    return fmt::format("{}", fmt::join(words, ", "));
}

std::string stepLine(const TimedStep& step) {
    ProtocolStep asStep;
    asStep.minutes = std::round(step.minutes);
    asStep.gate = step.gate;
    asStep.gateValue = step.gateValue;
    asStep.unattended = true; // hands are told by the step's own word
    std::string text = capital(std::string(word(step.kind)));
    if (!step.load.empty()) text += " under " + step.load;
    return text + ", " + stepText(asStep);
}

std::string mountCardHtml(const MountBrief& brief) {
    std::string html = "<html><body>";
    html += fmt::format("<p style='font-size:11pt'>{} · {} · {}{}</p>", xmlText(brief.study),
                        xmlText(brief.bench), xmlText(brief.site),
                        brief.block > 0 ? fmt::format(" · block {}", brief.block) : "");
    html += fmt::format("<p style='font-size:30pt; font-weight:600'>{}</p>", xmlText(brief.title));
    if (const std::string hands = handsLine(brief); !hands.empty())
        html += fmt::format("<p style='font-size:18pt'>{}</p>", xmlText(hands));
    if (brief.plannedFor)
        html += fmt::format("<p style='font-size:12pt'>Planned for {} {}</p>", weekdayText(*brief.plannedFor),
                            dateTimeText(*brief.plannedFor));
    html += "<table cellpadding='5' style='font-size:15pt'>";
    for (const TimedStep& step : brief.steps) html += boxed(stepLine(step));
    html += "</table>";
    if (!brief.heldConstant.empty())
        html += fmt::format("<p style='font-size:12pt'><b>Stays as it is:</b> {}</p>",
                            xmlText(brief.heldConstant));
    if (!brief.cautions.empty()) {
        html += "<p style='font-size:12pt'><b>Heed</b></p><ul style='font-size:11pt'>";
        for (const Caution& caution : brief.cautions)
            html += "<li>" + xmlText(cautionText(caution)) + "</li>";
        html += "</ul>";
    }
    html += fmt::format("<p style='font-size:10pt'>{}</p>", xmlText(std::string(cautionPreamble)));
    return html + "</body></html>";
}

} // namespace ibuki
