// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/film_mask.h"

#include "core/look/edge_field.h"
#include "core/look/film_classes.h"
#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr int fittedAcross = 96;     // px of the raster on which the kinds are fitted
constexpr double saturated = 250;    // of every colour: glare, or paste that is too bright to tell
constexpr double glareShare = 0.006; // of the face, from which it is told
constexpr double mostGlare = 0.3;    // more is no glare but an overexposed paste
constexpr double whiteFrom = 84;     // lightness of a film that can be overexposed
constexpr double fewPlaces = 0.06;   // a kind of fewer places is hardly ever the film
constexpr double fewTell = 1.6;
constexpr double leastReported = 0.6; // how clear it has to be which kind is bare
constexpr double leastContrast = 9;   // CIELAB difference of the kinds
constexpr double leastApart = 3.2;    // distance of the kinds in standard deviations
constexpr double unsureRange = 0.1;   // of what is covered, by the threshold alone
constexpr double oneKind = 4;         // CIELAB difference below which there is only one
constexpr double blurredShare = 0.03; // of the longer side: width of an edge
constexpr int bins = 160;             // of the film's shares from −0.5 to 1.5

cv::Vec3d labOfLog(const cv::Vec3d& logRgb) {
    cv::Mat one(1, 1, CV_32FC3);
    for (int c = 0; c < 3; ++c)
        one.at<cv::Vec3f>(0, 0)[c] = static_cast<float>(std::min(1.0, std::exp(logRgb[c])));
    cv::Mat lab;
    cv::cvtColor(one, lab, cv::COLOR_RGB2Lab);
    return cv::Vec3d(lab.at<cv::Vec3f>(0, 0));
}

double distance(const cv::Vec3d& a, const cv::Vec3d& b) { return cv::norm(a - b); }

double chroma(const cv::Vec3d& lab) { return std::hypot(lab[1], lab[2]); }

bool likeCopper(const cv::Vec3d& lab) {
    const double hue = std::atan2(lab[2], lab[1]) * 180 / 3.14159265358979324;
    return chroma(lab) > 14 && hue > 25 && hue < 80 && lab[0] < 85;
}

double nearness(double x, double scale) { return std::clamp(x / scale, -1.0, 1.0); }

/// How much kind 0 looks more like bare metal or silicon than kind 1; 0: nothing tells.
double barerByColour(const std::array<cv::Vec3d, 2>& lab, FaceSurface surface) {
    const double darker = nearness(lab[1][0] - lab[0][0], 12);
    // Metals are neither white nor nearly black, and have no colour but copper's.
    const auto unlikeMetal = [](const cv::Vec3d& c) {
        return chroma(c) / 10 + std::max(0.0, c[0] - 80) / 8 + std::max(0.0, 38 - c[0]) / 10;
    };
    const double metal = nearness(unlikeMetal(lab[1]) - unlikeMetal(lab[0]), 1);
    const double copper = (likeCopper(lab[0]) ? 1.0 : 0.0) - (likeCopper(lab[1]) ? 1.0 : 0.0);
    switch (surface) {
    case FaceSurface::bareDie:
        return 2.5 * darker;
    case FaceSurface::lid:
        return 2.0 * metal;
    case FaceSurface::plate:
        return copper != 0 ? 2.5 * copper : 2.0 * metal;
    case FaceSurface::notStated:
        break;
    }
    return copper != 0 ? 1.2 * copper : 0.8 * metal;
}

double shareIn(const cv::Mat& share, const cv::Rect& where) { return cv::mean(share(where))[0]; }

/// Paste lies in the middle and thins towards the corners; what is left bare is mostly the smaller part.
double barerByPlace(const cv::Mat& second) {
    const cv::Rect middle(second.cols / 4, second.rows / 4, std::max(1, second.cols / 2),
                          std::max(1, second.rows / 2));
    const double all = cv::mean(second)[0], inside = shareIn(second, middle);
    const double few = std::min(all, 1 - all) < fewPlaces ? (all > 0.5 ? fewTell : -fewTell) : 0;
    return 0.7 * nearness(inside - all, 0.25) + 1.1 * nearness(all - 0.5, 0.35) + few;
}

