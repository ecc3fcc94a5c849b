// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// What can hurt or spoil: reason, and as what mends it the advice. Questions that settle a missing fact.
std::span<const Entry> cautions() {
    static constexpr Entry entries[] = {
        one("asks.chip.lid", "Has the chip a lid?"),
        one("asks.bench.hottest", "How hot does the bench run?"),
        one("asks.bench.pulledBefore", "Did a cooler of this bench ever pull the chip out?"),
        one("asks.fan.turns", "Has the cooler a fan?"),
        one("asks.melts.plus5", "At what temperature does the material melt?"),
        one("asks.site.kind", "Which layer is it?"),
        one("asks.chip.pins", "Does the chip stand on pins?"),
        one("asks.face.lower", "Which metal is the face towards the chip?"),
        one("asks.face.upper", "Which metal is the face towards the cooler?"),
        one("asks.near.aluminium", "Is any aluminium within reach of a squeezed-out drop?"),
        one("asks.near.contacts", "Are there capacitors or open contacts beside it?"),
        one("asks.pad.loadShare", "With what force do the screws hold the cooler?"),
        one("asks.pad.strain", "How wide is the gap, and how thick the pad?"),
        one("asks.piece.overhangs", "How large are the face and the piece?"),
        one("asks.piece.small", "How large are the face and the piece?"),
        one("caution-preamble",
            "General guidance. Manufacturers' instructions, safety sheets and local rules take precedence."),
        wrong("caution.BARE-DIE", "A bare die is as brittle as glass: uneven screws crack its corners.",
              "Tighten crosswise in two or three passes, without tilt, below its maker's load."),
        wrong("caution.BLADES", "Scissors and blades cut more than pads.",
              "Cut away from your hand on a mat, change a blunt blade, cover it when you put it down, and "
              "keep it away from children."),
        wrong("caution.COND-CONTACTS",
              "The material conducts: what is squeezed out can short capacitors or open contacts. Carbon "
              "conducts enough for that.",
              "Insulate or mask them first, or use an insulating paste."),
        wrong("caution.DISPOSAL", "Pastes, metals and wipes are not household waste everywhere.",
              "Keep away from eyes, skin and children; dispose of by the safety sheet and local rules."),
        wrong("caution.FANS", "Fans and pumps catch fingers, cables and hair.",
              "Switch off before you reach in."),
        wrong("caution.FILM-AGAIN", "A film that was parted has to wet the faces anew.",
              "Count its conditioning cycles from zero."),
        wrong("caution.GA-AL",
              "Gallium creeps along the grain boundaries of aluminium, through its oxide; the part can lose "
              "its strength and crumble.",
              "Never together. Use a copper or nickel-plated cooler, or another class of material; look for "
              "scratches through the plating."),
        wrong("caution.GA-CU",
              "Gallium forms an alloy with bare copper: a lasting silvery stain, and the film thins over "
              "weeks.",
              "Expect a second application, or prefer a nickel-plated face. The stain is no defect."),
        wrong("caution.GA-NI", "Gallium reacts slowly with nickel and is usually stable on it.",
              "Look at it once a year."),
        wrong("caution.GA-SPILL", "A conductive droplet can run onto open contacts and short them.",
              "A thin film only; insulate and fence the parts beside it; try it lying flat first."),
        wrong("caution.HOT-PARTS", "Metal above about 43 °C burns skin that stays on it (ISO 13732-1).",
              "Let it cool before you touch it."),
        wrong("caution.LID-REMOVAL",
              "Taking a lid off means blades, and a die or its capacitors can be sheared or cracked.",
              "Only if you accept losing the chip: a supported fixture, cut-proof gloves, eye protection. "
              "Never force a lid that is soldered to the die."),
        wrong("caution.LOT-DRY", "A dry or cracked lot spreads and wets badly.",
              "Use a fresh lot, or test it as its own."),
        wrong("caution.LOT-EXPIRED", "The lot is past its date.",
              "Compare it with a fresh lot before you trust it."),
        wrong("caution.LOT-SEPARATED", "Oil has separated: the first of the tube is thinner than the rest.",
              "Stir or discard the first of it as its maker says; note it with the lot."),
        wrong("caution.LOT-SHORT", "Less is left than this site needs.",
              "Open another lot or plan a smaller amount."),
        wrong("caution.MAINS", "Capacitors stay charged, and power supplies carry mains voltage.",
              "Switch off, unplug, hold the power button, wait, touch ground. Never open a power supply; "
              "leave electrical work to licensed people."),
        wrong("caution.MELTS-LATE", "The film never melts on this bench and never wets the faces.",
              "Raise the load until it melts and hold it ten minutes, or choose another material."),
        wrong("caution.PAD-SMALL", "The piece is smaller than the face: a bare edge stays hotter.",
              "Cut it to the face's size."),
        wrong("caution.PAD-STACK", "Stacked pads slip and add an interface.",
              "Use one pad of the right thickness."),
        wrong("caution.PAD-THICK",
              "The pad is pressed too far: it can lift the cooler off the die and bend the board.",
              "Use a thinner or softer pad and look at the die's imprint."),
        wrong("caution.PAD-THIN", "The pad hardly touches, or not at all: what it should cool overheats.",
              "Use a thicker pad and look at its imprint."),
        wrong("caution.RESIDUE", "A new material over the rest of another is no fair comparison.",
              "Clean both faces until the wipe stays clean."),
        wrong("caution.SHEET-AGAIN",
              "A sheet takes a set under its first load and touches less well the next time.",
              "Record it as used again, with its load."),
        wrong("caution.SHEET-OVERHANG",
              "A carbon sheet larger than the face has conductive edges and sheds flakes.",
              "Trim it to the face, with no overhang; never lay a creased one again."),
        wrong("caution.SOLVENT", "Cleaners are flammable and attack some plastics.",
              "Power off, air the room, no flame or hot surface, gloves; let all dry before power."),
        wrong("caution.PULLED-BEFORE", "On this bench a cooler has pulled the chip out before.",
              "Warm the joint under load, shut down, unplug, twist before you lift, and hold the chip's "
              "frame down while the cooler comes off."),
        wrong("caution.STUCK-PINS", "A stuck cooler can pull the chip out of its socket and bend the pins.",
              "Run it warm, shut down, unplug, open the clamp; twist gently to and fro until it slides, then "
              "lift. Never pry or pull straight."),
        wrong("caution.TOO-HOT",
              "The bench runs hotter than the material is made for; it can dry out or decompose.",
              "Stay below its limit or choose another material."),
        wrong("caution.WARRANTY", "Taking a cooler or a lid off may end a warranty; rules differ by country.",
              "Ask the maker first."),
    };
    return entries;
}

} // namespace ibuki::words
