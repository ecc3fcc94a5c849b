// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/ageing.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/run_reduction.h"
#include "core/trace/time_axis.h"
#include "store/json/json_limits.h"
#include "store/json/message_json.h"
#include "store/json/reduction_json.h"
#include "store/project/column_list.h"

namespace ibuki {

template <> struct CellType<Lazy<Reduction>> : PlainCell<CellForm::json> {
    static Cell to(const Lazy<Reduction>& value) { return storedJson(*value).dump(); }
    static Lazy<Reduction> from(const Cell& cell) { return {CellType<std::string>::from(cell), decode}; }

private:
    static Reduction decode(const std::string& stored) {
        const auto json = soundJson(stored);
        if (!json) refuseCell("stored reduction");
        return reductionFromJson(*json);
    }
};
template <> struct CellType<ReduceSettings> : PlainCell<CellForm::json> {
    static Cell to(const ReduceSettings& value) { return toJson(value).dump(); }
    static ReduceSettings from(const Cell& cell) {
        const std::string text = CellType<std::string>::from(cell);
        const auto json = soundJson(text);
        if (!json) refuseCell("stored setting");
        return settingsFromJson(*json);
    }
};

template <> struct CellType<Message> : PlainCell<CellForm::text> {
    static Cell to(const Message& value) { return messageText(value); }
    static Message from(const Cell& cell) { return messageFromText(CellType<std::string>::from(cell)); }
};

std::vector<TableInfo> recordTables() {
    return {
        table<Application>("application",
                           {column<&Application::site>("site"), column<&Application::lot>("lot"),
                            column<&Application::amount>("amount_g", positive),
                            column<&Application::syringeBefore>("syringe_before_g", positive),
                            column<&Application::syringeAfter>("syringe_after_g", positive),
                            column<&Application::area>("area_mm2", positive),
                            column<&Application::pieceWidth>("piece_width_mm", positive),
                            column<&Application::pieceLength>("piece_length_mm", positive),
                            column<&Application::layers>("layers", CellRange{1, 1'000}),
                            column<&Application::pattern>("pattern"), column<&Application::start>("start"),
                            column<&Application::end>("ended"), column<&Application::spreads>("spreads", few),
                            column<&Application::staysPut>("stays_put", few),
                            column<&Application::comesOff>("comes_off", few),
                            column<&Application::cleansUp>("cleans_up", few),
                            column<&Application::note>("note")}),
        table<Mount>("mount", {column<&Mount::configuration>("configuration"), column<&Mount::name>("name"),
                               column<&Mount::at>("at"), column<&Mount::atAssumed>("at_assumed"),
                               column<&Mount::order>("record_order", CellRange{-2e9, 2e9}),
                               column<&Mount::block>("block"), column<&Mount::torque>("torque_Nm", positive),
                               column<&Mount::rejected>("rejected"), column<&Mount::reason>("reason"),
                               column<&Mount::note>("note"), column<&Mount::mountedBy>("mounted_by"),
                               column<&Mount::opened>("opened")}),
        table<MountApplication>("mount_application", {column<&MountApplication::mount>("mount"),
                                                      column<&MountApplication::application>("application"),
                                                      column<&MountApplication::use>("use")}),
        table<JointInspection>("joint_look",
                               {column<&JointInspection::mount>("mount"),
                                column<&JointInspection::site>("site"),
                                column<&JointInspection::at>("at"),
                                column<&JointInspection::spread>("spread"),
                                column<&JointInspection::dry>("dry"),
                                column<&JointInspection::cracked>("cracked"),
                                column<&JointInspection::torn>("torn"),
                                column<&JointInspection::slipped>("slipped"),
                                column<&JointInspection::overhung>("overhung"),
                                column<&JointInspection::pumpedOut>("pumped_out"),
                                column<&JointInspection::residue>("residue"),
                                column<&JointInspection::stained>("stained"),
                                column<&JointInspection::bowed>("bowed"),
                                column<&JointInspection::imprintUneven>("imprint_uneven"),
                                column<&JointInspection::cameOff>("came_off"),
                                column<&JointInspection::effort>("effort", few),
                                column<&JointInspection::cleanMinutes>("clean_min", minutesOfAStep),
                                column<&JointInspection::wipes>("wipes", few),
                                column<&JointInspection::damage>("damage"),
                                column<&JointInspection::join>("join_sides"),
                                column<&JointInspection::rejects>("rejects"),
                                column<&JointInspection::figureKnown>("figure_known"),
                                column<&JointInspection::note>("note")}),
        table<JointPicture>("joint_picture",
                            {column<&JointPicture::look>("look"),
                             column<&JointPicture::side>("side"),
                             column<&JointPicture::fileName>("file_name"),
                             column<&JointPicture::sha256>("sha256"),
                             column<&JointPicture::bytes>("bytes", positive),
                             column<&JointPicture::width>("width_px", counted),
                             column<&JointPicture::height>("height_px", counted),
                             column<&JointPicture::corners>("corners_px"),
                             column<&JointPicture::faceWidth>("face_width_mm", positive),
                             column<&JointPicture::faceLength>("face_length_mm", positive),
                             column<&JointPicture::threshold>("threshold", share),
                             column<&JointPicture::maskSha256>("mask_sha256"),
                             column<&JointPicture::covered>("covered", share),
                             column<&JointPicture::coveredLow>("covered_low", share),
                             column<&JointPicture::coveredHigh>("covered_high", share),
                             column<&JointPicture::outsideMm2>("outside_mm2", positive),
                             column<&JointPicture::filmLightness>("film_lightness", CellRange{-1000, 1000}),
                             column<&JointPicture::filmA>("film_a", CellRange{-1000, 1000}),
                             column<&JointPicture::filmB>("film_b", CellRange{-1000, 1000}),
                             column<&JointPicture::flags>("flags")}),
        table<MountUse>("mount_use",
                        {column<&MountUse::mount>("mount"), column<&MountUse::from>("from_time"),
                         column<&MountUse::until>("until_time"),
                         column<&MountUse::hoursPerDay>("hours_per_day", CellRange{0, 24}),
                         column<&MountUse::power>("power_W", positive),
                         column<&MountUse::cyclesPerDay>("cycles_per_day", counted),
                         column<&MountUse::hottest>("hottest_C"), column<&MountUse::coldest>("coldest_C"),
                         column<&MountUse::note>("note")}),
        table<MountOutcome>("mount_outcome",
                            {column<&MountOutcome::mount>("mount"), column<&MountOutcome::kind>("kind"),
                             column<&MountOutcome::happened>("happened"), column<&MountOutcome::at>("at"),
                             column<&MountOutcome::coldest>("coldest_C"),
                             column<&MountOutcome::cycles>("cycles", positive),
                             column<&MountOutcome::note>("note")}),
        table<AgeingRules>("drift_rules",
                           {column<&AgeingRules::bench>("bench"),
                            column<&AgeingRules::threshold>("threshold_K", CellRange{1e-6, 1'000}),
                            column<&AgeingRules::sameWithin>("same_within_K", CellRange{1e-6, 1'000}),
                            column<&AgeingRules::settledWithin>("settled_within_K", CellRange{1e-6, 1'000}),
                            column<&AgeingRules::typicalYears>("usual_years", few),
                            column<&AgeingRules::manualMinutes>("hands_min", minutesOfAStep),
                            column<&AgeingRules::hourRate>("hour_rate", positive),
                            column<&AgeingRules::currency>("currency")}),
        table<Acknowledgement>(
            "acknowledgement",
            {column<&Acknowledgement::rule>("rule"), column<&Acknowledgement::material>("material"),
             column<&Acknowledgement::lot>("lot"), column<&Acknowledgement::site>("site"),
             column<&Acknowledgement::mount>("mount"), column<&Acknowledgement::role>("role"),
             column<&Acknowledgement::at>("at"), column<&Acknowledgement::reason>("reason")}),
        table<Recording>(
            "recording",
            {column<&Recording::bench>("bench"), column<&Recording::fileName>("file_name"),
             column<&Recording::sha256>("sha256"), column<&Recording::bytes>("bytes", positive),
             column<&Recording::start>("start"), column<&Recording::startAssumed>("start_assumed"),
             column<&Recording::samples>("samples", CellRange{0, double(mostSamples)}),
             column<&Recording::durationS>("duration_s", seconds), column<&Recording::withdrawn>("withdrawn"),
             column<&Recording::readAs>("read_as"), column<&Recording::probe>("probe"),
             column<&Recording::probeShiftS>("probe_shift_s", seconds), column<&Recording::state>("state")}),
        table<RecordingMark>("recording_mark", {column<&RecordingMark::recording>("recording"),
                                                column<&RecordingMark::atS>("at_s", seconds),
                                                column<&RecordingMark::kind>("kind"),
                                                column<&RecordingMark::message>("message")}),
        table<Run>(
            "run",
            {column<&Run::mount>("mount"), column<&Run::recording>("recording"),
             column<&Run::loadIndex>("load_index", CellRange{-1, 1'000'000}), column<&Run::load>("load"),
             column<&Run::repeat>("repeat", counted), column<&Run::purpose>("purpose"),
             column<&Run::enteredAmbient>("entered_ambient_C"),
             column<&Run::enteredAmbientU>("entered_ambient_u_K"),
             column<&Run::statedAgeH>("stated_age_h", positive),
             column<&Run::statedCycles>("stated_cycles", positive),
             column<&Run::loadStartS>("load_start_s", seconds), column<&Run::loadEndS>("load_end_s", seconds),
             column<&Run::windowStartS>("window_start_s", seconds),
             column<&Run::windowEndS>("window_end_s", seconds), column<&Run::useAsymptote>("use_asymptote"),
             column<&Run::rejected>("rejected"), column<&Run::reason>("reason")}),
        table<RunReduction>("run_reduction",
                            {column<&RunReduction::run>("run"), column<&RunReduction::reduction>("reduction"),
                             column<&RunReduction::hottestC>("hottest_C"),
                             column<&RunReduction::settings>("settings")}),
        table<EnteredReading>("entered_reading",
                              {column<&EnteredReading::run>("run"),
                               column<&EnteredReading::kind>("kind", Words<SideResponse>::read),
                               column<&EnteredReading::name>("name"), column<&EnteredReading::unit>("unit"),
                               column<&EnteredReading::value>("value", CellRange{-1e15, 1e15}),
                               column<&EnteredReading::better>("better"), column<&EnteredReading::at>("at"),
                               column<&EnteredReading::note>("note")}),
        table<HeaderRole>("header_role",
                          {column<&HeaderRole::fingerprint>("fingerprint"),
                           column<&HeaderRole::column>("log_column"), column<&HeaderRole::role>("role")}),
    };
}

} // namespace ibuki
