// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// What may be said of mounts that were left alone.
std::span<const Entry> ageing() {
    static constexpr Entry entries[] = {
        one("time-span.few-hours", "{value:.2g} h"),
        one("time-span.hours", "{value:.0f} h"),
        one("time-span.days", "{value:.0f} days"),
        one("time-span.months", "{value:.0f} months"),
        one("time-span.cycles", "{value:.0f} cycles"),
        one("time-span.years", "{value:.1f} years"),

        many("drift-break-in.same",
             "{group} changes by less than {margin:g} K until {until}, so it needs no break-in: "
             "{change:+.2f} K "
             "(90 % interval {lo:+.2f} to {hi:+.2f}, {count} mount)",
             "{group} changes by less than {margin:g} K until {until}, so it needs no break-in: "
             "{change:+.2f} K "
             "(90 % interval {lo:+.2f} to {hi:+.2f}, {count} mounts)"),
        many("drift-break-in.same-measurable",
             "{group} changes by less than {margin:g} K until {until}, though measurably: {change:+.2f} K "
             "(90 % interval {lo:+.2f} to {hi:+.2f}, {count} mount)",
             "{group} changes by less than {margin:g} K until {until}, though measurably: {change:+.2f} K "
             "(90 % interval {lo:+.2f} to {hi:+.2f}, {count} mounts)"),
        one("drift-break-in.settles",
            "{group} settles after {time} ({from} to {to}): it changes by {change:+.2f} K until {until}"),
        one("drift-break-in.settles-about",
            "{group} settles after about {time}: it changes by {change:+.2f} K until {until}"),
        many("drift-break-in.changes",
             "{group} changes by {change:+.2f} K until {until} ({lo:+.2f} to {hi:+.2f}, {count} mount) and "
             "has not "
             "settled",
             "{group} changes by {change:+.2f} K until {until} ({lo:+.2f} to {hi:+.2f}, {count} mounts) and "
             "has "
             "not settled"),
        many("drift-break-in.not-resolved",
             "Whether {group} changes by {margin:g} K until {until} is not resolved: {change:+.2f} K (90 % "
             "interval "
             "{lo:+.2f} to {hi:+.2f}, {count} mount)",
             "Whether {group} changes by {margin:g} K until {until} is not resolved: {change:+.2f} K (90 % "
             "interval "
             "{lo:+.2f} to {hi:+.2f}, {count} mounts)"),
        one("drift-needs.mounts", "{count} mounts in all would show that it does not, with a chance of 0.9"),
        one("drift-needs.scatter",
            "Its mounts change too unlike each other: more of them would not settle it"),
        one("drift-wait", "Compare {group} with others from {time} on, or all of them at the same age"),

        one("drift-wait.cycles",
            "Let {group} go through {cycles:.0f} cycles above its melt before it is compared with others"),
        one("drift-conditioning.never", "{group} never reached its melt: the joint was at most {hottest:.0f} "
                                        "°C, it melts at {melts:.0f} °C"),
        one("drift-conditioning.cycles",
            "{group} is within {within:g} K of its end after {cycles:.1f} cycles above its melt ({lo:.1f} to "
            "{hi:.1f})"),
        one("drift-conditioning.about",
            "{group} is within {within:g} K of its end after about {cycles:.1f} cycles above its melt"),
        one("drift-conditioning.open",
            "{group} melted; how many cycles it needs is not told yet: check it after further ones"),
        one("drift-joint-assumed",
            "The joint is taken to be as hot as the chip: its true temperature is lower"),

        one("drift-wear.none",
            "{group} shows no change until {until} (p = {p:.2f}); at most {lo:+.2f} to {hi:+.2f} K would be "
            "hidden"),
        one("drift-wear.falls",
            "{group} gets better: {change:+.2f} K until {until} ({lo:+.2f} to {hi:+.2f})"),
        one("drift-wear.rises", "{group} wears: {change:+.2f} K until {until} ({lo:+.2f} to {hi:+.2f})"),
        one("drift-reaches.within", "It rose by {threshold:g} K after {time} ({from} to {to})"),
        one("drift-reaches.extrapolated", "It will have risen by {threshold:g} K after {time} ({from} to "
                                          "{to}), which lies behind the last reading"),
        one("drift-reaches.not-before",
            "{threshold:g} K are not reached before {from}; when they are lies too far behind the readings"),
        one("drift-reaches.not-told", "When {threshold:g} K are reached cannot be told from these readings"),
        one("drift-drawn-anew", "Drawn again and again from its mounts, it is reached after {from} to {to}"),
        one("drift-models.spread", "Models that fit about as well tell {from} to {to}"),
        one("drift-models.or-never", "Models that fit about as well tell {from}, or never"),
        one("drift-goes-with.cycles", "It goes with cycles more than with hours: as being pumped out does"),
        one("drift-goes-with.hours", "It goes with hours more than with cycles: as drying out does"),
        one("drift-goes-with.load", "It goes with the hours under load: as drying out by heat does"),
        one("drift-goes-with.not-told",
            "Whether it goes with cycles or with hours cannot be told: they grew together"),
        one("drift-taken-out.room", "What follows the room's seasons is taken out"),
        one("drift-taken-out.fan", "What follows the fan's speed is taken out"),
        one("drift-not-followed", "{group}: no mount was measured twice"),
        many("drift-too-few", "{group}: {count} reading does not tell a course",
             "{group}: {count} readings do not tell a course"),

        one("follow-due.later", "on {day}"),
        many("follow-due.soon", "in {count} day, on {day}", "in {count} days, on {day}"),
        one("follow-due.due", "due; the answer is lost after {last}"),
        one("follow-due.due-before-mount", "due; the next mount on {last} ends it"),
        one("follow-due.overdue", "overdue since {day}; the answer is lost after {last}"),
        one("follow-due.overdue-before-mount", "overdue since {day}; the next mount on {last} ends it"),
        one("follow-due.lost", "lost: it was due on {day}, until {last}"),

        one("shelf-age.hotter",
            "{lot} ({age} old) ran {difference:.1f} K hotter than {new} ({lo:.1f} to {hi:.1f})"),
        one("shelf-age.cooler",
            "{lot} ({age} old) ran {difference:.1f} K cooler than {new} ({lo:.1f} to {hi:.1f})"),
        one("shelf-age.hotter-about",
            "{lot} ({age} old) ran {difference:.1f} K hotter than {new}: one mount of a tube, no interval"),
        one("shelf-age.cooler-about",
            "{lot} ({age} old) ran {difference:.1f} K cooler than {new}: one mount of a tube, no interval"),
        one("shelf-age.less-clock", "Your limit was reached: {percent:.1f} % less clock with {lot} ({age} "
                                    "old) than with {new} ({lo:.1f} to {hi:.1f})"),
        one("shelf-age.more-clock", "Your limit was reached: {percent:.1f} % more clock with {lot} ({age} "
                                    "old) than with {new} ({lo:.1f} to {hi:.1f})"),
        one("shelf-age.less-clock-about",
            "Your limit was reached: {percent:.1f} % less clock with {lot} ({age} old) than with {new}"),
        one("shelf-age.more-clock-about",
            "Your limit was reached: {percent:.1f} % more clock with {lot} ({age} old) than with {new}"),
        one("shelf-age.less-power",
            "Your limit was reached: {percent:.1f} % less power with {lot} ({age} old) than with {new}"),
        one("shelf-age.more-power",
            "Your limit was reached: {percent:.1f} % more power with {lot} ({age} old) than with {new}"),
        one("shelf-age.slope",
            "{slope:+.2f} K for each year on the shelf ({lo:+.2f} to {hi:+.2f}), tubes as the unit"),
        one("shelf-age.few", "{slope:+.2f} K for each year on the shelf, from too few tubes for an interval: "
                             "three of a material, or "
                             "several pairs, would tell"),
        one("shelf-age.none", "No material of this question was mounted from two tubes of stated ages"),

        many("outcome-share", "{material}, {what}: {happened} of {count} mount ({lo:.0f} to {hi:.0f} %)",
             "{material}, {what}: {happened} of {count} mounts ({lo:.0f} to {hi:.0f} %)"),
        one("outcome-median", "{material}: half of its mounts had it by {cycles:.0f} cycles"),
        one("outcome-coldest", "{material} survived {coldest:.0f} °C"),
        one("outcome-pair.sooner", "It happens after fewer cycles to {first} than to {second} (half of the "
                                   "mounts at {sooner:.0f} and "
                                   "{later:.0f} cycles; log-rank test, p = {p:.2g})"),
        one("outcome-pair.differ", "It happens to {first} more often than to {second} (p = {p:.2g})"),
        one("outcome-pair.none-told", "No two materials are told apart by how often it happens"),

        many("due-season.winter", "{count} machine in winter {year}: {names}",
             "{count} machines in winter {year}: {names}"),
        many("due-season.spring", "{count} machine in spring {year}: {names}",
             "{count} machines in spring {year}: {names}"),
        many("due-season.summer", "{count} machine in summer {year}: {names}",
             "{count} machines in summer {year}: {names}"),
        many("due-season.autumn", "{count} machine in autumn {year}: {names}",
             "{count} machines in autumn {year}: {names}"),
        many("due-season.overdue", "{count} machine is overdue: {names}",
             "{count} machines are overdue: {names}"),
        one("ten-years.sheet-less", "Over ten years {sheet} costs less than {paste}: {less} against {more}, "
                                    "each application counted"),
        one("ten-years.paste-less", "Over ten years {paste} costs less than {sheet}: {less} against {more}, "
                                    "each application counted"),
        one("due-not-told.undated", "When it was mounted is not stated"),

        one("drift-bench.taken-out", "The bench's own drift is taken out: {change:+.2f} K over {time} "
                                     "({lo:+.2f} to {hi:+.2f}, {count} check "
                                     "mounts)"),
        one("drift-bench.none", "The bench's own drift is not told apart from none: {change:+.2f} K over "
                                "{time} ({lo:+.2f} to {hi:+.2f}, "
                                "{count} check mounts)"),
        one("drift-bench.unknown",
            "How the bench itself drifts is not known: three check mounts of other days would tell"),
        one("drift-as.per-watt", "Followed as K/W, told at {power:.0f} W"),
        one("drift-as.kelvin", "Followed in kelvin over the room, since the power is not known of every run"),
        one("drift-as.fleet", "Mounts of all benches, by material, each under its own bench's load: its own "
                              "drift is not taken out"),
        one("drift-left.excluded", "{mount}, {run}: rejected"),
        one("drift-left.opened",
            "{mount}, {run}: measured after the mount was opened, so it is no check of it"),
        one("drift-left.before", "{mount}, {run}: measured before the mount was made: see the dates of both"),
        one("drift-left.undated", "{mount}, {run}: neither its time nor its age is stated"),
        one("drift-left.bound", "{mount}, {run}: at the temperature limit, and without a power"),
        one("drift-left.no-figure", "{mount}, {run}: it has no figure"),
        many("drift-left-excluded", "{count} rejected run is not followed",
             "{count} rejected runs are not followed"),
    };
    return entries;
}

} // namespace ibuki::words