/// How much more the first kind looks bare than the second; below 0: the second does.
double firstIsBarer(const FilmClasses& classes, const std::array<cv::Vec3d, 2>& lab,
                    const FilmOptions& options) {
    double barer = barerByColour(lab, options.surface) + barerByPlace(classes.second);
    if (options.typical) {
        const cv::Vec3d typical(options.typical->lightness, options.typical->a, options.typical->b);
        barer += 2.5 * nearness(distance(lab[0], typical) - distance(lab[1], typical), 10);
    }
    return barer;
}

/// Heaps of a histogram: where it is highest within a neighbourhood, with what they hold.
struct Heap {
    int at = 0;
    double height = 0;
};

struct ShareHistogram {
    std::vector<double> counts = std::vector<double>(bins, 0.0);
    static double shareAt(int bin) { return -0.5 + 2.0 * (bin + 0.5) / bins; }
    static int binOf(double share) {
        return std::clamp(static_cast<int>((share + 0.5) / 2 * bins), 0, bins - 1);
    }

    explicit ShareHistogram(const cv::Mat& share, const cv::Mat& counted) {
        for (int row = 0; row < share.rows; ++row)
            for (int column = 0; column < share.cols; ++column)
                if (counted.at<std::uint8_t>(row, column))
                    counts[static_cast<std::size_t>(binOf(share.at<float>(row, column)))] += 1;
        const double all = std::max(1.0, std::accumulate(counts.begin(), counts.end(), 0.0));
        cv::Mat rough(1, bins, CV_64F, counts.data());
        cv::Mat smooth;
        cv::GaussianBlur(rough / all, smooth, {0, 0}, 2.5);
        counts.assign(smooth.begin<double>(), smooth.end<double>());
    }

    std::vector<Heap> heaps(double least) const {
        std::vector<Heap> found;
        constexpr int beside = 6;
        for (int bin = 0; bin < bins; ++bin) {
            const double height = counts[static_cast<std::size_t>(bin)];
            const int from = std::max(0, bin - beside), to = std::min(bins - 1, bin + beside);
            const double most = *std::max_element(counts.begin() + from, counts.begin() + to + 1);
            const double inside = std::accumulate(counts.begin() + from, counts.begin() + to + 1, 0.0);
            if (height == most && height > 0 && inside > least
                && (found.empty() || found.back().at < bin - beside))
                found.push_back({bin, height});
        }
        return found;
    }
    int valley(int from, int to) const {
        return static_cast<int>(std::min_element(counts.begin() + from, counts.begin() + to + 1)
                                - counts.begin());
    }
};

/// The face itself, without its surroundings, as logarithms of its colours.
cv::Mat logOf(const cv::Mat& rgb) {
    cv::Mat scaled, log;
    rgb.convertTo(scaled, CV_32F, 1.0 / 255);
    cv::log(cv::max(scaled, 0.012), log);
    return log;
}

cv::Mat glareOf(const cv::Mat& rgb) {
    cv::Mat glare;
    cv::inRange(rgb, cv::Scalar::all(saturated), cv::Scalar::all(255), glare);
    return glare;
}

/// A saturated patch with the haze around, which reaches the farther the larger the patch is.
struct GlarePatch {
    cv::Rect box;   ///< of the picture
    cv::Mat core;   ///< of the box: 255 where saturated
    cv::Mat hazy;   ///< and with its haze
    cv::Mat around; ///< a rim beyond the haze
};

