// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a joint gives way to force: a paste by the scaling of its bond line, a pad by its strain
// (docs/methods.md H.9; Prasher et al. 2003).

#include "core/domain/material.h"
#include "core/physics/pad.h"

#include <array>
#include <optional>
#include <vector>

namespace ibuki {

/// Thicknesses pads are commonly sold in, mm, of which ready answers name these.
inline constexpr std::array namedPadThicknessesMm{0.5, 1.0, 1.5, 2.0, 3.0};

enum class GivesWay {
    asPaste, ///< bond line ∝ P^(−0.166), contacts as they are
    asPad,   ///< strain in proportion to pressure from a usual fifth on, to no more than four tenths
    notAtAll ///< soldered, or a thin sheet
};
GivesWay wayOf(MaterialClass kind);

inline constexpr double typicalPadStrain = 0.2;

/// R″ under so many times the force it was measured with, mm²·K/W. Bulk and contacts in the shares that are
/// usual for the class.
double pressedMm2KPerW(MaterialClass kind, double mm2KPerW, double forceShare);

/// A pad in a gap, or pressed by a fifth where no gap is stated.
struct PadChoice {
    double thicknessMm = 0;
    double strain = 0;
    double mm2KPerW = 0; ///< of the pad alone; meaningless where it does not touch
    PadFit fit = PadFit::good;
};
/// pad: contacts and modulus as stated, else usual for its class, its conductivity as is usual (a label's is
/// no part of it); another class or nullptr: a usual gap pad.
std::vector<PadChoice> padChoices(const Material* pad, std::optional<double> gapMm);

} // namespace ibuki
