// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace ibuki {

/// Power that grows with the chip: P = P_load + atReferenceW e^{perK (T − referenceC)} (docs/methods.md F.4).
struct Leakage {
    double atReferenceW = 0;
    double referenceC = 60;
    double perK = 0.02;
};

} // namespace ibuki