std::vector<GlarePatch> glarePatches(const cv::Mat& glare) {
    cv::Mat labels, stats, middles;
    const int count = cv::connectedComponentsWithStats(glare, labels, stats, middles, 8, CV_32S);
    const auto disc = [](int reach) {
        return cv::getStructuringElement(cv::MORPH_ELLIPSE, {2 * reach + 1, 2 * reach + 1});
    };
    constexpr int rim = 5;
    std::vector<GlarePatch> patches;
    for (int label = 1; label < count; ++label) {
        const double radius = std::sqrt(stats.at<int>(label, cv::CC_STAT_AREA) / 3.14159265358979324);
        const int reach = 2 + static_cast<int>(0.35 * radius);
        const int more = reach + rim;
        GlarePatch patch;
        patch.box = cv::Rect(stats.at<int>(label, cv::CC_STAT_LEFT) - more,
                             stats.at<int>(label, cv::CC_STAT_TOP) - more,
                             stats.at<int>(label, cv::CC_STAT_WIDTH) + 2 * more,
                             stats.at<int>(label, cv::CC_STAT_HEIGHT) + 2 * more)
                    & cv::Rect({}, glare.size());
        patch.core = labels(patch.box) == label;
        cv::dilate(patch.core, patch.hazy, disc(reach));
        cv::dilate(patch.hazy, patch.around, disc(rim));
        patch.around.setTo(0, patch.hazy);
        patches.push_back(patch);
    }
    return patches;
}

/// Light taken out of a picture whose face lies inside a margin.
cv::Mat unlit(const cv::Mat& rgb, const LightField& light, int margin) {
    cv::Mat made;
    rgb.convertTo(made, CV_32F, 1.0 / 255);
    const double width = rgb.cols - 2 * margin, height = rgb.rows - 2 * margin;
    for (int row = 0; row < made.rows; ++row)
        for (int column = 0; column < made.cols; ++column)
            made.at<cv::Vec3f>(row, column) *= static_cast<float>(std::exp(
                -light.at(2 * (column - margin + 0.5) / width - 1, 2 * (row - margin + 0.5) / height - 1)));
    return made;
}

struct Mixing {
    cv::Vec3d bare;   ///< colours without the light
    cv::Vec3d way;    ///< from bare to covered
    cv::Vec3d weight; ///< so that weight·(colour − bare) is the share
};

/// A thin film mixes the colours of what it lies on with its own; colours with less noise count more.
Mixing mixingOf(const FilmClasses& classes, std::size_t covered) {
    const auto colour = [&](std::size_t k) {
        cv::Vec3d c;
        for (int i = 0; i < 3; ++i) c[i] = std::exp(classes.kinds[k].logRgb[i]);
        return c;
    };
    Mixing mixing{colour(1 - covered), {}, {}};
    const cv::Vec3d to = colour(covered);
    mixing.way = to - mixing.bare;
    cv::Matx33d noise = cv::Matx33d::zeros();
    for (std::size_t k = 0; k < 2; ++k) {
        const cv::Vec3d scale = k == covered ? to : mixing.bare;
        for (int r = 0; r < 3; ++r)
            for (int c = 0; c < 3; ++c)
                noise(r, c) += 0.5 * classes.kinds[k].spread(r, c) * scale[r] * scale[c];
    }
    const cv::Vec3d precise = noise.inv() * mixing.way;
    const double length = mixing.way.dot(precise);
    if (length > 0) mixing.weight = precise * (1 / length);
    return mixing;
}

cv::Mat shareOf(const cv::Mat& colours, const Mixing& mixing) {
    cv::Mat share;
    cv::transform(
        colours, share,
        cv::Matx14d(mixing.weight[0], mixing.weight[1], mixing.weight[2], -mixing.weight.dot(mixing.bare)));
    return share;
}

/// Under a white film a saturated place may be film that was exposed too long: where what surrounds such a
/// patch is film in good part, the patch is. What is left is glare.
void keepOverexposed(cv::Mat& share, cv::Mat& counted, const std::vector<GlarePatch>& patches) {
    for (const GlarePatch& patch : patches) {
        const cv::Mat rim = patch.around & counted(patch.box);
        cv::Mat near = share(patch.box), count = counted(patch.box);
        // A patch whose haze fills all there is of the face around it tells nothing: it is too large for
        // glare.
        if (cv::countNonZero(rim) >= 4 && cv::mean(near, rim)[0] < 0.35) continue;
        near.setTo(1, patch.core);
        count.setTo(255, patch.hazy);
    }
}

