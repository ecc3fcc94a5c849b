// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The stable word of every enumerated domain value: what the project file stores, what a table exports and
// what a choice in the window starts from. Order follows the enumeration.

#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/plan.h"

#include <array>
#include <optional>
#include <span>
#include <string_view>

namespace ibuki {

template <class Enum> struct Words;

template <> struct Words<LidState> {
    static constexpr std::array<std::string_view, 3> all{"lidded", "bare die", "no chip"};
};
template <> struct Words<FanSetting> {
    static constexpr std::array<std::string_view, 3> all{"fixed", "automatic", "none"};
};
template <> struct Words<SiteKind> {
    static constexpr std::array<std::string_view, 6> all{"die–lid", "lid–plate",   "die–plate",
                                                         "memory",  "power stage", "backplate"};
};
template <> struct Words<Metal> {
    static constexpr std::array<std::string_view, 7> all{
        "not stated", "copper", "nickel on copper", "aluminium", "silicon", "steel", "other"};
};
template <> struct Words<LayerKind> {
    static constexpr std::array<std::string_view, 6> all{"chip",  "interface", "lid",
                                                         "plate", "cooler",    "room"};
};
template <> struct Words<MaterialClass> {
    static constexpr std::array<std::string_view, 8> all{
        "paste", "putty", "gap pad", "sheet", "phase change", "liquid metal", "solder", "unknown"};
};
template <> struct Words<YesNo> {
    static constexpr std::array<std::string_view, 3> all{"not stated", "no", "yes"};
};
template <> struct Words<ContentUnit> {
    static constexpr std::array<std::string_view, 4> all{"g", "mL", "mm²", "sheets"};
};
template <> struct Words<LotCondition> {
    static constexpr std::array<std::string_view, 5> all{"not stated", "even", "oily", "dry", "cracked"};
};
template <> struct Words<ApplicationPattern> {
    static constexpr std::array<std::string_view, 8> all{"not stated", "dot",  "line",  "cross",
                                                         "five dots",  "film", "sheet", "other"};
};
template <> struct Words<ApplicationUse> {
    static constexpr std::array<std::string_view, 3> all{"new", "not opened", "laid again"};
};
template <> struct Words<LookSide> {
    static constexpr std::array<std::string_view, 3> all{"chip side", "plate side", "detail"};
};
template <> struct Words<CameOff> {
    static constexpr std::array<std::string_view, 6> all{
        "not stated", "fell", "lifted", "twisted", "warmed and twisted", "pulled the chip out"};
};
template <> struct Words<OutcomeKind> {
    static constexpr std::array<std::string_view, 6> all{
        "cracked in the cold", "pumped out", "dried out", "slipped", "leaked", "stuck"};
};
template <> struct Words<LookJoin> {
    static constexpr std::array<std::string_view, 2> all{"either side", "both sides"};
};
template <> struct Words<Purpose> {
    static constexpr std::array<std::string_view, 4> all{"baseline", "fresh", "conditioning", "check"};
};
template <> struct Words<RecordingState> {
    static constexpr std::array<std::string_view, 4> all{"closed", "open", "interrupted", "figures"};
};
template <> struct Words<MarkKind> {
    static constexpr std::array<std::string_view, 5> all{"remark", "step", "info", "warning", "stop"};
};
template <> struct Words<Better> {
    static constexpr std::array<std::string_view, 3> all{"neither", "higher", "lower"};
};
template <> struct Words<Scenario> {
    static constexpr std::array<std::string_view, 3> all{"three pastes", "a loop that hides it",
                                                         "film, sheet and paste"};
};
template <> struct Words<StudyState> {
    static constexpr std::array<std::string_view, 4> all{"draft", "planned", "measuring", "closed"};
};
template <> struct Words<Factor> {
    static constexpr std::array<std::string_view, 9> all{
        "material", "amount", "pattern", "torque", "lid state", "cooler", "supplier", "age", "before/after"};
};
template <> struct Words<StudyTemplate> {
    static constexpr std::array<std::string_view, 15> all{"own",
                                                          "rank materials",
                                                          "choose a bench reference",
                                                          "before and after",
                                                          "is the cheaper one as good",
                                                          "original or look-alike",
                                                          "how much is enough",
                                                          "which pattern",
                                                          "which torque",
                                                          "does it break in",
                                                          "does it age",
                                                          "old tube against new",
                                                          "change one layer under the lid",
                                                          "step by step",
                                                          "material by cooler"};
};
template <> struct Words<Goal> {
    static constexpr std::array<std::string_view, 2> all{"difference", "equivalence"};
};
template <> struct Words<BlockBy> {
    static constexpr std::array<std::string_view, 2> all{"evening", "person"};
};
template <> struct Words<Covariate> {
    static constexpr std::array<std::string_view, 2> all{"room", "power"};
};
template <> struct Words<MountSpread> {
    static constexpr std::array<std::string_view, 2> all{"shared", "own"};
};
template <> struct Words<SideResponse> {
    static constexpr std::array<std::string_view, 12> all{"power",
                                                          "thermal resistance",
                                                          "clock",
                                                          "fan speed",
                                                          "score",
                                                          "frame rate",
                                                          "1 % low frame rate",
                                                          "render time",
                                                          "noise",
                                                          "fan share",
                                                          "wall power",
                                                          "other"};
    /// Of what is read beside the window.
    static constexpr std::span<const std::string_view> read =
        std::span(all).subspan(static_cast<std::size_t>(firstRead));
};
template <> struct Words<Placement> {
    static constexpr std::array<std::string_view, 6> all{"automatic",     "anywhere",     "first of all",
                                                         "last in block", "ends evening", "last of all"};
};
template <> struct Words<StepKind> {
    static constexpr std::array<std::string_view, 10> all{"remove", "clean", "apply", "condition", "rest",
                                                          "settle", "idle",  "soak",  "measure",   "cool"};
};
template <> struct Words<GateKind> {
    static constexpr std::array<std::string_view, 7> all{
        "none",       "chip slope below", "room slope below", "remaining below", "above idle below",
        "chip above", "chip below"};
};
template <> struct Words<ReferenceTemperature> {
    static constexpr std::array<std::string_view, 2> all{"room", "coolant"};
};
template <> struct Words<Normalisation> {
    static constexpr std::array<std::string_view, 3> all{"raw", "at nominal power", "per watt"};
};
template <> struct Words<SlotKind> {
    static constexpr std::array<std::string_view, 3> all{"level", "check mount", "baseline"};
};
template <> struct Words<Metric> { static constexpr auto& all = metricWordList; };
template <> struct Words<Role> { static constexpr auto& all = roleWordList; };

template <class Enum> std::string_view word(Enum value) {
    return Words<Enum>::all.at(static_cast<std::size_t>(value));
}

template <class Enum> std::optional<Enum> fromWord(std::string_view text) {
    for (std::size_t i = 0; i < Words<Enum>::all.size(); ++i)
        if (Words<Enum>::all[i] == text) return static_cast<Enum>(i);
    return std::nullopt;
}

} // namespace ibuki
