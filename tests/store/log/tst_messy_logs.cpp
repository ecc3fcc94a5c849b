// SPDX-License-Identifier: GPL-3.0-or-later
// A seeded generator of logs written in many ways at once: separator, decimal sign, encoding, time style,
// order of columns, unit marks, preamble, quotes, missing cells. However it is written, the figure is the
// same.

#include "core/domain/input_error.h"
#include "core/physics/random.h"
#include "core/reduce/reduce.h"
#include "store/log/log_reader.h"
#include "support/near.h"
#include "support/story.h"

#include <algorithm>
#include <fmt/format.h>

using namespace ibuki;

namespace {

struct Style {
    char separator = ',';
    bool decimalComma = false;
    bool fahrenheit = false;
    bool quoted = false;
    bool shuffled = false;
    bool missing = false;
    bool crlf = false;
    int preamble = 0;
    int unitMarks = 0; ///< 0 [°C], 1 (°C), 2 ", °C"
    int timeStyle =
        0; ///< 0 elapsed, 1 ISO, 2 day.month.year, 3 month/day/year 12 h, 4 date and clock columns, 5 clock
    int encoding = 0; ///< 0 UTF-8, 1 with mark, 2 UTF-16, 3 Latin-1

    std::string name() const {
        return fmt::format("sep {} comma {} F {} quoted {} shuffled {} missing {} crlf {} preamble {} units "
                           "{} time {} encoding {}",
                           separator == '\t' ? 't' : separator, decimalComma, fahrenheit, quoted, shuffled,
                           missing, crlf, preamble, unitMarks, timeStyle, encoding);
    }
};

Style randomStyle(Random& random) {
    const auto pick = [&](int n) { return static_cast<int>(random.uniform() * n); };
    Style style;
    style.separator = ",;\t"[pick(3)];
    style.decimalComma = style.separator != ',' && pick(2) == 1;
    style.fahrenheit = pick(4) == 0;
    style.quoted = pick(4) == 0;
    style.shuffled = pick(2) == 0;
    style.missing = pick(3) == 0;
    style.crlf = pick(2) == 0;
    style.preamble = pick(4);
    style.unitMarks = pick(style.separator == ',' && !style.quoted ? 2 : 3);
    style.timeStyle = pick(6);
    style.encoding = pick(4);
    return style;
}

std::string header(const Channel& channel, const Style& style) {
    const QString column = QString::fromStdString(channel.column);
    const QString words = column.section(" [", 0, 0);
    QString unit = column.section('[', 1).chopped(1);
    if (style.fahrenheit) unit.replace("°C", "°F");
    const QString marked = style.unitMarks == 0   ? words + " [" + unit + "]"
                           : style.unitMarks == 1 ? words + " (" + unit + ")"
                                                  : words + ", " + unit;
    return marked.toStdString();
}

std::vector<std::string> stamps(const Style& style, double timeS, Instant start) {
    const Instant at{start.ms + static_cast<std::int64_t>(timeS * 1000)};
    const std::string iso = isoText(at);
    const std::string date = iso.substr(0, 10);
    const std::string clock = iso.substr(11, 8);
    const int year = std::stoi(date.substr(0, 4));
    const int month = std::stoi(date.substr(5, 2));
    const int day = std::stoi(date.substr(8, 2));
    const int hour = std::stoi(clock.substr(0, 2));
    const std::string rest = clock.substr(2);
    switch (style.timeStyle) {
    case 0:
        return {style.decimalComma ? fmt::format("{},0", timeS) : fmt::format("{:.1f}", timeS)};
    case 1:
        return {iso};
    case 2:
        return {fmt::format("{}.{}.{} {}", day, month, year, clock)};
    case 3:
        return {fmt::format("{:02}/{:02}/{} {:02}{} {}", month, day, year, hour % 12 == 0 ? 12 : hour % 12,
                            rest, hour < 12 ? "AM" : "PM")};
    case 4:
        return {fmt::format("{}.{}.{}", day, month, year), clock};
    default:
        return {clock};
    }
}

std::string cell(double value, const Channel& channel, const Style& style) {
    if (style.fahrenheit && channel.fileUnit == Unit::celsius) value = value * 1.8 + 32;
    std::string text = fmt::format("{:.2f}", value);
    if (style.decimalComma) std::replace(text.begin(), text.end(), '.', ',');
    return text;
}

std::string encoded(const std::string& text, int encoding) {
    if (encoding == 1) return "\xEF\xBB\xBF" + text;
    if (encoding == 3) return QString::fromStdString(text).toLatin1().toStdString();
    if (encoding != 2) return text;
    std::string wide = "\xFF\xFE";
    for (const QChar c : QString::fromStdString(text))
        wide += {static_cast<char>(c.unicode() & 0xFF), static_cast<char>(c.unicode() >> 8)};
    return wide;
}

std::string written(Trace trace, const Style& style, Random& random) {
    if (style.shuffled) std::rotate(trace.channels.begin(), trace.channels.begin() + 5, trace.channels.end());
    const std::string end = style.crlf ? "\r\n" : "\n";
    std::string text;
    for (int i = 0; i < style.preamble; ++i)
        text += "# line " + std::to_string(i) + " of what the logger says" + end;
    const auto line = [&](const std::vector<std::string>& fields) {
        for (std::size_t i = 0; i < fields.size(); ++i) {
            if (i > 0) text += style.separator;
            text += style.quoted ? "\"" + fields[i] + "\"" : fields[i];
        }
        text += end;
    };
    std::vector<std::string> names =
        style.timeStyle == 4 ? std::vector<std::string>{"Date", "Time"} : std::vector<std::string>{"Time"};
    for (const Channel& channel : trace.channels) names.push_back(header(channel, style));
    line(names);
    for (std::size_t row = 0; row < trace.samples(); ++row) {
        std::vector<std::string> fields = stamps(style, trace.timeS[row], *trace.start);
        for (const Channel& channel : trace.channels)
            fields.push_back(
                style.missing && random.uniform() < 0.01 ? "n/a" : cell(channel.values[row], channel, style));
        line(fields);
    }
    return encoded(text, style.encoding);
}

} // namespace

class TestMessyLogs : public QObject {
    Q_OBJECT
private slots:
    void howeverItIsWrittenTheFigureIsTheSame() {
        Random random(2031);
        const Trace trace = story::trace("Plover 4", 2);
        const Reduction plain = reduce(trace);
        const double wanted = *plain.main()->metrics.at(Metric::hottest).deltaK;
        for (int trial = 0; trial < 80; ++trial) {
            const Style style = randomStyle(random);
            const std::string bytes = written(trace, style, random);
            Reduction reduction;
            try {
                reduction = reduce(readLog(bytes, "messy.csv"));
            } catch (const InputError& error) {
                QFAIL((style.name() + ": " + sentence(error)).c_str());
            }
            QVERIFY2(reduction.main(), style.name().c_str());
            const auto found = reduction.main()->metrics.at(Metric::hottest).deltaK;
            QVERIFY2(found && std::abs(*found - wanted) < 0.02,
                     qPrintable(QString::fromStdString(style.name())
                                + QString(" found %1, wanted %2").arg(found.value_or(-1)).arg(wanted)));
            QVERIFY2(std::abs(reduction.main()->phases[1].startS - plain.main()->phases[1].startS) <= 4,
                     style.name().c_str());
            QVERIFY2(reduction.samples == plain.samples, style.name().c_str());
        }
    }
};

QTEST_GUILESS_MAIN(TestMessyLogs)
#include "tst_messy_logs.moc"
