// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"

#include "cli/verb.h"
#include "core/base/input_error.h"
#include "words/words.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <array>
#include <new>
#include <ostream>

namespace ibuki {
namespace {

struct Verb {
    const char* name;
    const char* help;
    VerbBody (*add)(Options);
};

constexpr std::array verbs{
    Verb{"reduce", words::mark("Reduce one sensor log to steady figures"), addReduce},
    Verb{"compare", words::mark("Compare groups of mounts from a tidy table"), addCompare},
    Verb{"sweep", words::mark("Compare groups over power, torque or amount"), addSweep},
    Verb{"ageing", words::mark("How groups of mounts change with time, and when they reach a threshold"),
         addAgeing},
    Verb{"health", words::mark("Whether check mounts show that the bench moved"), addHealth},
    Verb{"value", words::mark("Temperature against price, and what stands first under which weights"),
         addValue},
    Verb{"heatpath", words::mark("Resistances and temperatures from chip to room"), addHeatpath},
    Verb{"coverage", words::mark("How much of a face was covered, from a photograph"), addCoverage},
    Verb{"rehearse", words::mark("Repeat a study on paper and count what its verdicts are worth"),
         addRehearse},
    Verb{"simulate", words::mark("Run the simulated bench and write its log"), addSimulate},
    Verb{"dose", words::mark("How much paste, and where it goes under the plate"), addDose},
    Verb{"cut", words::mark("Cut pieces from sheets with edge-to-edge cuts"), addCut},
    Verb{"plan", words::mark("How many mounts a comparison needs"), addPlan},
    Verb{"new", words::mark("Make a project with one bench"), addNew},
    Verb{"sensors", words::mark("What can be read here, and what it reads now"), addSensors},
    Verb{"record", words::mark("Record the readings of sources into a project"), addRecord},
    Verb{"recordings", words::mark("List the recordings of a project"), addRecordings},
    Verb{"trace", words::mark("Write a recording as a log"), addTrace},
    Verb{"import", words::mark("Bring logs, or a table of logs and figures, into a project"), addImport},
    Verb{"report", words::mark("Write a study of a project as a document or as data"), addReport},
};

} // namespace

int runCli(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err) {
    CLI::App app("Ibuki's computations without a window", "ibuki-cli");
    app.require_subcommand(1);
    std::vector<std::pair<CLI::App*, VerbBody>> bodies;
    for (const Verb& verb : verbs) {
        CLI::App* sub = app.add_subcommand(verb.name, words::say(verb.help));
        bodies.emplace_back(sub, verb.add(Options(*sub)));
    }
    try {
        auto reversed = arguments;
        std::reverse(reversed.begin(), reversed.end());
        app.parse(reversed);
        for (const auto& [sub, body] : bodies)
            if (sub->parsed()) body(out);
        return 0;
    } catch (const CLI::Success&) { // help was asked for
        const auto used = app.get_subcommands();
        out << (used.empty() ? app.help() : used.front()->help());
        return 0;
    } catch (const CLI::ParseError& error) {
        err << "ibuki-cli: " << error.what() << "\n";
        return 2;
    } catch (const UsageError& error) {
        err << "ibuki-cli: " << error.what() << "\n";
        return 2;
    } catch (const InputError& error) {
        err << words::sentence(error) << "\n";
        return 1;
    } catch (const std::bad_alloc&) {
        err << "ibuki-cli: " << words::say("There is not enough memory for that.") << "\n";
        return 1;
    } catch (const std::exception& error) { // of a library: what it says is all that is known
        err << "ibuki-cli: " << error.what() << "\n";
        return 1;
    }
}

} // namespace ibuki
