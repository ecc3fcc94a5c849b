// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/plan.h"
#include "store/project/column_list.h"

namespace ibuki {

std::vector<TableInfo> planTables() {
    return {
        table<Plan>("plan",
                    {column<&Plan::study>("study"), column<&Plan::mountsPerLevel>("mounts_per_level", few),
                     column<&Plan::chance>("chance", share),
                     column<&Plan::statedScatter>("stated_scatter_K", positive),
                     column<&Plan::seed>("seed", CellRange{-2e9, 2e9}),
                     column<&Plan::checkWith>("check_with"), column<&Plan::checkMounts>("check_mounts", few),
                     column<&Plan::baseline>("baseline"), column<&Plan::pattern>("pattern"),
                     column<&Plan::amount>("amount_g", positive),
                     column<&Plan::torque>("torque_Nm", positive), column<&Plan::start>("start"),
                     column<&Plan::fromHour>("from_hour", CellRange{0, 24}),
                     column<&Plan::hours>("hours", CellRange{0, 24.01}), column<&Plan::weekdays>("weekdays"),
                     column<&Plan::zone>("zone"), column<&Plan::followUps>("follow_ups"),
                     column<&Plan::plannedLooks>("planned_looks", few)}),
        table<ProtocolStep>(
            "protocol_step",
            {column<&ProtocolStep::study>("study"), column<&ProtocolStep::load>("load"),
             column<&ProtocolStep::position>("position", counted), column<&ProtocolStep::kind>("kind"),
             column<&ProtocolStep::minutes>("minutes", minutesOfAStep), column<&ProtocolStep::gate>("gate"),
             column<&ProtocolStep::gateValue>("gate_value", positive),
             column<&ProtocolStep::unattended>("unattended"), column<&ProtocolStep::cycles>("cycles", few),
             column<&ProtocolStep::hot>("hot_C"), column<&ProtocolStep::cold>("cold_C")}),
        table<StepTime>("step_time", {column<&StepTime::bench>("bench"), column<&StepTime::kind>("kind"),
                                      column<&StepTime::material>("class"),
                                      column<&StepTime::minutes>("minutes", minutesOfAStep)}),
        table<FollowUp>("follow_up", {column<&FollowUp::slot>("slot"), column<&FollowUp::after>("after"),
                                      column<&FollowUp::done>("done"),
                                      column<&FollowUp::skippedBecause>("skipped_because")}),
        table<ReductionRules>("reduction_rules",
                              {column<&ReductionRules::study>("study"),
                               column<&ReductionRules::windowMinS>("window_min_s", positive),
                               column<&ReductionRules::windowMaxS>("window_max_s", positive),
                               column<&ReductionRules::guardS>("guard_s", positive),
                               column<&ReductionRules::slopeLimitKPerH>("slope_limit_K_per_h", positive),
                               column<&ReductionRules::remainingLimitK>("remaining_limit_K", positive),
                               column<&ReductionRules::minPowerStepW>("min_power_step_W", positive),
                               column<&ReductionRules::holdS>("hold_s", positive),
                               column<&ReductionRules::limitShare>("limit_share", positive)}),
        table<InterimLook>("look", {column<&InterimLook::study>("study"), column<&InterimLook::at>("at"),
                                    column<&InterimLook::mounts>("mounts", counted),
                                    column<&InterimLook::extended>("extended"),
                                    column<&InterimLook::declared>("declared")}),
        table<Practice>(
            "practice",
            {column<&Practice::study>("study"), column<&Practice::scenario>("scenario"),
             column<&Practice::seed>("seed", CellRange{-2e9, 2e9}),
             column<&Practice::speed>("speed", positive), column<&Practice::materials>("materials"),
             column<&Practice::committedBest>("committed_best"), column<&Practice::conclusion>("conclusion"),
             column<&Practice::committedAt>("committed_at")}),
    };
}

} // namespace ibuki
