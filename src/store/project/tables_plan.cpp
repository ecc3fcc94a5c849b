// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/plan.h"
#include "store/project/column_list.h"

namespace ibuki {

std::vector<TableInfo> planTables() {
    return {
        table<Plan>("plan",
                    {column<&Plan::study>("study"), column<&Plan::mountsPerLevel>("mounts_per_level"),
                     column<&Plan::chance>("chance"), column<&Plan::statedScatter>("stated_scatter_K"),
                     column<&Plan::seed>("seed"), column<&Plan::checkWith>("check_with"),
                     column<&Plan::checkMounts>("check_mounts"), column<&Plan::baseline>("baseline"),
                     column<&Plan::pattern>("pattern"), column<&Plan::amount>("amount_g"),
                     column<&Plan::torque>("torque_Nm"), column<&Plan::start>("start"),
                     column<&Plan::fromHour>("from_hour"), column<&Plan::hours>("hours"),
                     column<&Plan::weekdays>("weekdays"), column<&Plan::zone>("zone"),
                     column<&Plan::followUps>("follow_ups"), column<&Plan::plannedLooks>("planned_looks")}),
        table<ProtocolStep>("protocol_step",
                            {column<&ProtocolStep::study>("study"), column<&ProtocolStep::load>("load"),
                             column<&ProtocolStep::position>("position"), column<&ProtocolStep::kind>("kind"),
                             column<&ProtocolStep::minutes>("minutes"), column<&ProtocolStep::gate>("gate"),
                             column<&ProtocolStep::gateValue>("gate_value"),
                             column<&ProtocolStep::unattended>("unattended")}),
        table<StepTime>("step_time",
                        {column<&StepTime::bench>("bench"), column<&StepTime::kind>("kind"),
                         column<&StepTime::material>("class"), column<&StepTime::minutes>("minutes")}),
        table<FollowUp>("follow_up", {column<&FollowUp::slot>("slot"), column<&FollowUp::after>("after"),
                                      column<&FollowUp::done>("done"),
                                      column<&FollowUp::skippedBecause>("skipped_because")}),
        table<ReductionRules>(
            "reduction_rules",
            {column<&ReductionRules::study>("study"), column<&ReductionRules::windowMinS>("window_min_s"),
             column<&ReductionRules::windowMaxS>("window_max_s"), column<&ReductionRules::guardS>("guard_s"),
             column<&ReductionRules::slopeLimitKPerH>("slope_limit_K_per_h"),
             column<&ReductionRules::remainingLimitK>("remaining_limit_K"),
             column<&ReductionRules::minPowerStepW>("min_power_step_W"),
             column<&ReductionRules::holdS>("hold_s"), column<&ReductionRules::limitShare>("limit_share")}),
        table<Look>("look",
                    {column<&Look::study>("study"), column<&Look::at>("at"), column<&Look::mounts>("mounts"),
                     column<&Look::extended>("extended"), column<&Look::declared>("declared")}),
    };
}

} // namespace ibuki
