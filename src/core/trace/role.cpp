// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/role.h"

#include "core/quantity/temperature.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <map>
#include <span>
#include <utility>

namespace ibuki {
namespace {

constexpr std::array<std::pair<std::string_view, Unit>, 35> unitWords{{
    {"°c", Unit::celsius},      {"degc", Unit::celsius},   {"c", Unit::celsius},
    {"celsius", Unit::celsius}, {"°f", Unit::fahrenheit},  {"degf", Unit::fahrenheit},
    {"f", Unit::fahrenheit},    {"k", Unit::kelvin},       {"kelvin", Unit::kelvin},
    {"w", Unit::watt},          {"watt", Unit::watt},      {"mw", Unit::milliwatt},
    {"mhz", Unit::megahertz},   {"ghz", Unit::gigahertz},  {"rpm", Unit::rpm},
    {"1/min", Unit::rpm},       {"%", Unit::percent},      {"db", Unit::decibel},
    {"dba", Unit::decibel},     {"db(a)", Unit::decibel},  {"s", Unit::second},
    {"sec", Unit::second},      {"ms", Unit::millisecond}, {"v", Unit::volt},
    {"℃", Unit::celsius},       {"℉", Unit::fahrenheit},   {"grad", Unit::celsius},
    {"º", Unit::celsius},       {"ºc", Unit::celsius},     {"watts", Unit::watt},
    {"u/min", Unit::rpm},       {"us", Unit::microsecond}, {"µs", Unit::microsecond},
    {"min-1", Unit::rpm},       {"seconds", Unit::second},
}};

/// ASCII and the capitals of Latin-1's letters (U+00C0 to U+00DE, two bytes from C3 80).
std::string lower(std::string_view text) {
    std::string result(text);
    for (std::size_t i = 0; i < result.size(); ++i) {
        const auto c = static_cast<unsigned char>(result[i]);
        if (c < 0x80)
            result[i] = static_cast<char>(std::tolower(c));
        else if (i > 0 && static_cast<unsigned char>(result[i - 1]) == 0xC3 && c >= 0x80 && c <= 0x9E
                 && c != 0x97)
            result[i] = static_cast<char>(c + 0x20);
    }
    return result;
}

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t");
    if (first == std::string_view::npos) return {};
    return std::string(text.substr(first, text.find_last_not_of(" \t") - first + 1));
}

std::optional<Unit> unitFromWord(const std::string& word) {
    const auto found = std::find_if(unitWords.begin(), unitWords.end(),
                                    [&](const auto& entry) { return entry.first == word; });
    if (found == unitWords.end()) return std::nullopt;
    return found->second;
}

using Spellings = std::span<const std::string_view>;

/// "cpu core #12" → cpu, core, 12. Letters beyond ASCII belong to words.
std::vector<std::string_view> tokensOf(std::string_view text) {
    const auto kind = [](char c) {
        const auto u = static_cast<unsigned char>(c);
        return u >= 0x80 || std::isalpha(u) ? 1 : std::isdigit(u) ? 2 : 0;
    };
    std::vector<std::string_view> tokens;
    for (std::size_t begin = 0; begin < text.size();) {
        std::size_t end = begin + 1;
        while (end < text.size() && kind(text[end]) == kind(text[begin])) ++end;
        if (kind(text[begin]) != 0) tokens.push_back(text.substr(begin, end - begin));
        begin = end;
    }
    return tokens;
}

/// Short ASCII words have to stand alone ("core", not "score"); longer ones, those of other scripts, and
/// those written with a leading '*' may be part of a longer one ("Lüfterdrehzahl").
bool has(const std::string& words, Spellings any) {
    const auto tokens = tokensOf(words);
    return std::any_of(any.begin(), any.end(), [&](std::string_view word) {
        const bool part =
            word.front() == '*' || word.size() > 4 || static_cast<unsigned char>(word.front()) >= 0x80;
        if (word.front() == '*') word.remove_prefix(1);
        if (part) return words.find(word) != std::string::npos;
        return std::any_of(tokens.begin(), tokens.end(), [&](std::string_view token) {
            return token == word
                   || (token.size() == word.size() + 1 && token.starts_with(word) && token.back() == 's');
        });
    });
}

bool has(const std::string& words, std::initializer_list<std::string_view> any) {
    return has(words, Spellings(any.begin(), any.size()));
}

// English, German, Japanese, Chinese, Spanish.
constexpr std::string_view timeWords[] = {
    "timestamp", "date", "time", "elapsed", "*zeit", "datum", "uhrzeit", "dauer", "時刻",  "時間",
    "日付",      "日時", "経過", "时间",    "日期",  "时刻",  "tiempo",  "hora",  "fecha", "transcurrido"};
constexpr std::string_view noTimeWords[] = {"frame", "latency", "render", "delay", "runtime", "bild"};
constexpr std::string_view temperatureWords[] = {"temp", "temperat", "*temperatur", "温度", "溫度",
                                                 "室温", "水温",     "液温",        "tdie", "°"};
constexpr std::string_view powerWords[] = {"power", "watt", "leistung", "verbrauch", "電力",
                                           "功率",  "功耗", "potencia", "consumo"};
constexpr std::string_view clockWords[] = {"clock", "freq", "frequen", "*takt",      "クロック", "周波数",
                                           "频率",  "頻率", "時脈",    "frecuencia", "reloj"};
constexpr std::string_view fanWords[] = {"fan",    "rpm",  "lüfter", "luefter", "drehzahl",  "ファン",
                                         "回転数", "风扇", "風扇",   "转速",    "ventilador"};
constexpr std::string_view pumpWords[] = {"pump", "ポンプ", "水泵", "bomba"};
constexpr std::string_view noiseWords[] = {"noise",     "sound",  "lärm", "laerm", "geräusch",
                                           "geraeusch", "schall", "騒音", "噪音",  "ruido"};
constexpr std::string_view ambientWords[] = {
    "ambient", "room",   "intake", "probe",    "inlet air", "*raum",    "umgebung",
    "zimmer",  "ansaug", "zuluft", "室温",     "周囲",      "環境",     "吸気",
    "环境",    "室内",   "进气",   "ambiente", "sala",      "habitaci", "aire de entrada"};
constexpr std::string_view coolantWords[] = {"coolant",      "liquid", "water",   "fluid",    "kühlmittel",
                                             "kuehlmittel",  "wasser", "flüssig", "fluessig", "冷却水",
                                             "水温",         "冷媒",   "液温",    "冷却液",   "液体",
                                             "refrigerante", "agua",   "líquido", "liquido"};
constexpr std::string_view memoryWords[] = {"memory", "vram", "mem",  "dram", "dimm",   "speicher",
                                            "メモリ", "显存", "顯存", "内存", "memoria"};
constexpr std::string_view vrmWords[] = {
    "vrm",  "power stage", "mos",  "mosfet",           "spannungswandler", "leistungsstufe",
    "電源", "供电",        "供電", "etapa de potencia"};
constexpr std::string_view hotspotWords[] = {
    "hot spot",          "hotspot", "junction", "heißest",        "heissest",
    "ホットスポット",    "热点",    "熱點",     "punto caliente", "punto más caliente",
    "punto mas caliente"};
constexpr std::string_view graphicsWords[] = {"gpu",  "graphics", "grafik",  "グラフィック", "显卡",
                                              "顯卡", "图形",     "gráfica", "grafica"};
constexpr std::string_view packageWords[] = {"package", "tdie", "gehäuse",     "gehaeuse", "パッケージ",
                                             "封装",    "封裝", "encapsulado", "paquete"};
constexpr std::string_view chipWords[] = {"cpu",        "chip",   "processor", "prozessor",
                                          "プロセッサ", "处理器", "處理器",    "procesador"};
constexpr std::string_view coreWords[] = {"core", "*kern", "コア", "核心", "内核", "núcleo", "nucleo"};
constexpr std::string_view gatheredWords[] = {
    "average", "avg",  "mean", "max",      "min",   "maximum", "minimum", "mittel", "durchschnitt",
    "平均",    "最大", "最小", "promedio", "media", "máx",     "mín",     "máxim",  "mínim"};
constexpr std::string_view wallWords[] = {"wall", "mains", "plug", "steckdose", "*netz", "コンセント",
                                          "壁",   "插座",  "市电", "enchufe",   "toma"};
constexpr std::string_view loadWords[] = {"load",   "usage", "util", "utili", "*last", "負荷",
                                          "使用率", "负载",  "負載", "占用",  "carga", "uso"};
constexpr std::string_view limitWords[] = {"throttl", "limit", "drossel", "begrenz", "スロットリング", "制限",
                                           "降频",    "降頻",  "限制",    "límite",  "estrangul"};
constexpr std::string_view scoreWords[] = {"score", "punkte", "スコア", "得分", "分数", "puntuaci", "puntos"};
constexpr std::string_view commentWords[] = {"comment",  "remark", "bemerkung", "kommentar",
                                             "コメント", "备注",   "備註",      "comentario"};
/// Temperatures that are no reading of a place: distances, limits, targets.
constexpr std::string_view derivedWords[] = {"distance", "tjmax", "headroom", "margin", "target", "limit",
                                             "abstand",  "ziel",  "offset",   "delta",  "距離"};

enum class Kind { temperature, power, clock, fan, percent, noise, time, unknown };

Kind kindOfUnit(Unit unit) {
    switch (unit) {
    case Unit::celsius:
    case Unit::fahrenheit:
    case Unit::kelvin:
        return Kind::temperature;
    case Unit::watt:
    case Unit::milliwatt:
        return Kind::power;
    case Unit::megahertz:
    case Unit::gigahertz:
        return Kind::clock;
    case Unit::rpm:
        return Kind::fan;
    case Unit::percent:
        return Kind::percent;
    case Unit::decibel:
        return Kind::noise;
    case Unit::second:
    case Unit::millisecond:
    case Unit::microsecond:
        return Kind::time;
    default:
        return Kind::unknown;
    }
}

Kind kindOfWords(const std::string& w) {
    // A temperature or power named as such comes before the time, which hides in many words.
    if (has(w, powerWords) && !has(w, {"power stage"})) return Kind::power;
    if (has(w, temperatureWords)) return Kind::temperature;
    if (has(w, clockWords) && !has(w, timeWords)) return Kind::clock;
    if (has(w, fanWords)) return Kind::fan;
    if (has(w, noiseWords)) return Kind::noise;
    if (has(w, timeWords) && !has(w, noTimeWords)) return Kind::time;
    return Kind::unknown;
}

/// Labels of Linux drivers for control and package temperatures; what is so general that it could be anything
/// is only weakly believed.
std::optional<RoleGuess> driverRole(const std::string& w) {
    const auto tokens = tokensOf(w);
    const auto is = [&](std::string_view word) {
        return std::find(tokens.begin(), tokens.end(), word) != tokens.end();
    };
    if (is("tctl")) return RoleGuess{Role::package, 0.95};
    if (is("peci")) return RoleGuess{Role::package, 0.7};
    if (is("tccd")) return RoleGuess{Role::package, 0.5};
    if (is("edge")) return RoleGuess{Role::gpu, 0.8};
    if (is("composite")) return RoleGuess{Role::package, 0.12};
    const bool numbered = tokens.size() >= 2 && tokens[0] == "temp"
                          && std::isdigit(static_cast<unsigned char>(tokens[1][0]))
                          && (tokens.size() == 2 || (tokens.size() == 3 && tokens[2] == "input"));
    return numbered ? std::optional(RoleGuess{Role::package, 0.1}) : std::nullopt;
}

RoleGuess temperatureRole(const std::string& w) {
    if (has(w, derivedWords)) return {Role::ignore, 0.9};
    const bool gathered = has(w, gatheredWords);
    const double share = gathered ? 0.5 : 1.0; // a plain channel beside it is preferred
    if (has(w, ambientWords)) return {Role::ambient, share};
    if (has(w, coolantWords)) return {Role::coolant, share};
    if (has(w, memoryWords)) return {Role::memory, share};
    if (has(w, vrmWords)) return {Role::vrm, share};
    if (has(w, hotspotWords)) return {Role::hotspot, share};
    if (has(w, graphicsWords)) return {Role::gpu, share};
    if (has(w, packageWords)) return {Role::package, share};
    if (has(w, coreWords)) return gathered ? RoleGuess{Role::ignore, 0.9} : RoleGuess{Role::core, 1.0};
    if (has(w, chipWords)) return {Role::package, 0.6 * share};
    return driverRole(w).value_or(RoleGuess{Role::ignore, 0.6});
}

RoleGuess powerRole(const std::string& w) {
    if (has(w, derivedWords)) return {Role::ignore, 0.9};
    if (has(w, wallWords) || (has(w, {"socket"}) && !has(w, chipWords))) return {Role::wallPower, 1.0};
    const double share = has(w, memoryWords) || has(w, coreWords) || has(w, gatheredWords) ? 0.5 : 1.0;
    if (has(w, graphicsWords)) return {Role::gpuPower, share};
    if (has(w, packageWords)) return {Role::packagePower, share};
    if (has(w, chipWords)) return {Role::packagePower, 0.7 * share};
    return {Role::ignore, 0.6};
}

RoleGuess clockRole(const std::string& w) {
    if (has(w, memoryWords)) return {Role::ignore, 0.9};
    if (has(w, graphicsWords)) return {Role::gpuClock, 1.0};
    return has(w, coreWords) ? RoleGuess{Role::clock, 1.0} : RoleGuess{Role::ignore, 0.6};
}

RoleGuess roleOfKind(Kind kind, const std::string& w) {
    switch (kind) {
    case Kind::time:
        return has(w, noTimeWords) ? RoleGuess{Role::ignore, 0.9} : RoleGuess{Role::time, 1.0};
    case Kind::fan:
        return has(w, pumpWords) ? RoleGuess{Role::ignore, 0.9} : RoleGuess{Role::fan, 1.0};
    case Kind::noise:
        return {Role::noise, 1.0};
    case Kind::clock:
        return clockRole(w);
    case Kind::percent:
        return has(w, loadWords) && !has(w, memoryWords) ? RoleGuess{Role::load, 1.0}
                                                         : RoleGuess{Role::ignore, 0.9};
    case Kind::power:
        return powerRole(w);
    case Kind::temperature:
        return temperatureRole(w);
    case Kind::unknown:
        break;
    }
    return {Role::ignore, 0.5};
}

} // namespace

