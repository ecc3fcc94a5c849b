// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/dose.h"

#include "core/base/input_error.h"

#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

using std::numbers::pi;

void need(bool sound, const char* code) {
    if (!sound) throw InputError(code, {});
}

void check(const DoseInput& input) {
    need(input.widthMm > 0 && input.lengthMm > 0, "dose-face.size");
    for (double value :
         {input.widthMm, input.lengthMm, input.bondLineUm, input.densityGPerMl, input.boreMm, input.reachMm})
        need(std::isfinite(value) && value < 1e6, "dose-face.large");
    need(input.bondLineUm >= 1e-3, "dose-face.bond-line");
    need(input.bondLineUm > 0, "dose-face.bond-line");
    need(input.densityGPerMl > 0, "dose-density");
    need(input.boreMm > 0, "dose-bore");
    need(input.allowance >= 0 && input.allowance <= 5, "dose-allowance");
}

double reachOf(const DoseInput& input) {
    return input.reachMm > 0 ? input.reachMm : typicalReachMm(input.pattern, input.widthMm, input.lengthMm);
}

} // namespace

Dose dose(const DoseInput& input) {
    check(input);
    return doseOfVolume(input,
                        input.widthMm * input.lengthMm * input.bondLineUm * 1e-3 * (1 + input.allowance));
}

Dose doseOfVolume(const DoseInput& input, double volumeMm3) {
    check(input);
    need(volumeMm3 > 0, "dose-volume.amount");
    Dose result;
    result.volumeMm3 = volumeMm3;
    result.massG = input.densityGPerMl * volumeMm3 * 1e-3;
    result.strokeMm = volumeMm3 / (pi * input.boreMm * input.boreMm / 4);
    const double face = input.widthMm * input.lengthMm;
    result.ratio = volumeMm3 / (face * input.bondLineUm * 1e-3);
    double length = 0;
    const auto strokes = patternStrokes(input.pattern, input.widthMm, input.lengthMm, reachOf(input));
    for (const Stroke& stroke : strokes)
        length += std::hypot(stroke.to.x - stroke.from.x, stroke.to.y - stroke.from.y);
    if (strokes.empty())
        result.filmUm = 1e3 * volumeMm3 / face;
    else if (length > 0)
        result.beadWidthMm = 2 * std::sqrt(2 * volumeMm3 / (pi * length));
    else
        result.dotDiameterMm = 2 * std::cbrt(3 * volumeMm3 / static_cast<double>(strokes.size()) / (2 * pi));
    return result;
}

SpreadInput spreadInput(const DoseInput& input, double volumeMm3, double cellMm) {
    return {input.widthMm,
            input.lengthMm,
            patternStrokes(input.pattern, input.widthMm, input.lengthMm, reachOf(input)),
            volumeMm3,
            input.bondLineUm * 1e-3,
            cellMm};
}

int usesOf(double tubeG, double residue, double massG) {
    return massG > 0 ? static_cast<int>(std::floor(tubeG * (1 - residue) / massG + 1e-9)) : 0;
}

} // namespace ibuki
