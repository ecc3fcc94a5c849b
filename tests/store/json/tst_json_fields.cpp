// SPDX-License-Identifier: GPL-3.0-or-later
// One rule for all documents: a refusal names the file, the path of the field, what was found and what is
// allowed.
#include "store/json/heat_path_json.h"
#include "store/json/rehearsal_json.h"
#include "store/json/run_protocol_json.h"
#include "store/json/simulate_json.h"
#include "store/json/weights_json.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QTemporaryDir>
#include <QtTest>
#include <fstream>

using namespace ibuki;

class TestJsonFields : public QObject {
    Q_OBJECT

    template <class Read> static QString reported(Read&& read) {
        try {
            read();
        } catch (const InputError& error) {
            return QString::fromStdString(words::sentence(error));
        }
        return "nothing was refused";
    }
    static nlohmann::json stack() {
        return nlohmann::json::parse(R"({"power_W": 100, "ambient_C": 22, "cooler_K_per_W": 0.1, "layers": [
            {"name": "die", "kind": "solid", "width_mm": 10, "length_mm": 10, "thickness_mm": 0.7, "k_W_per_mK": 110},
            {"name": "paste", "kind": "interface", "r_mm2K_per_W": 10},
            {"name": "plate", "kind": "solid", "width_mm": 40, "length_mm": 40, "thickness_mm": 3, "k_W_per_mK": 380}]})");
    }
    static nlohmann::json scenario() {
        return nlohmann::json::parse(R"({"mount_sd_K": 0.4, "materials": [{"name": "A", "delta_K": 40},
            {"name": "B", "delta_K": 41}], "practices": [{"name": "plan", "mounts": 3}]})");
    }
    static void holds(const QString& text, std::initializer_list<const char*> parts) {
        for (const char* part : parts) QVERIFY2(text.contains(part), qPrintable(text + "\nlacks " + part));
    }

private slots:
    void theFieldItsValueAndWhatIsAllowedAreNamed() {
        auto json = stack();
        json["layers"][1]["kind"] = "glue";
        holds(reported([&] { heatPathFromJson(json, "stack.json"); }),
              {"stack.json", "layers[1].kind", "glue", "solid", "interface"});
        json = stack();
        json["layers"][2]["thickness_mm"] = -3;
        holds(reported([&] { heatPathFromJson(json, "stack.json"); }),
              {"layers[2].thickness_mm", "-3", "above 0"});
        json = stack();
        json["layers"][0]["colour"] = "red";
        holds(reported([&] { heatPathFromJson(json, "stack.json"); }), {"layers[0].colour", "thickness_mm"});
        json = stack();
        json["layers"] = 7;
        holds(reported([&] { heatPathFromJson(json, "stack.json"); }), {"\"layers\"", "7", "list"});
    }
    void aRehearsalNamesItsFields() {
        auto json = scenario();
        json["mount_sd_K"] = -0.4;
        holds(reported([&] { rehearsalFromJson(json, "plan.json"); }),
              {"plan.json", "mount_sd_K", "-0.4", "0 or more"});
        json = scenario();
        json["practices"][0]["mounts"] = 2.5;
        holds(reported([&] { rehearsalFromJson(json, "plan.json"); }),
              {"practices[0].mounts", "2.5", "whole number"});
        json = scenario();
        json["practices"][0]["order"] = "as it comes";
        holds(reported([&] { rehearsalFromJson(json, "plan.json"); }),
              {"practices[0].order", "as it comes", "as-listed", "blocks"});
        json = scenario();
        json["materials"][1].erase("delta_K");
        holds(reported([&] { rehearsalFromJson(json, "plan.json"); }), {"materials[1].delta_K", "missing"});
    }
    void protocolsAndWeightsNameTheirs() {
        QTemporaryDir folder;
        const auto file = [&](const char* name, const char* text) {
            const std::string path = folder.filePath(name).toStdString();
            std::ofstream(path) << text;
            return path;
        };
        holds(reported([&] {
                  readRunProtocol(file("p.json", R"({"steps": [{"kind": "soak", "minutes": "ten"}]})"));
              }),
              {"p.json", "steps[0].minutes", "ten", "a number"});
        holds(reported([&] { readRunProtocol(file("q.json", R"({"steps": [{"kind": "nap"}]})")); }),
              {"steps[0].kind", "nap", "soak"});
        holds(reported([&] { readWeights(file("w.json", R"({"delta_K": -1})")); }),
              {"w.json", "delta_K", "-1"});
        holds(reported([&] { readWeights(file("v.json", R"({"speed": 1})")); }),
              {"speed", "price_per_application"});
    }
    void aLongValueIsCutAtACharacter() {
        auto json = scenario();
        std::string text = "x";
        for (int i = 0; i < 200; ++i) text += "ä";
        json["practices"][0]["order"] = text;
        const QString sentence = reported([&] { rehearsalFromJson(json, "plan.json"); });
        QVERIFY(sentence.size() < 300);
        QVERIFY(!sentence.contains(QChar::ReplacementCharacter));
    }
};
IBUKI_TEST(TestJsonFields)
#include "tst_json_fields.moc"
