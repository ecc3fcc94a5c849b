// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// What is planned: steps, mounts, what would help, what a study or a bench begins with; what is asked at
// import.
std::span<const Entry> plans() {
    static constexpr Entry entries[] = {
        one("bench-layers.bare die", "die, the interface under study, cold plate, cooler"),
        one("bench-layers.graphics card", "die, memory and power stages under one cooler"),
        one("bench-layers.heater block", "a metered copper block in place of the chip"),
        one("bench-layers.laptop", "bare die, spreader plate and heat pipe, fan at the edge"),
        one("bench-layers.lidded chip", "die, solder, lid, the interface under study, cold plate, cooler"),
        one("held-constant.before-and-after",
            "Nothing but the interface changes: fan dust, pads and screws stay as they are."),
        one("held-constant.bench-reference",
            "Consistency, clean-up and reuse count as much as the last kelvin."),
        one("held-constant.step-by-step", "One change at a time; each step is credited with its own gain."),
        one("held-constant.under-the-lid",
            "The upper layer is the same material before and after; only the layer under the lid changes."),
        one("help-why.bare-die",
            "the same heat crosses the die's face alone; only for people who accept losing the chip"),
        one("help-why.fan", "an automatic fan hides about a sixth of a difference"),
        one("help-why.power", "the gap between two materials and the scatter of the application grow with "
                              "power, the scatter of room and sensors does not"),
        one("help-why.room", "they add {part:.2f} K of the {all:.2f} K between mounts"),
        one("help.bare-die", "Compare on the bare die: {times:.1f} times the heat flux"),
        one("help.fan", "Fix the fan"),
        one("help.power", "Load it with {more:.0f} W instead of {power:.0f} W"),
        one("help.room", "Halve what room and sensors add: a steadier room, a probe at the intake"),
        one("import-doubt.known", "The same log is in the project already"),
        one("import-doubt.no-level", "No level is named in the file name"),
        one("import-doubt.no-load", "No load was found in it"),
        one("import-doubt.planned", "Taken from the plan: what comes next"),
        one("import-doubt.second", "Which second level?"),
        one("import-doubt.second-planned", "Second level taken from the plan"),
        one("mount-title", "Mount"),
        one("mount-title.baseline", "Baseline"),
        one("mount-title.check", "Check mount"),
        one("mount-title.check-of", "Check mount of {material}"),
        one("plan-short", "{level}: only {mounts} of {of} mounts, there is no more of it"),
        one("response", "{metric} over {reference}"),
        one("response.nominal", "{metric} over {reference}, at nominal power"),
        one("response.per-watt", "{metric} over {reference}, per watt"),
        one("step-by-hand", "{step}, by hand"),
        one("step-lasts", "{minutes:g} min"),
        one("step-lasts.above-idle", "{minutes:g} min, until within {limit:g} K of idle"),
        one("step-lasts.chip-slope", "{minutes:g} min, until the chip moves by less than {limit:g} K/min"),
        one("step-lasts.remaining", "{minutes:g} min, until less than {limit:g} K is left to rise"),
        one("step-lasts.room-slope", "{minutes:g} min, with the room moving by less than {limit:g} K/min"),
        one("step-name", "{step}"),
        one("step-name.load", "{step}, {load}"),
        one("study-purpose.before and after", "One machine as found, then with a new interface"),
        one("study-purpose.change one layer under the lid",
            "The hidden layer, with the upper one kept the same"),
        one("study-purpose.choose a bench reference",
            "Which material to keep for all later tests: steady, clean, used again"),
        one("study-purpose.does it age", "Whether weeks and months change anything"),
        one("study-purpose.does it break in", "Whether the first hours change anything"),
        one("study-purpose.how much is enough", "The smallest amount that is enough"),
        one("study-purpose.is the cheaper one as good",
            "Whether two materials are the same within the margin"),
        one("study-purpose.material by cooler", "Two factors: does the cooler change the order"),
        one("study-purpose.old tube against new", "An old tube against a new one"),
        one("study-purpose.original or look-alike", "Two suppliers of what should be one material"),
        one("study-purpose.own", "An empty question to fill in"),
        one("study-purpose.rank materials", "Several materials at one site, best to worst"),
        one("study-purpose.step by step", "A chain of changes, each credited with its own gain"),
        one("study-purpose.which pattern", "Dot, line, cross, five dots or a film"),
        one("study-purpose.which torque", "How tight the screws have to be"),
    };
    return entries;
}

} // namespace ibuki::words
