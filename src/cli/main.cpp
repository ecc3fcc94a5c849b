// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"
#include "words/words.h"

#include <iostream>

int main(int argc, char** argv) {
    ibuki::words::useLanguage();
    return ibuki::runCli(std::vector<std::string>(argv + 1, argv + argc), std::cout, std::cerr);
}