std::string_view roleName(Role role) { return roleWordList.at(static_cast<std::size_t>(role)); }

std::optional<Role> roleFromName(std::string_view name) {
    const auto found = std::find(roleWordList.begin(), roleWordList.end(), name);
    if (found == roleWordList.end()) return std::nullopt;
    return static_cast<Role>(found - roleWordList.begin());
}

std::string_view unitName(Unit unit) { return unitWordList.at(static_cast<std::size_t>(unit)); }

std::optional<Unit> unitFromName(std::string_view name) {
    const auto at = std::find(unitWordList.begin(), unitWordList.end(), name);
    if (at == unitWordList.end()) return std::nullopt;
    return static_cast<Unit>(at - unitWordList.begin());
}

bool isTemperature(Role role) {
    return isChipTemperature(role) || role == Role::coolant || role == Role::ambient;
}

bool isChipTemperature(Role role) {
    switch (role) {
    case Role::core:
    case Role::package:
    case Role::hotspot:
    case Role::gpu:
    case Role::memory:
    case Role::vrm:
        return true;
    default:
        return false;
    }
}

std::optional<Unit> unitFromText(std::string_view text) {
    std::string word = lower(trimmed(text));
    if (word.size() > 2
        && ((word.front() == '[' && word.back() == ']') || (word.front() == '(' && word.back() == ')')))
        word = trimmed(std::string_view(word).substr(1, word.size() - 2));
    return unitFromWord(word);
}

