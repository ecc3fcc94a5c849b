// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/inspect/looks.h"

#include "core/domain/lookup.h"
#include "core/heat/bench_path.h"

#include <algorithm>

namespace ibuki {

const JointInspection* lookAt(const Document& document, Id<Mount> mount, Id<Site> site) {
    const JointInspection* newest = nullptr;
    for (const JointInspection* look : document.where(&JointInspection::mount, mount))
        if (look->site == site && (!newest || newest->id < look->id)) newest = look;
    return newest;
}

std::vector<const JointPicture*> picturesOf(const Document& document, Id<JointInspection> look) {
    std::vector<const JointPicture*> pictures;
    for (const JointPicture* picture : document.where(&JointPicture::look, look)) pictures.push_back(picture);
    std::sort(pictures.begin(), pictures.end(),
              [](const JointPicture* a, const JointPicture* b) { return a->id < b->id; });
    return pictures;
}

std::optional<Id<Site>> lookedSite(const Document& document, const Question& question, const Mount& mount) {
    const Site* site = document.find(question.site);
    if (!site) return std::nullopt;
    const auto rig = rigOf(document, mount.configuration);
    if (site->configuration == rig) return site->id;
    for (const Site* other : document.where(&Site::configuration, rig))
        if (other->kind == site->kind) return other->id;
    return std::nullopt;
}

SiteFace faceOf(const Document& document, const Site& site) {
    if (site.width && site.length) return {{site.width->value, site.length->value}, false};
    const BenchPath bench = benchPath(document, site.configuration, site.id, nullptr);
    if (!bench.studied) return {{30, 30}, true};
    const Extent &a = bench.path.solids[*bench.studied].size, &b = bench.path.solids[*bench.studied + 1].size;
    return {{std::min(a.widthMm, b.widthMm), std::min(a.lengthMm, b.lengthMm)}, !bench.assumed.empty()};
}

FaceSurface surfaceOf(const Site& site, LookSide side) {
    switch (side == LookSide::plate ? site.upperFace : site.lowerFace) {
    case Metal::silicon:
        return FaceSurface::bareDie;
    case Metal::copper:
        return FaceSurface::plate;
    case Metal::nickelOnCopper:
    case Metal::aluminium:
    case Metal::steel:
        return FaceSurface::lid;
    case Metal::unknown:
    case Metal::other:
        break;
    }
    return FaceSurface::notStated;
}

std::optional<FilmAppearance> typicalAppearance(const Document& document,
                                                std::optional<Id<Material>> material) {
    if (!material) return std::nullopt;
    FilmAppearance typical;
    for (const auto& [id, picture] : document.all<JointPicture>()) {
        if (!picture.filmLightness || !picture.filmA || !picture.filmB || picture.maskSha256.empty())
            continue;
        const JointInspection* look = document.find(picture.look);
        const Material* of = look ? materialAt(document, look->mount, look->site) : nullptr;
        if (!of || of->id != *material) continue;
        ++typical.looks;
        typical.lightness += (*picture.filmLightness - typical.lightness) / typical.looks;
        typical.a += (*picture.filmA - typical.a) / typical.looks;
        typical.b += (*picture.filmB - typical.b) / typical.looks;
    }
    return typical.looks > 0 ? std::optional(typical) : std::nullopt;
}

std::optional<Pattern> drawnPattern(ApplicationPattern pattern) {
    switch (pattern) {
    case ApplicationPattern::dot:
        return Pattern::dot;
    case ApplicationPattern::line:
        return Pattern::line;
    case ApplicationPattern::cross:
        return Pattern::cross;
    case ApplicationPattern::fiveDots:
        return Pattern::fiveDots;
    case ApplicationPattern::film:
        return Pattern::film;
    default:
        return std::nullopt;
    }
}

std::optional<FaceCorners> lastCorners(const Document& document, Id<Bench> bench, LookSide side) {
    const JointPicture* newest = nullptr;
    for (const auto& [id, picture] : document.all<JointPicture>()) {
        if (picture.side != side || !picture.corners || picture.width <= 0 || picture.height <= 0) continue;
        const JointInspection* look = document.find(picture.look);
        const Mount* mount = look ? document.find(look->mount) : nullptr;
        const Bench* on = mount ? benchOf(document, *mount) : nullptr;
        if (on && on->id == bench && (!newest || newest->id < picture.id)) newest = &picture;
    }
    if (!newest) return std::nullopt;
    FaceCorners corners = *cornersOf(*newest);
    for (PlanePoint& corner : corners) corner = {corner.x / newest->width, corner.y / newest->height};
    return corners;
}

MeasureFaceOptions measureOptions(const Document& document, const JointInspection& look, LookSide side) {
    MeasureFaceOptions options;
    const Site* site = document.find(look.site);
    if (site) {
        options.film.surface = surfaceOf(*site, side);
        options.find.sizeAssumed = faceOf(document, *site).isAssumed;
    }
    const Material* material = materialAt(document, look.mount, look.site);
    options.film.typical = typicalAppearance(document, material ? std::optional(material->id) : std::nullopt);
    const Mount* mount = document.find(look.mount);
    const Bench* bench = mount ? benchOf(document, *mount) : nullptr;
    if (bench) options.find.guess = lastCorners(document, bench->id, side);
    return options;
}

std::optional<FaceCorners> cornersOf(const JointPicture& picture) {
    if (!picture.corners) return std::nullopt;
    FaceCorners corners;
    for (std::size_t i = 0; i < 4; ++i)
        corners[i] = {(*picture.corners)[2 * i], (*picture.corners)[2 * i + 1]};
    return corners;
}

std::array<double, 8> storedCorners(const FaceCorners& corners) {
    std::array<double, 8> stored{};
    for (std::size_t i = 0; i < 4; ++i) {
        stored[2 * i] = corners[i].x;
        stored[2 * i + 1] = corners[i].y;
    }
    return stored;
}

void putMeasured(JointPicture& picture, const MeasuredFace& measured, const Extent& face) {
    picture.flags.clear();
    for (const LookFlag flag : measured.flags) {
        if (!picture.flags.empty()) picture.flags += ' ';
        picture.flags += codeOf(flag);
    }
    picture.faceWidth = Millimetre{face.widthMm};
    picture.faceLength = Millimetre{face.lengthMm};
    if (!measured.corners) return;
    picture.corners = storedCorners(*measured.corners);
    picture.threshold = measured.film.threshold;
    picture.covered = measured.covered.covered;
    picture.coveredLow = measured.covered.low;
    picture.coveredHigh = measured.covered.high;
    picture.outsideMm2 = measured.film.outsideMm2;
    picture.filmLightness = measured.film.covered.lightness;
    picture.filmA = measured.film.covered.a;
    picture.filmB = measured.film.covered.b;
}

} // namespace ibuki
