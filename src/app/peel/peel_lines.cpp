// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/peel_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"

#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

QString percent(double share) { return say("%1 %").arg(100 * share, 0, 'f', 1); }

QString signedMm(double mm) {
    const auto whole = std::lround(mm);
    return whole < 0 ? QStringLiteral("−%1").arg(-whole) : QString::number(whole);
}

QString cornerName(std::size_t corner) {
    switch (corner) {
    case 0:
        return say("upper left");
    case 1:
        return say("upper right");
    case 2:
        return say("lower right");
    default:
        return say("lower left");
    }
}

} // namespace

std::vector<FigureRow> figureRows(const JointPicture& picture, const CoverageFigures& figures) {
    std::vector<FigureRow> rows;
    const auto row = [&](const QString& name, const QString& value) { rows.push_back({name, value}); };
    QString covered = percent(figures.covered);
    if (picture.coveredLow && picture.coveredHigh)
        covered =
            say("%1 (%2 to %3)").arg(covered, percent(*picture.coveredLow), percent(*picture.coveredHigh));
    row(say("Covered"), covered);
    row(say("Centre, edge"), say("%1, %2").arg(percent(figures.centre), percent(figures.edge)));
    row(say("Corners"), say("%1  %2\n%3  %4")
                            .arg(percent(figures.corners[0]), percent(figures.corners[1]),
                                 percent(figures.corners[3]), percent(figures.corners[2])));
    row(say("Largest bare circle"), say("%1 mm").arg(figures.largestBareCircleMm, 0, 'f', 1));
    row(say("Trapped pockets"), QString::number(figures.trappedVoids));
    if (picture.outsideMm2) row(say("Squeezed out"), say("%1 mm²").arg(*picture.outsideMm2, 0, 'f', 0));
    constexpr std::size_t most = 2;
    for (std::size_t i = 0; i < figures.voids.size() && i < most; ++i) {
        const BareRegion& region = figures.voids[i];
        row(i == 0 ? say("Bare regions") : QString(), say("%1 mm² at %2, %3 mm")
                                                          .arg(region.areaMm2, 0, 'f', 1)
                                                          .arg(signedMm(region.xMm), signedMm(region.yMm)));
    }
    if (figures.voids.size() > most)
        row({}, sayMany("and {count} more", "and {count} more",
                        static_cast<qint64>(figures.voids.size() - most)));
    return rows;
}

QStringList flagLines(const JointPicture& picture) {
    QStringList lines;
    for (const QString& code : qtext(picture.flags).split(' ', Qt::SkipEmptyParts))
        lines << sayText(Message{code.toStdString(), {}}) + ".";
    return lines;
}

QString expectedLine(const std::optional<ExpectedSpread>& expected, double covered) {
    if (!expected) return {};
    QString line = say("By dose and pattern %1 should be covered").arg(percent(expected->covered));
    if (expected->trapped > 0)
        line += sayMany(", with {count} trapped pocket", ", with {count} trapped pockets", expected->trapped);
    if (covered < expected->covered - 0.1) return line + ": " + say("it spread less far than that.");
    if (covered > expected->covered + 0.1) return line + ": " + say("it spread farther than that.");
    return line + ": " + say("so it did.");
}

QString costLine(const VoidPenalty& cost, const std::optional<FellowResidual>& residual) {
    const QString costs = say("What is bare should cost %1 K in the chip's mean and %2 K at its hottest")
                              .arg(cost.meanK, 0, 'f', 1)
                              .arg(cost.maxK, 0, 'f', 1);
    if (!residual) return costs + ". " + say("It has no fellows yet to hold that against.");
    const QString above = residual->aboveK >= 0
                              ? say("this mount is %1 K above its fellows").arg(residual->aboveK, 0, 'f', 1)
                              : say("this mount is %1 K below its fellows").arg(-residual->aboveK, 0, 'f', 1);
    switch (readCost(cost, residual)) {
    case CostReading::explains:
        return say("%1; %2: that explains it.").arg(costs, above);
    case CostReading::tooLittle:
        return say("%1; %2: what is bare does not explain it alone.").arg(costs, above);
    case CostReading::notSeen:
        return say("%1; %2: it is not seen in the figure.").arg(costs, above);
    case CostReading::nothingToExplain:
        return say("%1; %2, within scatter: there is nothing to explain.").arg(costs, above);
    case CostReading::unknown:
        break;
    }
    return say("%1; %2. Nothing tells yet how far mounts scatter.").arg(costs, above);
}

QString slopeLine(const std::vector<CoveragePoint>& points) {
    const auto slope = coverageSlope(points);
    if (!slope) return {};
    const auto kelvin = [](double k) {
        return QString::fromStdString(fmt::format("{}{:.1f}", k < 0 ? "−" : "+", std::abs(k)));
    };
    return say("A tenth of the face more goes with %1 K (%2 to %3), materials apart.")
        .arg(kelvin(slope->kPerTenth), kelvin(slope->ci.lo), kelvin(slope->ci.hi));
}

QString allLooksLine(const std::vector<MountCoverage>& looks) {
    if (looks.empty()) return {};
    double covered = 0;
    std::vector<std::array<double, 4>> corners;
    for (const MountCoverage& one : looks) {
        covered += one.covered / static_cast<double>(looks.size());
        corners.push_back(one.corners);
    }
    QString line = sayMany("{count} look", "{count} looks", static_cast<qint64>(looks.size())) + ": "
                   + say("%1 covered in the mean.").arg(percent(covered));
    const auto bare = bareCorner(corners);
    if (!bare) return line + " " + say("No corner is bare again and again.");
    return line + " "
           + say("The %1 corner is covered less than the others again and again, by %2 in the mean: a tilted "
                 "cooler or a "
                 "bowed plate, not the paste.")
                 .arg(cornerName(bare->corner), percent(bare->less));
}

} // namespace ibuki
