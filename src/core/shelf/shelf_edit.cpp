// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/shelf_edit.h"
#include "core/domain/mount.h"
#include "core/domain/study.h"

namespace ibuki {
namespace {

/// Ids first: removing while walking would leave the walk without ground.
template <class E, class Member, class Value>
void removeWhere(Edit& edit, Member E::*member, const Value& value) {
    std::vector<Id<E>> gone;
    for (const E* entity : edit.document().where(member, value)) gone.push_back(entity->id);
    for (Id<E> id : gone) edit.remove(id);
}

} // namespace

bool isUsed(const Document& document, const Lot& lot) {
    return !document.where(&Application::lot, std::optional(lot.id)).empty();
}

bool isUsed(const Document& document, const Material& material) {
    return !document.where(&Level::material, std::optional(material.id)).empty()
           || !document.where(&Lot::material, material.id).empty()
           || !document.where(&ExternalResult::first, material.id).empty()
           || !document.where(&ExternalResult::second, material.id).empty();
}

void removeLot(Edit& edit, Id<Lot> lot) {
    removeWhere(edit, &Offcut::lot, lot);
    removeWhere(edit, &LotPicture::lot, lot);
    removeWhere(edit, &Acknowledgement::lot, std::optional(lot));
    edit.remove(lot);
}

void removeMaterial(Edit& edit, Id<Material> material) {
    removeWhere(edit, &Package::material, material);
    removeWhere(edit, &Acknowledgement::material, std::optional(material));
    edit.remove(material);
}

} // namespace ibuki
