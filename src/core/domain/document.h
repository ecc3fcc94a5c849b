// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Everything a project knows, as plain values by id. Traces stay in the project file and are read on demand.

#include "core/domain/plan.h"
#include "core/reduce/reduction.h"

#include <map>
#include <tuple>
#include <variant>

namespace ibuki {

/// The stored outcome of reducing a run, with the settings it was made with.
struct RunReduction {
    Id<RunReduction> id;
    Id<Run> run;
    Reduction reduction;
    ReduceSettings settings;
    bool operator==(const RunReduction&) const = default;
};

template <class... Entities> struct EntityList {
    using Variant = std::variant<Entities...>;
    using Tables = std::tuple<std::map<Id<Entities>, Entities>...>;
    template <class Visitor> static void each(Visitor&& visitor) {
        (visitor.template operator()<Entities>(), ...);
    }
};

/// Parents before children, so that a file can be read and written in this order.
using Entities = EntityList<Bench, Configuration, Site, Layer, Sensor, Material, Package, Lot, Offcut,
                            LotPicture, ExchangeRate, Application, Mount, MountApplication, Acknowledgement,
                            Recording, Run, RunReduction, HeaderRole, Study, Question, Level, Load, Slot,
                            SlotLevel, Plan, ProtocolStep, StepTime, FollowUp, ReductionRules, Look>;
using Entity = Entities::Variant;

class Document {
public:
    template <class E> const std::map<Id<E>, E>& all() const { return std::get<std::map<Id<E>, E>>(tables_); }

    template <class E> const E* find(Id<E> id) const {
        const auto found = all<E>().find(id);
        return found == all<E>().end() ? nullptr : &found->second;
    }
    template <class E> const E* find(std::optional<Id<E>> id) const { return id ? find(*id) : nullptr; }

    /// Values for which a member equals `value`, in order of id.
    template <class E, class Member, class Value>
    std::vector<const E*> where(Member E::*member, const Value& value) const {
        std::vector<const E*> found;
        for (const auto& [id, entity] : all<E>())
            if (entity.*member == value) found.push_back(&entity);
        return found;
    }

    template <class E> void put(const E& entity) {
        std::get<std::map<Id<E>, E>>(tables_)[entity.id] = entity;
    }
    template <class E> void erase(Id<E> id) { std::get<std::map<Id<E>, E>>(tables_).erase(id); }

    /// Next id of the project; every kind draws from one sequence.
    std::int64_t nextId = 1;

private:
    Entities::Tables tables_;
};

} // namespace ibuki
