// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/ageing_section.h"

#include "core/ageing/ageing_curves.h"
#include "core/quantity/span.h"
#include "store/paper/svg.h"
#include "words/words.h"

#include <algorithm>
#include <array>

namespace ibuki {
namespace {

using namespace paper_ink;

constexpr double chartWidth = 720;
constexpr double chartHeight = 300;
constexpr double chartLeft = 48;
constexpr double chartRight = 150; ///< for names
constexpr double chartTop = 14;
constexpr double chartFoot = 34;

/// Where hours and kelvins lie on the paper.
struct Frame {
    double hours = 1;
    double low = -0.5;
    double high = 0.5;
    double x(double t) const { return chartLeft + (chartWidth - chartLeft - chartRight) * t / hours; }
    double y(double k) const {
        return chartTop + (chartHeight - chartTop - chartFoot) * (high - k) / (high - low);
    }
};

struct Drawn {
    const GroupAgeing* ageing = nullptr;
    AgeingCurves curves;
};

std::vector<Drawn> drawnGroups(const AgeingJudgement& judged) {
    std::vector<Drawn> drawn;
    for (const GroupAgeing& one : judged.groups)
        if (one.group.isFollowed()) drawn.push_back({&one, ageingCurves(one, AgeingClock::hours)});
    return drawn;
}

Frame frameOf(const std::vector<Drawn>& drawn, double threshold) {
    Frame frame;
    bool wears = false;
    for (const Drawn& one : drawn) {
        wears = wears || one.ageing->wearsOut;
        for (const auto& dots : one.curves.mounts)
            for (const auto& dot : dots) {
                frame.hours = std::max(frame.hours, dot.t);
                frame.low = std::min(frame.low, dot.changeK);
                frame.high = std::max(frame.high, dot.changeK);
            }
    }
    if (wears) frame.high = std::max(frame.high, threshold);
    const double room = 0.06 * (frame.high - frame.low);
    frame.low -= room;
    frame.high += room;
    return frame;
}

double stepFor(double span) {
    for (const double step : {0.1, 0.2, 0.5, 1., 2., 5., 10.})
        if (span / step <= 7) return step;
    return 20;
}

void drawAxes(Svg& svg, const Frame& frame) {
    const double step = stepFor(frame.high - frame.low);
    for (double k = std::ceil(frame.low / step) * step; k <= frame.high; k += step) {
        svg.line(chartLeft, frame.y(k), chartWidth - chartRight, frame.y(k), "#ddd5c8", k == 0 ? 1.4 : 0.7);
        svg.label(chartLeft - 6, frame.y(k) + 4, quiet, "end",
                  fmt::format("{:+.1f}", std::abs(k) < step / 2 ? 0.0 : k), 11);
    }
    for (int i = 0; i <= 4; ++i) {
        const double t = frame.hours * i / 4;
        svg.label(frame.x(t), chartHeight - chartFoot + 16, quiet, i == 0 ? "start" : "middle",
                  i == 0 ? words::say("fresh") : words::text(spanMessage(t)), 11);
    }
    svg.label(chartLeft, chartHeight - 4, quiet, "start",
              words::say("change since fresh, K, over the time since mounting"), 11);
}

void drawGroup(Svg& svg, const Frame& frame, const Drawn& one, const char* colour, double nameY) {
    for (const auto& dots : one.curves.mounts)
        for (const auto& dot : dots)
            svg.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"2.4\" fill=\"none\" stroke=\"{}\"/>\n",
                    frame.x(dot.t), frame.y(dot.changeK), colour);
    for (const auto& dots : one.curves.mounts) {
        if (!one.curves.t.empty()) break; // a common course is drawn instead
        svg.put("<polyline fill=\"none\" stroke=\"{}\" stroke-width=\"0.8\" points=\"", colour);
        for (const auto& dot : dots) svg.put("{:.1f},{:.1f} ", frame.x(dot.t), frame.y(dot.changeK));
        svg.put("\"/>\n");
    }
    if (!one.curves.t.empty()) {
        svg.put("<polyline fill=\"none\" stroke=\"{}\" stroke-width=\"1.8\" points=\"", colour);
        for (std::size_t i = 0; i < one.curves.t.size(); ++i)
            svg.put("{:.1f},{:.1f} ", frame.x(one.curves.t[i]), frame.y(one.curves.changeK[i]));
        svg.put("\"/>\n");
    }
    svg.label(chartWidth - chartRight + 8, nameY, colour, "start", one.ageing->group.name);
}

double lastChange(const Drawn& one) {
    if (!one.curves.changeK.empty()) return one.curves.changeK.back();
    double last = 0;
    for (const auto& dots : one.curves.mounts)
        if (!dots.empty()) last = dots.back().changeK;
    return last;
}

} // namespace

std::string ageingSvg(const AgeingJudgement& judged) {
    auto drawn = drawnGroups(judged);
    const double threshold = judged.rules.threshold.value;
    const Frame frame = frameOf(drawn, threshold);
    Svg svg(chartWidth, chartHeight);
    drawAxes(svg, frame);
    if (threshold <= frame.high)
        svg.put("<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\" "
                "stroke-dasharray=\"6 4\"/>\n",
                chartLeft, frame.y(threshold), chartWidth - chartRight, frame.y(threshold), hot);
    std::stable_sort(drawn.begin(), drawn.end(),
                     [](const Drawn& a, const Drawn& b) { return lastChange(a) > lastChange(b); });
    constexpr std::array colours{hot, cold, ink};
    double nameY = chartTop;
    for (std::size_t i = 0; i < drawn.size(); ++i) {
        nameY = std::max(nameY + 14, frame.y(lastChange(drawn[i])) + 4);
        drawGroup(svg, frame, drawn[i], colours[i % colours.size()], nameY);
    }
    return svg.finish();
}

std::string ageingHtml(const Document& document, const Question& question) {
    AgeingSeries series = ageingSeries(document, question);
    if (std::none_of(series.groups.begin(), series.groups.end(),
                     [](const SeriesGroup& group) { return group.isFollowed(); }))
        return {};
    const AgeingJudgement judged = judgeAgeing(document, question, std::move(series));
    std::string html = fmt::format("<h2>{}</h2>\n", xmlText(words::say("What time did to the mounts")));
    html += ageingSvg(judged);
    const auto list = [&](const std::vector<Message>& reported) {
        html += "<ul>\n";
        for (const Message& one : reported) html += fmt::format("<li>{}.</li>\n", xmlText(words::text(one)));
        html += "</ul>\n";
    };
    for (const GroupAgeing& ageing : judged.groups)
        if (ageing.group.isFollowed()) list(ageing.reported);
    list(judged.bench);
    return html;
}

} // namespace ibuki