Header parseHeader(std::string_view column) {
    Header header;
    std::string text = trimmed(column);
    for (const auto& [open, close] : {std::pair{'[', ']'}, std::pair{'(', ')'}}) {
        const auto begin = text.rfind(open);
        if (begin == std::string::npos || text.back() != close) continue;
        const std::string word =
            lower(trimmed(std::string_view(text).substr(begin + 1, text.size() - begin - 2)));
        header.unit = unitFromWord(word).value_or(Unit::other);
        text = trimmed(std::string_view(text).substr(0, begin));
        break;
    }
    if (header.unit == Unit::none) {
        const auto comma = text.find_last_of(", _");
        if (comma != std::string::npos) {
            const std::string word = lower(trimmed(std::string_view(text).substr(comma + 1)));
            // A lone letter after a space is more often part of a name than a unit.
            if (const auto unit = unitFromWord(word);
                unit && (text[comma] == ',' || text[comma] == '_' || word.size() > 1)) {
                header.unit = *unit;
                text = trimmed(std::string_view(text).substr(0, comma));
                if (text.ends_with(',')) text = trimmed(std::string_view(text).substr(0, text.size() - 1));
            }
        }
    }
    header.words = lower(text);
    std::replace(header.words.begin(), header.words.end(), '_', ' ');
    return header;
}

