// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/entity.h"

#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"

#include <array>

namespace ibuki {
namespace {

using Same = bool (*)(const void*, const void*);

template <class... E> constexpr auto comparisons(EntityList<E...>) {
    return std::array<Same, sizeof...(E)>{[](const void* a, const void* b) {
        return *static_cast<const E*>(a) == *static_cast<const E*>(b);
    }...};
}

} // namespace

template <class E> std::shared_ptr<const void> shareValue(E value) {
    return std::make_shared<const E>(std::move(value));
}

template std::shared_ptr<const void> shareValue(Bench);
template std::shared_ptr<const void> shareValue(Configuration);
template std::shared_ptr<const void> shareValue(Site);
template std::shared_ptr<const void> shareValue(Layer);
template std::shared_ptr<const void> shareValue(Sensor);
template std::shared_ptr<const void> shareValue(BenchSource);
template std::shared_ptr<const void> shareValue(Material);
template std::shared_ptr<const void> shareValue(Package);
template std::shared_ptr<const void> shareValue(Lot);
template std::shared_ptr<const void> shareValue(Offcut);
template std::shared_ptr<const void> shareValue(LotPicture);
template std::shared_ptr<const void> shareValue(ExchangeRate);
template std::shared_ptr<const void> shareValue(Application);
template std::shared_ptr<const void> shareValue(Mount);
template std::shared_ptr<const void> shareValue(MountApplication);
template std::shared_ptr<const void> shareValue(JointInspection);
template std::shared_ptr<const void> shareValue(JointPicture);
template std::shared_ptr<const void> shareValue(MountUse);
template std::shared_ptr<const void> shareValue(MountOutcome);
template std::shared_ptr<const void> shareValue(AgeingRules);
template std::shared_ptr<const void> shareValue(Acknowledgement);
template std::shared_ptr<const void> shareValue(Recording);
template std::shared_ptr<const void> shareValue(RecordingMark);
template std::shared_ptr<const void> shareValue(Run);
template std::shared_ptr<const void> shareValue(RunReduction);
template std::shared_ptr<const void> shareValue(EnteredReading);
template std::shared_ptr<const void> shareValue(HeaderRole);
template std::shared_ptr<const void> shareValue(Study);
template std::shared_ptr<const void> shareValue(Question);
template std::shared_ptr<const void> shareValue(Level);
template std::shared_ptr<const void> shareValue(Load);
template std::shared_ptr<const void> shareValue(Slot);
template std::shared_ptr<const void> shareValue(SideMargin);
template std::shared_ptr<const void> shareValue(ExternalResult);
template std::shared_ptr<const void> shareValue(SlotLevel);
template std::shared_ptr<const void> shareValue(Plan);
template std::shared_ptr<const void> shareValue(ProtocolStep);
template std::shared_ptr<const void> shareValue(StepTime);
template std::shared_ptr<const void> shareValue(FollowUp);
template std::shared_ptr<const void> shareValue(ReductionRules);
template std::shared_ptr<const void> shareValue(InterimLook);
template std::shared_ptr<const void> shareValue(Practice);

bool sameValue(EntityKind kind, const void* a, const void* b) {
    static constexpr auto same = comparisons(Entities{});
    return a == b || same[indexOf(kind)](a, b);
}

bool operator==(const Entity& a, const Entity& b) {
    return a.kind_ == b.kind_ && sameValue(a.kind_, a.value_.get(), b.value_.get());
}

} // namespace ibuki
