// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// What a figure is: its name, and one sentence. Formula and source follow from docs/methods.md.
std::span<const Entry> topics() {
    static constexpr Entry entries[] = {
        one("topic-bursts", "Short bursts or one long load"),
        one("topic-bursts.what", "What the chip reaches when the load comes in bursts, on the same path with "
                                 "what its layers and its "
                                 "cooler store."),
        one("topic-cautions", "Cautions"),
        one("topic-cautions.what",
            "What could hurt somebody or ruin a part with this material in this place, by rules that "
            "say what they rest on; a fact that is missing is asked for."),
        one("topic-chance", "The chance, and how many mounts"),
        one("topic-chance.what",
            "How likely so many mounts of each would settle a true difference of the margin, at the "
            "scatter that finished studies, you, or the class of material give."),
        one("topic-check-up", "The check-up"),
        one("topic-check-up.what", "What the bench's own readings are worth: noise, step and offset of each "
                                   "sensor, how slow its slowest "
                                   "part is, how far the room differs."),
        one("topic-cutting", "The cutting plan"),
        one("topic-cutting.what",
            "The pieces of a pad or film laid on sheets and off-cuts so that least is wasted."),
        one("topic-delta", "The steady difference"),
        one("topic-delta.what",
            "How much hotter the chip stayed than the room once nothing rose any more, sample by sample, "
            "with how far that figure can be trusted."),
        one("topic-drift", "What time does"),
        one("topic-drift.what", "How mounts that were left alone change: against hours, hours under load or "
                                "cycles, with the time at which "
                                "a rise makes it worth to make the joint anew."),
        one("topic-dose", "Dose and spread"),
        one("topic-dose.what",
            "How much fills the face at the thickness it is pressed to, and where a pattern would spread."),
        one("topic-elsewhere", "A result read elsewhere"),
        one("topic-elsewhere.what",
            "What others found of two materials, held against this bench: what the difference of the benches "
            "explains, what the scatter of mounts explains, what is left."),
        one("topic-peel", "A look at the joint"),
        one("topic-peel.what", "How much of a face was covered when the cooler came off, measured in its "
                               "photograph; where it was bare, "
                               "and what that should cost."),
        one("topic-evenings", "Evenings"),
        one("topic-evenings.what",
            "The mounts laid into your evenings: hands stay inside one, what runs by itself may go on "
            "while nobody is there."),
        one("topic-expected-curve", "The expected curve"),
        one("topic-expected-curve.what",
            "What this bench's temperature over the room should do under the protocol, from its "
            "resistance and its slowest part."),
        one("topic-gap", "Pads and gaps"),
        one("topic-gap.what",
            "How far a pad is squeezed, with what force, and what force that leaves for the die."),
        one("topic-gate", "The gate"),
        one("topic-gate.what", "What must hold before a step counts as done, judged from what is read, and "
                               "when that should be."),
        one("topic-heat-path", "The heat path"),
        one("topic-heat-path.what",
            "The layers that the heat crosses from chip to room, with the temperatures that were "
            "measured at its ends."),
        one("topic-load-steps", "Load steps"),
        one("topic-load-steps.what", "How fast the chip warms after its power stepped, for each watt: mounts "
                                     "part when the heat reaches "
                                     "what differs, and are read at one time that was declared beforehand."),
        one("topic-two-factors", "Both factors"),
        one("topic-two-factors.what", "Means of one factor along the other: lines that run alike mean that "
                                      "the one does not change what the "
                                      "other does."),
        one("topic-sweep", "Over power"),
        one("topic-sweep.what", "Each level's difference over the power that made it: a steeper line is a "
                                "worse joint, and lines that "
                                "cross change places."),
        one("topic-responses", "Responses"),
        one("topic-responses.what",
            "Power, clock, fan and what was read beside them, compared by the same mounts: where "
            "a chip is held at its limit, or a fan follows it, they tell what temperature "
            "does not."),
        one("topic-value", "Value"),
        one("topic-value.what",
            "Temperature against price, ease, lifetime and safety: what is best depends on what it "
            "is for."),
        one("topic-bench-health", "Check mounts"),
        one("topic-bench-health.what", "The same material mounted again and again tells whether the bench is "
                                       "still the one that it was."),
        one("topic-ladder", "The ladder"),
        one("topic-ladder.what",
            "Every material's mean over its mounts with the interval that holds for all of them at once; "
            "what is bracketed was not told apart."),
        one("topic-limit", "The temperature limit"),
        one("topic-limit.what",
            "Where the chip sat at its limit it slowed down: the difference is a lower bound then."),
        one("topic-looks", "Looks at the verdict"),
        one("topic-looks.what",
            "Seeing the verdict while mounts are to come, and going on because of it, finds differences "
            "that are not there; looks that were planned share the error."),
        one("topic-metric", "What it is judged by"),
        one("topic-metric.what",
            "Which of the temperatures counts, and how it is averaged over cores and time."),
        one("topic-order-cost", "What an order costs"),
        one("topic-order-cost.what",
            "How a bench that drifts from mount to mount would look like a difference between levels."),
        one("topic-probe", "The room probe"),
        one("topic-probe.what",
            "Where a probe's clock or its lag differs from the log's, and what was done about it."),
        one("topic-rules", "Rules of a reduction"),
        one("topic-rules.what",
            "By which thresholds a load is found and called steady; every log of the study follows them."),
        one("topic-shelf", "What is left, and what it costs"),
        one("topic-shelf.what",
            "What a tube or sheet still holds after its mounts, and the price of one application."),
        one("topic-tape", "The tape"),
        one("topic-tape.what",
            "Mounts of this bench in the order in which they were made, each with its steady difference."),
        one("topic-trace", "Load and window"),
        one("topic-trace.what",
            "Where the load begins and ends, and the stretch inside it in which nothing rises any more."),
        one("topic-watch", "The watch"),
        one("topic-watch.what", "What would spoil the run: limits, room, fan, power, sensors, and a rise "
                                "unlike that of the mounts "
                                "before."),
        one("topic-typical", "Typical values"),
        one("topic-typical.what",
            "What is usual for a class of material, in the place of what nobody stated."),
        one("topic-uncertainty", "Uncertainty"),
        one("topic-uncertainty.what",
            "What each part adds to the doubt of a figure, and which of them cancel between mounts."),
        one("topic-verdict", "The verdict"),
        one("topic-verdict.what",
            "What these mounts settle, what they leave open, and what would settle it."),
    };
    return entries;
}

} // namespace ibuki::words