/// Places without a share of their own take it from those around.
void fillIn(cv::Mat& share, const cv::Mat& counted) {
    cv::Mat weight, filled = share.clone();
    counted.convertTo(weight, CV_32F, 1.0 / 255);
    cv::Mat known = share.mul(weight), missing = counted == 0;
    if (cv::countNonZero(missing) == 0) return;
    for (double reach = 3; reach < 400; reach *= 2) {
        cv::Mat sum, all;
        cv::GaussianBlur(known, sum, {}, reach);
        cv::GaussianBlur(weight, all, {}, reach);
        const cv::Mat enough = (all > 0.02) & missing;
        cv::Mat mean = sum / cv::max(all, 1e-6);
        mean.copyTo(filled, enough);
        missing.setTo(0, enough);
        if (cv::countNonZero(missing) == 0) break;
    }
    share = filled;
}

/// Width in pixels of the sharpest edges of the film: what 0 to 1 takes at the steepest.
double edgeWidth(const cv::Mat& whole) {
    // Of the film: where the face ends its own edge is another matter.
    const int x = whole.cols / 16, y = whole.rows / 16;
    const cv::Mat share = whole(cv::Rect(x, y, whole.cols - 2 * x, whole.rows - 2 * y));
    cv::Mat clipped = cv::min(cv::max(share, 0.0), 1.0), dx, dy, steep;
    cv::Sobel(clipped, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(clipped, dy, CV_32F, 0, 1, 3, 0.125);
    cv::magnitude(dx, dy, steep);
    std::vector<float> values(steep.begin<float>(), steep.end<float>());
    const auto at = values.begin() + static_cast<std::ptrdiff_t>(static_cast<double>(values.size()) * 0.995);
    std::nth_element(values.begin(), at, values.end());
    return *at > 0 ? 1 / *at : 1e9;
}

/// Where the heaps say that bare, thin and covered lie.
struct Scale {
    double zero = 0;
    double one = 1;
    double threshold = 0.5;
};

Scale scaleOf(const ShareHistogram& histogram) {
    const std::vector<Heap> heaps = histogram.heaps(0.012);
    Scale scale;
    if (heaps.size() < 2) return scale;
    scale.zero = ShareHistogram::shareAt(heaps.front().at);
    // Rims and highlights lie beyond what is covered evenly: the highest heap in the upper part is that.
    Heap one = heaps.back();
    for (const Heap& heap : heaps)
        if (ShareHistogram::shareAt(heap.at) > 0.7 && heap.height > one.height) one = heap;
    scale.one = ShareHistogram::shareAt(one.at);
    if (scale.one - scale.zero < 0.4) return {};
    for (auto heap = heaps.rbegin(); heap != heaps.rend(); ++heap) {
        const double at = (ShareHistogram::shareAt(heap->at) - scale.zero) / (scale.one - scale.zero);
        if (at < 0.12 || at > 0.88) continue;
        const double valley = ShareHistogram::shareAt(
            at <= 0.62 ? histogram.valley(heap->at, one.at) : histogram.valley(heaps.front().at, heap->at));
        const double share = (valley - scale.zero) / (scale.one - scale.zero);
        scale.threshold = at <= 0.62 ? std::clamp(share, 0.5, 0.85) : std::clamp(share, 0.3, 0.6);
        break;
    }
    return scale;
}

/// How far colours are from one of them.
cv::Mat awayFrom(const cv::Mat& colours, const cv::Vec3d& from) {
    cv::Mat away = colours - cv::Scalar(from[0], from[1], from[2]);
    cv::Mat squared = away.mul(away), sum;
    cv::transform(squared, sum, cv::Matx13f(1, 1, 1));
    cv::sqrt(sum, sum);
    return sum;
}

/// Covered places beyond the face that touch its covered edge, mm²: nearer in colour to the film than to what
/// lies around (the outer part of the margin).
double outsideOf(const cv::Mat& faceShare, const cv::Mat& colours, const cv::Vec3d& film, const cv::Mat& seen,
                 const FacePicture& face, double threshold) {
    const int margin = face.margin;
    if (margin < 4) return 0;
    const cv::Rect inside(margin, margin, face.faceWidth(), face.faceHeight());
    cv::Mat outer(seen.size(), CV_8U, cv::Scalar(255));
    const int rim = margin / 3;
    outer(cv::Rect(rim, rim, outer.cols - 2 * rim, outer.rows - 2 * rim)) = 0;
    outer &= seen;
    if (cv::countNonZero(outer) < 16) return 0;
    const cv::Scalar around = cv::mean(colours, outer);
    const cv::Mat toFilm = awayFrom(colours, film);
    cv::Mat like =
        (toFilm < awayFrom(colours, {around[0], around[1], around[2]})) & (toFilm < 0.35) & (seen > 0);
    like(inside) = faceShare >= threshold;
    cv::Mat labels;
    const int count = cv::connectedComponents(like, labels, 4, CV_32S);
    std::vector<int> in(static_cast<std::size_t>(count), 0), out = in, border = in;
    for (int row = 0; row < labels.rows; ++row)
        for (int column = 0; column < labels.cols; ++column) {
            const auto label = static_cast<std::size_t>(labels.at<int>(row, column));
            (inside.contains({column, row}) ? in : out)[label] += 1;
            if (row == 0 || column == 0 || row + 1 == labels.rows || column + 1 == labels.cols)
                border[label] += 1;
        }
    const int whole = 2 * (labels.rows + labels.cols);
    double pixels = 0;
    for (std::size_t label = 1; label < in.size(); ++label)
        // What runs along much of the picture's border is the bench below, of a like colour.
        if (in[label] > 0 && border[label] < 0.12 * whole) pixels += out[label];
    return pixels / (face.pxPerMm * face.pxPerMm);
}

/// How far bare and covered lie apart, in standard deviations within them.
double apartOf(const cv::Mat& share, double threshold) {
    const cv::Mat on = share >= threshold, off = ~on;
    double variance = 0;
    for (const cv::Mat* part : {&on, &off}) {
        if (cv::countNonZero(*part) < 16) continue;
        cv::Scalar mean, spread;
        cv::meanStdDev(share, mean, spread, *part);
        variance += 0.5 * spread[0] * spread[0];
    }
    return variance > 0 ? 1 / std::sqrt(variance) : 1e9;
}

/// Whether a face of one kind is bare, by what is known of either.
bool looksBare(const cv::Vec3d& lab, const FilmOptions& options) {
    if (options.surface == FaceSurface::bareDie && lab[0] < 40) return true;
    if (options.surface == FaceSurface::plate && likeCopper(lab)) return true;
    return options.typical
           && distance(lab, {options.typical->lightness, options.typical->a, options.typical->b}) > 20;
}

FilmAppearance appearanceOf(const cv::Vec3d& lab) { return {lab[0], lab[1], lab[2], 1}; }

} // namespace

