// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/survival.h"

#include "core/distributions/distributions.h"

#include <algorithm>
#include <cmath>

namespace ibuki {

Interval shareInterval(int happened, int trials, double confidence) {
    const double tail = (1 - confidence) / 2;
    const double k = happened;
    const double n = trials;
    return {happened == 0 ? 0 : betaQuantile(tail, k, n - k + 1),
            happened == trials ? 1 : betaQuantile(1 - tail, k + 1, n - k)};
}

double sameShareP(int happenedA, int trialsA, int happenedB, int trialsB) {
    const auto happened = static_cast<unsigned>(happenedA + happenedB);
    const auto all = static_cast<unsigned>(trialsA + trialsB);
    const auto table = [&](unsigned k) {
        return hypergeometric(k, happened, static_cast<unsigned>(trialsA), all);
    };
    const double seen = table(static_cast<unsigned>(happenedA));
    double p = 0;
    const int least = std::max(0, happenedA + happenedB - trialsB);
    const int most = std::min(trialsA, happenedA + happenedB);
    for (int k = least; k <= most; ++k)
        if (const double here = table(static_cast<unsigned>(k)); here <= seen * (1 + 1e-9)) p += here;
    return std::min(1.0, p);
}

std::vector<SurvivalStep> survival(std::vector<Watched> watched, double confidence) {
    std::sort(watched.begin(), watched.end(),
              [](const Watched& a, const Watched& b) { return a.until < b.until; });
    const double z = normalQuantile((1 + confidence) / 2);
    std::vector<SurvivalStep> steps;
    double survived = 1;
    double greenwood = 0;
    for (std::size_t i = 0; i < watched.size();) {
        std::size_t end = i;
        int happened = 0;
        while (end < watched.size() && watched[end].until <= watched[i].until)
            happened += watched[end++].happened ? 1 : 0;
        const int atRisk = static_cast<int>(watched.size() - i);
        if (happened > 0) {
            survived *= 1 - static_cast<double>(happened) / atRisk;
            SurvivalStep step{watched[i].until, atRisk, happened, survived, {}};
            if (survived > 0) {
                greenwood += happened / (static_cast<double>(atRisk) * (atRisk - happened));
                const double width = z * std::sqrt(greenwood) / std::abs(std::log(survived));
                step.interval =
                    Interval{std::pow(survived, std::exp(width)), std::pow(survived, std::exp(-width))};
            }
            steps.push_back(step);
        }
        i = end;
    }
    return steps;
}

std::optional<double> medianSurvival(const std::vector<SurvivalStep>& steps) {
    for (const SurvivalStep& step : steps)
        if (step.survived <= 0.5) return step.at;
    return std::nullopt;
}

std::optional<double> sameSurvivalP(const std::vector<Watched>& a, const std::vector<Watched>& b) {
    std::vector<double> times;
    for (const auto* group : {&a, &b})
        for (const Watched& one : *group)
            if (one.happened) times.push_back(one.until);
    std::sort(times.begin(), times.end());
    times.erase(std::unique(times.begin(), times.end()), times.end());
    const auto count = [](const std::vector<Watched>& group, auto&& wanted) {
        return static_cast<double>(std::count_if(group.begin(), group.end(), wanted));
    };
    double excess = 0;
    double variance = 0;
    for (const double t : times) {
        const auto atRisk = [t](const Watched& one) { return one.until >= t; };
        const auto died = [t](const Watched& one) { return one.happened && one.until == t; };
        const double nA = count(a, atRisk);
        const double n = nA + count(b, atRisk);
        const double dA = count(a, died);
        const double d = dA + count(b, died);
        excess += dA - d * nA / n;
        if (n > 1) variance += d * (nA / n) * (1 - nA / n) * (n - d) / (n - 1);
    }
    if (variance <= 0) return std::nullopt;
    return chiSquaredUpper(excess * excess / variance, 1);
}

} // namespace ibuki
