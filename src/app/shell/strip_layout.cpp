// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/strip_layout.h"

#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"

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
    if (layer.thickness) parts << QString("%1 mm thick").arg(layer.thickness->value);
    if (layer.metal != Metal::unknown) parts << text(word(layer.metal));
    if (layer.conductivity) parts << QString("%1 W/(m·K)").arg(layer.conductivity->value);
    return parts.join(", ");
}

QString interfaceText(const Document& document, const Layer& layer, const Mount* mount) {
    if (!mount || !layer.site) return {};
    const Material* material = materialAt(document, mount->id, *layer.site);
    return material ? QString::fromStdString(material->name) : QString();
}

void addTemperatures(StripModel& model, const Document& document, const Question* question,
                     const Mount* mount) {
    if (!mount) return;
    const auto runs = runsOf(document, mount->id);
    if (runs.empty()) return;
    const Reduction* reduction = reductionOf(document, runs.front()->id);
    const LoadReduction* load = reduction ? loadOf(*reduction, *runs.front()) : nullptr;
    if (!load) return;
    const auto metric = metricFromName(question ? question->metric : "hottest").value_or(Metric::hottest);
    if (const auto value = load->metrics.find(metric); value != load->metrics.end())
        model.chipC = value->second.temperatureC;
    model.roomC = load->ambient.meanC;
}

} // namespace

bool StripModel::sharesKnown() const {
    return !blocks.empty() && std::all_of(blocks.begin(), blocks.end(), [](const StripBlock& block) {
        return block.share.has_value();
    });
}

StripModel stripModel(const Document& document, std::optional<Id<Bench>> bench, const Question* question,
                      const Mount* mount) {
    StripModel model;
    const Bench* of = document.find(bench);
    const Configuration* configuration = bench ? currentConfiguration(document, *bench) : nullptr;
    if (mount) configuration = document.find(mount->configuration);
    if (!of || !configuration) {
        model.blocks.push_back({std::nullopt, LayerKind::room, "Describe a bench", "", std::nullopt, false});
        return model;
    }
    for (const Layer* layer : layersOf(document, configuration->id)) {
        StripBlock block;
        block.layer = layer->id;
        block.kind = layer->kind;
        block.name = QString::fromStdString(layer->name);
        block.underStudy = question && layer->site == question->site;
        const QString material = interfaceText(document, *layer, mount);
        block.detail = QStringList{material, sizeText(*layer)}.filter(QRegularExpression(".")).join(", ");
        if (!material.isEmpty()) block.name += "\n" + material;
        model.blocks.push_back(std::move(block));
    }
    addTemperatures(model, document, question, mount);
    model.caption = mount ? QString::fromStdString(mount->name) : QString::fromStdString(of->name);
    return model;
}

int StripLayout::blockAt(double x, double y) const {
    for (std::size_t i = 0; i < rects.size(); ++i)
        if (rects[i].contains(x, y)) return static_cast<int>(i);
    return -1;
}

StripLayout layoutStrip(const StripModel& model, const QRectF& area, double minimum) {
    StripLayout layout;
    if (model.blocks.empty()) return layout;
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
    if (model.chipC)
        layout.boundaries.push_back({area.left(), QString("%1 °C").arg(*model.chipC, 0, 'f', 1)});
    if (model.roomC)
        layout.boundaries.push_back({area.right(), QString("%1 °C").arg(*model.roomC, 0, 'f', 1)});
    return layout;
}

} // namespace ibuki
