// SPDX-License-Identifier: GPL-3.0-or-later
// compare --load and --prior-sd, as somebody types them.
#include "support/command.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <fstream>
#include <nlohmann/json.hpp>

using namespace ibuki;
using nlohmann::json;
using story::Outcome;
using story::run;

class TestCompareVerb : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::string write(const std::string& text) const {
        const std::string path = folder_.filePath("table.csv").toStdString();
        std::ofstream(path, std::ios::binary) << text;
        return path;
    }
    static std::vector<std::string> codesOf(const json& flags) {
        std::vector<std::string> codes;
        for (const json& flag : flags) codes.push_back(flag["code"]);
        return codes;
    }
    static constexpr const char* evening =
        "material,mount,benchmark,delta_K\n"
        "Tern 11,1,Kiln,41.0\nTern 11,1,Mill,31.0\nTern 11,2,Kiln,41.4\nTern 11,2,Mill,31.2\n"
        "Slate 25,1,Kiln,45.0\nSlate 25,1,Mill,28.1\nSlate 25,2,Kiln,45.2\nSlate 25,2,Mill,28.0\n"
        "Slate 25,3,Kiln,45.1\n";

private slots:
    void loadsAreAGridAndAMean() {
        const Outcome done = run({"compare", write(evening), "--load", "benchmark", "--json"});
        QCOMPARE(done.code, 0);
        const json j = json::parse(done.out);
        const json& loads = j["loads"];
        QCOMPARE(loads["levels"], (json{"Kiln", "Mill"}));
        QCOMPARE(loads["grid"].size(), 4UL);
        QCOMPARE(loads["grid"][1]["group"], "Slate 25");
        QCOMPARE(loads["grid"][1]["mounts"], 3);
        QVERIFY_NEAR(loads["grid"][1]["mean_K"].get<double>(), 45.1, 1e-12);
        QCOMPARE(loads["complete_mounts"], 4);
        QCOMPARE(loads["interaction"]["df1"], 1.0);
        QCOMPARE(loads["interaction"]["df2"], 2.0);
        QVERIFY(!loads["interaction"].contains("p_gg"));
        QCOMPARE(loads["order_changes"].size(), 1UL);
        QCOMPARE(loads["order_changes"][0]["load_a_better"], "Kiln");
        QCOMPARE(loads["order_changes"][0]["load_b_better"], "Mill");
        QCOMPARE(j["groups"][0]["mounts"], 2); // the means over both
        QVERIFY_NEAR(j["pairs"][0]["difference_K"].get<double>(), 36.15 - 36.575, 1e-9);
        QCOMPARE(codesOf(j["flags"]), std::vector<std::string>{"incomplete-mounts"});
        // Per load as compare on its rows alone.
        const json kiln =
            json::parse(run({"compare", write(evening), "--where", "benchmark=Kiln", "--json"}).out);
        QCOMPARE(loads["per_load"][0]["pairs"], kiln["pairs"]);
        QCOMPARE(loads["per_load"][0]["tiers"], kiln["tiers"]);
        QCOMPARE(loads["grid"][0]["ci_K"], kiln["groups"][0]["ci_K"]);
    }
    void aLoadColumnMayVaryThen() {
        std::string text = evening;
        text.replace(text.find("benchmark"), 9, "load");
        const std::string path = write(text);
        QCOMPARE(run({"compare", path, "--json"}).code, 1);
        QCOMPARE(run({"compare", path, "--load", "load", "--json"}).code, 0);
        QVERIFY(run({"compare", path, "--load", "load"}).out.find("Kiln") != std::string::npos);
    }
    void whatDoesNotGoWithLoadsIsTwo() {
        const std::string path = write(evening);
        for (const std::vector<std::string>& wrong : {std::vector<std::string>{"--load", "material"},
                                                      {"--load", "mount"},
                                                      {"--load", "delta_K"},
                                                      {"--load", "benchmark", "--second", "benchmark"},
                                                      {"--load", "benchmark", "--order", "mount"},
                                                      {"--load", "benchmark", "--covariate", "mount"},
                                                      {"--load", "benchmark", "--block", "mount"}}) {
            std::vector<std::string> arguments{"compare", path};
            arguments.insert(arguments.end(), wrong.begin(), wrong.end());
            const Outcome done = run(arguments);
            QCOMPARE(done.code, 2);
            QVERIFY(!done.err.empty());
        }
        QCOMPARE(run({"compare", path, "--load", "nowhere"}).code, 1);
    }
    void noCompleteMountInTwoGroupsIsOne() {
        const Outcome done = run({"compare",
                                  write("material,mount,load,delta_K\nA,1,x,40\nA,1,y,50\nB,1,x,41\n"
                                        "A,2,x,40\nA,2,y,50\nB,2,x,41\n"),
                                  "--load", "load"});
        QCOMPARE(done.code, 1);
        QVERIFY2(done.err.find("every load") != std::string::npos, done.err.c_str());
        const Outcome bound = run({"compare",
                                   write("material,mount,load,delta_K,limit_bound\nA,1,x,40,true\nA,1,y,50,\n"
                                         "B,1,x,41,\nB,1,y,51,\n"),
                                   "--load", "load"});
        QCOMPARE(bound.code, 1);
        QVERIFY2(bound.err.find("limit") != std::string::npos, bound.err.c_str());
    }
    void aPriorJoinsAndIsTold() {
        const std::string path = write("material,mount,delta_K\nA,1,41.0\nB,1,43.0\n");
        QCOMPARE(run({"compare", path, "--json"}).code, 1);
        const Outcome done = run({"compare", path, "--prior-sd", "0.8/4", "--json"});
        QCOMPARE(done.code, 0);
        const json j = json::parse(done.out);
        QCOMPARE(j["pairs"][0]["provisional"], true);
        QCOMPARE(j["pairs"][0]["df"], 4.0);
        QVERIFY_NEAR(j["pairs"][0]["se_K"].get<double>(), 0.8 * std::sqrt(2), 1e-12);
        QCOMPARE(codesOf(j["flags"]), (std::vector<std::string>{"scatter-moderated", "single-mount"}));
        for (const char* text :
             {"0.8", "0.8/", "/4", "0/4", "0.8/0", "-1/4", "0.8/inf", "nan/4", "0.8/4/1", ""})
            QCOMPARE(run({"compare", path, std::string("--prior-sd=") + text}).code, 2);
        QCOMPARE(run({"compare", path, "--prior-sd", "0.8/4", "--assumed-sd", "1"}).code, 2);
        QCOMPARE(run({"compare", path, "--prior-sd", "0.8/4", "--method", "welch"}).code, 2);
    }
    void aPriorGoesWithTwoFactorsAndLoads() {
        const std::string path =
            write("material,mount,cooler,delta_K\nA,1,flat,41\nB,1,flat,43\nA,2,tall,35\nB,2,tall,36.5\n");
        const json j =
            json::parse(run({"compare", path, "--second", "cooler", "--prior-sd", "0.8/4", "--json"}).out);
        QCOMPARE(j["two_factor"]["pairs_within"][0]["provisional"], true);
        QCOMPARE(j["two_factor"]["pairs_marginal"][0]["provisional"], true);
        const json loads = json::parse(
            run({"compare", write("material,mount,load,delta_K\nA,1,x,40\nA,1,y,50\nB,1,x,43\nB,1,y,54\n"),
                 "--load", "load", "--prior-sd", "0.8/4", "--json"})
                .out);
        QCOMPARE(loads["loads"]["per_load"][1]["pairs"][0]["provisional"], true);
        QCOMPARE(loads["pairs"][0]["provisional"], true);
        QVERIFY(loads["loads"]["interaction"].is_null());
    }
};

IBUKI_TEST(TestCompareVerb)
#include "tst_compare_verb.moc"
