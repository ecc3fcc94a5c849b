// SPDX-License-Identifier: GPL-3.0-or-later
// Every code has its sentence, every sentence its fields, and another language is told when there is one.

#include "core/caution/caution.h"
#include "core/domain/words.h"
#include "core/reduce/reduce.h"
#include "core/setup/bench_template.h"
#include "core/setup/study_setup.h"
#include "core/trace/metric_kind.h"
#include "support/other_language.h"
#include "support/places.h"
#include "support/test_class.h"
#include "words/catalogue.h"
#include "words/words.h"

#include <QDirIterator>
#include <QRegularExpression>
#include <QtTest>
#include <clocale>
#include <cstdlib>
#include <set>

using namespace ibuki;

namespace {

QString q(const std::string& text) { return QString::fromStdString(text); }

/// Names of the fields of a sentence; "?" when its braces do not close.
QStringList fieldsOf(const char* sentence) {
    QString text = QString::fromUtf8(sentence ? sentence : "");
    text.remove("{{").remove("}}");
    QStringList names;
    static const QRegularExpression field("\\{(\\w+)(:[^{}]*)?\\}");
    auto matches = field.globalMatch(text);
    while (matches.hasNext()) names << matches.next().captured(1);
    text.remove(field);
    if (text.contains('{') || text.contains('}')) names << "?";
    names.removeDuplicates();
    names.sort();
    return names;
}

/// Where something is said by its code, in the sources of core and store: file → codes.
QMap<QString, QString> saidCodes() {
    QMap<QString, QString> codes;
    static const QRegularExpression said("(?:InputError\\(|refuse\\(|makeFlag\\([^\"]*|Message\\{|need\\([^"
                                         "\"]*|lots\\(|told\\(\\{|return \\{|\\? |: )"
                                         "\\s*\"([a-z]+(?:-[a-z]+)+(?:\\.[a-zA-Z-]+)?)\"");
    for (const char* floor : {"core", "store", "app/jobs"}) {
        QDirIterator walk(QString(places::source) + "/src/" + floor, {"*.h", "*.cpp"}, QDir::Files,
                          QDirIterator::Subdirectories);
        while (walk.hasNext()) {
            QFile file(walk.next());
            if (!file.open(QIODevice::ReadOnly)
                || file.fileName().contains(QRegularExpression("/store/json/|/core/trace/")))
                continue;
            auto matches = said.globalMatch(QString::fromUtf8(file.readAll()));
            while (matches.hasNext()) codes[matches.next().captured(1)] = file.fileName();
        }
    }
    return codes;
}

template <class T> void collect(std::set<std::string>& words) {
    for (std::string_view word : Words<T>::all) words.emplace(word);
}

} // namespace

