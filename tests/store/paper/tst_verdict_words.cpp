// SPDX-License-Identifier: GPL-3.0-or-later
// What the verdict says over made situations, held to tests/data/sentences/verdict.txt, which was read for
// plain language: no sentence claims more than its interval, none needs a course in statistics.

#include "core/comparison/two_factor.h"
#include "core/evidence/asked_options.h"
#include "store/paper/claims.h"
#include "store/paper/joint_sentences.h"
#include "support/places.h"
#include "support/test_class.h"

#include <QtTest>
#include <fmt/format.h>
#include <fstream>
#include <sstream>

using namespace ibuki;

namespace {

/// Mounts of one level around a value: deviations in the order of the mounts.
struct Made {
    const char* name;
    double mean;
    std::vector<double> deviations;
    int censored = 0; ///< the last so many mounts were at the limit
};

const std::vector<double> three{-0.3, 0.0, 0.3};
const std::vector<double> four{-0.3, -0.1, 0.1, 0.3};
const std::vector<double> eight{-0.3, -0.2, -0.1, -0.1, 0.1, 0.1, 0.2, 0.3};
const std::vector<double> one{0};

std::vector<TableRun> mounted(const std::vector<Made>& levels) {
    std::vector<TableRun> runs;
    for (const Made& level : levels)
        for (std::size_t i = 0; i < level.deviations.size(); ++i) {
            TableRun run{level.name, fmt::format("{} {}", level.name, i + 1),
                         level.mean + level.deviations[i]};
            run.censored = i + static_cast<std::size_t>(level.censored) >= level.deviations.size();
            run.block = fmt::format("evening {}", i + 1);
            run.order = static_cast<double>(runs.size() + 1);
            run.covariate = 22 + 0.4 * static_cast<double>(i);
            runs.push_back(run);
        }
    return runs;
}

class Situations {
public:
    std::string text;

