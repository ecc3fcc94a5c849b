// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/report.h"
#include "cli/verb.h"
#include "core/base/input_error.h"
#include "core/domain/study.h"
#include "store/atomic_file.h"
#include "store/project/project.h"
#include "words/words.h"

#include <filesystem>
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <memory>

namespace ibuki {
namespace {

struct ReportArguments {
    std::string project;
    std::string study;
    std::string output;
};

std::string reportText(const Project& project, const Question& question, const std::string& ending) {
    const Document& document = project.document();
    const auto thumbnail = [&](const JointPicture& picture) {
        return lookThumbnail(picture, [&](const std::string& sha256) { return project.loadFile(sha256); });
    };
    if (ending == ".html") return htmlReport(document, question, {}, thumbnail);
    if (ending == ".csv") return tidyCsv(document, question);
    if (ending == ".json") return jsonReport(document, question);
    throw UsageError(words::say("-o: the name must end in .html, .csv or .json"));
}

} // namespace

VerbBody addReport(Options options) {
    auto arguments = std::make_shared<ReportArguments>();
    options.add("PROJECT", arguments->project, words::say("Project file")).required();
    options.add("--study", arguments->study,
                words::say("Name of the study (default: the only or first one)"));
    options.add("-o,--output", arguments->output, words::say("File to write: .html, .csv or .json"))
        .required();
    options.example("ibuki-cli report kittiwake.ibuki -o study.html");
    return [arguments](std::ostream& out) {
        const std::string ending = std::filesystem::path(arguments->output).extension().string();
        if (ending != ".html" && ending != ".csv" && ending != ".json")
            throw UsageError(words::say("-o: the name must end in .html, .csv or .json"));
        refuseInputAsTarget(arguments->output, {arguments->project});
        const Project project = Project::open(arguments->project, Access::readOnly);
        const Question* question = findStudyQuestion(project.document(), arguments->study);
        if (!question && !arguments->study.empty())
            throw UsageError(
                words::say("--study: the project has no study \"{study}\"", {{"study", arguments->study}}));
        if (!question) throw InputError("report-no-study", {arguments->project, {}, {}});
        writeFileAtomically(arguments->output, reportText(project, *question, ending));
        fmt::print(out, "{}\n", arguments->output);
    };
}

} // namespace ibuki
