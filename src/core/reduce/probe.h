// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A room log with a clock of its own beside a chip log. The room's ups and downs come back in the chip's
// temperature, late and smoothed by the cooler; where both saw them, the shift between the clocks follows,
// as far as it can be told from the cooler's lag and the probe's (docs/methods.md, "Room probe").

#include "core/reduce/phases.h"

namespace ibuki {

struct ProbeFit {
    bool found = false; ///< false: the room was too calm or too unlike to tell; shift 0 then
    double shiftS = 0;  ///< to be added to the probe's clock
    double uncertaintyS =
        0; ///< standard, over all cooler lags and shifts that explain the chip about as well
    bool operator==(const ProbeFit&) const = default;
};

/// Both traces' stamps count from their own start; dates, where both have them, say how far apart they began.
/// Looks for shifts up to `reachS` to either side of what the clocks say, the probe's moved by `zoneS`
/// before; shiftS is the whole shift.
ProbeFit alignProbe(const Trace& log, const Trace& probe, double zoneS = 0, double reachS = 900,
                    const PhaseSettings& phases = {});

/// Clocks of a bench and its probe differ by no more, whatever zones they keep.
inline constexpr int mostZoneHours = 14;

/// Share of the log's samples within two minutes of what the probe saw, its clock moved by shiftS.
double probeCover(const Trace& log, const Trace& probe, double shiftS);

/// The log with the probe's ambient channels (else its temperatures) laid on its samples by linear
/// interpolation, held at most two minutes beyond the probe's ends; the log's own ambient channels are then
/// ignored. A probe that saw less than half of the log (or nothing) leaves the channels as they are.
Trace withProbe(Trace log, const Trace& probe, const ProbeAlignment& alignment);

/// The alignment that is used: by hand where a shift is stated, else as found. A probe that saw less than
/// four fifths of the log, or whose room cannot be matched to the chip, is tried at whole and half hours as
/// well: of those at which it saw the log and the chip was not colder than the room, one at which both match,
/// else the nearest.
ProbeAlignment alignmentFor(const Trace& log, const Trace& probe, std::optional<double> statedShiftS);

} // namespace ibuki