class TestWords : public QObject {
    Q_OBJECT

private slots:
    void fieldsAreToldByTheirKind() {
        using words::say;
        QCOMPARE(q(say("{moved:.1f} K by {name}", {{"moved", 1.25}, {"name", "Tern 11"}})),
                 QString("1.2 K by Tern 11"));
        QCOMPARE(q(say("{names}", {{"names", std::vector<std::string>{"a", "b"}}})), QString("a, b"));
        QCOMPARE(q(say("{word}", {{"word", Term{"gap pad"}}})), QString("gap pad"));
        QCOMPARE(
            q(say("{why}. {why_mend}.", {{"why", Message{"compare-one-group", {}}}})),
            QString("there is nothing to compare: fewer than two groups. Measure at least two materials."));
        QCOMPARE(q(say("{missing} stays as it stands", {})), QString("{missing} stays as it stands"));
    }
    void oneAndMany() {
        QCOMPARE(q(words::text({"gap-in-log", {{"count", 1}}})), QString("1 gap in the log"));
        QCOMPARE(q(words::text({"gap-in-log", {{"count", 3}}})), QString("3 gaps in the log"));
        QCOMPARE(q(words::sayMany("{count} day", "{count} days", 1)), QString("1 day"));
        QCOMPARE(q(words::sayMany("{count} day", "{count} days", 0)), QString("0 days"));
    }
    void
    aSentenceInsideIsToldWithWhatMendsIt() { // once each, and with one full stop where a report adds its own
        QCOMPARE(
            q(words::text(
                {"not-compared", {{"level", "tall"}, {"reason", Message{"compare-one-group", {}}}}})),
            QString(
                "tall: there is nothing to compare: fewer than two groups. Measure at least two materials"));
    }
    void whatOthersSaidIsCarriedAsItIs() {
        QCOMPARE(q(words::text(said("100 {of} %1"))), QString("100 {of} %1"));
        QCOMPARE(q(words::text({"no-such-code", {}})), QString("no-such-code"));
    }
    void noCodeStandsTwice() {
        std::set<std::string_view> seen;
        for (const auto entries : words::allEntries())
            for (const words::Entry& entry : entries)
                QVERIFY2(seen.insert(entry.code).second, q(std::string(entry.code)).toUtf8());
        QVERIFY(seen.size() > 250);
    }
    void everySentenceHasSoundFields() {
        for (const auto entries : words::allEntries())
            for (const words::Entry& entry : entries) {
                const QByteArray code = q(std::string(entry.code)).toUtf8();
                QVERIFY2(!fieldsOf(entry.text).contains("?") && !fieldsOf(entry.mend).contains("?"), code);
                if (!entry.many) continue;
                for (const QString& field : fieldsOf(entry.text))
                    QVERIFY2(fieldsOf(entry.many).contains(field), code);
            }
    }
    void everyCodeThatIsSaidHasASentence() {
        const auto codes = saidCodes();
        QVERIFY2(codes.size() > 150, qPrintable(QString::number(codes.size())));
        for (auto [code, file] : codes.asKeyValueRange())
            QVERIFY2(words::find(code.toStdString()), qPrintable(file + " says " + code));
    }
    void everyErrorSaysWhatMendsIt() {
        for (const words::Entry& entry : words::errors())
            QVERIFY2(entry.mend && *entry.mend, q(std::string(entry.code)).toUtf8());
    }
    void everyCautionHasReasonAdviceAndQuestions() {
        for (const CautionRule& rule : cautionRules()) {
            const words::Entry* entry = words::find(reasonOf(rule).code);
            QVERIFY2(entry && entry->mend, q(std::string(rule.id)).toUtf8());
            for (const std::string& fact : rule.when.asks({}))
                if (rule.severity >= CautionSeverity::danger && !fact.starts_with("material.")
                    && !fact.starts_with("subject."))
                    QVERIFY2(words::find(questionFor(fact).code), q(fact).toUtf8());
        }
    }
    void everyChoiceIsATerm() {
        std::set<std::string> wanted;
        collect<LidState>(wanted);
        collect<FanSetting>(wanted);
        collect<SiteKind>(wanted);
        collect<Metal>(wanted);
        collect<LayerKind>(wanted);
        collect<MaterialClass>(wanted);
        collect<YesNo>(wanted);
        collect<ContentUnit>(wanted);
        collect<LotCondition>(wanted);
        collect<ApplicationPattern>(wanted);
        collect<Purpose>(wanted);
        collect<StudyState>(wanted);
        collect<Factor>(wanted);
        collect<StudyTemplate>(wanted);
        collect<Goal>(wanted);
        collect<Placement>(wanted);
        collect<StepKind>(wanted);
        collect<GateKind>(wanted);
        collect<MarkKind>(wanted);
        collect<SideResponse>(wanted);
        collect<Better>(wanted);
        collect<Scenario>(wanted);
        collect<ReferenceTemperature>(wanted);
        collect<Normalisation>(wanted);
        collect<SlotKind>(wanted);
        collect<Role>(wanted);
        for (Metric metric : allMetrics) wanted.emplace(metricTitle(metric));
        for (const BenchTemplateInfo& info : benchTemplates) wanted.emplace(info.name);
        const auto all = words::terms();
        const std::set<std::string> there(all.begin(), all.end());
        for (const std::string& word : wanted) QVERIFY2(there.contains(word), q(word).toUtf8());
    }
    void everyFlagHasAShortName() {
        const auto all = words::terms();
        for (const words::Entry& entry : words::flags()) {
            const std::string code = codeOf(entry.code);
            if (code == "of-runs") continue; // tells of another flag
            const std::string name = words::flagName(code);
            QVERIFY2(std::any_of(all.begin(), all.end(), [&](const char* term) { return name == term; }),
                     name.c_str());
        }
        QCOMPARE(q(words::flagName("stuck-sensor")), QString("stuck sensor"));
    }
    void everyTemplateSaysWhatItIsFor() {
        for (const StudyTemplateInfo& info : studyTemplates())
            QVERIFY(words::find(purposeOf(info.which).code));
        for (const BenchTemplateInfo& info : benchTemplates) QVERIFY(words::find(layersOf(info).code));
    }
    void anotherLanguageIsTold() { // through gettext, with the made-up one that has longer words
        const QByteArray failure =
            test::failureInOtherLanguage("tst_words", "toldInTheLanguageOfTheEnvironment");
        QVERIFY2(failure.isEmpty(), failure);
    }
    void toldInTheLanguageOfTheEnvironment() {
        if (!qEnvironmentVariableIsSet(test::otherLanguage)) return; // the one before runs it
        words::useLanguage(places::locale);
        QCOMPARE(q(words::text({"gap-in-log", {{"count", 1}}})), QString("1 gapoo ino theoo logoo"));
        QCOMPARE(q(words::text({"gap-in-log", {{"count", 2}}})), QString("2 gapsoo ino theoo logoo"));
        QCOMPARE(q(words::term("gap pad")), QString("gapoo padoo"));
        QCOMPARE(q(words::mend({"compare-one-group", {}})),
                 QString("Measureooo ato leastoo twooo materialsoooo"));
        QCOMPARE(q(words::sentence(InputError("file-missing", {"log.csv", 3, {}}))),
                 QString("log.csv, lineoo 3: thereoo iso noo suchoo fileoo. Checkoo theoo nameoo."));
    }
};

IBUKI_TEST(TestWords)
#include "tst_words.moc"
