// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/bench.h"
#include "store/project/column_list.h"

namespace ibuki {

std::vector<TableInfo> benchTables() {
    return {
        table<Bench>("bench", {column<&Bench::name>("name"), column<&Bench::note>("note")}),
        table<Configuration>("configuration",
                             {column<&Configuration::bench>("bench"), column<&Configuration::name>("name"),
                              column<&Configuration::since>("since"),
                              column<&Configuration::variantOf>("variant_of"),
                              column<&Configuration::cooler>("cooler"), column<&Configuration::fan>("fan"),
                              column<&Configuration::fanNote>("fan_note"), column<&Configuration::lid>("lid"),
                              column<&Configuration::pinsOnChip>("pins_on_chip"),
                              column<&Configuration::mountForce>("mount_force_N", positive),
                              column<&Configuration::plateThickness>("plate_thickness_mm", positive),
                              column<&Configuration::plateRadius>("plate_radius_mm", positive),
                              column<&Configuration::slowestMinutes>("slowest_min", minutesOfAStep),
                              column<&Configuration::powerLimit>("power_limit_W", positive),
                              column<&Configuration::temperatureLimit>("temperature_limit_C"),
                              column<&Configuration::ambientGradient>("room_gradient_K"),
                              column<&Configuration::stopAbove>("stop_above_C")}),
        table<Site>("site",
                    {column<&Site::configuration>("configuration"), column<&Site::name>("name"),
                     column<&Site::kind>("kind"), column<&Site::lowerFace>("lower_face"),
                     column<&Site::upperFace>("upper_face"), column<&Site::finish>("finish"),
                     column<&Site::width>("width_mm", positive), column<&Site::length>("length_mm", positive),
                     column<&Site::gap>("gap_mm", positive), column<&Site::alike>("alike", few),
                     column<&Site::contactsNear>("contacts_near"),
                     column<&Site::aluminiumNear>("aluminium_near")}),
        table<Layer>(
            "layer",
            {column<&Layer::configuration>("configuration"), column<&Layer::position>("position", counted),
             column<&Layer::kind>("kind"), column<&Layer::name>("name"), column<&Layer::metal>("metal"),
             column<&Layer::width>("width_mm", positive), column<&Layer::length>("length_mm", positive),
             column<&Layer::thickness>("thickness_mm", positive),
             column<&Layer::conductivity>("conductivity_W_per_mK", positive), column<&Layer::site>("site")}),
        table<Sensor>(
            "sensor",
            {column<&Sensor::configuration>("configuration"), column<&Sensor::role>("role"),
             column<&Sensor::index>("idx", CellRange{-1, 1'000'000}), column<&Sensor::column>("log_column"),
             column<&Sensor::reads>("reads"), column<&Sensor::accuracy>("accuracy_K", positive),
             column<&Sensor::resolution>("resolution_K", positive), column<&Sensor::offset>("offset_K"),
             column<&Sensor::accuracyShare>("accuracy_share"), column<&Sensor::lagS>("lag_s", positive),
             column<&Sensor::noise>("noise_K", positive)}),
        table<BenchSource>("bench_source", {column<&BenchSource::bench>("bench"),
                                            column<&BenchSource::position>("position", counted),
                                            column<&BenchSource::spec>("spec")}),
    };
}

} // namespace ibuki
