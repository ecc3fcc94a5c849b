// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is asked: a study with its questions, levels, loads and slots. A slot is filled by a mount; a mount
// belongs to the bench and may fill slots of several studies.

#include "core/domain/bench.h"
#include "core/domain/entities.h"
#include "core/domain/mount.h"
#include "core/trace/metric_kind.h"

#include <vector>

namespace ibuki {

enum class StudyState { draft, planned, measuring, closed };

/// What a study began as; it may grow into something else.
enum class StudyTemplate {
    own,
    rankMaterials,
    benchReference,
    beforeAndAfter,
    asGood,
    originalOrLookAlike,
    howMuch,
    whichPattern,
    whichTorque,
    breakIn,
    ageing,
    oldAgainstNew,
    underTheLid,
    stepByStep,
    materialByCooler
};

struct Study {
    Id<Study> id;
    Id<Bench> bench;
    std::string name;
    StudyState state = StudyState::draft;
    StudyTemplate began = StudyTemplate::own;
    std::string heldConstant;
    std::string note;
    bool operator==(const Study&) const = default;
};

enum class Factor { material, amount, pattern, torque, lidState, cooler, supplier, age, beforeAfter };
enum class ReferenceTemperature { room, coolant };
enum class Normalisation { raw, atNominalPower, perWatt };
/// What the mounts are to show: that levels differ, or that they are the same within the margin.
enum class Goal { difference, equivalence };
/// Whose differences are taken out of the comparison as fixed effects.
enum class BlockBy { evening, person };
/// What is taken out of the comparison as a straight line beside the groups.
enum class Covariate { room, power };
/// One spread between mounts for all levels, or each its own: known from what is mounted, never tested for.
enum class MountSpread { shared, own };

/// One comparison: factor at a site, judged by a response with a margin. Response = metric × reference
/// temperature × normalisation, frozen when the first mount is measured.
struct Question {
    Id<Question> id;
    Id<Study> study;
    Id<Site> site;
    Factor factor = Factor::material;
    std::optional<Factor> secondFactor;
    Goal goal = Goal::difference;
    std::optional<Id<Question>> levelsFrom; ///< judges the same levels as that question
    Metric metric = Metric::hottest;
    ReferenceTemperature reference = ReferenceTemperature::room;
    Normalisation normalisation = Normalisation::raw;
    std::optional<Watt> nominalPower;
    Kelvin margin{1.0};
    double confidence = 0.95;
    std::optional<Id<Level>> referenceLevel; ///< what the others are held against
    bool frozen = false;
    std::optional<Metric> fixedMetric; ///< the response as it stood when it was frozen
    std::optional<ReferenceTemperature> fixedReference;
    std::optional<Normalisation> fixedNormalisation;
    std::optional<Id<Load>> load; ///< whose runs are compared; nothing: that of the most mounts
    std::optional<BlockBy> blocks;
    bool orderTakenOut = false; ///< a drift of the bench, as a straight line over the order of mounts
    std::optional<Covariate> covariate;
    MountSpread spread = MountSpread::shared;
    std::optional<double> stepReadS; ///< when load steps are read, s after the power; nothing: not declared
    bool operator==(const Question&) const = default;
};

/// The difference of a side response that matters in a question, in place of the usual one.
struct SideMargin {
    Id<SideMargin> id;
    Id<Question> question;
    SideResponse response = SideResponse::score;
    std::string name;  ///< of another response; else empty
    double margin = 1; ///< in its unit
    bool operator==(const SideMargin&) const = default;
};

/// What somebody else found of two of a question's materials on another bench.
struct ExternalResult {
    Id<ExternalResult> id;
    Id<Question> question;
    Id<Material> first;
    Id<Material> second;
    std::string source;
    Kelvin difference{0}; ///< that the first ran hotter by
    Watt power{150};
    double chipMm2 = 200;
    LidState lid = LidState::lidded;
    std::optional<KelvinPerWatt> cooler; ///< nothing: taken to be this bench's
    int mounts = 1;                      ///< of each
    std::string note;
    bool operator==(const ExternalResult&) const = default;
};

/// Where a level may stand in the order of mounts.
enum class Placement {
    automatic, ///< chosen by the level's material
    anywhere,
    firstOfAll,  ///< before every other level: as found, it cannot be made again
    lastInBlock, ///< behind the free ones of its block
    endsEvening, ///< last of its block, so that a night's rest can follow
    lastOfAll    ///< behind every other level, so that its clean-up spoils nothing
};

/// One value of a question's factor. Which member counts is the factor's: material, lot (supplier, age),
/// amount, pattern, torque; lid state, cooler and before/after are named and may point to a configuration.
struct Level {
    Id<Level> id;
    Id<Question> question;
    int position = 0;
    std::string name;
    std::optional<Id<Material>> material;
    std::optional<Id<Lot>> lot;
    std::optional<Gram> amount;
    ApplicationPattern pattern = ApplicationPattern::notStated;
    std::optional<NewtonMetre> torque;
    std::optional<Id<Configuration>> configuration;
    bool ofSecond = false; ///< of the question's second factor
    Placement placement = Placement::automatic;
    std::optional<int> mostMounts; ///< it cannot be mounted more often; a short tube says so by itself
    bool withoutRemount = false;   ///< changed without re-mounting: stands beside the other levels so marked
    bool operator==(const Level&) const = default;
};

/// A load step that every mount of the study is put under, or one that was found in its logs.
struct Load {
    Id<Load> id;
    Id<Study> study;
    int position = 0;
    std::string name;
    std::optional<Watt> target;
    std::optional<double> durationS;
    bool planned = true; ///< false: only found in logs
    std::optional<Id<Load>>
        sameAs; ///< the load of an earlier study on the bench that this one is: runs of both
                ///< are compared together. Leads to the first of them, never further.
    std::vector<std::string> command; ///< program and arguments that make it; started only by consent
    bool operator==(const Load&) const = default;
};

enum class SlotKind { level, checkMount, baseline };

struct Slot {
    Id<Slot> id;
    Id<Study> study;
    int position = 0;
    SlotKind kind = SlotKind::level;
    std::optional<Id<Level>> level;
    std::optional<Id<Level>> second; ///< of the second factor
    int block = 0;                   ///< evening or day, from 1; 0: none planned
    std::optional<Id<Mount>> mount;  ///< empty: planned, not yet done
    std::optional<Instant> plannedFor;
    std::string skippedBecause;
    bool operator==(const Slot&) const = default;
};

/// The level that a slot has for another question of the study than the one its own level belongs to.
struct SlotLevel {
    Id<SlotLevel> id;
    Id<Slot> slot;
    Id<Question> question;
    Id<Level> level;
    bool operator==(const SlotLevel&) const = default;
};

} // namespace ibuki
