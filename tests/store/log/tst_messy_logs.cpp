// SPDX-License-Identifier: GPL-3.0-or-later
// However a log is written, the figure is the same: each way of writing alone, then many at once.

#include "core/domain/input_error.h"
#include "core/reduce/reduce.h"
#include "store/log/log_reader.h"
#include "support/messy_log.h"
#include "support/near.h"
#include "support/story.h"

using namespace ibuki;
using story::LogStyle;
using story::Stamps;
using story::Tongue;

namespace {

struct Checked {
    bool right = false;
    std::string why;
};

/// Within 0.15 K or three standard errors, borders within two samples or ten seconds, the flags that are due
/// and no other warning.
Checked checkedLog(const Trace& trace, const Reduction& plain, const LogStyle& style, Random& random) {
    const std::string bytes = story::writtenLog(trace, style, random);
    Reduction found;
    try {
        found = reduce(readLog(bytes, "messy.csv"));
    } catch (const InputError& error) {
        return {false, sentence(error)};
    }
    if (!found.main()) return {false, "no load"};
    const MetricValue& wanted = plain.main()->metrics.at(Metric::hottest);
    const auto value = found.main()->metrics.find(Metric::hottest);
    if (value == found.main()->metrics.end() || !value->second.deltaK) return {false, "no figure"};
    const double off = std::abs(*value->second.deltaK - *wanted.deltaK);
    if (off > std::max(0.15, 3 * value->second.seK.value_or(0)))
        return {false, fmt::format("found {:.3f}, wanted {:.3f}", *value->second.deltaK, *wanted.deltaK)};
    const double reach = std::max(10.0, 2 * plain.intervalS);
    for (std::size_t i = 0; i < 2; ++i) {
        const double border = i == 0 ? found.main()->phases[1].startS : found.main()->phases[1].endS;
        const double true_ = i == 0 ? plain.main()->phases[1].startS : plain.main()->phases[1].endS;
        if (std::abs(border - true_) > reach)
            return {false, fmt::format("border at {:.1f}, not {:.1f}", border, true_)};
    }
    for (const std::string& code : story::dueFlags(style))
        if (!hasFlag(found.flags, code)) return {false, "flag missing: " + code};
    for (const Flag& flag : found.flags)
        if (flag.severity != Severity::info && !story::dueFlags(style).contains(flag.code)
            && !hasFlag(plain.flags, flag.code) && !(style.impossible && flag.code == "impossible-values"))
            return {false, "flag too many: " + flag.code};
    return {true, {}};
}

} // namespace

class TestMessyLogs : public QObject {
    Q_OBJECT

    Trace trace_ = story::trace("Plover 4", 2);
    Reduction plain_ = reduce(trace_);

private slots:
    void eachWayAlone_data() {
        QTest::addColumn<int>("way");
        static const char* names[] = {"semicolon",
                                      "tab",
                                      "bar",
                                      "decimal comma",
                                      "quoted decimal comma",
                                      "fahrenheit",
                                      "milliwatt",
                                      "shuffled",
                                      "crlf",
                                      "trailing separator",
                                      "JSON Lines",
                                      "units in cells",
                                      "footer",
                                      "header again",
                                      "same names",
                                      "cut off",
                                      "preamble",
                                      "units (…)",
                                      "units behind a comma",
                                      "units in a row",
                                      "no units",
                                      "mark",
                                      "UTF-16 LE",
                                      "UTF-16 BE",
                                      "Latin-1",
                                      "German",
                                      "Japanese",
                                      "Chinese",
                                      "Spanish",
                                      "missing cells",
                                      "impossible cells",
                                      "stuck core",
                                      "duplicates",
                                      "gap",
                                      "clock jump",
                                      "elapsed ms",
                                      "ISO",
                                      "ISO with zone",
                                      "D.M.Y",
                                      "M/D/Y 12 h",
                                      "date and clock",
                                      "clock alone",
                                      "epoch s",
                                      "epoch ms",
                                      "epoch us",
                                      "serial"};
        int way = 0;
        for (const char* name : names) QTest::newRow(name) << way++;
    }
    void eachWayAlone() {
        QFETCH(int, way);
        LogStyle style;
        if (way <= 2) style.separator = ";\t|"[way];
        if (way == 3) style.separator = ';', style.decimalComma = true;
        if (way == 4) style.quoted = style.decimalComma = true;
        bool* const flags[] = {&style.fahrenheit,  &style.milliwatt, &style.shuffled,     &style.crlf,
                               &style.trailing,    &style.jsonLines, &style.unitsInCells, &style.footer,
                               &style.headerAgain, &style.sameNames, &style.cutOff};
        if (way >= 5 && way <= 15) *flags[way - 5] = true;
        if (way == 16) style.preamble = 3;
        if (way >= 17 && way <= 20) style.unitMarks = way - 16;
        if (way == 18) style.separator = ';';
        if (way >= 21 && way <= 24) style.encoding = way - 20;
        if (way >= 25 && way <= 28) style.tongue = static_cast<Tongue>(way - 24);
        bool* const damages[] = {&style.missing,    &style.impossible, &style.stuck,
                                 &style.duplicates, &style.gap,        &style.jump};
        if (way >= 29 && way <= 34) *damages[way - 29] = true;
        if (way >= 35) style.stamps = static_cast<Stamps>(way - 34);
        if (way == 11) style.unitMarks = 4;
        Random random(7);
        const Checked checked = checkedLog(trace_, plain_, style, random);
        QVERIFY2(checked.right, checked.why.c_str());
    }
    void manyWaysAtOnce() {
        Random random(2031);
        int wrong = 0;
        const int trials = 120;
        for (int trial = 0; trial < trials; ++trial) {
            const LogStyle style = story::randomStyle(random);
            const Checked checked = checkedLog(trace_, plain_, style, random);
            if (checked.right) continue;
            ++wrong;
            qInfo("%s: %s", style.name().c_str(), checked.why.c_str());
        }
        QVERIFY2(wrong * 50 <= trials,
                 qPrintable(QString("%1 of %2 are wrong").arg(wrong).arg(trials))); // 98 % are right
    }
};

QTEST_GUILESS_MAIN(TestMessyLogs)
#include "tst_messy_logs.moc"
