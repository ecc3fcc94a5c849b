// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/ageing_lines.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/quantity/span.h"

#include <cmath>

namespace ibuki {
namespace {

const QString none = QStringLiteral("–");

QString fixed(double value, int digits) {
    return QString::number(value, 'f', digits).replace('-', QChar(0x2212));
}

QString dayOr(const std::optional<Instant>& at) { return at ? dayText(*at) : none; }

QString sourceText(DueFrom source) {
    switch (source) {
    case DueFrom::course:
        return say("measured");
    case DueFrom::stated:
        return say("as the material states");
    case DueFrom::bench:
        return say("usual of this bench");
    case DueFrom::typical:
        return say("usual of its class");
    }
    return {};
}

/// A clock with the part of it that is only stated.
QString withStated(double value, double stated, int digits) {
    if (stated <= 0) return fixed(value, digits);
    return say("%1 (stated: %2)").arg(fixed(value, digits), fixed(stated, digits));
}

} // namespace

QString clockLabel(AgeingClock clock) {
    switch (clock) {
    case AgeingClock::hours:
        return say("Time since mounting");
    case AgeingClock::loadHours:
        return say("Time under load");
    case AgeingClock::cycles:
        return say("Thermal cycles");
    case AgeingClock::meltCycles:
        return say("Cycles above the melt");
    }
    return {};
}

QString clockText(AgeingClock clock, double value) {
    if (clock == AgeingClock::hours || clock == AgeingClock::loadHours) return sayText(spanMessage(value));
    return fixed(value, value < 10 ? 1 : 0);
}

QStringList modelHead() {
    return {say("Course"), say("AICc"), say("Weight"), say("Change, K"), say("Reaches it")};
}

std::vector<QStringList> modelRows(const ClockedCourse& course) {
    std::vector<QStringList> rows;
    const double last = course.course.last();
    for (const AgeingFit& fit : course.course.fits) {
        QStringList cells{sayTerm(ageingModelName(fit.model))};
        if (!fit.aicc) {
            cells << none << none << none << none;
            rows.push_back(cells);
            continue;
        }
        if (&fit == course.course.fit()) cells[0] = say("%1, chosen").arg(cells[0]);
        QString reaches = none;
        for (const auto& one : course.threshold.models)
            if (one.model == fit.model && one.at) reaches = clockText(course.clock, *one.at);
        cells << fixed(*fit.aicc, 2) << fixed(fit.weight, 3)
              << fixed(fit.change(last, course.course.first()), 2) << reaches;
        rows.push_back(cells);
    }
    return rows;
}

QStringList mountHead() {
    return {say("Mount"),  say("Material"),      say("Mounted"),           say("Age"),   say("Under load, h"),
            say("Cycles"), say("Above melt, h"), say("Hottest joint, °C"), say("Opened")};
}

std::vector<MountRow> mountRows(const AgeingMatter& matter) {
    std::vector<MountRow> rows;
    for (const GroupAgeing& ageing : matter.study.groups)
        for (const MountSeries& series : ageing.group.mounts) {
            const MountHistory& history = *series.history;
            const auto opened = history.opened();
            const Instant until = opened && *opened < matter.now ? *opened : matter.now;
            const MountClock clock = history.at(until);
            MountRow row{series.mount,
                         {qtext(series.name), qtext(ageing.group.name), dayOr(history.applied())}};
            row.cells << (clock.hours ? sayText(spanMessage(*clock.hours)) : none)
                      << withStated(clock.loadHours, clock.statedHours, 1)
                      << withStated(clock.cycles, clock.statedCycles, 0)
                      << (history.melts() ? fixed(clock.aboveMeltHours, 1) : none);
            row.cells << (history.melts() && history.hottestJointC()
                              ? say("%1, melts at %2")
                                    .arg(fixed(*history.hottestJointC(), 0), fixed(history.melts()->value, 0))
                              : none);
            row.cells << (opened ? dayText(*opened) : say("stands"));
            rows.push_back(std::move(row));
        }
    return rows;
}

QStringList checkHead() { return {say("Mount"), say("After"), say("Due"), say("That is")}; }

std::vector<QStringList> checkRows(const AgeingMatter& matter) {
    std::vector<QStringList> rows;
    for (const DueCheck& check : matter.checks) {
        const QString name =
            check.mount ? qtext(check.name) : say("%1, to be mounted").arg(qtext(check.name));
        rows.push_back(
            {name, qtext(check.after.text()), dayText(check.due), sayText(dueMessage(check, matter.now))});
    }
    return rows;
}

QStringList machineHead() {
    return {say("Machine"), say("Mount"), say("Material"), say("Mounted"),
            say("Due"),     say("From"),  say("To"),       say("That is")};
}

std::vector<QStringList> machineRows(const AgeingMatter& matter) {
    std::vector<QStringList> rows;
    for (const MachineDue& one : matter.due.machines) {
        QString by = one.due ? sourceText(one.source) : one.reason ? sayText(*one.reason) : none;
        if (one.by == AgeingClock::cycles) by = say("measured, by its cycles");
        if (one.by == AgeingClock::loadHours) by = say("measured, by its hours under load");
        rows.push_back({qtext(one.machine), qtext(one.mountName), qtext(one.materialName), dayOr(one.applied),
                        dayOr(one.due), dayOr(one.dueFrom), dayOr(one.dueTo), by});
    }
    return rows;
}

QStringList costHead() {
    return {say("Material"), say("Lasts, years"), say("In ten years"), say("Material costs"),
            say("Hands"),    say("Together"),     say("That is")};
}

std::vector<QStringList> costRows(const AgeingMatter& matter) {
    std::vector<QStringList> rows;
    const auto money = [](const std::optional<Money>& of) { return of ? moneyText(*of) : none; };
    for (const TenYears& one : matter.due.costs)
        rows.push_back({qtext(one.name), fixed(one.years, 1), QString::number(one.applications),
                        money(one.materialCost), money(one.manualWorkCost), money(one.total),
                        sourceText(one.source)});
    return rows;
}

QStringList tubeHead() {
    return {say("Tube"),       say("Material"), say("Made before"), say("Open for"),
            say("On opening"), say("Mounts"),   say("ΔT fresh, K")};
}

std::vector<QStringList> tubeRows(const ShelfAge& tubes) {
    std::vector<QStringList> rows;
    const auto span = [](const std::optional<double>& years) {
        return years ? sayText(spanMessage(*years * hoursPerYear)) : none;
    };
    for (const LotFigures& lot : tubes.lots) {
        const auto mounts = static_cast<int>(lot.mountsK.size());
        QString count = QString::number(mounts + lot.boundMounts);
        if (lot.boundMounts > 0) count = say("%1, %2 at the limit").arg(count).arg(lot.boundMounts);
        rows.push_back({qtext(lot.name), qtext(lot.material), span(lot.madeYears), span(lot.openYears),
                        sayTerm(word(lot.condition)), count, lot.meanK() ? fixed(*lot.meanK(), 1) : none});
    }
    return rows;
}

QString equalAgeLine(const AgeingJudgement& judged) {
    if (!judged.equalHours || judged.atEqualAge.size() < 2) return {};
    QStringList parts;
    for (const auto& one : judged.atEqualAge)
        parts << say("%1 %2 K").arg(qtext(judged.groups[one.group].group.name), fixed(one.meanK, 1));
    return say("At the same age of %1: %2.").arg(sayText(spanMessage(*judged.equalHours)), parts.join(", "));
}

QStringList acceleratedLines(const UseAndTest& asked, double years) {
    const auto made = testFor(asked, years);
    QStringList lines;
    if (!made) {
        lines << say("No test: it would have to be harder than the use, and every figure above zero.");
        return lines;
    }
    const QString use = say("%1 years of this use").arg(QString::number(years));
    if (asked.by == WearBy::heat)
        lines << say("%1 days at %2 °C stand for %3: an hour of the test for %4 of it.")
                     .arg(fixed(made->testDays, 1), fixed(asked.test.hottest.value, 0), use,
                          fixed(made->factor, 1));
    else
        lines << say("%1 cycles in %2 days stand for %3: a cycle of the test for %4 of it.")
                     .arg(fixed(made->testCycles, 0), fixed(made->testDays, 1), use, fixed(made->factor, 2));
    switch (asked.by) {
    case WearBy::heat:
        lines << say("That holds for one thing that heat speeds up and whose activation energy was measured: "
                     "drying out, hardening. A tenth of an eV more or less changes the factor by much.");
        lines << say("It cannot show what cycles do (pumping out), nor anything behind a melting point.");
        break;
    case WearBy::swings:
        lines << say(
            "That holds where swings do the harm and the exponent was measured; 2 is usual of solder.");
        lines << say(
            "It cannot show what time and heat do without swings (drying out), nor what long holds do.");
        break;
    case WearBy::solderSwings:
        lines << say(
            "The constants are of tin–lead solder: for a paste only the shape holds, with exponents of "
            "its own.");
        lines << say("It cannot show drying out, nor how a paste is pumped out.");
        break;
    }
    lines << say(
        "No hotter than what makers of chip and material allow; a test that breaks the chip shows nothing.");
    return lines;
}

} // namespace ibuki
