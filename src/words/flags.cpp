// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/catalogue.h"

namespace ibuki::words {

// Doubt about data.
std::span<const Entry> flags() {
    static constexpr Entry entries[] = {
        one("ambient-drift", "The room moved by {moved:.1f} K over the steady window"),
        one("ambient-drift.slope", "The room changed by {slope:.1f} K per hour over the steady window"),
        one("ambient-missing", "No room temperature: neither a column nor an entered value"),
        one("already-there", "It is in the project already; nothing was written for it"),
        one("column-ignored", "The column \"{column}\" has no meaning here and was left out"),
        one("loads-unlike", "Runs of one mount under one load differ by more than 5 % in power: they may be "
                            "of different loads"),
        one("loads-unlike.compared", "Runs under the compared load differ by more than 5 % in power inside "
                                     "{mounts}: their mean may be of several loads"),
        many("no-log.compared", "{count} run is figures without a log: whether it was steady is not known",
             "{count} runs are figures without a log: whether they were steady is not known"),
        one("no-log", "Figures without a log: whether they were steady is not known"),
        one("room-ignored", "The log has a room temperature of its own; the stated one was not used"),
        one("taken-as-check",
            "It began more than 12 h after a run of the same mount and load: taken as a later look"),
        many("clock-jump", "The logger's clock was set {count} time and put right",
             "The logger's clock was set {count} times and put right"),
        one("bad-rows", "{count} lines of {source} made no sense and were left out"),
        one("corners-not-found", "The face's corners were not found: drag them there"),
        one("low-contrast", "Film and face look much alike: see whether the mask is right"),
        one("glare", "Glare hides a part of the face: it was filled in from around it"),
        one("blurred", "The picture is blurred: edges of the film are uncertain"),
        one("out-of-frame", "A part of the face lies outside of the picture"),
        one("channel-back", "{column} reads again"),
        one("channel-lost", "{column} has read nothing for {seconds:.0f} s"),
        one("disk-full.recording", "The disk is full: rows wait in memory until there is room"),
        one("disk-room", "There is room again: the recording goes on"),
        one("load-not-seen", "The load was not seen: neither power nor temperature rose ({load})"),
        one("start-load", "Start the load now: {load}"),
        one("blocks-unknown", "Differences by {what} were not taken out: it is not stated of every mount"),
        one("blocks-taken-out", "Differences by {what} are taken out"),
        one("covariate-unknown", "A line over {what} was not taken out: it is not known of every run"),
        one("covariate-taken-out.power",
            "A line over the power is taken out: {slope:+.3g} for each watt ({lo:+.3g} "
            "to {hi:+.3g})"),
        one("covariate-taken-out.room",
            "A line over the room is taken out: {slope:+.3g} for each degree of it "
            "({lo:+.3g} to {hi:+.3g})"),
        one("left-with-two-factors",
            "With two factors neither the order, nor a line, nor own spreads are taken "
            "into account"),
        one("order-taken-out",
            "A drift over the order of mounts is taken out: {slope:+.3g} a mount ({lo:+.3g} to "
            "{hi:+.3g})"),
        one("own-spread", "Every level has its own spread between mounts (Welch; Games and Howell)"),
        one("own-spread-left",
            "Levels are taken to scatter alike: own spreads do not go with what is taken out"),
        one("slopes-differ.power",
            "How far levels differ depends on the power: the differences hold at {at:.0f} W"),
        one("slopes-differ.room",
            "How far levels differ depends on the room: the differences hold at {at:.1f} °C"),
        one("declared-looks", "{looks} looks were declared: each is judged at {confidence:.1f} %, so that "
                              "all of them together keep {together:.0f} %, whichever of them is the last"),
        many("duplicate-samples", "{count} repeated row was dropped", "{count} repeated rows were dropped"),
        one("extrapolated", "Counts with where its tail leads, {asymptoteK:.2f} K ({lo:.2f} to {hi:.2f} K, "
                            "95 %), not with what was reached"),
        one("fan-varied", "The fan moved by {percent:.0f} % of its speed: the difference seen is smaller "
                          "than the true one"),
        many("gap-in-log", "{count} gap in the log", "{count} gaps in the log"),
        many("impossible-values", "{count} reading that cannot be was left out",
             "{count} readings that cannot be were left out"),
        one("interaction.none",
            "Levels differ alike at every level of the second factor, as far as can be told "
            "(interaction p {p:.2g}): they are compared averaged over it too"),
        one("interaction.found",
            "How far levels differ depends on the second factor (interaction p {p:.2g}): "
            "compare them at each of its levels"),
        one("interaction.turns",
            "The order turns over: {cool} ran cooler than {warm} at {here}, and hotter at "
            "{there}"),
        one("interaction-not-tested", "Levels are compared inside each level of the second factor; whether "
                                      "it changes their differences was not tested"),
        one("limit-bound",
            "The chip sat at its temperature limit: its difference over room is at least this"),
        one("limit-bound.groups", "At the temperature limit, without a mean, tests or tier: {bound}"),
        one("limit-inferred", "The limit was not given: {limitC:.1f} °C is told from the temperature that "
                              "stood there while the power was cut"),
        one("mount-missing", "No mount column: every row counts as a mount"),
        one("no-load-found", "No stretch of load was found in the log"),
        one("not-compared", "{level}: {reason}. {reason_mend}"),
        one("not-steady", "Still changing by {slopeKPerH:.1f} K per hour when the load ended"),
        many("of-runs", "{flag} ({count} run)", "{flag} ({count} runs)"),
        many("other-loads", "Compared are the runs under \"{load}\"; {count} under other loads is left out",
             "Compared are the runs under \"{load}\"; {count} under other loads are left out"),
        one("power-drift", "Power moved by {percent:.1f} % during the load"),
        one("power-drift.with-chip", "Power moved by {percent:.1f} % during the load, {wattPerKelvin:.2f} W "
                                     "for each K of the chip: a warmer mount draws more"),
        one("probe-apart",
            "The room probe saw {percent:.0f} % of this log, and no whole hour between the clocks "
            "makes it more: state its shift if its clock was set otherwise"),
        one("probe-hour",
            "The room probe's clock was moved by {hours:+g} h: as they stand the two logs do not "
            "fit (summer time, another zone)"),
        one("probe-lag-corrected", "The room probe's lag of {probeLagS:.0f} s was taken out"),
        one("probe-shift-assumed",
            "The clocks of log and room probe could not be matched from the data: taken as they stand"),
        one("runs-weighted",
            "Mounts have unequal numbers of runs: each counts by how well it is known (REML)"),
        one("scatter-assumed",
            "Provisional, from one mount each: mounts are taken to scatter by {sd:.3g}, {source}"),
        one("scatter-assumed.in-unit",
            "Provisional, from one mount each: mounts are taken to scatter by {sd:.3g} {unit}, {source}"),
        one("scatter-moderated", "Mounts of this study scatter by {data:.3g}, those of earlier studies by "
                                 "{prior:.3g}: both count, by how "
                                 "well they are known"),
        one("scatter-moderated.alone",
            "The scatter between mounts is that of earlier studies, {prior:.3g}: this study tells none yet"),
        one("scatter-conflict", "Mounts of this study scatter by {data:.3g}, those of earlier studies by "
                                "{prior:.3g}: they disagree, and "
                                "only this study's count"),
        one("plain-means", "Mounts have unequal numbers of runs: each counts by its plain mean"),
        many("incomplete-mounts",
             "{count} mount lacks a load and is left out of the means over loads and of their test",
             "{count} mounts lack a load and are left out of the means over loads and of their test"),
        one("confounded", "Measured in blocks of their own, so that they cannot be told from the blocks: "
                          "{pairs}"),
        one("set-by-hand", "Borders of the load or of its window were set by hand"),
        one("short-window", "The load is shorter than {windowMinS:.0f} s"),
        one("limit-bound.fitted",
            "At the temperature limit in some mounts, judged by maximum likelihood, without a "
            "tier: {fitted}"),
        many("limit-bound.sweep", "{count} run at its temperature limit tells no line and is left out",
             "{count} runs at their temperature limit tell no line and are left out"),
        one("limit-bound.ageing",
            "Runs at their temperature limit are left out: there the power changes, not the temperature"),
        many("drift-few",
             "{count} reading does not tell a course: five of a mount do, or some of several mounts",
             "{count} readings do not tell a course: five of a mount do, or some of several mounts"),
        one("drift-two-times",
            "Two times tell a change, not its course: every model says the same of what was measured"),
        one("drift-one-mount", "One mount: what is told holds for it, not for the material"),
        one("drift-read-once",
            "No mount was read twice: differences between mounts cannot be told from change"),
        one("drift-mounts-unlike", "Mounts change unlike each other: intervals are those of mounts"),
        one("drift-two-mounts-unlike", "Two mounts change unlike each other: intervals are those of their "
                                       "readings, a third mount is needed"),
        one("drift-follow", "Neighbouring readings are alike in what the course leaves over"),
        one("drift-tau-thin",
            "Fewer than two times before the time constant, or after three of it: the course is thinly told"),
        one("drift-order", "Rows of {mount} go back in time: they were put in order"),
        one("sweep-few", "{group} was measured at too few settings for a curve"),
        many("sweep-left-out", "{count} mount of {group} was measured at one setting only and is left out",
             "{count} mounts of {group} were measured at one setting only and are left out"),
        one("sweep-no-df", "No group was swept in two mounts: lines without intervals"),
        one("single-mount", "From a single mount: {single}"),
        one("stuck-sensor", "\"{column}\" never moves and is left out"),
        one("tiers-left-out",
            "Who is told apart from whom makes more tiers than letters could name; the pairs tell it"),
        one("two-changes", "The layer above the lid was not the same ({names}): two things changed at once"),
        one("unit-assumed", "No unit in the header \"{column}\": taken as the usual one"),
        one("unplanned-look", "Mounts were added after the verdict had been seen, and that look was not "
                              "planned: the true confidence is lower than stated"),
        one("watch-ended", "No longer: {flag}"),
        one("watch-fan", "The fan turns at {rpm:.0f} rpm instead of {usual:.0f} though it is fixed"),
        one("watch-limit-bound", "The chip takes power away at its limit: the difference will be too small"),
        one("watch-offsets", "A core stands {kelvin:+.1f} K otherwise to the others than it used to at rest"),
        one("watch-over", "{celsius:.1f} °C, above {limit:.0f} °C: the load is stopped"),
        one("watch-power", "{watt:.0f} W instead of {wanted:.0f} W"),
        one("watch-rises-above", "It rises {kelvin:.1f} K above every earlier mount of this level"),
        one("watch-rises-as",
            "It rises as {mount} did, which was rejected: {kelvin:.1f} K above those that were kept"),
        one("watch-room-band", "The room is {kelvin:+.1f} K from where it usually is, {usual:.1f} °C"),
        one("watch-room-drift", "The room changes by {kelvin:+.1f} K per hour"),
        many("watch-stuck", "{count} temperature stands still while the chip does not",
             "{count} temperatures stand still while the chip does not"),
    };
    return entries;
}

} // namespace ibuki::words