const char* codeOf(LookFlag flag) {
    switch (flag) {
    case LookFlag::cornersNotFound:
        return "corners-not-found";
    case LookFlag::lowContrast:
        return "low-contrast";
    case LookFlag::glare:
        return "glare";
    case LookFlag::blurred:
        return "blurred";
    case LookFlag::outOfFrame:
        break;
    }
    return "out-of-frame";
}

/// Kinds of place on the face, fitted on a small copy of it.
static FilmClasses coarseClasses(const cv::Mat& smooth, const cv::Mat& counted, const cv::Rect& inside) {
    const double shrink =
        std::min(1.0, static_cast<double>(fittedAcross) / std::max(inside.width, inside.height));
    cv::Mat coarse, coarseCounted;
    cv::resize(smooth(inside), coarse, {}, shrink, shrink, cv::INTER_AREA);
    cv::resize(counted(inside), coarseCounted, coarse.size(), 0, 0, cv::INTER_NEAREST);
    // The shadow of the face's own edge is no kind of place on it.
    cv::rectangle(coarseCounted, {0, 0}, {coarseCounted.cols - 1, coarseCounted.rows - 1}, cv::Scalar(0), 1);
    return filmClasses(logOf(coarse), coarseCounted);
}

/// Patches of glare, which do not count; none where most of the face glares.
static std::vector<GlarePatch> takeGlareOut(const cv::Mat& whole, const cv::Rect& inside, cv::Mat& counted,
                                            std::vector<LookFlag>& flags) {
    const cv::Mat glare = glareOf(whole);
    const double glaring = cv::countNonZero(glare(inside)) / static_cast<double>(inside.area());
    if (glaring >= mostGlare) return {};
    auto patches = glarePatches(glare(inside));
    cv::Mat faceCounted = counted(inside);
    for (const GlarePatch& patch : patches) faceCounted(patch.box).setTo(0, patch.hazy);
    if (glaring > glareShare) flags.push_back(LookFlag::glare);
    return patches;
}

