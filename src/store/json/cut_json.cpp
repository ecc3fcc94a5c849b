// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/cut_json.h"

#include "store/json/json_fields.h"

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

constexpr JsonFieldErrors cutFields{"docs/cli.md, \"cut\""};

/// Width, length, thickness and name, which pieces and sheets have in common.
template <class T> void takeSize(JsonFields& fields, T& value) {
    fields.take("name", value.name);
    fields.take("width_mm", value.widthMm);
    fields.take("length_mm", value.lengthMm);
    fields.take("thickness_mm", value.thicknessMm);
}

CutPiece pieceFrom(JsonFields fields) {
    CutPiece piece;
    takeSize(fields, piece);
    fields.take("count", piece.count);
    fields.take("may_turn", piece.mayTurn);
    fields.finish();
    return piece;
}

CutSheet sheetFrom(JsonFields fields) {
    CutSheet sheet;
    takeSize(fields, sheet);
    int count = 0;
    fields.take("count", count, notNegative);
    if (count > 0) sheet.count = count;
    fields.take("offcut", sheet.offcut);
    fields.finish();
    return sheet;
}

Json toJson(const CutRect& rect) {
    return {{"x_mm", rect.x}, {"y_mm", rect.y}, {"width_mm", rect.width}, {"length_mm", rect.length}};
}

Json toJson(const CutLayout& layout, const CutJob& job) {
    Json pieces = Json::array();
    for (const CutPlacement& placement : layout.placements) {
        Json piece = toJson(placement.at);
        piece["piece"] = job.pieces[placement.piece].name;
        piece["turned"] = placement.turned;
        pieces.push_back(piece);
    }
    Json cuts = Json::array();
    for (const CutLine& cut : layout.cuts)
        cuts.push_back({{"direction", cut.downwards ? "down" : "across"},
                        {"at_mm", cut.at},
                        {"through", toJson(cut.through)}});
    Json offcuts = Json::array();
    for (const CutRect& rect : layout.offcuts) offcuts.push_back(toJson(rect));
    return {
        {"sheet", job.sheets[layout.sheet].name}, {"pieces", pieces}, {"cuts", cuts}, {"offcuts", offcuts}};
}

} // namespace

CutJob cutJobFromJson(const nlohmann::json& json, const std::string& fileName) {
    CutJob job;
    JsonFields fields(json, fileName, cutFields);
    fields.take("kerf_mm", job.kerfMm);
    fields.take("margin_mm", job.marginMm);
    fields.take("offcuts_first", job.offcutsFirst);
    constexpr std::size_t most = 1'000'000; // what is too much to plan is told there
    fields.each("pieces", most, [&](const auto& one, const std::string& at) {
        job.pieces.push_back(pieceFrom({one, fileName, cutFields, at}));
    });
    fields.each("sheets", most, [&](const auto& one, const std::string& at) {
        job.sheets.push_back(sheetFrom({one, fileName, cutFields, at}));
    });
    fields.finish();
    return job;
}

nlohmann::ordered_json toJson(const CutPlan& plan, const CutJob& job) {
    Json layouts = Json::array();
    for (const CutLayout& layout : plan.layouts) layouts.push_back(toJson(layout, job));
    Json missing = Json::array();
    for (const auto& [piece, count] : plan.missing)
        missing.push_back({{"piece", job.pieces[piece].name}, {"count", count}});
    return {{"full_sheets", plan.fullSheets},
            {"offcuts_used", plan.offcutSheets},
            {"pieces_mm2", plan.usedMm2},
            {"sheets_mm2", plan.sheetMm2},
            {"waste", plan.waste()},
            {"missing", missing},
            {"layouts", layouts}};
}

} // namespace ibuki
