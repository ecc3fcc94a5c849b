// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/methods.h"
#include "support/places.h"
#include "support/test_class.h"
#include "words/words.h"

#include <fstream>
#include <iterator>
#include <set>

using namespace ibuki;

class TestMethods : public QObject {
    Q_OBJECT
private slots:
    void theProgramCarriesTheDocumentAsItIs() {
        std::ifstream file(std::string(places::source) + "/docs/methods.md", std::ios::binary);
        const std::string text{std::istreambuf_iterator<char>(file), {}};
        QVERIFY(text.size() > 10'000);
        QCOMPARE(std::string(methodsText()), text);
    }
    void aSectionEndsAtTheNextHeading() {
        const auto section = methodsSection("A.4");
        QVERIFY(section);
        QVERIFY(section->starts_with("### A.4 Room\n"));
        QVERIFY(section->find("ΔT(t) = T(t) − T_a(t)") != std::string::npos);
        QVERIFY(section->find("A.4b") == std::string::npos);
        QVERIFY(methodsSection("A.4b")->starts_with("### A.4b Room probe"));
        QVERIFY(methodsSection("Reference data")); // the last one
        QVERIFY(!methodsSection("A.99"));
        QVERIFY(!methodsSection(""));
    }
    void everyTopicHasItsSentenceFormulaAndSource() {
        std::set<Topic> seen;
        std::set<std::string> names;
        for (const TopicInfo& info : topics()) {
            QVERIFY(seen.insert(info.topic).second);
            QCOMPARE(topicInfo(info.topic).code, info.code);
            const std::string code = info.code;
            QVERIFY2(names.insert(words::text({code, {}})).second, info.code);
            const std::string what = words::text({code + ".what", {}});
            QVERIFY2(what.size() > 40 && what.ends_with('.'), info.code);
            QVERIFY2(what.find(". ") == std::string::npos, info.code); // one sentence
            for (std::string_view heading : info.sections)
                QVERIFY2(methodsSection(heading), std::string(heading).c_str());
            QVERIFY2(topicText(info.topic).size() > 150, info.code);
        }
        for (int topic = 0; topic <= static_cast<int>(Topic::tape); ++topic)
            QVERIFY(seen.contains(static_cast<Topic>(topic)));
    }
};

IBUKI_TEST(TestMethods)
#include "tst_methods.moc"