    void heading(const std::string& name) { text += "\n# " + name + "\n"; }
    void say(const std::vector<VerdictSentence>& sentences) {
        for (const VerdictSentence& sentence : sentences) text += sentence.text + "\n";
    }
    Evidence judged(const std::vector<Made>& levels, const CompareOptions& options = {},
                    const std::string& reference = {}) {
        Evidence evidence;
        evidence.comparison = compare(mounted(levels), options, reference);
        return evidence;
    }
    void verdict(const std::string& name, const Evidence& evidence, const Question& question = {}) {
        heading(name);
        say(verdictSentences(evidence, question));
    }
    void verdict(const std::string& name, const std::vector<Made>& levels, const CompareOptions& options = {},
                 const std::string& reference = {}) {
        verdict(name, judged(levels, options, reference));
    }
};

SideComparison side(SideResponse response, const char* unit, Better better, double margin,
                    const std::vector<Made>& levels) {
    SideComparison made{{}, response, "", unit, better, margin};
    CompareOptions options;
    options.margin = margin;
    options.lowerIsBetter = better != Better::higher;
    made.comparison = compare(mounted(levels), options);
    return made;
}

void addPairs(Situations& s) {
    s.verdict("apart, by more than the margin", {{"Tern 11", 45, four}, {"Plover 4", 48, four}});
    s.verdict("apart, perhaps by less than the margin", {{"Tern 11", 45, four}, {"Plover 4", 46.2, four}});
    s.verdict("measurably apart, practically the same", {{"Tern 11", 45, eight}, {"Plover 4", 45.4, eight}});
    s.verdict("the same within the margin", {{"Tern 11", 45, eight}, {"Plover 4", 45.05, eight}});
    s.verdict("not settled, and some mounts would settle it",
              {{"Tern 11", 45, three}, {"Plover 4", 45.6, three}});
    s.verdict("not settled, and mounting will not help",
              {{"Tern 11", 45, {-3, 0, 3}}, {"Plover 4", 45.95, {-3, 0, 3}}});
    s.verdict(
        "one is cooler than all others",
        {{"Quickfin", 43, four}, {"Tern 11", 45, four}, {"Plover 4", 46, four}, {"Slate 25", 50, four}});
    s.verdict("six of a kind",
              {{"A 1", 45, three}, {"B 2", 45.1, three}, {"C 3", 45, three}, {"D 4", 45.2, three}});
    s.verdict("one of the two from a single mount", {{"Tern 11", 45, four}, {"Plover 4", 48, one}});
    s.verdict("held against a reference",
              {{"Tern 11", 45, four}, {"Plover 4", 46.5, four}, {"Heron HV", 45.1, four}}, {}, "Tern 11");
    CompareOptions wide;
    wide.margin = 2.5;
    s.verdict("a wide margin makes them the same", {{"Tern 11", 45, four}, {"Plover 4", 46, four}}, wide);
    CompareOptions sure;
    sure.confidence = 0.99;
    s.verdict("asked to be surer", {{"Tern 11", 45, three}, {"Plover 4", 46.6, three}}, sure);
    CompareOptions own;
    own.spread = SpreadModel::welch;
    s.verdict("each with its own spread", {{"Tern 11", 45, four}, {"Basalt 2.0", 47, {-1.2, -0.3, 0.4, 1.1}}},
              own);
}

void addOneMountEach(Situations& s) {
    CompareOptions assumed;
    assumed.assumed = KnownScatter{0.4, std::numeric_limits<double>::infinity(), {"scatter-usual", {}}};
    s.verdict("one mount each, far apart", {{"as found", 50.3, one}, {"Tern 11", 44.8, one}}, assumed);
    s.verdict("one mount each, close", {{"as found", 45.3, one}, {"Tern 11", 44.8, one}}, assumed);
    s.verdict("one mount each of three",
              {{"as found", 50, one}, {"Tern 11", 44.8, one}, {"Plover 4", 45.2, one}}, assumed);
    assumed.assumed = KnownScatter{0.3, 9, {"scatter-finished", {{"count", 2}}}};
    s.verdict("one mount each, scatter of finished studies", {{"as found", 47, one}, {"Tern 11", 45, one}},
              assumed);
    assumed.assumed->sd = 3;
    s.verdict("one mount each on an unruly bench", {{"as found", 45.9, one}, {"Tern 11", 45, one}}, assumed);
}

void addSteps(Situations& s) {
    const auto steps = [&](const std::string& name, const std::vector<Made>& levels) {
        Evidence evidence = s.judged(levels);
        evidence.inSequence = true;
        s.verdict(name, evidence);
    };
    steps("step by step, each one gains",
          {{"as found", 52, four}, {"cleaned", 49, four}, {"Tern 11", 46, four}});
    steps("step by step, one costs", {{"as found", 52, four}, {"cleaned", 49, four}, {"Dunlin C", 51, four}});
    steps("step by step, cannot be separated",
          {{"as found", 46.3, three}, {"cleaned", 45.8, three}, {"Tern 11", 45.25, three}});
    steps("step by step, nothing gained",
          {{"as found", 46.1, three}, {"cleaned", 46, three}, {"Tern 11", 45.9, three}});
}

void addLimit(Situations& s) {
    s.verdict("one mount at the limit, judged by likelihood",
              {{"Tern 11", 27, four}, {"Dunlin C", 30, {-1.2, -0.6, 0, 0.4}, 1}});
    s.verdict("too often at the limit for a mean",
              {{"Tern 11", 45, four}, {"Plover 4", 47, four}, {"Dunlin C", 58, three, 2}});
    Evidence all;
    all.mounts = onlyGroups({}, {});
    all.reason = Message{"compare-limit-bound", {}};
    s.verdict("all at the limit", all);
    Evidence few;
    few.reason = Message{"nothing-measured", {}};
    s.verdict("nothing measured", few);
    few.reason = Message{"compare-one-group", {}};
    s.verdict("one level only", few);
    few.reason = Message{"nothing-measured.load", {{"load", "sustained 180 W"}}};
    s.verdict("nothing under the load that is asked for", few);
}

void addTakenOut(Situations& s) {
    const std::vector<Made> levels{{"Tern 11", 45, {-0.3, 0.4, 0.2, 0.9}},
                                   {"Plover 4", 47, {-0.2, 0.3, 0.4, 0.8}}};
    const auto with = [&](const std::string& name, const std::function<void(CompareOptions&, Question&)>& how,
                          const std::vector<Made>& made) {
        CompareOptions options;
        Question question;
        how(options, question);
        Evidence evidence = s.judged(made, options);
        std::vector<RunValue> values;
        for (const TableRun& run : mounted(made)) {
            RunValue value;
            value.covariate = run.covariate;
            values.push_back(value);
        }
        for (const Flag& flag : takenOutFlags(*evidence.comparison, question, values))
            addFlag(evidence.comparison->flags, flag);
        s.verdict(name, evidence, question);
    };
    with(
        "evenings are taken out",
        [](CompareOptions& o, Question& q) {
            o.blocks = true;
            q.blocks = BlockBy::evening;
        },
        levels);
    with(
        "people are taken out",
        [](CompareOptions& o, Question& q) {
            o.blocks = true;
            q.blocks = BlockBy::person;
        },
        levels);
    with(
        "a drift over the mounts is taken out",
        [](CompareOptions& o, Question& q) {
            o.drift = true;
            q.orderTakenOut = true;
        },
        levels);
    with(
        "the room as a line",
        [](CompareOptions& o, Question& q) {
            o.covariate = true;
            q.covariate = Covariate::room;
        },
        levels);
    with("levels that follow the room unlike one another",
         [](CompareOptions& o, Question& q) {
             o.covariate = true;
             q.covariate = Covariate::room;
         },
         {{"Tern 11", 45, {-0.30, -0.10, 0.11, 0.30}}, {"Plover 4", 47, {-1.50, -0.49, 0.50, 1.52}}});
    with(
        "own spreads by design",
        [](CompareOptions& o, Question& q) {
            o.spread = SpreadModel::welch;
            q.spread = MountSpread::own;
        },
        levels);
    for (const char* code : {"own-spread-left", "left-with-two-factors", "unplanned-look"}) {
        Evidence evidence = s.judged(levels);
        addFlag(evidence.comparison->flags, makeFlag(Severity::info, code));
        s.verdict(fmt::format("flag {}", code), evidence);
    }
    for (const auto& [code, word] :
         {std::pair{"blocks-unknown", "person"}, std::pair{"covariate-unknown", "room"}}) {
        Evidence evidence = s.judged(levels);
        addFlag(evidence.comparison->flags, makeFlag(Severity::warn, code, {{"what", Term{word}}}));
        s.verdict(fmt::format("flag {}", code), evidence);
    }
}

void addCaveats(Situations& s) {
    const std::vector<Made> levels{{"Tern 11", 45, four}, {"Plover 4", 48, four}};
    for (int rejected : {1, 3}) {
        Evidence evidence = s.judged(levels);
        evidence.excludedMounts = rejected;
        s.verdict(fmt::format("{} rejected", rejected), evidence);
    }
    Evidence people = s.judged(levels);
    people.people = Reproducibility{3, 0.4, 0.5, 0.64, 8};
    s.verdict("three people", people);
    Question changed;
    changed.frozen = true;
    changed.fixedMetric = Metric::package;
    s.verdict("a response chosen afterwards", s.judged(levels), changed);
    Question perWatt;
    perWatt.normalisation = Normalisation::perWatt;
    CompareOptions small;
    small.margin = 0.005;
    s.verdict(
        "K/W instead of kelvin",
        s.judged({{"Tern 11", 0.250, {-0.002, 0, 0.002}}, {"Plover 4", 0.268, {-0.002, 0, 0.002}}}, small),
        perWatt);
    Evidence looks = s.judged(levels);
    addFlag(looks.comparison->flags, makeFlag(Severity::info, "declared-looks",
                                              {{"looks", 2}, {"confidence", 97.06}, {"together", 95.0}}));
    addFlag(looks.comparison->flags,
            makeFlag(Severity::info, "other-loads", {{"load", "sustained 180 W"}, {"count", 2}}));
    addFlag(looks.comparison->flags, makeFlag(Severity::warn, "two-changes",
                                              {{"names", std::vector<std::string>{"Tern 11", "Heron HV"}}}));
    looks.runFlags.push_back(
        {"ambient-drift", Severity::warn,
         Message{"of-runs", {{"flag", Message{"fan-varied", {{"percent", 7.0}}}}, {"count", 2}}}});
    s.verdict("looks, loads, two changes, a fan", looks);
    CompareOptions blocks;
    blocks.blocks = true;
    auto runs = mounted(levels);
    for (TableRun& run : runs) run.block = run.group == "Tern 11" ? "Monday" : "Tuesday";
    Evidence confounded;
    confounded.comparison = compare(runs, blocks);
    s.verdict("each on a day of its own", confounded);
}

void addTwoFactors(Situations& s) {
    const auto cells = [&](const std::string& name, double a1, double a2, double b1, double b2) {
        std::vector<TableRun> runs;
        std::vector<std::string> seconds;
        Evidence evidence = s.judged({{"Plover 4, tall", a1, three}, {"Slate 25, tall", b1, three}});
        const Comparison flat =
            compare(mounted({{"Plover 4, flat", a2, three}, {"Slate 25, flat", b2, three}}));
        for (const auto& [level, second, mean] :
             {std::tuple{"Plover 4", "tall", a1}, std::tuple{"Slate 25", "tall", b1},
              std::tuple{"Plover 4", "flat", a2}, std::tuple{"Slate 25", "flat", b2}})
            for (double deviation : three) {
                runs.push_back({level, fmt::format("{} {} {}", level, second, deviation), mean + deviation});
                seconds.emplace_back(second);
            }
        evidence.factors = compareTwoFactors(runs, seconds, {});
        const double p = evidence.factors->interaction->p;
        const bool turns = (a1 < b1) != (a2 < b2);
        if (p >= 0.05)
            addFlag(evidence.comparison->flags, makeFlag(Severity::info, "interaction.none", {{"p", p}}));
        else if (turns)
            addFlag(
                evidence.comparison->flags,
                makeFlag(Severity::warn, "interaction.turns",
                         {{"cool", "Plover 4"}, {"warm", "Slate 25"}, {"here", "tall"}, {"there", "flat"}}));
        else
            addFlag(evidence.comparison->flags, makeFlag(Severity::warn, "interaction.found", {{"p", p}}));
        s.verdict(name, evidence);
    };
    cells("two factors, the order turns over", 45, 50, 47, 48);
    cells("two factors, unlike but not turned", 45, 48, 46.2, 52);
    cells("two factors that do not touch each other", 45, 50, 47, 52.1);
    cells("two factors, nothing told apart", 45, 50, 45.2, 50.1);
}

void addResponses(Situations& s) {
    const auto joint = [&](const std::string& name, const std::vector<Made>& levels,
                           const std::vector<SideComparison>& sides) {
        s.heading(name);
        s.say(jointSentences(s.judged(levels), sides, Question{}));
    };
    const std::vector<Made> cooler{{"Tern 11", 45, four}, {"as found", 49.1, four}};
    const std::vector<Made> alike{{"Tern 11", 45, eight}, {"as found", 45.05, eight}};
    const std::vector<Made> open{{"Tern 11", 45, three}, {"as found", 45.6, three}};
    const auto scores = side(SideResponse::score, "points", Better::higher, 10,
                             {{"Tern 11", 1080, {-4, -1, 1, 4}}, {"as found", 1000, {-4, -1, 1, 4}}});
    const auto fan = [](double ours, double theirs) {
        return side(SideResponse::fanShare, "%", Better::lower, 2,
                    {{"Tern 11", ours, {-0.2, 0, 0.1, 0.1}}, {"as found", theirs, {-0.2, 0, 0.1, 0.1}}});
    };
    joint("cooler and faster", cooler, {scores});
    joint("no cooler, but faster", alike, {scores});
    joint("not told apart by temperature, but faster", open, {scores});
    joint("cooler, and the fan turned slower", cooler, {fan(52, 55.5)});
    joint("cooler, but the fan turned faster", cooler, {fan(60, 52)});
    joint("cooler and quieter", cooler,
          {side(SideResponse::noise, "dB(A)", Better::lower, 1,
                {{"Tern 11", 36, {-0.2, 0.1, 0.1}}, {"as found", 39, {-0.2, 0.1, 0.1}}})});
    joint("no cooler, faster, but louder", alike,
          {scores, side(SideResponse::noise, "dB(A)", Better::lower, 1,
                        {{"Tern 11", 41, {-0.2, 0.1, 0.1}}, {"as found", 38, {-0.2, 0.1, 0.1}}})});
    joint("shorter render time and more frames", cooler,
          {side(SideResponse::frameRate, "1/s", Better::higher, 1,
                {{"Tern 11", 110, {-0.4, 0, 0.4}}, {"as found", 102, {-0.4, 0, 0.4}}}),
           side(SideResponse::lowFrameRate, "1/s", Better::higher, 1,
                {{"Tern 11", 88, {-0.4, 0, 0.4}}, {"as found", 79, {-0.4, 0, 0.4}}}),
           side(SideResponse::renderTime, "s", Better::lower, 3,
                {{"Tern 11", 281, {-1, 0, 1}}, {"as found", 300, {-1, 0, 1}}})});
    joint("less at the wall", cooler,
          {side(SideResponse::wallPower, "W", Better::lower, 4,
                {{"Tern 11", 231, {-1, 0, 1}}, {"as found", 243, {-1, 0, 1}}})});
    SideComparison hum = side(SideResponse::other, "steps", Better::lower, 0.5,
                              {{"Tern 11", 2, {-0.1, 0, 0.1}}, {"as found", 4, {-0.1, 0, 0.1}}});
    hum.name = "hum";
    joint("a reading of one's own", cooler, {hum});
    SideComparison single{{}, SideResponse::score, "", "points", Better::higher, 10};
    single.mounts = onlyGroups([] {
        RunValue first;
        first.group = {1, "Tern 11"};
        first.value = 1080;
        RunValue second;
        second.group = {2, "as found"};
        second.value = 1000;
        return std::vector{first, second};
    }());
    joint("one mount each", {{"Tern 11", 45, four}, {"as found", 49, four}}, {single});

    const std::vector<Made> bound{{"Tern 11", 62, three, 3}, {"as found", 62.1, three, 3}};
    Evidence limit;
    std::vector<RunValue> values;
    for (const TableRun& run : mounted(bound)) {
        RunValue value;
        value.group = {run.group == "Tern 11" ? 1 : 2, run.group};
        value.mount = {static_cast<std::int64_t>(values.size()) + 1, run.mount};
        value.value = run.value;
        value.censored = run.censored;
        values.push_back(value);
    }
    limit.mounts = onlyGroups(values);
    limit.reason = Message{"compare-limit-bound", {}};
    const auto power = side(SideResponse::power, "W", Better::neither, 2,
                            {{"Tern 11", 132, {-1, 0, 1}}, {"as found", 120, {-1, 0, 1}}});
    const auto resistance =
        side(SideResponse::perWatt, "K/W", Better::lower, 0.01,
             {{"Tern 11", 0.470, {-0.004, 0, 0.004}}, {"as found", 0.517, {-0.004, 0, 0.004}}});
    s.heading("both at the limit");
    s.say(allSentences(limit, {power, resistance}, Question{}));
    s.heading("both at the limit, power alone is known");
    s.say(allSentences(limit, {power}, Question{}));
    s.heading("both at the limit, and alike");
    s.say(allSentences(limit,
                       {side(SideResponse::perWatt, "K/W", Better::lower, 0.01,
                             {{"Tern 11", 0.510, {-0.02, 0, 0.02}}, {"as found", 0.517, {-0.02, 0, 0.02}}})},
                       Question{}));
}

void addClaims(Situations& s) {
    const auto claims = [&](const std::string& name, const Evidence& evidence,
                            const Question& question = {}) {
        s.heading("for publishing: " + name);
        for (const Claim& claim : claimsOf(Document{}, question, evidence))
            s.text += std::array{"may: ", "with: ", "not: "}.at(static_cast<std::size_t>(claim.kind))
                      + claim.text + (claim.because.empty() ? "" : " | " + claim.because) + "\n";
    };
    claims("apart", s.judged({{"Tern 11", 45, four}, {"Plover 4", 48, four}}));
    claims("three, two of them not told apart",
           s.judged({{"Tern 11", 45, four}, {"Plover 4", 45.4, four}, {"Slate 25", 49, four}}));
    claims("perhaps too little to matter", s.judged({{"Tern 11", 45, four}, {"Plover 4", 46.0, four}}));
    claims("the same", s.judged({{"Tern 11", 45, eight}, {"Plover 4", 45.05, eight}}));
    CompareOptions assumed;
    assumed.assumed = KnownScatter{0.4, std::numeric_limits<double>::infinity(), {"scatter-usual", {}}};
    Evidence provisional = s.judged({{"as found", 50, one}, {"Tern 11", 45, one}}, assumed);
    provisional.excludedMounts = 1;
    claims("one mount each", provisional);
    Question changed;
    changed.frozen = true;
    changed.fixedMetric = Metric::package;
    Evidence looked = s.judged({{"Tern 11", 45, four}, {"Plover 4", 48, four}});
    addFlag(looked.comparison->flags, makeFlag(Severity::warn, "unplanned-look"));
    claims("changed and looked at", looked, changed);
}

} // namespace

