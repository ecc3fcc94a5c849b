// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/strip_layout.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "core/heat/seen_path.h"

#include <QRegularExpression>
#include <QStringList>
#include <algorithm>

namespace ibuki {
namespace {

QString text(std::string_view view) { return QString::fromUtf8(view.data(), static_cast<int>(view.size())); }

QString sizeText(const Layer& layer) {
    QStringList parts;
    if (layer.width && layer.length)
        parts << QString("%1 × %2 mm").arg(layer.width->value).arg(layer.length->value);
    if (layer.thickness) parts << say("%1 mm thick").arg(layer.thickness->value);
    if (layer.metal != Metal::unknown) parts << text(word(layer.metal));
    if (layer.conductivity) parts << say("%1 W/(m·K)").arg(layer.conductivity->value);
    return parts.join(", ");
}

QString interfaceText(const Document& document, std::optional<Id<Site>> site, const Mount* mount) {
    if (!mount || !site) return {};
    const Material* material = materialAt(document, mount->id, *site);
    return material ? QString::fromStdString(material->name) : QString();
}

/// What reads the source of a path that begins beside the chip.
std::optional<Metric> metricAt(std::optional<SiteKind> kind) {
    if (kind == SiteKind::memory) return Metric::memory;
    if (kind == SiteKind::powerStage) return Metric::vrm;
    return std::nullopt;
}

/// kind: of the site beside the chip at which the path begins; nothing: it begins at the chip.
void addTemperatures(StripModel& model, const Document& document, const Question* question,
                     const Mount* mount, std::optional<SiteKind> kind) {
    if (!mount) return;
    const auto runs = runsOf(document, mount->id);
    if (runs.empty()) return;
    const Reduction* reduction = reductionOf(document, runs.front()->id);
    const auto metric = metricAt(kind).value_or(question ? question->metric : Metric::hottest);
    const LoadReduction* load = reduction ? loadOf(*reduction, *runs.front(), metric) : nullptr;
    if (!load) return;
    if (const auto value = load->metrics.find(metric); value != load->metrics.end())
        model.chipC = value->second.temperatureC;
    model.ambientC = load->ambient.meanC;
}

} // namespace

double StripModel::totalK() const {
    double sum = 0;
    for (const StripBlock& block : blocks) sum += std::max(0.0, block.deltaK.value_or(0));
    return sum;
}

bool StripModel::sharesKnown() const {
    return !blocks.empty() && std::all_of(blocks.begin(), blocks.end(), [](const StripBlock& block) {
        return block.share.has_value();
    });
}

namespace {

StripBlock blockOf(const Document& document, const Layer& layer, const Question* question,
                   const Mount* mount) {
    StripBlock block;
    block.layer = layer.id;
    block.site = layer.site;
    block.kind = layer.kind;
    block.name = QString::fromStdString(layer.name);
    block.underStudy = question && layer.site == question->site;
    const QString material = interfaceText(document, layer.site, mount);
    block.detail = QStringList{material, sizeText(layer)}.filter(QRegularExpression(".")).join(", ");
    if (!material.isEmpty()) block.name += "\n" + material;
    return block;
}

QString withCount(const Site& site) {
    const QString name = QString::fromStdString(site.name);
    return site.alike > 1 ? say("%1, %2 alike").arg(name).arg(site.alike) : name;
}

/// The source and the interface of a path that begins beside the chip.
std::vector<StripBlock> sideBlocks(const Document& document, const Site& site, const Question* question,
                                   const Mount* mount) {
    StripBlock source;
    source.site = site.id;
    source.name = withCount(site);
    StripBlock interface = source;
    interface.kind = LayerKind::interface;
    interface.name = say("interface");
    interface.underStudy = question && question->site == site.id;
    const QString material = interfaceText(document, site.id, mount);
    interface.detail = material;
    if (!material.isEmpty()) interface.name = material;
    return {source, interface};
}

/// The paths of a configuration: the chain of its layers, and a branch for every site that no layer holds. A
/// branch joins the chain at the first plate, or the cooler where there is none.
struct Paths {
    std::vector<const Layer*> chain;
    std::vector<const Site*> branches;
    std::size_t joins = 0; ///< index into chain
};

Paths pathsOf(const Document& document, Id<Configuration> configuration) {
    Paths paths;
    paths.chain = layersOf(document, configuration);
    for (const Site* site : document.where(&Site::configuration, configuration))
        if (std::none_of(paths.chain.begin(), paths.chain.end(),
                         [&](const Layer* layer) { return layer->site == site->id; }))
            paths.branches.push_back(site);
    const auto takes = [](const Layer* layer) {
        return layer->kind == LayerKind::plate || layer->kind == LayerKind::cooler;
    };
    const auto found = std::find_if(paths.chain.begin(), paths.chain.end(), takes);
    paths.joins = static_cast<std::size_t>(found - paths.chain.begin());
    return paths;
}

std::optional<Id<Site>> firstSite(const Paths& paths) {
    for (const Layer* layer : paths.chain)
        if (layer->site) return layer->site;
    return std::nullopt;
}

} // namespace

namespace {

/// The room has no difference of its own: it is left where it is, without a figure.
/// whole: between the path's ends, K.
void addFigures(StripModel& model, const SeenPath& path, bool isOneMount, double whole) {
    if (!(whole > 0)) return;
    for (StripBlock& block : model.blocks) {
        const auto at = std::find_if(path.layers.begin(), path.layers.end(),
                                     [&](const SeenLayer& layer) { return block.layer == layer.layer; });
        if (at == path.layers.end()) {
            block.share = 0;
            block.deltaK = 0;
            continue;
        }
        block.deltaK = at->deltaK;
        block.share = std::max(0.0, at->deltaK / whole);
        block.hotC = at->hotC;
        block.isAssumed = at->isAssumed;
        block.figures = say("%1 K, %2 K/W, from %3 to %4 °C")
                            .arg(at->deltaK, 0, 'f', 1)
                            .arg(at->kPerW, 0, 'f', 4)
                            .arg(at->hotC, 0, 'f', 1)
                            .arg(at->coldC, 0, 'f', 1);
        if (at->isStudied) block.figures += say("; %1 mm²·K/W").arg(path.studiedMm2KPerW, 0, 'f', 1);
        if (at->isStudied && path.studiedMm2KPerW < 0)
            block.figures +=
                say(" (below zero: the anchor is too large, or the scatter as large as the joint)");
        if (at->isAssumed) block.figures += say("; in part assumed");
    }
    if (isOneMount) return; // its own ends are those of its log
    model.chipC = path.chipC;
    model.ambientC = path.ambientC;
}

const Material* plannedMaterial(const Document& document, const Question& question, const Slot& slot) {
    const Level* level = levelIn(document, question, slot);
    return level ? document.find(level->material) : nullptr;
}

std::optional<SeenPath> seenPath(const Document& document, const Question* question, const Mount* mount,
                                 std::optional<Id<Material>> material, const Slot* planned) {
    if (!question) return std::nullopt;
    if (mount) return pathOfMount(studyHeat(document, *question, mount->configuration), mount->id);
    const StudyHeat& heat = studyHeat(document, *question, std::nullopt);
    if (planned) return pathOfPlan(heat, plannedMaterial(document, *question, *planned));
    auto ofMaterial = material ? pathOfMaterial(heat, material) : std::nullopt;
    return ofMaterial ? ofMaterial : pathOfMaterial(heat, std::nullopt);
}

QString captionOf(const Document& document, const Bench& bench, const Question* question, const Mount* mount,
                  const Slot* planned, const std::optional<SeenPath>& path) {
    if (mount) return QString::fromStdString(mount->name);
    const Level* level = planned && question ? levelIn(document, *question, *planned) : nullptr;
    if (path && planned)
        return path->mounts > 0
                   ? say("planned: %1, as it was measured").arg(level ? qtext(level->name) : QString())
                   : say("planned: %1, as is stated or usual").arg(level ? qtext(level->name) : QString());
    const QString name = QString::fromStdString(bench.name);
    return path ? sayMany("%1, mean of {count} mount", "%1, mean of {count} mounts", path->mounts).arg(name)
                : name;
}

} // namespace

StripModel stripModel(const Document& document, std::optional<Id<Bench>> bench, const Question* question,
                      const Mount* mount, std::optional<Id<Site>> site, std::optional<Id<Material>> material,
                      std::optional<Id<Slot>> slot) {
    StripModel model;
    const Bench* of = document.find(bench);
    const Configuration* configuration = bench ? currentConfiguration(document, *bench) : nullptr;
    if (mount) configuration = document.find(mount->configuration);
    if (!of || !configuration) {
        StripBlock wish;
        wish.kind = LayerKind::room;
        wish.name = say("Describe a bench");
        model.blocks.push_back(wish);
        return model;
    }
    const Paths paths = pathsOf(document, rigOf(document, configuration->id));
    if (!site && question) site = question->site;
    const auto shown = std::find_if(paths.branches.begin(), paths.branches.end(),
                                    [&](const Site* branch) { return branch->id == site; });
    const bool atBranch = shown != paths.branches.end();
    if (atBranch) model.blocks = sideBlocks(document, **shown, question, mount);
    const std::size_t before = model.blocks.size();
    for (std::size_t i = atBranch ? paths.joins : 0; i < paths.chain.size(); ++i)
        model.blocks.push_back(blockOf(document, *paths.chain[i], question, mount));
    const std::size_t joins = std::min(atBranch ? before : paths.joins, model.blocks.size() - 1);
    if (const auto main = firstSite(paths); atBranch && main)
        model.others.push_back({*main, paths.chain.front()->name.c_str(), joins});
    for (const Site* branch : paths.branches)
        if (!atBranch || branch != *shown) model.others.push_back({branch->id, withCount(*branch), joins});
    if (atBranch) model.source = QString::fromStdString((*shown)->name);
    addTemperatures(model, document, question, mount,
                    atBranch ? std::optional((*shown)->kind) : std::nullopt);
    const Slot* planned = mount ? nullptr : document.find(slot);
    const auto path = seenPath(document, question, mount, material, planned);
    if (path && atBranch)
        addBranchFigures(model, *path);
    else if (path)
        addFigures(model, *path, mount != nullptr || planned, path->chipC - path->ambientC);
    if (path && planned && !atBranch) model.isComputed = true;
    model.caption = captionOf(document, *of, question, mount, planned, path);
    return model;
}

void addBranchFigures(StripModel& model, const SeenPath& path) {
    constexpr std::size_t own = 1; // the branch's joint, behind its source
    if (!model.chipC || !model.ambientC || model.blocks.size() < 3) return;
    const auto plate = std::find_if(path.layers.begin(), path.layers.end(), [&](const SeenLayer& layer) {
        return model.blocks[own + 1].layer == layer.layer;
    });
    const double whole = *model.chipC - *model.ambientC;
    if (plate == path.layers.end() || !(whole > 0)) return;
    addFigures(model, path, true, whole);
    StripBlock& joint = model.blocks[own];
    joint.deltaK = *model.chipC - plate->hotC;
    joint.share = std::max(0.0, *joint.deltaK / whole);
    joint.hotC = model.chipC;
    joint.figures = say("%1 K, from %2 to %3 °C; its power is not known")
                        .arg(*joint.deltaK, 0, 'f', 1)
                        .arg(*model.chipC, 0, 'f', 1)
                        .arg(plate->hotC, 0, 'f', 1);
}

StripModel stripOfComputed(const StripModel& model, const SeenPath& path, const QString& caption) {
    StripModel computed = model;
    computed.beside.clear();
    computed.chipC.reset();
    computed.ambientC.reset();
    computed.isComputed = true;
    computed.caption = caption;
    addFigures(computed, path, true, path.chipC - path.ambientC);
    return computed;
}

int StripLayout::itemAt(double x, double y) const {
    for (std::size_t i = 0; i < rects.size(); ++i)
        if (rects[i].contains(x, y)) return static_cast<int>(i);
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (lines[i].contains(x, y)) return static_cast<int>(rects.size() + i);
    return -1;
}

namespace {

void addBoundaries(const StripModel& model, StripLayout& layout) {
    const auto add = [&](double x, double celsius, bool isMeasured) {
        layout.boundaries.push_back({x, QString("%1 °C").arg(celsius, 0, 'f', 1), isMeasured});
    };
    if (model.chipC) add(layout.rects.front().left(), *model.chipC, true);
    for (std::size_t i = 1; i < model.blocks.size(); ++i)
        if (model.blocks[i].hotC) add(layout.rects[i].left(), *model.blocks[i].hotC, false);
    if (model.ambientC) add(layout.rects.back().right(), *model.ambientC, true);
}

/// Blocks by their difference, from left to right.
StripLayout scaledRow(const StripModel& model, const QRectF& row, double pixelsPerK) {
    StripLayout layout;
    double x = row.left();
    for (const StripBlock& block : model.blocks) {
        const double width = pixelsPerK * std::max(0.0, block.deltaK.value_or(0));
        layout.rects.emplace_back(x, row.top(), width, row.height());
        x += width;
    }
    return layout;
}

} // namespace

StripPair layoutPair(const StripModel& upper, const StripModel& lower, const QRectF& area) {
    const double most = std::max({upper.totalK(), lower.totalK(), 1e-9});
    const double scale = area.width() / most;
    const double height = (area.height() - 4) / 2;
    const QRectF first(area.left(), area.top(), area.width(), height);
    const QRectF second = first.translated(0, height + 4);
    StripPair pair{
        scaledRow(upper, first, scale), scaledRow(lower, second, scale), {}, upper.totalK() - lower.totalK()};
    const QRectF& longer = pair.differenceK > 0 ? first : second;
    const double from = area.left() + scale * std::min(upper.totalK(), lower.totalK());
    pair.difference = QRectF(from, longer.top(), area.right() - from, height);
    return pair;
}

StripLayout layoutStrip(const StripModel& model, const QRectF& whole, double lineHeight, double minimum) {
    StripLayout layout;
    if (model.blocks.empty()) return layout;
    const QRectF area = whole.adjusted(0, 0, 0, -lineHeight * static_cast<double>(model.others.size()));
    const double n = static_cast<double>(model.blocks.size());
    std::vector<double> widths(model.blocks.size(), area.width() / n);
    if (model.sharesKnown()) {
        const double least = std::min(minimum, area.width() / n);
        double total = 0;
        for (const StripBlock& block : model.blocks) total += std::max(0.0, *block.share);
        const double free = area.width() - n * least;
        for (std::size_t i = 0; i < widths.size(); ++i)
            widths[i] = least + (total > 0 ? free * std::max(0.0, *model.blocks[i].share) / total : free / n);
    }
    double x = area.left();
    for (double width : widths) {
        layout.rects.emplace_back(x, area.top(), width, area.height());
        x += width;
    }
    for (std::size_t i = 0; i < model.others.size(); ++i) {
        const double end = layout.rects[model.others[i].joins].center().x();
        layout.lines.emplace_back(area.left(), area.bottom() + static_cast<double>(i) * lineHeight,
                                  end - area.left(), lineHeight);
    }
    addBoundaries(model, layout);
    return layout;
}

} // namespace ibuki
