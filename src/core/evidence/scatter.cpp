// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/scatter.h"

#include "core/distributions/distributions.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/evidence.h"
#include "core/evidence/response.h"

#include <array>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

/// Sum of squares between the mounts of a level, with its degrees of freedom.
struct Within {
    double ss = 0;
    double df = 0;
};

std::optional<Within> withinOf(const Document& document, const Question& question) {
    const Evidence evidence = measuredEvidence(document, question);
    if (!evidence.comparison || !evidence.comparison->pooledSd || evidence.comparison->df <= 0)
        return std::nullopt;
    const double sd = *evidence.comparison->pooledSd;
    return Within{evidence.comparison->df * sd * sd, evidence.comparison->df};
}

/// Of every question of the closed studies: planning asks for it at each turn of a slider.
struct ClosedStudies {
    std::map<Id<Question>, std::optional<Within>> within;
};

ClosedStudies closedStudies(const Document& document) {
    ClosedStudies closed;
    for (const auto& [id, study] : document.all<Study>())
        if (study.state == StudyState::closed)
            for (const Question* asked : document.where(&Question::study, id))
                closed.within[asked->id] = withinOf(document, *asked);
    return closed;
}

/// Pooled sum of squares with its degrees of freedom.
struct Pool {
    double ss = 0;
    double df = 0;
    int studies = 0;

    bool add(const std::optional<Within>& within) {
        if (!within) return false;
        ss += within->ss;
        df += within->df;
        return true;
    }

    Scatter scatter() const {
        Scatter found{std::sqrt(ss / df), ScatterSource::finishedStudies, df, {}, {}, studies};
        const auto limit = [&](double p) { return found.sd * std::sqrt(df / chiSquaredQuantile(p, df)); };
        found.ci = Interval{limit(0.975), limit(0.025)};
        found.cautious = limit(0.2);
        return found;
    }
};

/// Root mean square over the levels' classes.
double typicalSdK(const Document& document, const Question& question) {
    const auto materials = levelMaterials(document, question);
    if (materials.empty()) return typicalMountSdK(MaterialClass::paste);
    double sum = 0;
    for (const Material* material : materials) sum += std::pow(typicalMountSdK(material->kind), 2);
    return std::sqrt(sum / static_cast<double>(materials.size()));
}

} // namespace

double kelvinPerUnit(const Document& document, const Question& question) {
    if (question.normalisation != Normalisation::perWatt) return 1;
    for (const Load* load : document.where(&Load::study, question.study))
        if (load->target && load->target->value > 0) return load->target->value;
    return 150; // a usual sustained load where none is stated
}

double typicalMountSdK(MaterialClass kind) {
    // paste, putty, gap pad, sheet, phase change, liquid metal, solder, unknown
    static constexpr std::array<double, 8> table{0.4, 0.6, 0.7, 0.5, 0.3, 0.6, 0.3, 0.5};
    return table.at(static_cast<std::size_t>(kind));
}

Scatter expectedScatter(const Document& document, const Question& question, const Plan* plan) {
    if (plan && plan->statedScatter)
        return {plan->statedScatter->value, ScatterSource::stated, {}, {}, {}, 0};
    const Study* own = document.find(question.study);
    const auto& closed = document.once<ClosedStudies>([&] { return closedStudies(document); }).within;
    Pool pool;
    for (const auto& [id, study] : document.all<Study>()) {
        if (!own || study.bench != own->bench || study.state != StudyState::closed || id == own->id) continue;
        bool counted = false;
        for (const Question* asked : document.where(&Question::study, id))
            if (responseUnit(*asked) == responseUnit(question))
                counted = pool.add(closed.at(asked->id)) || counted;
        pool.studies += counted ? 1 : 0;
    }
    if (pool.df > 0 && pool.ss > 0) return pool.scatter();
    return {typicalSdK(document, question) / kelvinPerUnit(document, question),
            ScatterSource::typical,
            {},
            {},
            {},
            0};
}

std::optional<Scatter> ownScatter(const Document& document, const Question& question) {
    Pool pool;
    if (!pool.add(withinOf(document, question)) || !(pool.ss > 0)) return std::nullopt;
    pool.studies = 1;
    return pool.scatter();
}

int steinMounts(double sd, double df, double halfWidth, double confidence, int atLeast) {
    const double t = studentQuantile(0.5 + confidence / 2, df);
    const double needed = std::ceil(2 * std::pow(t * sd / halfWidth, 2) - 1e-9);
    return std::max(atLeast, static_cast<int>(std::min(needed, 1e6)));
}

} // namespace ibuki
