// SPDX-License-Identifier: GPL-3.0-or-later
// What a look costs: a photograph of 24 megapixels opened, its corners found, rectified and masked; a step of
// the brush; the figures of a mask. Memory is the process's peak. bench-look [MEGAPIXELS]

#include "core/look/coverage_figures.h"
#include "core/look/mask_editing.h"
#include "core/look/measured_face.h"
#include "core/simulate/photograph.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"

#include "support/seconds.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <sys/resource.h>

using namespace ibuki;

namespace {

/// A photograph enlarged to so many megapixels, as a file's bytes.
std::string photographOfMegapixels(double megapixels, Extent& face) {
    PhotographScene scene;
    FilmScene film;
    film.spread = {34, 34, patternStrokes(Pattern::dot, 34, 34, 0), 34 * 34 * 0.04 * 0.9, 0.04, 0.25};
    scene.film = filmThickness(film);
    scene.colour = FilmColour::blue;
    face = scene.film.face;
    const RgbPicture small = photographOf(scene).picture;
    const double scale = std::sqrt(megapixels * 1e6 / (small.width * small.height));
    RgbPicture large{static_cast<int>(small.width * scale), static_cast<int>(small.height * scale), {}};
    large.rgb.reserve(static_cast<std::size_t>(large.width) * static_cast<std::size_t>(large.height) * 3);
    for (int row = 0; row < large.height; ++row)
        for (int column = 0; column < large.width; ++column) {
            const auto from = 3
                              * (static_cast<std::size_t>(row / scale) * static_cast<std::size_t>(small.width)
                                 + static_cast<std::size_t>(column / scale));
            large.rgb.insert(large.rgb.end(), {small.rgb[from], small.rgb[from + 1], small.rgb[from + 2]});
        }
    return keptPhotograph(large, 1'000'000);
}

double peakMb() {
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    return static_cast<double>(used.ru_maxrss) / 1024;
}

} // namespace

int main(int argc, char** argv) {
    const double megapixels = argc > 1 ? std::atof(argv[1]) : 24;
    Extent face;
    std::string bytes;
    { bytes = photographOfMegapixels(megapixels, face); }
    const double before = peakMb();
    MeasuredFace measured;
    const auto begin = std::chrono::steady_clock::now();
    {
        const RgbPicture photograph = photographFrom(bytes, "bench.jpg");
        fmt::print("{} × {}: read in {:.0f} ms", photograph.width, photograph.height,
                   1000 * secondsSince(begin));
        const auto from = std::chrono::steady_clock::now();
        MeasureFaceOptions options;
        const auto found = findCorners(photograph, face);
        fmt::print(", corners in {:.0f} ms", 1000 * secondsSince(from));
        if (found) options.corners = found->corners;
        const auto masked = std::chrono::steady_clock::now();
        measured = measureFace(photograph, face, options);
        fmt::print(", rectified and masked in {:.0f} ms\n", 1000 * secondsSince(masked));
    }
    fmt::print("all of it {:.0f} ms (asked: below 1500); peak {:.0f} MB, {:.0f} MB of it before (asked: "
               "below 400)\n",
               1000 * secondsSince(begin), peakMb(), before);
    const auto kept = std::chrono::steady_clock::now();
    {
        const RgbPicture photograph = photographFrom(bytes, "bench.jpg");
        const std::string small = keptPhotograph(photograph);
        const RgbPicture again = photographFrom(small, "bench.jpg");
        const MeasuredFace same = measureFace(again, face);
        fmt::print("taken in as the window does (made smaller, written anew, measured): {:.0f} ms, {:.0f} kB "
                   "kept; covered {:.3f}, {:.3f} whole\n",
                   1000 * secondsSince(kept), static_cast<double>(small.size()) / 1e3, same.covered.covered,
                   measured.covered.covered);
    }
    GreyPicture mask = measured.mask;
    double x = 10;
    fmt::print(
        "a step of the brush of 4 mm: {:.3f} ms; the figures of a mask: {:.1f} ms; a threshold: {:.2f} ms\n",
        1000
            * bestSeconds(
                50,
                [&] {
                    brush(mask, {x, 100}, {x + 4, 102}, 4 * mask.width / face.widthMm / 2, maskBare);
                    x += 4;
                }),
        1000 * bestSeconds(10, [&] { coverageFigures(mask, face); }),
        1000 * bestSeconds(20, [&] { maskAt(measured.film.film, 0.2, 0.5); }));
}
