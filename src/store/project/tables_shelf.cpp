// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/material.h"
#include "store/project/column_list.h"

namespace ibuki {

std::vector<TableInfo> shelfTables() {
    return {
        table<Material>("material",
                        {column<&Material::name>("name"),
                         column<&Material::kind>("class"),
                         column<&Material::claimedConductivity>("claimed_conductivity_W_per_mK", positive),
                         column<&Material::densityGPerMl>("density_g_per_ml", positive),
                         column<&Material::bondLine>("bond_line_um", positive),
                         column<&Material::thickness>("thickness_mm", positive),
                         column<&Material::yieldPa>("yield_Pa"),
                         column<&Material::viscosityPaS>("viscosity_Pas"),
                         column<&Material::modulusMPa>("modulus_MPa"),
                         column<&Material::coldest>("coldest_C"),
                         column<&Material::hottest>("hottest_C"),
                         column<&Material::melts>("melts_C"),
                         column<&Material::conductsElectricity>("conducts"),
                         column<&Material::containsGallium>("gallium"),
                         column<&Material::reusable>("used_again"),
                         column<&Material::conditioningCycles>("conditioning_cycles", few),
                         column<&Material::conditioningLow>("conditioning_low_C"),
                         column<&Material::conditioningHigh>("conditioning_high_C"),
                         column<&Material::conditioningRest>("conditioning_rest_h", positive),
                         column<&Material::reapplyYears>("reapply_years", CellRange{0, 1'000}),
                         column<&Material::conditioning>("conditioning"),
                         column<&Material::note>("note"),
                         column<&Material::statedMm2KPerW>("stated_mm2K_per_W", positive)}),
        table<Package>("package", {column<&Package::material>("material"),
                                   column<&Package::content>("content", positive),
                                   column<&Package::unit>("unit"), column<&Package::price>("price", positive),
                                   column<&Package::currency>("currency"), column<&Package::note>("note")}),
        table<Lot>(
            "lot",
            {column<&Lot::material>("material"), column<&Lot::name>("name"),
             column<&Lot::supplier>("supplier"), column<&Lot::made>("made"), column<&Lot::bought>("bought"),
             column<&Lot::opened>("opened"), column<&Lot::expires>("expires"),
             column<&Lot::storage>("storage"), column<&Lot::condition>("opened_condition"),
             column<&Lot::content>("content", positive), column<&Lot::remaining>("remaining", positive),
             column<&Lot::takenBefore>("taken_before", positive), column<&Lot::contentUnit>("content_unit"),
             column<&Lot::sheetWidth>("sheet_width_mm", positive),
             column<&Lot::sheetLength>("sheet_length_mm", positive), column<&Lot::price>("price", positive),
             column<&Lot::currency>("currency"), column<&Lot::note>("note")}),
        table<Offcut>("offcut",
                      {column<&Offcut::lot>("lot"), column<&Offcut::width>("width_mm", positive),
                       column<&Offcut::length>("length_mm", positive), column<&Offcut::used>("used")}),
        table<LotPicture>("lot_picture",
                          {column<&LotPicture::lot>("lot"), column<&LotPicture::fileName>("file_name"),
                           column<&LotPicture::sha256>("sha256"),
                           column<&LotPicture::bytes>("bytes", positive)}),
        table<ExchangeRate>("exchange_rate", {column<&ExchangeRate::from>("from_currency"),
                                              column<&ExchangeRate::to>("to_currency"),
                                              column<&ExchangeRate::rate>("rate", positive)}),
    };
}

} // namespace ibuki
