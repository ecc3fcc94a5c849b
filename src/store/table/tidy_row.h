// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A run as tables export it: what is told apart by ids inside is told by names here.

#include "core/evidence/run_rows.h"

namespace ibuki {

/// docs/file-format.md lists the columns.
struct TidyRow {
    std::string study;
    std::string bench;
    std::string site;
    std::string material;
    std::string lot;
    std::string level;
    std::string mount;
    std::string block;
    std::string run;
    std::string load;
    std::string_view purpose;     ///< its word
    std::string reason;           ///< why the mount, else the run, was rejected
    std::optional<double> ageH;   ///< since its mount was made, when the load began (core/clock)
    std::optional<double> cycles; ///< of 10 K and more until then
};

TidyRow tidyRow(const Document& document, const Question& question, const RunRow& row);

} // namespace ibuki
