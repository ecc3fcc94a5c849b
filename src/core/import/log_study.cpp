// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_study.h"

#include "core/domain/lookup.h"
#include "core/setup/bench_template.h"
#include "core/setup/question_setup.h"
#include "core/setup/study_setup.h"

#include <algorithm>
#include <cctype>

namespace ibuki {
namespace {

BenchTemplate templateFor(const std::vector<ImportedLog>& logs) {
    const bool isGraphics = std::all_of(logs.begin(), logs.end(), [](const ImportedLog& log) {
        return channelsOf(log.trace, Role::core).empty() && channelsOf(log.trace, Role::package).empty();
    });
    const bool readsGraphics = std::any_of(logs.begin(), logs.end(), [](const ImportedLog& log) {
        return firstChannel(log.trace, Role::gpu) != nullptr;
    });
    return isGraphics && readsGraphics ? BenchTemplate::graphicsCard : BenchTemplate::liddedChip;
}

bool isDigit(char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; }
bool isBetween(char c) { return c == '_' || c == '-' || c == ' '; }

} // namespace

std::string levelNameOf(const std::string& fileName) {
    const std::string stem = fileName.substr(0, fileName.rfind('.'));
    std::size_t end = stem.size();
    while (end > 0 && isDigit(stem[end - 1])) --end;
    const bool isNumbered = end < stem.size() && end > 1 && isBetween(stem[end - 1]);
    const std::string name = isNumbered ? stem.substr(0, end - 1) : stem;
    return name.empty() ? fileName : name;
}

LogStudy addStudyOfLogs(Edit& edit, std::optional<Id<Bench>> bench, const std::vector<ImportedLog>& logs,
                        const std::string& benchName, const std::string& studyName, const Wording& wording,
                        Instant now) {
    std::vector<std::string> names;
    const auto probes = probesAmong(logs);
    for (std::size_t i = 0; i < logs.size(); ++i) {
        const std::string name = levelNameOf(logs[i].fileName);
        if (!probes[i] && std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
    }
    if (!bench) bench = addBench(edit, templateFor(logs), benchName, wording);
    const Id<Study> study = addStudy(edit, {StudyTemplate::own, *bench, studyName, {}, wording}, now);
    Question question = *firstQuestion(edit.document(), study);
    question.factor = Factor::beforeAfter; // its levels are names
    edit.put(question);
    for (const std::string& name : names) {
        Level level;
        level.question = question.id;
        level.name = name;
        addLevel(edit, level);
    }
    return {*bench, study};
}

} // namespace ibuki
