// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A seeded generator of logs written as loggers write them: every way alone or many at once. What it does to
// the data it tells, so that a test knows which flags are due.

#include "core/base/random.h"
#include "core/distributions/summary.h"
#include "core/trace/trace.h"
#include "store/log/text.h"

#include <QString>
#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <set>

namespace ibuki::story {

enum class Stamps {
    elapsedS,
    elapsedMs,
    iso,
    isoZone,
    dayMonthYear,
    monthDayYear,
    dateAndClock,
    clock,
    epochS,
    epochMs,
    epochUs,
    serial,
    yearMonthDayWords, ///< 2031年3月4日 14時02分11秒
    halfDay            ///< 2031/3/4 下午 2:02:11
};
enum class Tongue { english, german, japanese, chinese, spanish };

struct LogStyle {
    char separator = ',';
    bool decimalComma = false;
    bool fahrenheit = false;
    bool milliwatt = false;
    bool quoted = false;
    bool shuffled = false;
    bool crlf = false;
    bool trailing = false; ///< separator at the end of every line
    bool jsonLines = false;
    bool unitsInCells = false;
    bool footer = false;
    bool headerAgain = false;
    bool sameNames = false; ///< two columns of one name
    bool cutOff = false;    ///< the last line ends in the middle
    int preamble = 0;
    int unitMarks = 0; ///< 0 [°C], 1 (°C), 2 ", °C", 3 in a row of their own, 4 none
    Stamps stamps = Stamps::elapsedS;
    int encoding = 0; ///< 0 UTF-8, 1 with mark, 2 UTF-16 LE, 3 UTF-16 BE, 4 Latin-1
    Tongue tongue = Tongue::english;
    // What happens to the data.
    bool missing = false;    ///< one cell in a hundred says that there is nothing
    bool impossible = false; ///< a few cells no sensor can read
    bool stuck = false;      ///< one core never moves
    bool duplicates = false;
    bool gap = false;  ///< a minute and a half of the idle phase is not logged
    bool jump = false; ///< the clock goes back an hour
    // What is logged at all.
    bool loadOnly = false;        ///< started late and stopped early
    bool temperatureOnly = false; ///< neither power nor clocks nor fans
    bool nameless = false;        ///< headers that say nothing: a map tells the roles
    bool probe = false;           ///< the room in a log of its own,
    int probeHours = 0;           ///< whose clock is as many hours fast

