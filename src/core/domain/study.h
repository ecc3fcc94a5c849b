// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is asked: a study with its questions, levels, loads and slots. A slot is filled by a mount; a mount
// belongs to the bench and may fill slots of several studies.

#include "core/domain/mount.h"

namespace ibuki {

enum class StudyState { draft, planned, measuring, closed };

struct Study {
    Id<Study> id;
    Id<Bench> bench;
    std::string name;
    StudyState state = StudyState::draft;
    std::string heldConstant;
    std::string note;
    bool operator==(const Study&) const = default;
};

enum class Factor { material, amount, pattern, torque, lidState, cooler, supplier, age, beforeAfter };
enum class ReferenceTemperature { room, coolant };
enum class Normalisation { raw, atNominalPower, perWatt };

/// One comparison: factor at a site, judged by a response with a margin. Response = metric × reference
/// temperature × normalisation, frozen when the first mount is measured.
struct Question {
    Id<Question> id;
    Id<Study> study;
    Id<Site> site;
    Factor factor = Factor::material;
    std::optional<Factor> secondFactor;
    std::string metric = "hottest"; ///< an id of core/reduce/metric.h
    ReferenceTemperature reference = ReferenceTemperature::room;
    Normalisation normalisation = Normalisation::raw;
    std::optional<Watt> nominalPower;
    Kelvin margin{1.0};
    double confidence = 0.95;
    std::optional<std::int64_t> referenceLevel; ///< id of the Level others are held against
    bool frozen = false;
    bool operator==(const Question&) const = default;
};

/// One value of a question's factor.
struct Level {
    Id<Level> id;
    Id<Question> question;
    int position = 0;
    std::string name;
    std::optional<Id<Material>> material;
    bool operator==(const Level&) const = default;
};

/// A load step that every mount of the study is put under.
struct Load {
    Id<Load> id;
    Id<Study> study;
    int position = 0;
    std::string name;
    std::optional<Watt> target;
    std::optional<double> durationS;
    bool operator==(const Load&) const = default;
};

enum class SlotKind { level, checkMount, baseline };

struct Slot {
    Id<Slot> id;
    Id<Study> study;
    int position = 0;
    SlotKind kind = SlotKind::level;
    std::optional<Id<Level>> level;
    std::optional<Id<Mount>> mount; ///< empty: planned, not yet done
    std::optional<Instant> plannedFor;
    std::string skippedBecause;
    bool operator==(const Slot&) const = default;
};

} // namespace ibuki