class TestVerdictWords : public QObject {
    Q_OBJECT

    static std::string reported() {
        Situations s;
        addPairs(s);
        addOneMountEach(s);
        addSteps(s);
        addLimit(s);
        addTakenOut(s);
        addCaveats(s);
        addTwoFactors(s);
        addResponses(s);
        addClaims(s);
        return s.text;
    }

private slots:
    void theVerdictSaysWhatWasRead() {
        const std::string path = std::string(places::testData) + "/sentences/verdict.txt";
        const std::string found = reported();
        if (qEnvironmentVariableIsSet("IBUKI_WRITE")) std::ofstream(path) << found;
        std::ifstream file(path);
        std::istringstream wanted(std::string(std::istreambuf_iterator<char>(file), {}));
        std::istringstream lines(found);
        std::string situation;
        for (std::string line, want; std::getline(lines, line);) {
            std::getline(wanted, want);
            if (line.starts_with("# ")) situation = line;
            QVERIFY2(line == want, (situation + "\n" + line + "\nis not\n" + want).c_str());
        }
        std::string more;
        QVERIFY2(!std::getline(wanted, more), more.c_str());
    }
    void noSentenceNeedsACourse() {
        std::istringstream lines(reported());
        int count = 0;
        for (std::string line; std::getline(lines, line);) {
            if (line.empty() || line.starts_with("#")) continue;
            ++count;
            for (const char* word :
                 {"significan", "hypothes", "p-value", "null", "variance", "no difference", "!", "{", "}"})
                QVERIFY2(line.find(word) == std::string::npos, line.c_str());
            QVERIFY2(line.size() < 320, line.c_str());
            QVERIFY2(std::string(".").find(line.back()) != std::string::npos
                         || line.find(" | ") != std::string::npos,
                     line.c_str());
        }
        QVERIFY2(count >= 110, qPrintable(QString::number(count)));
    }
    /// Over made pairs: what is said to be apart excludes 0 and what is said to be more than the margin
    /// excludes it.
    void noSentenceClaimsMoreThanItsInterval() {
        for (int gap = 0; gap <= 30; ++gap)
            for (const auto& deviations : {three, four, eight}) {
                Evidence evidence;
                evidence.comparison =
                    compare(mounted({{"Tern 11", 45, deviations}, {"Plover 4", 45 + 0.1 * gap, deviations}}));
                const PairComparison& pair = evidence.comparison->pairs.front();
                const double nearest = std::min(std::abs(pair.ci->lo), std::abs(pair.ci->hi));
                const bool excludes = pair.ci->lo * pair.ci->hi > 0;
                for (const VerdictSentence& sentence : verdictSentences(evidence, Question{})) {
                    if (sentence.text.find(" cooler than ") != std::string::npos) QVERIFY(excludes);
                    if (sentence.text.find("more than your margin") != std::string::npos)
                        QVERIFY(excludes && nearest > evidence.comparison->options.margin);
                    if (sentence.text.find("are the same within") != std::string::npos)
                        QVERIFY(pair.equivalenceCi->lo > -1 && pair.equivalenceCi->hi < 1);
                }
            }
    }
};

IBUKI_TEST(TestVerdictWords)
#include "tst_verdict_words.moc"
