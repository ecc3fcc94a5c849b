// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/outcomes.h"

#include "core/ageing/joint_history.h"
#include "core/clock/mount_history.h"
#include "core/comparison/few_mounts.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"

#include <algorithm>
#include <map>

namespace ibuki {
namespace {

constexpr double coldC = 5; ///< a crack counts as one of the cold in what was this cold

struct Known {
    OutcomeKind kind = OutcomeKind::pumpedOut;
    OutcomeMount mount;
};

bool saw(const JointInspection& look, OutcomeKind kind, const std::optional<double>& coldest) {
    switch (kind) {
    case OutcomeKind::pumpedOut:
        return look.pumpedOut;
    case OutcomeKind::driedOut:
        return look.dry;
    case OutcomeKind::slipped:
        return look.slipped;
    case OutcomeKind::crackedInCold:
        return look.cracked && coldest && *coldest <= coldC;
    case OutcomeKind::stuck:
        return look.cameOff == CameOff::twisted || look.cameOff == CameOff::warmedAndTwisted
               || look.cameOff == CameOff::pulledChipOut;
    case OutcomeKind::leaked:
        return false;
    }
    return false;
}

/// A look tells of a kind: of the cold only where it was cold, of sticking only where it is stated.
bool tells(const JointInspection& look, OutcomeKind kind, const std::optional<double>& coldest) {
    if (kind == OutcomeKind::leaked) return false;
    if (kind == OutcomeKind::crackedInCold) return coldest && *coldest <= coldC;
    if (kind == OutcomeKind::stuck) return look.cameOff != CameOff::notStated;
    return true;
}

void addMount(const Document& document, const Mount& mount, std::vector<Known>& known) {
    const auto stated = document.where(&MountOutcome::mount, mount.id);
    const auto looks = document.where(&JointInspection::mount, mount.id);
    if (stated.empty() && looks.empty()) return;
    const MountHistory history = jointHistory(document, mount.id);
    const auto base = [&](std::optional<Instant> at) {
        OutcomeMount made{mount.id, mount.name, false, 0, history.coldestC(), false};
        if (!at) at = history.opened() ? history.opened() : history.lastRecorded();
        if (at) made.cycles = history.at(*at).cycles;
        return made;
    };
    for (std::size_t k = 0; k < Words<OutcomeKind>::all.size(); ++k) {
        const auto kind = static_cast<OutcomeKind>(k);
        const auto own = std::find_if(stated.begin(), stated.end(),
                                      [kind](const MountOutcome* one) { return one->kind == kind; });
        if (own != stated.end()) {
            OutcomeMount made = base((*own)->at);
            made.happened = (*own)->happened;
            if ((*own)->cycles) made.cycles = *(*own)->cycles;
            if ((*own)->coldest) made.coldestC = (*own)->coldest->value;
            known.push_back({kind, made});
        } else if (!looks.empty() && tells(*looks.front(), kind, history.coldestC())) {
            OutcomeMount made = base(looks.front()->at);
            made.happened = saw(*looks.front(), kind, history.coldestC());
            made.seen = true;
            known.push_back({kind, made});
        }
    }
}

std::vector<Watched> watched(const MaterialOutcome& material) {
    std::vector<Watched> all;
    for (const OutcomeMount& one : material.mounts) all.push_back({one.cycles, one.happened});
    return all;
}

void finish(MaterialOutcome& material, OutcomeKind kind) {
    for (const OutcomeMount& one : material.mounts) {
        if (one.happened)
            ++material.happened;
        else if (one.coldestC && kind == OutcomeKind::crackedInCold)
            material.coldestSurvivedC =
                std::min(material.coldestSurvivedC.value_or(*one.coldestC), *one.coldestC);
    }
    material.share = shareInterval(material.happened, material.trials());
    material.survival = survival(watched(material));
}

/// To whom it happens after fewer cycles, where half of both have been seen.
void tellSooner(OutcomeTable& table, const OutcomeTable::Pair& pair) {
    if (!pair.survivalP || *pair.survivalP >= 0.05) return;
    const MaterialOutcome* first = &table.materials[pair.a];
    const MaterialOutcome* second = &table.materials[pair.b];
    auto sooner = medianSurvival(first->survival);
    auto later = medianSurvival(second->survival);
    if (!sooner || !later || *sooner == *later) return;
    if (*sooner > *later) {
        std::swap(first, second);
        std::swap(sooner, later);
    }
    table.reported.push_back({"outcome-pair.sooner",
                              {{"first", first->name},
                               {"second", second->name},
                               {"sooner", *sooner},
                               {"later", *later},
                               {"p", *pair.survivalP}}});
}

void tell(OutcomeTable& table) {
    for (const MaterialOutcome& one : table.materials) {
        Fields fields{{"material", one.name},  {"what", Term(word(table.kind))}, {"happened", one.happened},
                      {"count", one.trials()}, {"lo", 100 * one.share.lo},       {"hi", 100 * one.share.hi}};
        table.reported.push_back({"outcome-share", fields});
        constexpr int leastHappened = 3; ///< for half of them to mean something
        if (const auto half = medianSurvival(one.survival); half && one.happened >= leastHappened)
            table.reported.push_back({"outcome-median", {{"material", one.name}, {"cycles", *half}}});
        if (one.coldestSurvivedC)
            table.reported.push_back(
                {"outcome-coldest", {{"material", one.name}, {"coldest", *one.coldestSurvivedC}}});
    }
    bool differs = false;
    for (const auto& pair : table.pairs) {
        if (pair.sharesP >= 0.05) continue;
        differs = true;
        table.reported.push_back({"outcome-pair.differ",
                                  {{"first", table.materials[pair.a].name},
                                   {"second", table.materials[pair.b].name},
                                   {"p", pair.sharesP}}});
    }
    if (!differs && !table.pairs.empty()) table.reported.push_back({"outcome-pair.none-told", {}});
    for (const auto& pair : table.pairs) tellSooner(table, pair);
}

/// The log-rank tests of all pairs together (Holm).
void holdTogether(OutcomeTable& table) {
    std::vector<double> p;
    for (const auto& pair : table.pairs)
        if (pair.survivalP) p.push_back(*pair.survivalP);
    const auto adjusted = holm(p);
    std::size_t next = 0;
    for (auto& pair : table.pairs)
        if (pair.survivalP) pair.survivalP = adjusted[next++];
}

} // namespace

std::vector<OutcomeTable> outcomeTables(const Document& document) {
    std::vector<Known> known;
    for (const auto& [id, mount] : document.all<Mount>())
        if (document.find(mount.configuration)) addMount(document, mount, known);
    std::vector<OutcomeTable> tables;
    for (std::size_t k = 0; k < Words<OutcomeKind>::all.size(); ++k) {
        OutcomeTable table;
        table.kind = static_cast<OutcomeKind>(k);
        std::map<std::int64_t, MaterialOutcome> byMaterial;
        for (const Known& one : known) {
            if (one.kind != table.kind) continue;
            const Material* material = materialOf(document, one.mount.mount);
            if (!material) continue;
            MaterialOutcome& own = byMaterial[material->id.value];
            own.material = material->id;
            own.name = material->name;
            own.mounts.push_back(one.mount);
        }
        int happened = 0;
        for (auto& [id, one] : byMaterial) {
            finish(one, table.kind);
            happened += one.happened;
            table.materials.push_back(std::move(one));
        }
        const bool stated = std::any_of(known.begin(), known.end(), [&](const Known& one) {
            return one.kind == table.kind && !one.mount.seen;
        });
        if (table.materials.empty() || (happened == 0 && !stated)) continue;
        std::stable_sort(table.materials.begin(), table.materials.end(),
                         [](const MaterialOutcome& a, const MaterialOutcome& b) {
                             return a.happened * b.trials() > b.happened * a.trials();
                         });
        for (std::size_t a = 0; a < table.materials.size(); ++a)
            for (std::size_t b = a + 1; b < table.materials.size(); ++b)
                table.pairs.push_back(
                    {a, b,
                     sameShareP(table.materials[a].happened, table.materials[a].trials(),
                                table.materials[b].happened, table.materials[b].trials()),
                     sameSurvivalP(watched(table.materials[a]), watched(table.materials[b]))});
        std::vector<double> p;
        for (const auto& pair : table.pairs) p.push_back(pair.sharesP);
        const auto adjusted = holm(p);
        for (std::size_t i = 0; i < p.size(); ++i) table.pairs[i].sharesP = adjusted[i];
        holdTogether(table);
        tell(table);
        tables.push_back(std::move(table));
    }
    return tables;
}

} // namespace ibuki
