// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Does a tube get worse on the shelf? The unit is the lot: mounts of one tube are no repeats for its age
// (docs/methods.md, "Drift", G.8).

#include "core/distributions/interval.h"
#include "core/domain/document.h"
#include "core/domain/material.h"
#include "core/domain/study.h"

#include <optional>
#include <vector>

namespace ibuki {

/// A lot with the fresh figures of its mounts.
struct LotFigures {
    Id<Lot> lot;
    std::string name;
    std::string material;
    LotCondition condition = LotCondition::notStated;
    std::optional<double> madeYears; ///< when it was mounted first: since made, else since bought
    std::optional<double> openYears; ///< since opened
    std::vector<double> mountsK;     ///< a mean a mount that was not at its limit
    std::vector<double> clocks;      ///< MHz, a mean a mount
    std::vector<double> powers;      ///< W
    int boundMounts = 0;             ///< at the temperature limit: they tell by power and clock
    std::optional<double> meanK() const;
};

/// An old lot against a new one of its material.
struct OldAgainstNew {
    std::size_t old = 0; ///< index into lots
    std::size_t fresh = 0;
    std::optional<double> differenceK; ///< old − new
    std::optional<Interval> intervalK; ///< 95 %, pooled; two mounts of each
    std::optional<double> clockShare;  ///< old ÷ new − 1, where the limit was reached
    std::optional<Interval> clockInterval;
    std::optional<double> powerShare;
};

struct ShelfAge {
    std::vector<LotFigures> lots;        ///< by material, the newest first
    std::optional<double> kelvinPerYear; ///< within materials
    std::optional<Interval> interval;    ///< 95 %, over lots; nothing below 3 lots
    bool few = false;                    ///< fewer than 3 lots a slope can be told from
    std::vector<OldAgainstNew> pairs;    ///< one a material with two lots
    std::vector<Message> reported;
};

ShelfAge shelfAge(const Document& document, const Question& question);

} // namespace ibuki