    std::string name() const {
        return fmt::format(
            "sep {} comma {} F {} mW {} quoted {} shuffled {} crlf {} trailing {} json {} cells {} footer {} "
            "again {} same {} cut {} preamble {} units {} stamps {} enc {} tongue {} missing {} impossible "
            "{} "
            "stuck {} dup {} gap {} jump {} load only {} temperature only {} nameless {} "
            "probe {} hours {}",
            separator == '\t'         ? 't'
            : separator == wideBlanks ? 'b'
                                      : separator,
            decimalComma, fahrenheit, milliwatt, quoted, shuffled, crlf, trailing, jsonLines, unitsInCells,
            footer, headerAgain, sameNames, cutOff, preamble, unitMarks, static_cast<int>(stamps), encoding,
            static_cast<int>(tongue), missing, impossible, stuck, duplicates, gap, jump, loadOnly,
            temperatureOnly, nameless, probe, probeHours);
    }
};

inline bool hasDate(Stamps stamps) {
    return stamps != Stamps::elapsedS && stamps != Stamps::elapsedMs && stamps != Stamps::clock;
}

inline LogStyle randomStyle(Random& random) {
    const auto pick = [&](int n) { return static_cast<int>(random.uniform() * n); };
    const auto oneIn = [&](int n) { return pick(n) == 0; };
    LogStyle style;
    style.separator = ",;\t|\x1f"[pick(5)];
    style.decimalComma = oneIn(2);
    style.quoted = oneIn(4) || (style.decimalComma && style.separator == ',');
    style.fahrenheit = oneIn(4);
    style.milliwatt = oneIn(6);
    style.shuffled = oneIn(2);
    style.crlf = oneIn(2);
    style.trailing = oneIn(5);
    style.jsonLines = oneIn(8);
    style.unitsInCells = oneIn(8);
    style.footer = oneIn(4);
    style.headerAgain = oneIn(6);
    style.sameNames = oneIn(6);
    style.cutOff = oneIn(6);
    style.preamble = pick(4);
    style.unitMarks = pick(5);
    if (style.unitMarks == 2 && style.separator == ',' && !style.quoted) style.unitMarks = 0;
    // Without a unit nothing tells °F from °C or mW from W, and the cells say it otherwise.
    if (style.unitMarks == 4 && !style.unitsInCells) style.fahrenheit = style.milliwatt = false;
    style.stamps = static_cast<Stamps>(pick(14));
    style.tongue = static_cast<Tongue>(pick(5));
    style.encoding = pick(5);
    const bool beyondLatin = style.tongue == Tongue::japanese || style.tongue == Tongue::chinese
                             || style.stamps >= Stamps::yearMonthDayWords;
    if (style.encoding == 4 && beyondLatin) style.encoding = 0;
    if (style.jsonLines) {
        style.encoding = std::min(style.encoding, 1);
        style.unitMarks = style.unitMarks == 3 ? 0 : style.unitMarks;
        style.preamble = 0;
        style.quoted = style.trailing = style.footer = style.headerAgain = style.sameNames =
            style.decimalComma = false;
    }
    style.missing = oneIn(3);
    style.impossible = oneIn(5);
    style.stuck = oneIn(8);
    style.duplicates = oneIn(6);
    style.gap = oneIn(8);
    style.jump = oneIn(8);
    style.loadOnly = oneIn(8);
    style.temperatureOnly = oneIn(6);
    style.nameless = oneIn(8);
    if (style.loadOnly) style.gap = false; // it stands in the idle phase
    style.probe = oneIn(6);
    if (style.probe && hasDate(style.stamps)) style.probeHours = pick(7) - 3;
    return style;
}

namespace detail {

/// English words of the simulated bench's columns in another language.
inline QString translated(const QString& words, Tongue tongue) {
    const auto core = words.startsWith("Core ") ? words.section(' ', 1, 1) : QString();
    const bool clock = words.contains("Clock");
    struct Row {
        const char* english;
        const char* other[4]; ///< German, Japanese, Chinese, Spanish
    };
    static const Row rows[] = {
        {"Package Power", {"Leistung Gehäuse", "パッケージ電力", "封装功耗", "Potencia del paquete"}},
        {"Package", {"CPU-Gehäuse", "CPU パッケージ", "CPU 封装", "CPU encapsulado"}},
        {"Ambient", {"Raumtemperatur", "室温", "环境温度", "Temperatura ambiente"}},
        {"Fan1", {"Lüfter 1", "ファン 1", "风扇 1", "Ventilador 1"}}};
    if (tongue == Tongue::english) return words;
    const auto t = static_cast<std::size_t>(tongue) - 1;
    static const char* coreWords[] = {"Kern", "コア", "核心", "Núcleo"};
    static const char* clockWords[] = {"Takt", "クロック", "频率", "Frecuencia"};
    if (!core.isEmpty())
        return QString("%1%2 %3").arg(clock ? QString(clockWords[t]) + " " : QString(), coreWords[t], core);
    for (const Row& row : rows)
        if (words == row.english) return row.other[t];
    return words;
}

inline QString timeName(Tongue tongue, int which) {
    static const char* names[][2] = {
        {"Time", "Date"}, {"Uhrzeit", "Datum"}, {"時刻", "日付"}, {"时间", "日期"}, {"Hora", "Fecha"}};
    return names[static_cast<std::size_t>(tongue)][which];
}

inline QString unitOf(const Channel& channel, const LogStyle& style) {
    const QString unit = QString::fromStdString(channel.column).section('[', 1).chopped(1);
    if (unit == "°C" && style.fahrenheit) return "°F";
    if (unit == "W" && style.milliwatt) return "mW";
    return unit;
}

inline std::string decimal(std::string text, const LogStyle& style) {
    if (style.decimalComma) std::replace(text.begin(), text.end(), '.', ',');
    return text;
}

inline std::vector<std::string> stampCells(const LogStyle& style, double timeS, Instant start) {
    const Instant at{start.ms + std::llround(timeS * 1000)};
    const std::string iso = isoText(at); // …T14:02:11.250
    const std::string date = iso.substr(0, 10);
    const std::string clock = iso.substr(11, 8);
    const int year = std::stoi(date.substr(0, 4));
    const int month = std::stoi(date.substr(5, 2));
    const int day = std::stoi(date.substr(8, 2));
    const int hour = std::stoi(clock.substr(0, 2));
    switch (style.stamps) {
    case Stamps::elapsedS:
        return {decimal(fmt::format("{:.1f}", timeS), style)};
    case Stamps::elapsedMs:
        return {fmt::format("{:.0f}", 1000 * timeS)};
    case Stamps::iso:
        return {iso};
    case Stamps::isoZone:
        return {iso.substr(0, 19) + "+01:00"};
    case Stamps::dayMonthYear:
        return {fmt::format("{}.{}.{} {}", day, month, year, clock)};
    case Stamps::monthDayYear:
        return {fmt::format("{:02}/{:02}/{} {:02}{} {}", month, day, year, hour % 12 == 0 ? 12 : hour % 12,
                            clock.substr(2), hour < 12 ? "AM" : "PM")};
    case Stamps::dateAndClock:
        return {fmt::format("{}.{}.{}", day, month, year), clock};
    case Stamps::clock:
        return {clock};
    case Stamps::epochS:
        return {decimal(fmt::format("{:.1f}", static_cast<double>(at.ms) / 1000), style)};
    case Stamps::epochMs:
        return {fmt::format("{}", at.ms)};
    case Stamps::epochUs:
        return {fmt::format("{}", at.ms * 1000)};
    case Stamps::yearMonthDayWords:
        return {fmt::format("{}年{}月{}日 {}時{}分{}秒", year, month, day, hour, clock.substr(3, 2),
                            clock.substr(6))};
    case Stamps::halfDay:
        return {fmt::format("{}/{}/{} {} {}{}", year, month, day, hour < 12 ? "上午" : "下午",
                            hour % 12 == 0 ? 12 : hour % 12, clock.substr(2))};
    case Stamps::serial:
        break;
    }
    return {decimal(fmt::format("{:.9f}", 25'569 + static_cast<double>(at.ms) / 86'400'000), style)};
}

inline std::string valueCell(double value, const Channel& channel, const LogStyle& style) {
    if (std::isnan(value)) return "n/a";
    const QString unit = unitOf(channel, style);
    if (unit == "°F") value = value * 1.8 + 32;
    if (unit == "mW") value *= 1000;
    const std::string text = decimal(fmt::format("{:.2f}", value), style);
    return style.unitsInCells ? text + " " + unit.toStdString() : text;
}

inline std::string encoded(const std::string& text, int encoding) {
    if (encoding == 1) return "\xEF\xBB\xBF" + text;
    if (encoding == 4) return QString::fromStdString(text).toLatin1().toStdString();
    if (encoding == 0) return text;
    std::string wide = encoding == 2 ? "\xFF\xFE" : "\xFE\xFF";
    for (const QChar c : QString::fromStdString(text)) {
        const char low = static_cast<char>(c.unicode() & 0xFF);
        const char high = static_cast<char>(c.unicode() >> 8);
        wide += encoding == 2 ? low : high;
        wide += encoding == 2 ? high : low;
    }
    return wide;
}

inline bool isJsonNumber(const std::string& text) {
    return !text.empty() && text.find_first_not_of("0123456789.") == std::string::npos
           && std::count(text.begin(), text.end(), '.') <= 1;
}

/// The core that stands still must not be the hottest: then the figure itself would be another.
inline const Channel* coolestCore(const Trace& trace) {
    const Channel* coolest = nullptr;
    for (const Channel& channel : trace.channels)
        if (channel.role == Role::core && (!coolest || mean(channel.values) < mean(coolest->values)))
            coolest = &channel;
    return coolest;
}

/// A header that says nothing.
inline std::string nameless(std::size_t channel) { return fmt::format("X{}", channel + 1); }

/// Damages the values as the style says.
inline void damage(Trace& trace, const LogStyle& style, Random& random) {
    static const double nonsense[] = {-273.15, 255, 0, 6553.5, 127};
    const Channel* still = style.stuck ? coolestCore(trace) : nullptr;
    for (Channel& channel : trace.channels) {
        const bool chip = isChipTemperature(channel.role);
        if (&channel == still)
            std::fill(channel.values.begin(), channel.values.end(), channel.values.front());
        for (double& v : channel.values) {
            if (style.missing && random.uniform() < 0.01) v = std::numeric_limits<double>::quiet_NaN();
            if (style.impossible && chip && random.uniform() < 0.002)
                v = nonsense[static_cast<int>(random.uniform() * 5)];
        }
    }
}

} // namespace detail

/// Stamps that are written in whole seconds.
inline bool isCoarse(Stamps stamps) {
    switch (stamps) {
    case Stamps::isoZone:
    case Stamps::dayMonthYear:
    case Stamps::monthDayYear:
    case Stamps::dateAndClock:
    case Stamps::clock:
    case Stamps::yearMonthDayWords:
    case Stamps::halfDay:
        return true;
    default:
        return false;
    }
}

/// Flags that the damage has to raise. Rows closer than their stamps are fine repeat them anyhow, and nothing
/// tells one that was written twice.
inline std::set<std::string> dueFlags(const LogStyle& style, double intervalS) {
    std::set<std::string> flags;
    if (style.stuck) flags.insert("stuck-sensor");
    if (style.duplicates && !(intervalS < 1 && isCoarse(style.stamps))) flags.insert("duplicate-samples");
    if (style.gap) flags.insert("gap-in-log");
    if (style.jump) flags.insert("clock-jump");
    if (style.probeHours) flags.insert("probe-hour");
    return flags;
}

/// The room's channel as a log of its own, a sample every ten seconds, its clock fast by hours.
inline Trace ambientLog(const Trace& trace, int hours) {
    Trace room;
    room.start = Instant{trace.start->ms + 3'600'000LL * hours};
    const Channel* channel = firstChannel(trace, Role::ambient);
    room.channels.push_back({"Ambient [°C]", Unit::celsius, Role::ambient, 0, {}, {}});
    for (std::size_t i = 0; i < trace.samples(); ++i) {
        if (!room.timeS.empty() && trace.timeS[i] - room.timeS.back() < 10) continue;
        room.timeS.push_back(trace.timeS[i]);
        room.channels.front().values.push_back(channel->values[i]);
    }
    return room;
}

/// What the logger was told to keep, and when: the trace without the rest. `load` is where it is under load.
inline Trace kept(Trace trace, const LogStyle& style, double loadStartS, double loadEndS) {
    if (style.probe)
        std::erase_if(trace.channels, [](const Channel& channel) { return channel.role == Role::ambient; });
    if (style.temperatureOnly)
        std::erase_if(trace.channels, [](const Channel& channel) {
            return !isTemperature(channel.role) && channel.role != Role::ambient;
        });
    if (style.shuffled)
        std::rotate(trace.channels.begin(),
                    trace.channels.begin() + static_cast<std::ptrdiff_t>(trace.channels.size() / 2),
                    trace.channels.end());
    if (!style.loadOnly) return trace;
    const auto at = [&](double timeS) {
        return std::lower_bound(trace.timeS.begin(), trace.timeS.end(), timeS) - trace.timeS.begin();
    };
    const auto begin = at(loadStartS + 20);
    const auto end = at(loadEndS - 5);
    const double startS = trace.timeS[static_cast<std::size_t>(begin)];
    trace.start->ms += std::llround(1000 * startS);
    trace.timeS = {trace.timeS.begin() + begin, trace.timeS.begin() + end};
    for (double& t : trace.timeS) t -= startS;
    for (Channel& channel : trace.channels)
        channel.values = {channel.values.begin() + begin, channel.values.begin() + end};
    return trace;
}

/// The roles of a nameless log by its headers.
inline RoleMap rolesOf(const Trace& trace, const LogStyle& style) {
    RoleMap roles;
    for (std::size_t i = 0; i < trace.channels.size() && style.nameless; ++i)
        roles[detail::nameless(i)] = trace.channels[i].role;
    return roles;
}

/// trace has a start and, unless all of it is load, at least five minutes of idle.
inline std::string writtenLog(Trace trace, const LogStyle& style, Random& random) {
    using namespace detail;
    damage(trace, style, random);
    std::vector<std::string> names;
    std::vector<std::string> units;
    if (style.stamps == Stamps::dateAndClock) {
        names = {timeName(style.tongue, 1).toStdString(), timeName(style.tongue, 0).toStdString()};
        units = {"", ""};
    } else {
        QString time = timeName(style.tongue, 0);
        if (style.stamps == Stamps::elapsedMs && style.unitMarks != 3 && style.unitMarks != 4)
            time += " [ms]";
        names = {time.toStdString()};
        units = {style.stamps == Stamps::elapsedMs ? "ms" : ""};
    }
    for (const Channel& channel : trace.channels) {
        const QString words =
            style.nameless
                ? QString::fromStdString(nameless(static_cast<std::size_t>(&channel - trace.channels.data())))
                : translated(QString::fromStdString(channel.column).section(" [", 0, 0), style.tongue);
        const QString unit = unitOf(channel, style);
        // Without units the words have to say which kind it is.
        const bool bare = style.unitMarks >= 3;
        QString kind;
        if (style.unitMarks == 4 && !style.unitsInCells && !style.nameless && isTemperature(channel.role))
            kind = " temp";
        const QString marked = style.unitMarks == 0   ? words + " [" + unit + "]"
                               : style.unitMarks == 1 ? words + " (" + unit + ")"
                               : style.unitMarks == 2 ? words + ", " + unit
                                                      : words + (bare ? kind : QString());
        names.push_back(marked.toStdString());
        units.push_back(unit.toStdString());
    }
    if (style.sameNames) {
        names.push_back("Spare [V]");
        names.push_back("Spare [V]");
        units.push_back("V");
        units.push_back("V");
    }
    const std::string end = style.crlf ? "\r\n" : "\n";
    std::string text;
    const std::string between = isBlankSeparator(style.separator) ? "   " : std::string(1, style.separator);
    const auto line = [&](const std::vector<std::string>& fields) {
        for (std::size_t i = 0; i < fields.size(); ++i) {
            if (i > 0) text += between;
            // Between spaces an empty cell would not be one.
            const std::string cell = fields[i].empty() && between.size() > 1 ? "-" : fields[i];
            text += style.quoted ? "\"" + cell + "\"" : cell;
        }
        if (style.trailing) text += between;
        text += end;
    };
    for (int i = 0; i < style.preamble; ++i)
        text += "# line " + std::to_string(i) + " of what the logger says" + end;
    if (!style.jsonLines) line(names);
    if (style.unitMarks == 3 && !style.jsonLines) line(units);
    const std::size_t jumpAt = trace.samples() / 2;
    for (std::size_t row = 0; row < trace.samples(); ++row) {
        double timeS = trace.timeS[row];
        if (style.gap && timeS > 100 && timeS < 190) continue;
        if (style.jump && row >= jumpAt) timeS -= 3600;
        std::vector<std::string> fields = stampCells(style, timeS, *trace.start);
        for (const Channel& channel : trace.channels)
            fields.push_back(valueCell(channel.values[row], channel, style));
        if (style.sameNames) {
            fields.emplace_back(decimal("12.1", style));
            fields.emplace_back(decimal("5.0", style));
        }
        if (style.headerAgain && row == trace.samples() / 3) line(names);
        for (int copy = 0; copy < (style.duplicates && row % 97 == 5 ? 2 : 1); ++copy) {
            if (!style.jsonLines) {
                line(fields);
                continue;
            }
            text += "{";
            for (std::size_t i = 0; i < fields.size(); ++i) {
                const bool number = isJsonNumber(fields[i]);
                text += fmt::format("{}\"{}\": {}{}{}", i > 0 ? ", " : "", names[i], number ? "" : "\"",
                                    fields[i], number ? "" : "\"");
            }
            text += "}" + end;
        }
    }
    if (style.footer) {
        text += end;
        line(std::vector<std::string>(names.size(), "Average"));
        text += "End of log" + end;
    }
    if (style.cutOff && !style.footer)
        text.resize(text.size() - text.substr(text.rfind('\n', text.size() - 3)).size() / 2);
    return encoded(text, style.encoding);
}

} // namespace ibuki::story