RoleGuess guessRole(const Header& header) {
    const std::string& w = header.words;
    if (has(w, commentWords)) return {Role::ignore, 0.9};
    const Kind byUnit = kindOfUnit(header.unit);
    const bool measures = byUnit != Kind::unknown && byUnit != Kind::percent;
    if (has(w, limitWords) && !measures)
        return has(w, powerWords) ? RoleGuess{Role::ignore, 0.7} : RoleGuess{Role::limitFlag, 0.9};
    if (header.unit == Unit::volt) return {Role::ignore, 0.9};
    if (byUnit != Kind::unknown) {
        RoleGuess guess = roleOfKind(byUnit, w);
        guess.confidence *= 0.95;
        return guess;
    }
    const Kind byWords = kindOfWords(w);
    if (byWords != Kind::unknown) {
        RoleGuess guess = roleOfKind(byWords, w);
        guess.confidence *= 0.8;
        return guess;
    }
    if (has(w, scoreWords)) return {Role::score, 0.8};
    if (header.unit == Unit::none) {
        RoleGuess guess = temperatureRole(w);
        if (has(w, chipWords) && guess.role == Role::package && !has(w, packageWords))
            return {Role::ignore, 0.4};
        guess.confidence *= guess.role == Role::ignore ? 0.7 : 0.55;
        return guess;
    }
    return {Role::ignore, 0.5};
}

