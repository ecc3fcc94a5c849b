// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/report.h"
#include "store/paper/ageing_section.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "store/json/comparison_json.h"
#include "store/json/json_text.h"
#include "store/json/reduction_json.h"
#include "store/paper/joint_sentences.h"
#include "store/paper/ladder_svg.h"
#include "store/table/table.h"
#include "store/table/tidy_row.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <fmt/ranges.h>
#include <iterator>

namespace ibuki {
namespace {

constexpr const char* style =
    "body{font:14px/1.5 Inter,'Liberation Sans',sans-serif;color:#1f1b16;background:#fffefa;max-width:820px;"
    "margin:32px auto;padding:0 24px}h1{font-size:24px}h2{font-size:16px;margin-top:28px}"
    "table{border-collapse:collapse;font-variant-numeric:tabular-nums;width:100%}"
    "th,td{padding:4px 8px;border-bottom:1px solid #ddd5c6;text-align:left}td.n,th.n{text-align:right}"
    ".q{color:#6d655a}tr.x td{color:#6d655a;text-decoration:line-through}svg{max-width:100%;height:auto}";

class Html {
public:
    template <class... Args> void put(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(text), format, std::forward<Args>(args)...);
    }
    std::string text;
};

std::string shown(const std::optional<double>& value, int decimals) {
    return value ? fmt::format("{:.{}f}", *value, decimals) : std::string("–");
}

std::string shownP(const std::optional<double>& p) {
    if (!p) return "–";
    return *p < 0.0001 ? std::string("&lt; 0.0001") : fmt::format("{:.4f}", *p);
}

std::string range(const std::optional<Interval>& ci, int decimals) {
    return ci ? words::say("{low} to {high}",
                           {{"low", shown(ci->lo, decimals)}, {"high", shown(ci->hi, decimals)}})
              : "–";
}

struct Head {
    std::string text;
    bool number = false;
};

void putTitle(Html& html, const std::string& title) { html.put("<h2>{}</h2>\n", xmlText(title)); }

/// The title of a table and its first row.
void putHead(Html& html, const std::string& title, const std::vector<Head>& heads) {
    putTitle(html, title);
    html.put("<table><tr>");
    for (const Head& head : heads)
        html.put("<th{}>{}</th>", head.number ? " class=\"n\"" : "", xmlText(head.text));
    html.put("</tr>\n");
}

int decimalsFor(const Question& question) { return responseDigits(responseUnit(question)).scatter; }

void putSentences(Html& html, const Document& document, const Evidence& evidence, const Question& question) {
    putTitle(html, words::say("What these mounts can bear"));
    for (const VerdictSentence& sentence :
         allSentences(evidence, sideComparisons(document, question, evidence), question))
        html.put("<p{}>{}</p>\n", sentence.kind == SentenceKind::caveat ? " class=\"q\"" : "",
                 xmlText(sentence.text));
}

void putGroups(Html& html, const Comparison& comparison, const Question& question) {
    const int decimals = decimalsFor(question);
    using words::say;
    putHead(
        html, say("Materials"),
        {{say("Level")},
         {say("Mounts"), true},
         {say("Mean {unit}", {{"unit", responseUnit(question)}}), true},
         {say("{confidence:.0f} % interval", {{"confidence", 100 * comparison.options.confidence}}), true},
         {say("Scatter"), true},
         {say("Median"), true},
         {say("Best"), true},
         {say("Tier")}});
    for (const GroupSummary& group : comparison.groups)
        html.put("<tr><td>{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td>"
                 "<td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td>{}</td></tr>\n",
                 xmlText(group.name), group.mounts,
                 group.mean ? shown(group.mean, decimals) : "≥ " + shown(group.bound, decimals),
                 range(group.ci, decimals), shown(group.sd, decimals), shown(group.median, decimals),
                 shown(group.best, decimals), group.tier.value_or("–"));
    html.put("</table>\n<p class=\"q\">{}</p>\n",
             xmlText(say(
                 "Sharing a letter means: not shown to differ with these data. The mean is what to expect; "
                 "the best of several mounts is biased by their number.")));
}

/// By which distribution and on how many degrees of freedom each pair was judged, each way once.
std::string wayOf(Adjustment adjustment, double df) {
    const Fields fields{{"df", df}};
    if (!std::isfinite(df)) // an assumed scatter that is taken as known
        return adjustment == Adjustment::none
                   ? words::say("normal, the scatter taken as known")
                   : words::say("simultaneous, normal, the scatter taken as known");
    switch (adjustment) {
    case Adjustment::tukey:
        return words::say("simultaneous by Tukey–Kramer, {df:.4g} degrees of freedom", fields);
    case Adjustment::gamesHowell:
        return words::say("simultaneous by Games–Howell, each group with its own scatter");
    case Adjustment::dunnett:
        return words::say("simultaneous by Dunnett, {df:.4g} degrees of freedom", fields);
    case Adjustment::none:
        break;
    }
    return words::say("Student's t, {df:.4g} degrees of freedom", fields);
}

std::string methodsOf(const Comparison& comparison) {
    std::vector<std::string> ways;
    for (const PairComparison& pair : comparison.pairs) {
        if (!pair.df) continue;
        const std::string way = wayOf(pair.adjustment, *pair.df);
        if (std::find(ways.begin(), ways.end(), way) == ways.end()) ways.push_back(way);
    }
    return ways.empty() ? words::say("none could be judged") : fmt::format("{}", fmt::join(ways, "; "));
}

void putPairs(Html& html, const Comparison& comparison, const Question& question) {
    const int decimals = decimalsFor(question);
    using words::say;
    putHead(html, say("Pairs"),
            {{say("Pair")},
             {say("Difference {unit}", {{"unit", responseUnit(question)}}), true},
             {say("Interval"), true},
             {"p", true},
             {say("Verdict")}});
    for (const PairComparison& pair : comparison.pairs)
        html.put("<tr><td>{} − {}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td "
                 "class=\"n\">{}</td><td>{}</td></tr>\n",
                 xmlText(comparison.groups[pair.a].name), xmlText(comparison.groups[pair.b].name),
                 shown(pair.difference, decimals), range(pair.ci, decimals), shownP(pair.pAdjusted),
                 xmlText(words::term(verdictName(pair.verdict))));
    html.put("</table>\n<p class=\"q\">{}</p>\n", xmlText(say("Intervals and p, on mount means: {methods}.",
                                                              {{"methods", methodsOf(comparison)}})));
}

std::string remarkOf(const RunRow& row, const TidyRow& tidy) {
    if (row.excluded) return words::say("rejected: {reason}", {{"reason", tidy.reason}});
    if (exportedPurpose(row) != Purpose::fresh) return words::term(tidy.purpose);
    return row.censored ? words::say("at the temperature limit") : std::string();
}

void putRuns(Html& html, const Document& document, const Evidence& evidence, const Question& question) {
    using words::say;
    putHead(html, say("Runs"),
            {{say("Mount")},
             {say("Day")},
             {say("Lot")},
             {std::string(responseUnit(question)), true},
             {say("Power W"), true},
             {"K/W", true},
             {say("Remark")}});
    for (const RunRow& row : evidence.rows) {
        const TidyRow tidy = tidyRow(document, question, row);
        html.put("<tr{}><td>{}</td><td>{}</td><td>{}</td><td class=\"n\">{}{}</td><td class=\"n\">{}</td>"
                 "<td class=\"n\">{}</td><td>{}</td></tr>\n",
                 row.excluded ? " class=\"x\"" : "", xmlText(row.mount), xmlText(row.block),
                 xmlText(tidy.lot), row.censored ? "≥ " : "", shown(row.response, decimalsFor(question)),
                 shown(row.powerW, 1), shown(row.rthKPerW, 4), xmlText(remarkOf(row, tidy)));
    }
    html.put("</table>\n");
}

void putConditions(Html& html, const Document& document, const Question& question) {
    const Study* study = document.find(question.study);
    const Configuration* configuration = study ? currentConfiguration(document, study->bench) : nullptr;
    using words::say;
    putTitle(html, say("Conditions"));
    html.put("<table>\n");
    const auto row = [&](const std::string& name, const std::string& value) {
        if (!value.empty()) html.put("<tr><td>{}</td><td>{}</td></tr>\n", xmlText(name), xmlText(value));
    };
    if (const Bench* bench = study ? document.find(study->bench) : nullptr) row(say("Bench"), bench->name);
    if (configuration) {
        row(say("Cooler"), configuration->cooler);
        row(say("Fan"), words::term(word(configuration->fan))
                            + (configuration->fanNote.empty() ? "" : ", " + configuration->fanNote));
        row(say("Lid"), words::term(word(configuration->lid)));
        if (configuration->temperatureLimit)
            row(say("Temperature limit"), fmt::format("{:.0f} °C", configuration->temperatureLimit->value));
    }
    for (const Load* load : document.where(&Load::study, question.study))
        row(say("Load"), load->name + (load->target ? fmt::format(", {:.0f} W", load->target->value) : ""));
    row(say("Response"), words::text(responseTitle(question)));
    if (study) row(say("Held constant"), study->heldConstant);
    html.put("</table>\n");
}

void putCautions(Html& html, const Document& document, const Question& question) {
    // As of the newest mount: a report is the same whenever it is printed.
    Instant newest;
    for (const auto& [id, mount] : document.all<Mount>())
        if (mount.at) newest = std::max(newest, *mount.at);
    putTitle(html, words::say("Cautions"));
    html.put("<ul>\n");
    for (const std::string& caution : cautionSentences(document, question, newest))
        html.put("<li>{}</li>\n", xmlText(caution));
    html.put("</ul>\n");
}

std::string csvNumber(const std::optional<double>& value) {
    return value ? fmt::format("{}", *value) : std::string();
}

} // namespace