FilmPicture filmPicture(const FacePicture& face, const FilmOptions& options) {
    const cv::Mat whole = viewOf(face.picture);
    const cv::Rect inside(face.margin, face.margin, face.faceWidth(), face.faceHeight());
    cv::Mat counted = viewOf(face.seen).clone();
    FilmPicture made;
    const auto patches = takeGlareOut(whole, inside, counted, made.flags);
    cv::Mat smooth;
    cv::GaussianBlur(whole, smooth, {}, 0.8);
    const FilmClasses classes = coarseClasses(smooth, counted, inside);

    const std::array<cv::Vec3d, 2> lab{labOfLog(classes.kinds[0].logRgb), labOfLog(classes.kinds[1].logRgb)};
    const double barer = firstIsBarer(classes, lab, options);
    const std::size_t covered = barer >= 0 ? 1 : 0;
    made.covered = appearanceOf(lab[covered]);
    made.bare = appearanceOf(lab[1 - covered]);
    const double contrast = distance(lab[0], lab[1]);
    const Mixing mixing = mixingOf(classes, covered);
    const cv::Mat colours = unlit(smooth, classes.light, face.margin);
    cv::Mat share = shareOf(colours, mixing);
    cv::Mat faceShare = share(inside).clone();
    if (made.covered.lightness > whiteFrom) {
        cv::Mat faceCounted = counted(inside);
        keepOverexposed(faceShare, faceCounted, patches);
    }
    fillIn(faceShare, counted(inside));
    const Scale scale = scaleOf(ShareHistogram(faceShare, counted(inside)));
    faceShare = (faceShare - scale.zero) / (scale.one - scale.zero);
    made.threshold = scale.threshold;

    if (contrast < leastContrast || std::abs(barer) < leastReported
        || apartOf(faceShare, made.threshold) < leastApart)
        made.flags.push_back(LookFlag::lowContrast);
    if (contrast < oneKind) { // nothing but noise apart: the face is of one kind
        faceShare.setTo(looksBare(0.5 * (lab[0] + lab[1]), options) ? 0.0 : 1.0);
    } else if (edgeWidth(faceShare) > blurredShare * std::max(inside.width, inside.height)) {
        made.flags.push_back(LookFlag::blurred);
    }
    cv::Mat film;
    faceShare.convertTo(film, CV_8U, filmLevels);
    made.film = greyOf(film);
    const CoveredRange range = coveredRange(made);
    if (range.high - range.low > unsureRange
        && std::find(made.flags.begin(), made.flags.end(), LookFlag::lowContrast) == made.flags.end())
        made.flags.push_back(LookFlag::lowContrast);

    made.outsideMm2 = outsideOf(faceShare, colours, mixing.bare + mixing.way, counted, face, made.threshold);
    return made;
}

GreyPicture maskAt(const GreyPicture& film, double thinFrom, double threshold) {
    std::array<std::uint8_t, 256> level{};
    for (std::size_t i = 0; i < level.size(); ++i) {
        const double share = static_cast<double>(i) / filmLevels;
        level[i] = share >= threshold ? maskCovered : share >= thinFrom ? maskThin : maskBare;
    }
    GreyPicture mask{film.width, film.height, film.grey};
    for (std::uint8_t& at : mask.grey) at = level[at];
    return mask;
}

CoveredRange coveredRange(const FilmPicture& film) {
    const auto above = [&](double threshold) {
        const auto n = std::count_if(film.film.grey.begin(), film.film.grey.end(),
                                     [&](std::uint8_t at) { return at / filmLevels >= threshold; });
        return static_cast<double>(n) / static_cast<double>(std::max<std::size_t>(1, film.film.grey.size()));
    };
    return {above(film.threshold), above(film.threshold + thresholdSway),
            above(film.threshold - thresholdSway)};
}

} // namespace ibuki
