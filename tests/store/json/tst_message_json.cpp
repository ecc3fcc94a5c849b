// SPDX-License-Identifier: GPL-3.0-or-later
// A message goes into a project and comes back as it was; what others are given has sentences.

#include "core/base/input_error.h"
#include "store/json/message_json.h"
#include "support/project_files.h"
#include "support/test_class.h"

#include <QtTest>
#include <cmath>
#include <limits>

using namespace ibuki;

class TestMessageJson : public QObject {
    Q_OBJECT

private slots:
    void everyKindOfFieldComesBack() {
        const Message message{"of-runs",
                              {{"flag", Message{"stuck-sensor", {{"column", "Core \"2\"\n°C"}}}},
                               {"count", 3},
                               {"moved", 2.0},
                               {"kind", Term{"gap pad"}},
                               {"names", std::vector<std::string>{"a", ""}},
                               {"none", std::vector<std::string>{}},
                               {"several", std::vector<Message>{{"a", {}}, {"b", {{"n", -1}}}}}}};
        QVERIFY(messageFromText(messageText(message)) == message);
        QVERIFY(messageFromText("") == Message{});
        QCOMPARE(messageText({}), std::string());
    }
    void whatIsNoNumberStaysNone() {
        const auto back =
            messageFromText(messageText({"x", {{"n", std::numeric_limits<double>::quiet_NaN()}}}));
        QVERIFY(std::isnan(std::get<double>(back.fields.front().value)));
    }
    void damagedTextIsRefused() {
        for (const char* text : {"{", "[]", "{\"code\": 1}", "{\"code\": \"a\", \"fields\": {\"b\": {}}}"})
            QCOMPARE(story::codeOf([&] { messageFromText(text); }), "project-damaged");
    }
    void flagsComeBackAndAreTold() {
        const std::vector<Flag> flags{makeFlag(Severity::warn, "gap-in-log", {{"count", 2}}),
                                      makeFlag(Severity::reject, "ambient-drift.slope", {{"slope", 1.25}})};
        nlohmann::ordered_json json = {{"flags", storedJson(flags)},
                                       {"loads", {{{"flags", storedJson(flags)}}}}};
        QVERIFY(flagsFromJson(json["flags"]) == flags);
        json = reported(std::move(json));
        QCOMPARE(json["flags"][0]["message"], "2 gaps in the log");
        QCOMPARE(json["loads"][0]["flags"][0]["message"], "2 gaps in the log");
        QCOMPARE(json["flags"][1]["code"], "ambient-drift");
    }
};

IBUKI_TEST(TestMessageJson)
#include "tst_message_json.moc"