const Question* findStudyQuestion(const Document& document, const std::string& studyName) {
    const Question* newest = nullptr;
    for (const auto& [id, study] : document.all<Study>()) {
        if (study.name == studyName) return firstQuestion(document, id);
        if (studyName.empty()) newest = firstQuestion(document, id);
    }
    return newest;
}

GroupClasses groupClasses(const Document& document, const Evidence& evidence) {
    GroupClasses classes;
    const Comparison* shown = evidence.shown();
    if (!shown) return classes;
    for (const GroupSummary& group : shown->groups) {
        const Level* level = document.find(levelOfGroup(evidence, group));
        if (const Material* material = level ? document.find(level->material) : nullptr)
            classes[group.id] = material->kind;
    }
    return classes;
}

std::string htmlReport(const Document& document, const Question& question, const ReportParts& parts,
                       const LookThumbnails& thumbnails) {
    const Evidence evidence = gatherEvidence(document, question);
    const Study* study = document.find(question.study);
    const std::string title = study ? study->name : words::say("Study");
    Html html;
    html.put("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>{}</title>"
             "<style>{}</style></head><body>\n<h1>{}</h1>\n<p>{}</p>\n",
             xmlText(title), style, xmlText(title), xmlText(studySentence(document, question)));
    const Comparison* shown = evidence.shown();
    if (parts.ladder && shown) {
        LadderSize size;
        size.height = 80 + 62 * static_cast<double>(shown->groups.size());
        putTitle(html, words::say("Each mark one mount: {response}, {unit}",
                                  {{"response", responseTitle(question)}, {"unit", responseUnit(question)}}));
        html.put("{}", ladderSvg(*shown, groupClasses(document, evidence),
                                 std::string(responseUnit(question)), size));
        if (const auto spread = spreadSentence(*shown, responseUnit(question)); !spread.empty())
            html.put("<p class=\"q\">{}</p>\n", xmlText(spread));
    }
    if (parts.sentences) putSentences(html, document, evidence, question);
    if (evidence.comparison) putGroups(html, *evidence.comparison, question);
    if (parts.pairs && evidence.comparison) putPairs(html, *evidence.comparison, question);
    if (parts.runs) putRuns(html, document, evidence, question);
    if (parts.looks)
        html.put("{}", looksHtml(
                           document, question,
                           thumbnails ? thumbnails : [](const JointPicture&) { return std::string(); }));
    if (parts.ageing) html.put("{}", ageingHtml(document, question));
    if (parts.conditions) putConditions(html, document, question);
    if (parts.cautions) putCautions(html, document, question);
    html.put("</body></html>\n");
    return std::move(html.text);
}

