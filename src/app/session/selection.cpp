// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/selection.h"
#include "core/domain/study.h"

namespace ibuki {
namespace {

template <class E> void dropMissing(std::optional<Id<E>>& id, const Document& document) {
    if (id && !document.find(*id)) id.reset();
}

template <class E> std::optional<Id<E>> newest(const Document& document) {
    const auto all = document.all<E>();
    return all.empty() ? std::nullopt : std::optional(all.back().first);
}

} // namespace

Selection valid(Selection selection, const Document& document) {
    dropMissing(selection.bench, document);
    dropMissing(selection.study, document);
    dropMissing(selection.question, document);
    dropMissing(selection.mount, document);
    dropMissing(selection.beside, document);
    dropMissing(selection.slot, document);
    dropMissing(selection.followUp, document);
    dropMissing(selection.material, document);
    dropMissing(selection.site, document);
    dropMissing(selection.lot, document);
    if (const Lot* lot = document.find(selection.lot); lot && lot->material != selection.material)
        selection.lot.reset();
    if (!selection.study && !selection.bench) selection.study = newest<Study>(document);
    if (const Study* study = document.find(selection.study)) selection.bench = study->bench;
    if (!selection.bench) selection.bench = newest<Bench>(document);
    if (!selection.study && selection.bench) {
        const auto studies = document.where(&Study::bench, *selection.bench);
        if (!studies.empty()) selection.study = studies.back()->id;
    }
    return selection;
}

} // namespace ibuki
