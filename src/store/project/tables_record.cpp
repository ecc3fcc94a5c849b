// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/run_reduction.h"
#include "store/json/message_json.h"
#include "store/json/reduction_json.h"
#include "store/project/column_list.h"

namespace ibuki {

template <> struct CellType<Reduction> : PlainCell<CellForm::json> {
    static Cell to(const Reduction& value) { return storedJson(value).dump(); }
    static Reduction from(const Cell& cell) {
        const auto json = nlohmann::ordered_json::parse(CellType<std::string>::from(cell), nullptr, false);
        if (json.is_discarded()) refuseCell("stored reduction");
        return reductionFromJson(json);
    }
};
template <> struct CellType<ReduceSettings> : PlainCell<CellForm::json> {
    static Cell to(const ReduceSettings& value) { return toJson(value).dump(); }
    static ReduceSettings from(const Cell& cell) {
        const std::string text = CellType<std::string>::from(cell);
        if (text.empty()) return {}; // reduced before settings were stored
        const auto json = nlohmann::ordered_json::parse(text, nullptr, false);
        if (json.is_discarded()) refuseCell("stored setting");
        return settingsFromJson(json);
    }
};

template <> struct CellType<Message> : PlainCell<CellForm::text> {
    static Cell to(const Message& value) { return messageText(value); }
    static Message from(const Cell& cell) { return messageFromText(CellType<std::string>::from(cell)); }
};

std::vector<TableInfo> recordTables() {
    return {
        table<Application>(
            "application",
            {column<&Application::site>("site"), column<&Application::lot>("lot"),
             column<&Application::amount>("amount_g"),
             column<&Application::syringeBefore>("syringe_before_g"),
             column<&Application::syringeAfter>("syringe_after_g"), column<&Application::area>("area_mm2"),
             column<&Application::pattern>("pattern"), column<&Application::start>("start"),
             column<&Application::end>("ended"), column<&Application::spreads>("spreads"),
             column<&Application::staysPut>("stays_put"), column<&Application::comesOff>("comes_off"),
             column<&Application::cleansUp>("cleans_up"), column<&Application::note>("note")}),
        table<Mount>("mount", {column<&Mount::configuration>("configuration"), column<&Mount::name>("name"),
                               column<&Mount::at>("at"), column<&Mount::atAssumed>("at_assumed"),
                               column<&Mount::order>("record_order"), column<&Mount::block>("block"),
                               column<&Mount::torque>("torque_Nm"), column<&Mount::rejected>("rejected"),
                               column<&Mount::reason>("reason"), column<&Mount::note>("note")}),
        table<MountApplication>("mount_application", {column<&MountApplication::mount>("mount"),
                                                      column<&MountApplication::application>("application"),
                                                      column<&MountApplication::isNew>("is_new")}),
        table<Acknowledgement>(
            "acknowledgement",
            {column<&Acknowledgement::rule>("rule"), column<&Acknowledgement::material>("material"),
             column<&Acknowledgement::lot>("lot"), column<&Acknowledgement::site>("site"),
             column<&Acknowledgement::mount>("mount"), column<&Acknowledgement::role>("role"),
             column<&Acknowledgement::at>("at"), column<&Acknowledgement::reason>("reason")}),
        table<Recording>(
            "recording",
            {column<&Recording::bench>("bench"), column<&Recording::fileName>("file_name"),
             column<&Recording::sha256>("sha256"), column<&Recording::bytes>("bytes"),
             column<&Recording::start>("start"), column<&Recording::startAssumed>("start_assumed"),
             column<&Recording::samples>("samples"), column<&Recording::durationS>("duration_s"),
             column<&Recording::withdrawn>("withdrawn"), column<&Recording::readAs>("read_as"),
             column<&Recording::probe>("probe"), column<&Recording::probeShiftS>("probe_shift_s")}),
        table<Run>(
            "run",
            {column<&Run::mount>("mount"), column<&Run::recording>("recording"),
             column<&Run::loadIndex>("load_index"), column<&Run::load>("load"),
             column<&Run::repeat>("repeat"), column<&Run::purpose>("purpose"),
             column<&Run::sinceApplication>("since_application_h"), column<&Run::underLoad>("under_load_h"),
             column<&Run::cycles>("cycles"), column<&Run::enteredAmbient>("entered_ambient_C"),
             column<&Run::enteredAmbientU>("entered_ambient_u_K"), column<&Run::loadStartS>("load_start_s"),
             column<&Run::loadEndS>("load_end_s"), column<&Run::windowStartS>("window_start_s"),
             column<&Run::windowEndS>("window_end_s"), column<&Run::useAsymptote>("use_asymptote"),
             column<&Run::rejected>("rejected"), column<&Run::reason>("reason")}),
        table<RunReduction>("run_reduction",
                            {column<&RunReduction::run>("run"), column<&RunReduction::reduction>("reduction"),
                             column<&RunReduction::settings>("settings")}),
        table<HeaderRole>("header_role",
                          {column<&HeaderRole::fingerprint>("fingerprint"),
                           column<&HeaderRole::column>("log_column"), column<&HeaderRole::role>("role")}),
    };
}

} // namespace ibuki