std::string tidyCsv(const Document& document, const Question& question) {
    std::string csv = "study,bench,site,material,lot,level,mount,block,order,run,load,purpose,age_h,cycles";
    for (Metric metric : allMetrics) csv += fmt::format(",{}_C", metricName(metric));
    csv += ",delta_K,rth_K_per_W,power_W,limit_bound,excluded,reason\n";
    for (const RunRow& row : runRows(document, question)) {
        const TidyRow tidy = tidyRow(document, question, row);
        for (const std::string* text : {&tidy.study, &tidy.bench, &tidy.site, &tidy.material, &tidy.lot,
                                        &tidy.level, &tidy.mount, &tidy.block})
            csv += csvField(*text) + ',';
        csv += fmt::format("{},{},{},{},{},{}", row.order, csvField(tidy.run), csvField(tidy.load),
                           tidy.purpose, csvNumber(tidy.ageH), csvNumber(tidy.cycles));
        for (Metric metric : allMetrics) {
            const auto value = row.metricsC.find(metric);
            csv += ',' + (value == row.metricsC.end() ? std::string() : fmt::format("{}", value->second));
        }
        csv += fmt::format(",{},{},{},{},{},{}\n", csvNumber(row.deltaK), csvNumber(row.rthKPerW),
                           csvNumber(row.powerW), row.censored, row.excluded, csvField(tidy.reason));
    }
    return csv;
}

std::string jsonReport(const Document& document, const Question& question) {
    const Evidence evidence = gatherEvidence(document, question);
    nlohmann::ordered_json json;
    const Study* study = document.find(question.study);
    json["study"] = study ? study->name : "";
    json["question"] = studySentence(document, question);
    json["comparison"] = evidence.comparison
                             ? toJson(*evidence.comparison, std::string(responseUnit(question)))
                             : nlohmann::ordered_json(nullptr);
    json["sentences"] = nlohmann::ordered_json::array();
    for (const VerdictSentence& sentence :
         allSentences(evidence, sideComparisons(document, question, evidence), question))
        json["sentences"].push_back(sentence.text);
    json["runs"] = nlohmann::ordered_json::array();
    for (const RunRow& row : evidence.rows) {
        const Reduction* reduction = reductionOf(document, row.runId);
        const TidyRow tidy = tidyRow(document, question, row);
        json["runs"].push_back(
            {{"mount", tidy.mount},
             {"level", tidy.level},
             {"run", tidy.run},
             {"purpose", tidy.purpose},
             {"excluded", row.excluded},
             {"reason", tidy.reason},
             {"response", row.response ? nlohmann::ordered_json(*row.response) : nullptr},
             {"reduction", reduction ? toJson(onlyBy(*reduction, question.metric)) : nullptr}});
    }
    return jsonText(json);
}

} // namespace ibuki
