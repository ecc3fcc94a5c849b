// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study as it begins: from materials, or from another study.

#include "core/domain/edit.h"

namespace ibuki {

/// A study of materials at the bench's site under study (lid–plate, else the first) with one load.
Id<Study> addStudy(Edit& edit, Id<Bench> bench, const std::string& name,
                   const std::vector<Id<Material>>& materials);

/// The same questions, levels and loads under a new name, without mounts or slots and not yet fixed.
Id<Study> duplicateStudy(Edit& edit, Id<Study> study);

} // namespace ibuki
