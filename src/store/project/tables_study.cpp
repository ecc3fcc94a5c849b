// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/study.h"
#include "store/json/json_limits.h"
#include "store/project/column_list.h"

namespace ibuki {

/// A list of words, as JSON; empty: none.
template <> struct CellType<std::vector<std::string>> : PlainCell<CellForm::json> {
    static Cell to(const std::vector<std::string>& words) {
        return words.empty() ? std::string() : nlohmann::ordered_json(words).dump();
    }
    static std::vector<std::string> from(const Cell& cell) {
        const std::string text = CellType<std::string>::from(cell);
        if (text.empty()) return {};
        const auto json = soundJson(text);
        if (!json || !json->is_array()) refuseCell("list of words");
        std::vector<std::string> words;
        for (const auto& one : *json) {
            if (!one.is_string()) refuseCell("list of words");
            words.push_back(one.get<std::string>());
        }
        return words;
    }
};

std::vector<TableInfo> studyTables() {
    return {
        table<Study>("study", {column<&Study::bench>("bench"), column<&Study::name>("name"),
                               column<&Study::state>("state"), column<&Study::began>("began_as"),
                               column<&Study::heldConstant>("held_constant"), column<&Study::note>("note")}),
        table<Question>("question", {column<&Question::study>("study"),
                                     column<&Question::site>("site"),
                                     column<&Question::factor>("factor"),
                                     column<&Question::secondFactor>("second_factor"),
                                     column<&Question::goal>("goal"),
                                     column<&Question::levelsFrom>("levels_from"),
                                     column<&Question::metric>("metric"),
                                     column<&Question::reference>("reference"),
                                     column<&Question::normalisation>("normalisation"),
                                     column<&Question::nominalPower>("nominal_power_W", positive),
                                     column<&Question::margin>("margin_K", positive),
                                     column<&Question::confidence>("confidence", share),
                                     column<&Question::referenceLevel>("reference_level"),
                                     column<&Question::frozen>("frozen"),
                                     column<&Question::load>("load"),
                                     column<&Question::blocks>("block_by"),
                                     column<&Question::orderTakenOut>("order_taken_out"),
                                     column<&Question::covariate>("covariate"),
                                     column<&Question::spread>("spread"),
                                     column<&Question::fixedMetric>("fixed_metric"),
                                     column<&Question::fixedReference>("fixed_reference"),
                                     column<&Question::fixedNormalisation>("fixed_normalisation"),
                                     column<&Question::stepReadS>("step_read_s", positive)}),
        table<SideMargin>("side_margin",
                          {column<&SideMargin::question>("question"),
                           column<&SideMargin::response>("response"), column<&SideMargin::name>("name"),
                           column<&SideMargin::margin>("margin", positive)}),
        table<ExternalResult>(
            "read_elsewhere",
            {column<&ExternalResult::question>("question"), column<&ExternalResult::first>("first"),
             column<&ExternalResult::second>("second"), column<&ExternalResult::source>("source"),
             column<&ExternalResult::difference>("difference_K"),
             column<&ExternalResult::power>("power_W", positive),
             column<&ExternalResult::chipMm2>("chip_mm2", positive), column<&ExternalResult::lid>("lid"),
             column<&ExternalResult::cooler>("cooler_K_per_W", positive),
             column<&ExternalResult::mounts>("mounts", few), column<&ExternalResult::note>("note")}),
        table<Level>("level",
                     {column<&Level::question>("question"), column<&Level::position>("position", counted),
                      column<&Level::name>("name"), column<&Level::material>("material"),
                      column<&Level::lot>("lot"), column<&Level::amount>("amount_g", positive),
                      column<&Level::pattern>("pattern"), column<&Level::torque>("torque_Nm", positive),
                      column<&Level::configuration>("configuration"), column<&Level::ofSecond>("of_second"),
                      column<&Level::placement>("placement"), column<&Level::mostMounts>("most_mounts", few),
                      column<&Level::withoutRemount>("together")}),
        table<Load>("load", {column<&Load::study>("study"), column<&Load::position>("position", counted),
                             column<&Load::name>("name"), column<&Load::target>("target_W", positive),
                             column<&Load::durationS>("duration_s", CellRange{0, 3.2e9}),
                             column<&Load::planned>("planned"), column<&Load::sameAs>("same_as"),
                             column<&Load::command>("command")}),
        table<Slot>("slot", {column<&Slot::study>("study"), column<&Slot::position>("position", counted),
                             column<&Slot::kind>("kind"), column<&Slot::level>("level"),
                             column<&Slot::second>("second_level"), column<&Slot::block>("block", counted),
                             column<&Slot::mount>("mount"), column<&Slot::plannedFor>("planned_for"),
                             column<&Slot::skippedBecause>("skipped_because")}),
        table<SlotLevel>("slot_level",
                         {column<&SlotLevel::slot>("slot"), column<&SlotLevel::question>("question"),
                          column<&SlotLevel::level>("level")}),
    };
}

} // namespace ibuki
