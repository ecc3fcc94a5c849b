// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/json/cut_json.h"
#include "support/near.h"
#include "support/test_class.h"
#include "words/words.h"

using namespace ibuki;
using nlohmann::json;

class TestCutJson : public QObject {
    Q_OBJECT

    static json job() {
        return json::parse(R"({"kerf_mm": 0.5, "offcuts_first": false,
            "pieces": [{"name": "memory", "width_mm": 14, "length_mm": 12, "thickness_mm": 2, "count": 8}],
            "sheets": [{"name": "sheet", "width_mm": 100, "length_mm": 90, "thickness_mm": 2},
                       {"name": "rest", "width_mm": 40, "length_mm": 30, "thickness_mm": 2, "count": 1, "offcut": true}]})");
    }
    static std::string refusal(const json& wrong) {
        try {
            cutJobFromJson(wrong, "job.json");
        } catch (const InputError& error) {
            return error.code + ": " + words::text(error.message);
        }
        return "accepted";
    }

private slots:
    void aJobIsReadWithItsDefaults() {
        const CutJob read = cutJobFromJson(job(), "job.json");
        QCOMPARE(read.pieces.size(), std::size_t{1});
        QCOMPARE(read.pieces.front().count, 8);
        QVERIFY(read.pieces.front().mayTurn);
        QVERIFY(!read.sheets[0].count && !read.sheets[0].offcut); // as many as needed
        QCOMPARE(read.sheets[1].count, std::optional(1));
        QVERIFY(read.sheets[1].offcut);
        QCOMPARE(read.kerfMm, 0.5);
        QVERIFY(!read.offcutsFirst);
    }
    void wrongFieldsAreNamed() {
        json wrong = job();
        wrong["pieces"][0]["widht_mm"] = 3;
        QVERIFY2(refusal(wrong).find("widht_mm") != std::string::npos, refusal(wrong).c_str());
        wrong = job();
        wrong["kerf_mm"] = "thin";
        QVERIFY(refusal(wrong).find("kerf_mm") != std::string::npos);
        wrong = job();
        wrong["sheets"][1]["count"] = -2;
        QVERIFY(refusal(wrong).starts_with("json-field"));
        wrong = job();
        wrong["pieces"] = 7;
        QVERIFY(refusal(wrong).starts_with("json-field"));
        wrong = job();
        wrong["kerf_mm"] = "thin";
        QVERIFY(refusal(wrong).starts_with("json-field"));
    }
    void aPlanSaysWhereEverythingLies() {
        const CutJob read = cutJobFromJson(job(), "job.json");
        const auto plan = toJson(planCuts(read), read);
        int placed = 0;
        for (const auto& layout : plan["layouts"]) {
            placed += static_cast<int>(layout["pieces"].size());
            QVERIFY(layout["cuts"].size() >= layout["pieces"].size() - 1);
            for (const auto& piece : layout["pieces"])
                QVERIFY_NEAR(piece["width_mm"].get<double>() * piece["length_mm"].get<double>(), 168, 1e-9);
        }
        QCOMPARE(placed, 8);
        QVERIFY(plan["missing"].empty());
        QVERIFY_NEAR(plan["pieces_mm2"].get<double>(), 8 * 168.0, 1e-9);
    }
};

IBUKI_TEST(TestCutJson)
#include "tst_cut_json.moc"
