// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"
#include "words/words.h"

#include <cstdio>
#include <iostream>

int main(int argc, char** argv) {
    ibuki::words::useLanguage();
    const int status = ibuki::runCli(std::vector<std::string>(argv + 1, argv + argc), std::cout, std::cerr);
    if (status != 0 || (std::cout.flush() && std::fflush(stdout) == 0)) return status;
    std::cerr << "ibuki-cli: " << ibuki::words::say("The output could not be written to its end.") << "\n";
    return 1;
}
