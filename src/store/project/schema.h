// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one place that says how each domain value stands in the project file: table, columns, references.
// Creating tables, reading, writing and the history all follow from these lists (docs/file-format.md).

#include "core/domain/document.h"

namespace ibuki {

template <class E, class T> struct Column {
    const char* name;
    T E::*member;
};
template <class E, class T> constexpr Column<E, T> column(const char* name, T E::*member) {
    return {name, member};
}

template <class E> struct Schema;

template <> struct Schema<Bench> {
    static constexpr const char* table = "bench";
    static constexpr auto columns = std::tuple{column("name", &Bench::name), column("note", &Bench::note)};
};
template <> struct Schema<Configuration> {
    using E = Configuration;
    static constexpr const char* table = "configuration";
    static constexpr auto columns = std::tuple{column("bench", &E::bench),
                                               column("name", &E::name),
                                               column("since", &E::since),
                                               column("variant_of", &E::variantOf),
                                               column("cooler", &E::cooler),
                                               column("fan", &E::fan),
                                               column("fan_note", &E::fanNote),
                                               column("lid", &E::lid),
                                               column("pins_on_chip", &E::pinsOnChip),
                                               column("mount_force_N", &E::mountForceN),
                                               column("plate_thickness_mm", &E::plateThickness),
                                               column("plate_radius_mm", &E::plateRadius),
                                               column("slowest_min", &E::slowestMinutes),
                                               column("power_limit_W", &E::powerLimit),
                                               column("temperature_limit_C", &E::temperatureLimit),
                                               column("room_gradient_K", &E::roomGradient)};
};
template <> struct Schema<Site> {
    using E = Site;
    static constexpr const char* table = "site";
    static constexpr auto columns = std::tuple{column("configuration", &E::configuration),
                                               column("name", &E::name),
                                               column("kind", &E::kind),
                                               column("lower_face", &E::lowerFace),
                                               column("upper_face", &E::upperFace),
                                               column("finish", &E::finish),
                                               column("width_mm", &E::width),
                                               column("length_mm", &E::length),
                                               column("gap_mm", &E::gap),
                                               column("alike", &E::alike),
                                               column("contacts_near", &E::contactsNear),
                                               column("aluminium_near", &E::aluminiumNear)};
};
template <> struct Schema<Layer> {
    using E = Layer;
    static constexpr const char* table = "layer";
    static constexpr auto columns = std::tuple{column("configuration", &E::configuration),
                                               column("position", &E::position),
                                               column("kind", &E::kind),
                                               column("name", &E::name),
                                               column("metal", &E::metal),
                                               column("width_mm", &E::width),
                                               column("length_mm", &E::length),
                                               column("thickness_mm", &E::thickness),
                                               column("conductivity_W_per_mK", &E::conductivity),
                                               column("site", &E::site)};
};
template <> struct Schema<Sensor> {
    using E = Sensor;
    static constexpr const char* table = "sensor";
    static constexpr auto columns = std::tuple{column("configuration", &E::configuration),
                                               column("role", &E::role),
                                               column("idx", &E::index),
                                               column("log_column", &E::column),
                                               column("reads", &E::reads),
                                               column("accuracy_K", &E::accuracy),
                                               column("resolution_K", &E::resolution),
                                               column("offset_K", &E::offset),
                                               column("accuracy_share", &E::accuracyShare),
                                               column("lag_s", &E::lagS)};
};
template <> struct Schema<Material> {
    using E = Material;
    static constexpr const char* table = "material";
    static constexpr auto columns =
        std::tuple{column("name", &E::name),
                   column("class", &E::kind),
                   column("claimed_conductivity_W_per_mK", &E::claimedConductivity),
                   column("density_g_per_ml", &E::densityGPerMl),
                   column("bond_line_um", &E::bondLineUm),
                   column("thickness_mm", &E::thickness),
                   column("yield_Pa", &E::yieldPa),
                   column("viscosity_Pas", &E::viscosityPaS),
                   column("modulus_MPa", &E::modulusMPa),
                   column("coldest_C", &E::coldest),
                   column("hottest_C", &E::hottest),
                   column("melts_C", &E::melts),
                   column("conducts", &E::conductsElectricity),
                   column("gallium", &E::containsGallium),
                   column("used_again", &E::reusable),
                   column("conditioning_cycles", &E::conditioningCycles),
                   column("conditioning_low_C", &E::conditioningLow),
                   column("conditioning_high_C", &E::conditioningHigh),
                   column("conditioning_rest_h", &E::conditioningRest),
                   column("reapply_years", &E::reapplyYears),
                   column("conditioning", &E::conditioning),
                   column("note", &E::note)};
};
template <> struct Schema<Lot> {
    using E = Lot;
    static constexpr const char* table = "lot";
    static constexpr auto columns = std::tuple{column("material", &E::material),
                                               column("name", &E::name),
                                               column("supplier", &E::supplier),
                                               column("made", &E::made),
                                               column("bought", &E::bought),
                                               column("opened", &E::opened),
                                               column("expires", &E::expires),
                                               column("storage", &E::storage),
                                               column("opened_condition", &E::condition),
                                               column("content", &E::content),
                                               column("remaining", &E::remaining),
                                               column("taken_before", &E::takenBefore),
                                               column("content_unit", &E::contentUnit),
                                               column("sheet_width_mm", &E::sheetWidth),
                                               column("sheet_length_mm", &E::sheetLength),
                                               column("price", &E::price),
                                               column("currency", &E::currency),
                                               column("note", &E::note)};
};
template <> struct Schema<Package> {
    using E = Package;
    static constexpr const char* table = "package";
    static constexpr auto columns = std::tuple{
        column("material", &E::material), column("content", &E::content),   column("unit", &E::unit),
        column("price", &E::price),       column("currency", &E::currency), column("note", &E::note)};
};
template <> struct Schema<Offcut> {
    using E = Offcut;
    static constexpr const char* table = "offcut";
    static constexpr auto columns = std::tuple{column("lot", &E::lot), column("width_mm", &E::width),
                                               column("length_mm", &E::length), column("used", &E::used)};
};
template <> struct Schema<LotPicture> {
    using E = LotPicture;
    static constexpr const char* table = "lot_picture";
    static constexpr auto columns =
        std::tuple{column("lot", &E::lot), column("file_name", &E::fileName), column("data", &E::data)};
};
template <> struct Schema<ExchangeRate> {
    using E = ExchangeRate;
    static constexpr const char* table = "exchange_rate";
    static constexpr auto columns = std::tuple{column("from_currency", &E::from),
                                               column("to_currency", &E::to), column("rate", &E::rate)};
};
template <> struct Schema<Acknowledgement> {
    using E = Acknowledgement;
    static constexpr const char* table = "acknowledgement";
    static constexpr auto columns =
        std::tuple{column("rule", &E::rule), column("material", &E::material), column("lot", &E::lot),
                   column("site", &E::site), column("mount", &E::mount),       column("role", &E::role),
                   column("at", &E::at),     column("reason", &E::reason)};
};
template <> struct Schema<Application> {
    using E = Application;
    static constexpr const char* table = "application";
    static constexpr auto columns = std::tuple{column("site", &E::site),
                                               column("lot", &E::lot),
                                               column("amount_g", &E::amount),
                                               column("syringe_before_g", &E::syringeBefore),
                                               column("syringe_after_g", &E::syringeAfter),
                                               column("area_mm2", &E::area),
                                               column("pattern", &E::pattern),
                                               column("start", &E::start),
                                               column("ended", &E::end),
                                               column("spreads", &E::spreads),
                                               column("stays_put", &E::staysPut),
                                               column("comes_off", &E::comesOff),
                                               column("cleans_up", &E::cleansUp),
                                               column("note", &E::note)};
};
template <> struct Schema<Mount> {
    using E = Mount;
    static constexpr const char* table = "mount";
    static constexpr auto columns = std::tuple{column("configuration", &E::configuration),
                                               column("name", &E::name),
                                               column("at", &E::at),
                                               column("at_assumed", &E::atAssumed),
                                               column("record_order", &E::order),
                                               column("block", &E::block),
                                               column("torque_Nm", &E::torque),
                                               column("rejected", &E::rejected),
                                               column("reason", &E::reason),
                                               column("note", &E::note)};
};
template <> struct Schema<MountApplication> {
    using E = MountApplication;
    static constexpr const char* table = "mount_application";
    static constexpr auto columns = std::tuple{
        column("mount", &E::mount), column("application", &E::application), column("is_new", &E::isNew)};
};
template <> struct Schema<Recording> {
    using E = Recording;
    static constexpr const char* table = "recording";
    static constexpr auto columns =
        std::tuple{column("bench", &E::bench),         column("file_name", &E::fileName),
                   column("sha256", &E::sha256),       column("bytes", &E::bytes),
                   column("start", &E::start),         column("start_assumed", &E::startAssumed),
                   column("samples", &E::samples),     column("duration_s", &E::durationS),
                   column("withdrawn", &E::withdrawn), column("read_as", &E::readAs),
                   column("probe", &E::probe),         column("probe_shift_s", &E::probeShiftS)};
};
template <> struct Schema<Run> {
    using E = Run;
    static constexpr const char* table = "run";
    static constexpr auto columns = std::tuple{column("mount", &E::mount),
                                               column("recording", &E::recording),
                                               column("load_index", &E::loadIndex),
                                               column("load", &E::load),
                                               column("repeat", &E::repeat),
                                               column("purpose", &E::purpose),
                                               column("since_application_h", &E::sinceApplication),
                                               column("under_load_h", &E::underLoad),
                                               column("cycles", &E::cycles),
                                               column("entered_ambient_C", &E::enteredAmbient),
                                               column("entered_ambient_u_K", &E::enteredAmbientU),
                                               column("load_start_s", &E::loadStartS),
                                               column("load_end_s", &E::loadEndS),
                                               column("window_start_s", &E::windowStartS),
                                               column("window_end_s", &E::windowEndS),
                                               column("use_asymptote", &E::useAsymptote),
                                               column("rejected", &E::rejected),
                                               column("reason", &E::reason)};
};
template <> struct Schema<RunReduction> {
    using E = RunReduction;
    static constexpr const char* table = "run_reduction";
    static constexpr auto columns = std::tuple{column("run", &E::run), column("reduction", &E::reduction),
                                               column("settings", &E::settings)};
};
template <> struct Schema<HeaderRole> {
    using E = HeaderRole;
    static constexpr const char* table = "header_role";
    static constexpr auto columns = std::tuple{column("fingerprint", &E::fingerprint),
                                               column("log_column", &E::column), column("role", &E::role)};
};
template <> struct Schema<Study> {
    using E = Study;
    static constexpr const char* table = "study";
    static constexpr auto columns = std::tuple{column("bench", &E::bench),
                                               column("name", &E::name),
                                               column("state", &E::state),
                                               column("began_as", &E::began),
                                               column("held_constant", &E::heldConstant),
                                               column("note", &E::note)};
};
template <> struct Schema<Question> {
    using E = Question;
    static constexpr const char* table = "question";
    static constexpr auto columns = std::tuple{column("study", &E::study),
                                               column("site", &E::site),
                                               column("factor", &E::factor),
                                               column("second_factor", &E::secondFactor),
                                               column("goal", &E::goal),
                                               column("levels_from", &E::levelsFrom),
                                               column("metric", &E::metric),
                                               column("reference", &E::reference),
                                               column("normalisation", &E::normalisation),
                                               column("nominal_power_W", &E::nominalPower),
                                               column("margin_K", &E::margin),
                                               column("confidence", &E::confidence),
                                               column("reference_level", &E::referenceLevel),
                                               column("frozen", &E::frozen),
                                               column("load", &E::load)};
};
template <> struct Schema<Level> {
    using E = Level;
    static constexpr const char* table = "level";
    static constexpr auto columns = std::tuple{column("question", &E::question),
                                               column("position", &E::position),
                                               column("name", &E::name),
                                               column("material", &E::material),
                                               column("lot", &E::lot),
                                               column("amount_g", &E::amount),
                                               column("pattern", &E::pattern),
                                               column("torque_Nm", &E::torque),
                                               column("configuration", &E::configuration),
                                               column("of_second", &E::ofSecond),
                                               column("placement", &E::placement),
                                               column("most_mounts", &E::mostMounts),
                                               column("together", &E::together)};
};
template <> struct Schema<Load> {
    using E = Load;
    static constexpr const char* table = "load";
    static constexpr auto columns =
        std::tuple{column("study", &E::study), column("position", &E::position), column("name", &E::name),
                   column("target_W", &E::target), column("duration_s", &E::durationS)};
};
template <> struct Schema<Slot> {
    using E = Slot;
    static constexpr const char* table = "slot";
    static constexpr auto columns = std::tuple{column("study", &E::study),
                                               column("position", &E::position),
                                               column("kind", &E::kind),
                                               column("level", &E::level),
                                               column("second_level", &E::second),
                                               column("block", &E::block),
                                               column("mount", &E::mount),
                                               column("planned_for", &E::plannedFor),
                                               column("skipped_because", &E::skippedBecause)};
};

template <> struct Schema<SlotLevel> {
    using E = SlotLevel;
    static constexpr const char* table = "slot_level";
    static constexpr auto columns =
        std::tuple{column("slot", &E::slot), column("question", &E::question), column("level", &E::level)};
};
template <> struct Schema<Plan> {
    using E = Plan;
    static constexpr const char* table = "plan";
    static constexpr auto columns = std::tuple{column("study", &E::study),
                                               column("mounts_per_level", &E::mountsPerLevel),
                                               column("chance", &E::chance),
                                               column("stated_scatter_K", &E::statedScatter),
                                               column("seed", &E::seed),
                                               column("check_with", &E::checkWith),
                                               column("check_mounts", &E::checkMounts),
                                               column("baseline", &E::baseline),
                                               column("pattern", &E::pattern),
                                               column("amount_g", &E::amount),
                                               column("torque_Nm", &E::torque),
                                               column("start", &E::start),
                                               column("from_hour", &E::fromHour),
                                               column("hours", &E::hours),
                                               column("weekdays", &E::weekdays),
                                               column("zone", &E::zone),
                                               column("follow_ups", &E::followUps),
                                               column("planned_looks", &E::plannedLooks)};
};
template <> struct Schema<ProtocolStep> {
    using E = ProtocolStep;
    static constexpr const char* table = "protocol_step";
    static constexpr auto columns =
        std::tuple{column("study", &E::study),          column("load", &E::load),
                   column("position", &E::position),    column("kind", &E::kind),
                   column("minutes", &E::minutes),      column("gate", &E::gate),
                   column("gate_value", &E::gateValue), column("unattended", &E::unattended)};
};
template <> struct Schema<StepTime> {
    using E = StepTime;
    static constexpr const char* table = "step_time";
    static constexpr auto columns = std::tuple{column("bench", &E::bench), column("kind", &E::kind),
                                               column("class", &E::material), column("minutes", &E::minutes)};
};
template <> struct Schema<FollowUp> {
    using E = FollowUp;
    static constexpr const char* table = "follow_up";
    static constexpr auto columns =
        std::tuple{column("slot", &E::slot), column("after", &E::after), column("done", &E::done),
                   column("skipped_because", &E::skippedBecause)};
};
template <> struct Schema<ReductionRules> {
    using E = ReductionRules;
    static constexpr const char* table = "reduction_rules";
    static constexpr auto columns = std::tuple{column("study", &E::study),
                                               column("window_min_s", &E::windowMinS),
                                               column("window_max_s", &E::windowMaxS),
                                               column("guard_s", &E::guardS),
                                               column("slope_limit_K_per_h", &E::slopeLimitKPerH),
                                               column("remaining_limit_K", &E::remainingLimitK),
                                               column("min_power_step_W", &E::minPowerStepW),
                                               column("hold_s", &E::holdS),
                                               column("limit_share", &E::limitShare)};
};
template <> struct Schema<Look> {
    using E = Look;
    static constexpr const char* table = "look";
    static constexpr auto columns =
        std::tuple{column("study", &E::study), column("at", &E::at), column("mounts", &E::mounts),
                   column("extended", &E::extended), column("declared", &E::declared)};
};

} // namespace ibuki
