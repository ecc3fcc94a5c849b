// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/plan_setup.h"
#include "store/paper/claims.h"
#include "store/paper/class_mark.h"
#include "store/paper/ladder_layout.h"
#include "store/paper/ladder_svg.h"
#include "store/paper/mount_card.h"
#include "store/paper/report.h"
#include "store/table/table.h"
#include "support/near.h"
#include "support/reference_data.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QXmlStreamReader>
#include <set>

using namespace ibuki;

class TestPaper : public QObject {
    Q_OBJECT

    static bool wellFormed(const std::string& xml, QString& why) {
        QXmlStreamReader reader(QString::fromStdString(xml));
        while (!reader.atEnd()) reader.readNext();
        why = reader.errorString();
        return !reader.hasError();
    }

private slots:
    void oneMountEachIsSaidAndDrawnAsProvisional() {
        CompareOptions options;
        options.assumed = KnownScatter{0.4, std::numeric_limits<double>::infinity(), {"scatter-usual", {}}};
        Evidence evidence;
        evidence.comparison =
            compare({{"Tern 11", "1", 50.0}, {"Plover 4", "1", 44.8}, {"Heron HV", "1", 50.2}}, options);
        QStringList reported;
        for (const VerdictSentence& sentence : verdictSentences(evidence, Question{}))
            reported << QString::fromStdString(sentence.text);
        QCOMPARE(reported.at(0),
                 "Provisional, from one mount each: mounts are taken to scatter by 0.4 K, as is usual for "
                 "these classes.");
        QCOMPARE(reported.at(1),
                 "Plover 4 ran 5.2 K cooler than Tern 11: more than the 1.3 K by which mounting again "
                 "usually moves such a difference; cooler than Heron HV too.");
        QVERIFY2(reported.at(2).startsWith("Tern 11 and Heron HV are apart by 0.2 K: less than the 1.3 K"),
                 qPrintable(reported.at(2)));
        QVERIFY(reported.at(2).endsWith("of each would tell."));
        for (const LadderRung& rung : layoutLadder(*evidence.comparison, {}, "K").rungs)
            QVERIFY(rung.isProvisional);
        QVERIFY(ladderSvg(*evidence.comparison, {}, "K", {}).find("stroke-dasharray") != std::string::npos);
    }
    void rungsStandBestFirstInsideTheScale() {
        const Comparison comparison = compare(reference::ds1());
        const LadderLayout layout = layoutLadder(comparison, {}, "K");
        QCOMPARE(layout.rungs.size(), std::size_t{4});
        QCOMPARE(layout.rungs.front().name, std::string("A"));
        QCOMPARE(layout.rungs.back().name, std::string("C"));
        for (const LadderRung& rung : layout.rungs) {
            for (double x : rung.marksX) QVERIFY(x >= layout.scaleLeft && x <= layout.scaleRight);
            QVERIFY(rung.lowX <= rung.meanX && rung.meanX <= rung.highX);
            QVERIFY(rung.y < layout.axisY);
        }
        for (std::size_t i = 1; i < layout.rungs.size(); ++i)
            QVERIFY(layout.rungs[i].y > layout.rungs[i - 1].y);
    }
    void bracketsTieExactlyTheTiers() {
        const Comparison comparison = compare(reference::ds1());
        const LadderLayout layout = layoutLadder(comparison, {}, "K");
        QCOMPARE(layout.brackets.size(), std::size_t{3}); // A–D, D–B, B–C
        for (const LadderBracket& bracket : layout.brackets) QCOMPARE(bracket.ys.size(), std::size_t{2});
    }
    void aScaleSpansMarginsAndNoNoise() { // one mount alone, and mounts that are all alike
        for (const std::vector<double>& values : {std::vector{45.78333}, {45.78333, 45.78335}}) {
            std::vector<RunValue> runs;
            for (std::size_t i = 0; i < values.size(); ++i)
                runs.push_back({{1, "A"}, {static_cast<std::int64_t>(i) + 1, "A"}, values[i]});
            const Comparison alone = onlyGroups(runs);
            const LadderLayout layout = layoutLadder(alone, {}, "K");
            const double perKelvin = layout.marginRightX - layout.marginLeftX; // the margin is 1 K
            QVERIFY(layout.scaleRight - layout.scaleLeft >= 3.9 * perKelvin);
            QVERIFY(layout.ticks.size() >= 3);
            for (const LadderTick& tick : layout.ticks) { // "45.5", at most the digit that figures have
                const auto point = tick.text.find('.');
                QVERIFY2(point == std::string::npos
                             || tick.text.find_first_not_of("0123456789", point + 1) - point <= 2
                             || tick.text.size() - point <= 2,
                         tick.text.c_str());
            }
        }
    }
    void twoLevelsOfOneNameStayTwo() { // both cooler than the third; told apart by their ids
        std::vector<RunValue> runs;
        const auto add = [&](std::int64_t group, const char* name, double mean) {
            for (int i = 0; i < 4; ++i)
                runs.push_back({{group, name}, {group * 10 + i, "m"}, mean + 0.1 * i});
        };
        add(1, "Tern 11", 40);
        add(2, "Tern 11", 43);
        add(3, "Slate 25", 50);
        Evidence evidence;
        evidence.comparison = compare(runs);
        int cooler = 0;
        for (const VerdictSentence& sentence : verdictSentences(evidence, Question{}))
            cooler += QString::fromStdString(sentence.text).startsWith("Tern 11 ran") ? 1 : 0;
        QCOMPARE(cooler, 2);
        int claims = 0;
        for (const Claim& claim : claimsOf(Document{}, Question{}, evidence))
            claims += QString::fromStdString(claim.text).startsWith("Tern 11 ran cooler here") ? 1 : 0;
        QCOMPARE(claims, 2);
    }
    void theMarginStartsAtTheBest() {
        const LadderLayout layout = layoutLadder(compare(reference::ds1()), {}, "K");
        QVERIFY(layout.hasMargin);
        QVERIFY_NEAR(layout.marginLeftX, layout.rungs.front().meanX, 1e-9);
        QVERIFY(layout.marginRightX > layout.marginLeftX);
    }
    void limitBoundMarksDoNotStretchTheScale() {
        auto runs = reference::ds1();
        runs.push_back({"E", "1", 80.0, true});
        runs.push_back({"E", "2", 27.0, false});
        const LadderLayout layout = layoutLadder(compare(runs), {}, "K");
        const LadderRung& bound = layout.rungs.back();
        QVERIFY(bound.isCensored && bound.beyondScale[0]);
        QVERIFY_NEAR(bound.marksX[0], layout.scaleRight, 1e-9);
    }
    void theSvgIsWellFormedAndEscapes() {
        auto runs = reference::ds1();
        for (TableRun& run : runs)
            if (run.group == "A") run.group = "A & <B>";
        QString why;
        QVERIFY2(wellFormed(ladderSvg(compare(runs), {{2, MaterialClass::paste}}, "K"), why),
                 qPrintable(why));
    }
    void controlCharactersDoNotBreakADrawing() {
        auto runs = reference::ds1();
        for (TableRun& run : runs)
            if (run.group == "A") run.group = std::string("A\x01\x1f\x7f") + '\0' + "B";
        QString why;
        QVERIFY2(wellFormed(ladderSvg(compare(runs), {}, "K"), why), qPrintable(why));
        QCOMPARE(xmlText("a\x02"
                         "b<c>\t"),
                 std::string("ab&lt;c&gt;\t"));
    }
    void everyClassHasAMarkOfItsOwn() {
        std::set<std::string_view> letters;
        for (int i = 0; i <= int(MaterialClass::unknown); ++i)
            letters.insert(classMark(MaterialClass(i)).letter);
        QCOMPARE(letters.size(), std::size_t(MaterialClass::unknown) + 1);
    }
    void sentencesSayWhatIsSettledAndWhatIsNot() {
        const auto asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        const auto sentences = verdictSentences(gatherEvidence(asked.document, question), question);
        QVERIFY(sentences.front().text.starts_with("Tern 11 ran"));
        QCOMPARE(sentences.front().kind, SentenceKind::settled);
        for (const VerdictSentence& sentence : sentences) {
            QVERIFY(sentence.text.find("no difference") == std::string::npos);
            QVERIFY(sentence.text.find('!') == std::string::npos);
        }
    }
    void anOpenPairSaysHowManyMountsWouldSettleIt() {
        Evidence evidence;
        evidence.comparison = compare(reference::ds1());
        const auto sentences = verdictSentences(evidence, Question{});
        const auto open = std::find_if(sentences.begin(), sentences.end(),
                                       [](const VerdictSentence& s) { return s.kind == SentenceKind::open; });
        QVERIFY(open != sentences.end());
        QVERIFY(open->text.find("not settled") != std::string::npos);
        QVERIFY(open->text.find("more mount") != std::string::npos
                || open->text.find("will not settle") != std::string::npos);
    }
    void negativeLimitsCarryATrueMinus() {
        QCOMPARE(amountText(-1.25, "K"), std::string("−1.2 K"));
        QCOMPARE(amountText(-0.01, "K"), std::string("0.0 K"));
        QCOMPARE(amountText(0.0123, "K/W"), std::string("0.0123 K/W"));
    }
    void everyStepOfAChainIsCredited() {
        Evidence evidence;
        evidence.inSequence = true;
        evidence.comparison =
            compare(reference::ds1()); // A to B cost 1.185 K, B to C 0.62875 K, C to D gained 1.44167 K
        const auto sentences = verdictSentences(evidence, Question{});
        const auto reported = [&](const char* text) {
            return std::any_of(sentences.begin(), sentences.end(),
                               [&](const VerdictSentence& s) { return s.text.starts_with(text) && s.pair; });
        };
        QVERIFY(reported("The step from A to B cost 1.2 K (95 % interval 0.3 to 2.1 K)"));
        QVERIFY(reported("What the step from B to C gained is open: anything from −1.5 to 0.3 K."));
        QVERIFY(reported("The step from C to D gained 1.4 K (95 % interval 0.5 to 2.4 K)"));
    }
    void theCardTellsWhatTheHandsNeed() {
        story::Asked asked = story::ask();
        const Instant start = *parseInstant("2031-03-03");
        Edit edit(asked.document, "plan");
        Plan plan = planFor(asked.document, asked.study);
        plan.start = start;
        plan.pattern = ApplicationPattern::cross;
        plan.torque = NewtonMetre{0.6};
        plan.amount = Gram{0.15};
        layPlan(edit, *firstQuestion(asked.document, asked.study), plan, start);
        Study study = *edit.document().find(asked.study);
        study.heldConstant = "fan <1420> rpm";
        edit.put(study);
        apply(asked.document, edit.finish());
        const Slot& slot = *plannedSlots(asked.document, asked.study).front();
        const MountBrief brief = briefOf(asked.document, slot, start);
        const std::string html = mountCardHtml(brief);
        QVERIFY(html.find("0.15 g, as a cross, 0.6 N·m, from " + brief.lot->name) != std::string::npos);
        QVERIFY(html.find("fan &lt;1420&gt; rpm") != std::string::npos);
        QVERIFY(html.find("Soak under sustained load, 20 min, until less than 0.2 K is left to rise")
                != std::string::npos);
        QVERIFY(html.find("Mon 2031-03-03 18:00") != std::string::npos);
        QString why;
        QVERIFY2(wellFormed(html, why), qPrintable(why));
    }
    void cautionsFollowTheMaterials() {
        auto asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        const auto without = cautionSentences(asked.document, question, {});
        QCOMPARE(without.back(), words::text({"caution-preamble", {}}));
        const auto mention = [](const std::vector<std::string>& list, const std::string& text) {
            return std::any_of(list.begin(), list.end(),
                               [&](const std::string& line) { return line.find(text) != std::string::npos; });
        };
        QVERIFY(!mention(without, "Gallium"));
        Material material = asked.document.all<Material>().begin()->second;
        material.containsGallium = YesNo::yes;
        asked.document.put(material);
        const auto asking = cautionSentences(asked.document, question, {});
        QVERIFY(mention(asking, "Not known yet (stop)"));
        Site site = *asked.document.find(question.site);
        site.upperFace = Metal::aluminium;
        asked.document.put(site);
        const auto stopped = cautionSentences(asked.document, question, {});
        QVERIFY(mention(stopped, "Stop: Gallium creeps"));
        Acknowledgement read;
        read.id = {999};
        read.rule = "GA-AL";
        read.material = material.id;
        read.role = "second technician";
        asked.document.put(read);
        QVERIFY(mention(cautionSentences(asked.document, question, {}), "(read by second technician on"));
        // A lot is told of once a mount took from it.
        Lot oily = *asked.document.where(&Lot::material, material.id).front();
        oily.condition = LotCondition::oily;
        asked.document.put(oily);
        Application used;
        used.id = {998};
        used.site = question.site;
        used.lot = oily.id;
        for (const auto& [id, application] : asked.document.all<Application>())
            if (application.lot == oily.id) asked.document.erase(id);
        QVERIFY(!mention(cautionSentences(asked.document, question, {}), "Oil has separated"));
        asked.document.put(used);
        QVERIFY(mention(cautionSentences(asked.document, question, {}), "[" + oily.name + "]"));
    }
    void theTableReadsBackToTheSameComparison() {
        const auto asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        const Table table = readTable(tidyCsv(asked.document, question), "study.csv");
        QCOMPARE(table.rows(), std::size_t{9});
        std::vector<TableRun> runs;
        for (std::size_t i = 0; i < table.rows(); ++i)
            runs.push_back({table.text(i, table.need("level")), table.text(i, table.need("mount")),
                            table.number(i, table.need("delta_K")),
                            table.truth(i, table.need("limit_bound"))});
        const Comparison there = *gatherEvidence(asked.document, question).comparison;
        QVERIFY_REL(compare(runs).anova->f, there.anova->f, 1e-12);
    }
    void thePageStandsAlone() {
        const auto asked = story::measured();
        const std::string html = htmlReport(asked.document, *firstQuestion(asked.document, asked.study));
        for (const char* outside : {"http-equiv", "<script", "<link", "src=\"http"})
            QVERIFY2(html.find(outside) == std::string::npos, outside);
        for (const char* inside : {"<svg", "Tern 11", "Tukey", "Cautions"})
            QVERIFY2(html.find(inside) != std::string::npos, inside);
    }
    void theReportNamesTheMethodOfItsPairs() {
        const auto asked = story::measured();
        Question question = *firstQuestion(asked.document, asked.study);
        QVERIFY(htmlReport(asked.document, question).find("Tukey–Kramer, 6 degrees of freedom")
                != std::string::npos);
        question.referenceLevel = levelsOf(asked.document, question.id).front()->id;
        const std::string held = htmlReport(asked.document, question);
        QVERIFY(held.find("Dunnett, 6 degrees of freedom") != std::string::npos);
        QVERIFY(held.find("Tukey") == std::string::npos);
    }
    void switchesLeavePartsOut() {
        const auto asked = story::measured();
        ReportParts parts;
        parts.ladder = parts.runs = parts.cautions = false;
        const std::string html =
            htmlReport(asked.document, *firstQuestion(asked.document, asked.study), parts);
        for (const char* out : {"<svg", "<h2>Runs", "<h2>Cautions"})
            QVERIFY2(html.find(out) == std::string::npos, out);
    }
    void anEmptyStudyHasAReportToo() {
        const auto asked = story::ask();
        QVERIFY(htmlReport(asked.document, *firstQuestion(asked.document, asked.study))
                    .find("No mount has been measured")
                != std::string::npos);
    }
};

IBUKI_TEST(TestPaper)
#include "tst_paper.moc"
