// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/practice/practice_review.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/evidence/evidence.h"
#include "core/plan/rehearsal.h"
#include "core/plan/sample_size.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace ibuki {
namespace {

constexpr long campaigns = 20'000;
constexpr double asGoodK = 0.1;

/// Means of the mounts of each level that count.
std::map<Id<Level>, std::vector<double>> mountMeans(const Document& document, const Question& question) {
    const auto rows = runRows(document, question);
    MountRule rule;
    rule.onlyFresh = false; // whatever the learner measured of it
    std::map<Id<Level>, std::vector<double>> means;
    auto figures = mountFigures(rows, comparedLoad(document, rows, question), rule);
    std::sort(figures.begin(), figures.end(),
              [](const MountFigure& a, const MountFigure& b) { return a.mount < b.mount; });
    for (const MountFigure& figure : figures)
        if (figure.level) means[*figure.level].push_back(figure.value);
    return means;
}

/// By rank of the means, as the learner's numbers of mounts would give it over and over.
double shareNamedRight(const std::vector<ReviewedLevel>& levels, int seed) {
    RehearsalScenario scenario;
    scenario.asGoodK = asGoodK;
    for (const ReviewedLevel& level : levels) {
        RehearsedMaterial material;
        material.name = std::to_string(level.truth.level.value);
        material.deltaK = level.truth.deltaK;
        material.mountSdK = level.truth.mountSdK;
        material.mounts = std::max(1, level.mounts);
        scenario.materials.push_back(std::move(material));
    }
    RehearsedPractice practice;
    practice.judge = RehearsedJudge::rank;
    scenario.practices.push_back(practice);
    RehearsalOptions options{campaigns};
    options.seed = static_cast<std::uint64_t>(seed) + 99;
    return rehearse(scenario, options).practices.front().rightBest;
}

int mountsToTell(const std::vector<ReviewedLevel>& levels, double gapK, double confidence) {
    double variance = 0;
    for (const ReviewedLevel& level : levels) variance += level.truth.mountSdK * level.truth.mountSdK;
    SampleSizeInput input;
    input.groups = static_cast<int>(levels.size());
    input.mountSd = std::sqrt(variance / static_cast<double>(levels.size()));
    input.difference = gapK;
    input.confidence = confidence;
    try {
        return sampleSize(input).mountsPerGroup;
    } catch (const InputError&) {
        return 0; // no number of mounts would do
    }
}

/// What befell the mounts that were made, and whether they were kept.
void tellMishaps(PracticeReview& review, const Document& document, const Practice& practice) {
    static constexpr const char* codes[] = {"", "practice-fan", "practice-room", "practice-slip"};
    for (const Slot* slot : slotsOf(document, practice.study)) {
        const Mount* mount = document.find(slot->mount);
        if (!mount) continue;
        const PracticeMount made = practiceMount(document, practice, *slot);
        const std::string kept = mount->rejected ? ".rejected" : ".kept";
        if (made.mishap != Mishap::none)
            review.sentences.push_back(
                {codes[static_cast<int>(made.mishap)] + kept, {{"mount", mount->name}}});
        if (made.coveredShare < 0.9)
            review.sentences.push_back(
                {"practice-dose" + kept, {{"mount", mount->name}, {"percent", 100 * made.coveredShare}}});
    }
}

void tellVerdict(PracticeReview& review, const Document& document, const Practice& practice,
                 const Question& question) {
    const Level* named = document.find(practice.committedBest);
    const ReviewedLevel& best = review.levels.front();
    if (!named)
        review.sentences.push_back(
            {review.gapK < question.margin.value ? "practice-open.right" : "practice-open.missed",
             {{"level", best.truth.name}, {"gap", review.gapK}}});
    else
        review.sentences.push_back(
            {review.right ? "practice-right" : "practice-wrong",
             {{"named", named->name}, {"level", best.truth.name}, {"gap", review.gapK}}});
    review.sentences.push_back({"practice-luck", {{"percent", 100 * review.namedRight}}});
    if (review.gapK < question.margin.value)
        review.sentences.push_back(
            {"practice-margin", {{"gap", review.gapK}, {"margin", question.margin.value}}});
    if (review.mountsToTell > 0)
        review.sentences.push_back(
            {"practice-plan", {{"mounts", review.mountsToTell}, {"gap", review.gapK}}});
}

} // namespace

PracticeReview reviewOf(const Document& document, const Practice& practice) {
    PracticeReview review;
    const Question* question = firstQuestion(document, practice.study);
    if (!question) return review;
    const auto means = mountMeans(document, *question);
    const Evidence evidence = gatherEvidence(document, *question);
    for (const SealedLevel& sealed : sealedTruth(document, practice)) {
        ReviewedLevel level;
        level.truth = sealed;
        if (const auto at = means.find(sealed.level); at != means.end()) {
            level.mounts = static_cast<int>(at->second.size());
            double sum = 0;
            for (double mean : at->second) sum += mean;
            level.meanK = sum / level.mounts;
        }
        if (evidence.comparison)
            for (const GroupSummary& group : evidence.comparison->groups)
                if (levelOfGroup(evidence, group) == sealed.level) level.ci = group.ci;
        review.levels.push_back(std::move(level));
    }
    if (review.levels.size() < 2) return review;
    std::sort(review.levels.begin(), review.levels.end(),
              [](const ReviewedLevel& a, const ReviewedLevel& b) { return a.truth.deltaK < b.truth.deltaK; });
    for (ReviewedLevel& level : review.levels)
        level.trulyBest = level.truth.deltaK <= review.levels.front().truth.deltaK + asGoodK;
    review.gapK = review.levels[1].truth.deltaK - review.levels[0].truth.deltaK;
    review.right = std::any_of(review.levels.begin(), review.levels.end(), [&](const ReviewedLevel& level) {
        return level.trulyBest && practice.committedBest == level.truth.level;
    });
    review.namedRight = shareNamedRight(review.levels, practice.seed);
    review.mountsToTell = mountsToTell(review.levels, review.gapK, question->confidence);
    tellVerdict(review, document, practice, *question);
    tellMishaps(review, document, practice);
    return review;
}

} // namespace ibuki
