// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The kinds of value a project holds, by name only: whoever stores or passes them on needs no more.

#include <cstddef>
#include <cstdint>
#include <type_traits>

namespace ibuki {

struct Bench;
struct Configuration;
struct Site;
struct Layer;
struct Sensor;
struct BenchSource;
struct Material;
struct Package;
struct Lot;
struct Offcut;
struct LotPicture;
struct ExchangeRate;
struct Application;
struct Mount;
struct MountApplication;
struct JointInspection;
struct JointPicture;
struct MountUse;
struct MountOutcome;
struct AgeingRules;
struct Acknowledgement;
struct Recording;
struct RecordingMark;
struct Run;
struct RunReduction;
struct EnteredReading;
struct HeaderRole;
struct Study;
struct Question;
struct Level;
struct Load;
struct Slot;
struct SideMargin;
struct ExternalResult;
struct SlotLevel;
struct Plan;
struct ProtocolStep;
struct StepTime;
struct FollowUp;
struct ReductionRules;
struct InterimLook;
struct Practice;

template <class... E> struct EntityList {
    static constexpr std::size_t size = sizeof...(E);

    /// Calls visitor.operator()<E>() for every kind, in order.
    template <class Visitor> static constexpr void each(Visitor&& visitor) {
        (visitor.template operator()<E>(), ...);
    }
    template <class Wanted> static constexpr std::size_t indexOf() {
        constexpr bool is[] = {std::is_same_v<Wanted, E>...};
        for (std::size_t i = 0; i < size; ++i)
            if (is[i]) return i;
        return size;
    }
};

/// Parents before children, so that a file can be read and written in this order.
using Entities =
    EntityList<Bench, Configuration, Site, Layer, Sensor, BenchSource, Material, Package, Lot, Offcut,
               LotPicture, ExchangeRate, Application, Mount, MountApplication, JointInspection, JointPicture,
               MountUse, MountOutcome, AgeingRules, Acknowledgement, Recording, RecordingMark, Run,
               RunReduction, EnteredReading, HeaderRole, Study, Question, SideMargin, ExternalResult, Level,
               Load, Slot, SlotLevel, Plan, ProtocolStep, StepTime, FollowUp, ReductionRules, InterimLook,
               Practice>;

/// Which of them a value is.
enum class EntityKind : std::uint8_t {};

template <class E> inline constexpr EntityKind kindOf = static_cast<EntityKind>(Entities::indexOf<E>());

template <class E>
concept IsEntity = Entities::indexOf<E>()
< Entities::size;

constexpr std::size_t indexOf(EntityKind kind) { return static_cast<std::size_t>(kind); }

} // namespace ibuki
