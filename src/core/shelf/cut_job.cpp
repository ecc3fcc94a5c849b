// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut_job.h"

#include "core/domain/bench.h"
#include "core/shelf/gap.h"
#include "core/shelf/shelf.h"

#include <cmath>
#include <map>

namespace ibuki {
namespace {

double areaOf(const CutSheet& sheet) { return sheet.widthMm * sheet.lengthMm; }

/// In mm²; nothing when the lot's unit is no area.
std::optional<double> leftMm2(const Document& document, const Lot& lot, Instant now) {
    const auto left = lotState(document, lot, now).left;
    const auto unit = areaPerUnit(lot);
    if (!left || !unit) return std::nullopt;
    return *left * *unit;
}

} // namespace

std::vector<CutPiece> piecesFor(const Document& document, const Configuration& configuration,
                                const Material& material, const Site* site) {
    const bool bridges = material.kind == MaterialClass::gapPad || material.kind == MaterialClass::putty;
    const double thicknessMm = factsOf(material).bondLineUm.value / 1000;
    std::vector<CutPiece> pieces;
    for (const Site* one : document.where(&Site::configuration, configuration.id)) {
        const bool wanted = bridges ? takesPads(*one) : site && one->id == site->id;
        if (!wanted || !one->width || !one->length) continue;
        pieces.push_back({one->name, one->width->value, one->length->value, thicknessMm, one->alike, true});
    }
    return pieces;
}

std::vector<ShelfSheet> sheetsOf(const Document& document, const Material& material, Instant now) {
    const double thicknessMm = factsOf(material).bondLineUm.value / 1000;
    std::vector<ShelfSheet> sheets;
    for (const Lot* lot : document.where(&Lot::material, material.id)) {
        double offcutsMm2 = 0;
        for (const Offcut* offcut : document.where(&Offcut::lot, lot->id)) {
            if (offcut->used) continue;
            CutSheet sheet{
                lot->name + ", off-cut", offcut->width.value, offcut->length.value, thicknessMm, 1, true};
            offcutsMm2 += areaOf(sheet);
            sheets.push_back({std::move(sheet), lot->id, offcut->id});
        }
        if (!lot->sheetWidth || !lot->sheetLength) continue;
        CutSheet whole{lot->name, lot->sheetWidth->value, lot->sheetLength->value, thicknessMm, 1, false};
        if (const auto left = leftMm2(document, *lot, now))
            whole.count = static_cast<int>(std::floor((*left - offcutsMm2) / areaOf(whole) + 1e-9));
        if (*whole.count > 0) sheets.push_back({std::move(whole), lot->id, std::nullopt});
    }
    return sheets;
}

int keepCut(Edit& edit, const CutPlan& plan, const std::vector<std::optional<ShelfSheet>>& sheets,
            double leastMm, Instant now) {
    std::map<Id<Lot>, double> gone; // mm²
    int kept = 0;
    for (const CutLayout& layout : plan.layouts) {
        const auto& from = sheets.at(layout.sheet);
        if (!from) continue;
        gone[from->lot] += areaOf(from->sheet);
        if (from->offcut) {
            Offcut used = *edit.document().find(*from->offcut);
            used.used = true;
            edit.put(used);
        }
        for (const CutRect& rest : layout.offcuts) {
            if (rest.width < leastMm || rest.length < leastMm) continue;
            edit.add(Offcut{{}, from->lot, Millimetre{rest.width}, Millimetre{rest.length}, false});
            gone[from->lot] -= rest.width * rest.length;
            ++kept;
        }
    }
    for (const auto& [id, mm2] : gone) {
        Lot lot = *edit.document().find(id);
        const LotState state = lotState(edit.document(), lot, now);
        const auto unit = areaPerUnit(lot);
        if (!state.left || !unit) continue;
        lot.remaining = std::max(0.0, *state.left - mm2 / *unit);
        lot.takenBefore = state.taken;
        edit.put(lot);
    }
    return kept;
}

} // namespace ibuki