bool isSingle(Role role) {
    switch (role) {
    case Role::package:
    case Role::hotspot:
    case Role::gpu:
    case Role::coolant:
    case Role::packagePower:
    case Role::gpuPower:
    case Role::wallPower:
    case Role::gpuClock:
        return true;
    default:
        return false;
    }
}

namespace {

/// A name that could be anything counts where nothing better is there.
void dropWeakNames(std::vector<RoleGuess>& guesses) {
    constexpr double weak = 0.12;
    const auto isChip = [](const RoleGuess& guess) { return isChipTemperature(guess.role); };
    if (std::none_of(guesses.begin(), guesses.end(),
                     [&](const RoleGuess& guess) { return isChip(guess) && guess.confidence > weak; }))
        return;
    for (RoleGuess& guess : guesses)
        if (isChip(guess) && guess.confidence <= weak) guess = {Role::ignore, guess.confidence};
}

} // namespace

void settleRoles(std::vector<RoleGuess>& guesses) {
    dropWeakNames(guesses);
    std::map<Role, std::size_t> best;
    for (std::size_t i = 0; i < guesses.size(); ++i) {
        if (!isSingle(guesses[i].role)) continue;
        const auto [found, fresh] = best.try_emplace(guesses[i].role, i);
        if (!fresh && guesses[i].confidence > guesses[found->second].confidence) found->second = i;
    }
    for (std::size_t i = 0; i < guesses.size(); ++i)
        if (isSingle(guesses[i].role) && best.at(guesses[i].role) != i)
            guesses[i] = {Role::ignore, guesses[i].confidence};
}

double toCanonical(double value, Unit unit) {
    switch (unit) {
    case Unit::fahrenheit:
        return celsiusFromFahrenheit(value).value;
    case Unit::kelvin:
        return celsiusFromKelvinScale(value).value;
    case Unit::milliwatt:
    case Unit::millisecond:
        return value / 1000.0;
    case Unit::microsecond:
        return value / 1e6;
    case Unit::gigahertz:
        return value * 1000.0;
    default:
        return value;
    }
}

Unit canonicalUnit(Unit unit) {
    switch (unit) {
    case Unit::fahrenheit:
    case Unit::kelvin:
        return Unit::celsius;
    case Unit::milliwatt:
        return Unit::watt;
    case Unit::millisecond:
    case Unit::microsecond:
        return Unit::second;
    case Unit::gigahertz:
        return Unit::megahertz;
    default:
        return unit;
    }
}

} // namespace ibuki
