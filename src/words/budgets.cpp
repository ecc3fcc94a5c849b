// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// The lines of an uncertainty budget: source, what was stated, why it cancels between mounts or does not.
std::span<const Entry> budgets() {
    static constexpr Entry entries[] = {
        one("budget-stated.asymptote", "interval of the asymptote"),
        one("budget-stated.limits", "± {value:g} K"),
        one("budget-stated.mount", "{sd:.3f} K between mounts, this is one"),
        one("budget-stated.mounts", "{sd:.3f} K between mounts, {mounts} of them"),
        one("budget-stated.samples", "from its samples, their correlation counted"),
        one("budget-stated.share", "± {value:g} %"),
        one("budget-stated.step", "{value:g} K step"),
        one("budget-stated.u", "u = {value:g} K"),
        one("budget-stated.u-seconds", "u = {value:.1f} s"),
        one("budget-why.chip-offset", "the same sensor in the same range reads every mount"),
        one("budget-why.chip-steps",
            "noise carries the reading across steps; a still one keeps its rounding"),
        one("budget-why.power-scale", "to first order: it scales the difference only"),
        one("budget-why.probe-clock", "every pair of logs is matched anew"),
        one("budget-why.re-mounting", "every mount is applied anew"),
        one("budget-why.room-by-hand", "every reading has its own"),
        one("budget-why.room-gradient", "the constant part cancels, what differs between evenings does not"),
        one("budget-why.room-offset", "the same probe at the same place"),
        one("budget-why.room-steps", "the room moves across steps during a run"),
        one("budget-why.run-noise", "every run has its own; with several mounts it is inside their scatter"),
        one("budget-why.tail", "every run stopped early has its own"),
        one("budget.chip-offset", "chip sensor, offset"),
        one("budget.chip-steps", "chip sensor, steps"),
        one("budget.power-scale", "power meter, scale"),
        one("budget.probe-clock", "clock of the room probe"),
        one("budget.re-mounting", "re-mounting"),
        one("budget.room-by-hand", "room read by hand"),
        one("budget.room-gradient", "room differs from place to place"),
        one("budget.room-offset", "room probe, offset"),
        one("budget.room-steps", "room probe, steps"),
        one("budget.run-noise", "noise of this run"),
        one("budget.tail", "tail led on"),
        one("not-stated.chip-accuracy", "accuracy of the chip's sensor"),
        one("not-stated.chip-steps", "steps of the chip's sensor"),
        one("not-stated.power-accuracy", "accuracy of the power reading"),
        one("not-stated.room-accuracy", "accuracy of the room probe"),
        one("not-stated.room-gradient", "how much the room differs around the bench"),
        one("not-stated.room-steps", "steps of the room probe"),
    };
    return entries;
}

} // namespace ibuki::words
