// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// When each machine's joint is to be made anew, and what ten years of that cost (docs/methods.md, "Drift",
// G.9).

#include "core/ageing/ageing_judgement.h"
#include "core/shelf/shelf.h"

namespace ibuki {

/// Where the date comes from.
enum class DueFrom {
    course, ///< from what was measured of the material
    stated, ///< what the material is said to last
    bench,  ///< the bench's own usual interval
    typical ///< usual of the material's class
};

struct MachineDue {
    Id<Bench> bench;
    std::string machine;
    Id<Mount> mount; ///< that stands there now
    std::string mountName;
    std::optional<Id<Material>> material;
    std::string materialName;
    std::optional<Instant> applied;
    std::optional<Instant> due; ///< nothing: not to be told
    std::optional<Instant> dueFrom;
    std::optional<Instant> dueTo;
    DueFrom source = DueFrom::typical;
    std::optional<AgeingClock> by; ///< of a course: the clock that was used
    std::optional<Message> reason; ///< when there is no date
};

/// What a material costs over ten years on one site.
struct TenYears {
    Id<Material> material;
    std::string name;
    MaterialClass kind = MaterialClass::unknown;
    double years = 0; ///< between applications
    DueFrom source = DueFrom::typical;
    int applications = 1;
    std::optional<Money> materialCost; ///< of all of them
    std::optional<Money> manualWorkCost;
    std::optional<Money> total;
};

struct Reapplication {
    std::vector<MachineDue> machines;    ///< the earliest first, those without a date last
    std::vector<Message> reported;       ///< "4 machines in spring 2033"
    std::optional<Message> sheetOrPaste; ///< the cheapest film or sheet against the cheapest paste
    std::vector<TenYears> costs;         ///< the cheapest first; of materials with a price at some site
};

/// fleet: of all benches (judgeFleet).
Reapplication reapplication(const Document& document, const AgeingJudgement& fleet, Instant now);

} // namespace ibuki
