// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/gap_page.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/forms/bench_dialogs.h"
#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/gap_drawing.h"
#include "core/domain/bench.h"
#include "core/shelf/class_defaults.h"
#include "core/shelf/gap.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QScrollArea>
#include <QVBoxLayout>

namespace ibuki {
namespace {

QString fitText(PadFit fit) {
    switch (fit) {
    case PadFit::noContact:
        return say("no contact");
    case PadFit::unreliable:
        return say("hardly touches");
    case PadFit::good:
        return say("good");
    case PadFit::fair:
        return say("usable");
    case PadFit::tooThick:
        return say("too thick");
    }
    return {};
}

QString thicknessText(double mm) { return QString::number(mm, 'g', 3) + " mm"; }

} // namespace

GapPage::GapPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 12, 18, 12);
    auto* row = new QHBoxLayout;
    row->addWidget(cardTitle(say("Pads under one plate")), 1);
    row->addWidget(quietLabel(say("Pad")), 0);
    pads_ = makePads();
    row->addWidget(pads_);
    layout->addLayout(row);
    table_ = new QWidget;
    grid_ = new QGridLayout(table_);
    grid_->setContentsMargins(0, 6, 0, 6);
    grid_->setHorizontalSpacing(18);
    layout->addWidget(table_);
    die_ = new QLabel;
    setTextFont(die_, 1.6, QFont::DemiBold);
    die_->setWordWrap(true);
    die_->setAccessibleName(say("Die contact"));
    layout->addWidget(die_);
    words_ = new QLabel;
    words_->setWordWrap(true);
    words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    words_->setAccessibleName(say("Forces and bow"));
    layout->addWidget(words_);
    caveat_ = quietLabel(
        say("Physics: strain, force and bow (a round steel plate, held or free at its edge). Rule of "
            "thumb: 10 to 30 % of compression is a good fit; stiffness is a strain-at-pressure slope "
            "that pads leave above 30 %. Look at the imprint on the die and on every pad."));
    layout->addWidget(caveat_);
    drawing_ = new GapDrawing;
    layout->addWidget(drawing_, 1);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(scrolled(layout));
    outer->addWidget(card(inside));
}

QComboBox* GapPage::makePads() {
    auto* pads = new QComboBox;
    pads->setAccessibleName(say("Pad"));
    pads->setObjectName("Pad");
    pads->setPlaceholderText(say("no pad on the shelf"));
    pads->setMinimumContentsLength(16);
    connect(pads, &QComboBox::activated, this, [this, pads](int index) {
        pad_ = Id<Material>{pads->itemData(index).toLongLong()};
        thickness_.clear();
        showReport();
    });
    return pads;
}

void GapPage::refresh() {
    fillPads();
    showReport();
}

void GapPage::fillPads() {
    const auto& all = session_.document().all<Material>();
    const auto isPad = [&](std::optional<Id<Material>> id) {
        const Material* material = session_.document().find(id);
        return material
               && (material->kind == MaterialClass::gapPad || material->kind == MaterialClass::putty);
    };
    if (isPad(session_.selection().material)) pad_ = session_.selection().material;
    pads_->clear();
    for (const auto& [id, material] : all)
        if (isPad(id)) {
            pads_->addItem(classIcon(material.kind), qtext(material.name), static_cast<qlonglong>(id.value));
            if (!isPad(pad_)) pad_ = id;
        }
    pads_->setCurrentIndex(pad_ ? pads_->findData(static_cast<qlonglong>(pad_->value)) : -1);
}

namespace {

void clear(QGridLayout& grid) {
    while (QLayoutItem* item = grid.takeAt(0)) {
        if (QWidget* old = item->widget()) {
            old->hide();
            old->deleteLater(); // one of them may have the focus
        }
        delete item;
    }
}

QString forceText(const GapReport& report, const Configuration& configuration, const Material& pad) {
    QStringList words;
    words << say("The screws give %1 N%2, the pads take %3 N of it.")
                 .arg(report.mountForceN, 0, 'f', 0)
                 .arg(configuration.mountForce ? "" : say(" (usual: state it on the bench sheet)"))
                 .arg(report.padForceN, 0, 'f', 0);
    if (report.bow)
        words << say("The backplate bows by %1 to %2 µm (edge held to edge free).")
                     .arg(report.bow->clampedUm, 0, 'f', 0)
                     .arg(report.bow->supportedUm, 0, 'f', 0);
    else
        words << say(
            "State the backplate's thickness and radius on the bench sheet to know how far it bows.");
    if (factsOf(pad).modulusMPa && factsOf(pad).modulusMPa->isDefault)
        words << say("The pad's stiffness is the usual one of its class.");
    return words.join("\n");
}

} // namespace

void GapPage::showReport() {
    clear(*grid_);
    const Configuration* configuration = session_.configuration();
    const Material* pad = session_.document().find(pad_);
    table_->hide();
    die_->clear();
    caveat_->hide();
    drawing_->show({});
    if (!configuration || !pad) {
        words_->setText(!configuration
                            ? say("First describe a bench.")
                            : say("No gap pad or putty stands on the shelf yet. Add one on the shelf page."));
        return;
    }
    const GapReport report = gapReport(session_.document(), *configuration, *pad, thickness_);
    if (report.lines.empty() && report.missing.empty()) {
        words_->setText(
            say("This bench has no site that a pad bridges: memory, power stages or a backplate. A "
                "graphics card has."));
        return;
    }
    int column = 0;
    for (const QString& head : {say("Site"), say("Gap, mm"), say("Pad tried"), say("Pressed"), say("Force"),
                                say("Fit"), say("Thicknesses that fit")})
        grid_->addWidget(quietLabel(head), 0, column++);
    grid_->setColumnStretch(6, 1);
    int row = 1;
    for (const GapLine& line : report.lines) addLine(row++, line);
    for (Id<Site> site : report.missing) addMissing(row++, site);
    table_->show();
    caveat_->show();
    drawing_->show(report);
    if (report.lines.empty()) {
        words_->setText(say("Type the gaps to know how the pads are pressed."));
        return;
    }
    die_->setText(report.dieTouches ? say("The die touches, with %1 N").arg(report.dieForceN, 0, 'f', 0)
                                    : say("The die does not touch: the pads take more than the screws give"));
    QPalette palette = die_->palette();
    palette.setColor(QPalette::WindowText, report.dieTouches ? colours().ink : colours().hot);
    die_->setPalette(palette);
    words_->setText(forceText(report, *configuration, *pad));
}

NumberField* GapPage::addGapField(int row, Id<Site> site, const std::string& name) {
    auto* gap = new NumberField(say("Gap at ") + qtext(name), {0, true});
    gap->setMaximumWidth(90);
    connect(gap, &QLineEdit::editingFinished, this, [this, gap, site] {
        if (gap->value())
            stateGap(site, *gap->value());
        else if (!gap->text().isEmpty())
            session_.refuse(gap->complaint());
    });
    grid_->addWidget(gap, row, 1);
    return gap;
}

/// A site that cannot be judged yet: the gap can be typed here, the size belongs to the bench.
void GapPage::addMissing(int row, Id<Site> id) {
    const Site* site = session_.document().find(id);
    grid_->addWidget(new QLabel(qtext(site->name)), row, 0);
    auto* gap = addGapField(row, id, site->name);
    if (site->gap) gap->show(site->gap->value);
    if (site->width && site->length) return;
    auto* size = button(say("State its size…"));
    size->setProperty("quiet", true);
    connect(size, &QPushButton::clicked, this, [this, id] { openDialog(new SiteSheet(session_, id, this)); });
    grid_->addWidget(size, row, 2, 1, 3, Qt::AlignLeft);
}

void GapPage::addLine(int row, const GapLine& line) {
    const Id<Site> site = line.site;
    auto* name =
        new QLabel(line.pad.pieces > 1 ? say("%1, %2 alike").arg(qtext(line.pad.site)).arg(line.pad.pieces)
                                       : qtext(line.pad.site));
    grid_->addWidget(name, row, 0);
    addGapField(row, site, line.pad.site)->show(line.pad.gapMm);
    auto* tried = new QComboBox;
    tried->setAccessibleName(say("Pad tried at ") + qtext(line.pad.site));
    tried->setObjectName("Pad tried at " + qtext(line.pad.site));
    std::vector<double> choices(typicalPadThicknessesMm.begin(), typicalPadThicknessesMm.end());
    if (std::find(choices.begin(), choices.end(), line.pad.thicknessMm) == choices.end())
        choices.insert(std::lower_bound(choices.begin(), choices.end(), line.pad.thicknessMm),
                       line.pad.thicknessMm);
    for (double mm : choices) {
        tried->addItem(thicknessText(mm), mm);
        if (mm == line.pad.thicknessMm) tried->setCurrentIndex(tried->count() - 1);
    }
    connect(tried, &QComboBox::activated, this, [this, tried, site](int index) {
        thickness_[site] = tried->itemData(index).toDouble();
        QMetaObject::invokeMethod(this, &GapPage::showReport,
                                  Qt::QueuedConnection); // the box goes away with it
    });
    grid_->addWidget(tried, row, 2);
    grid_->addWidget(new QLabel(QString("%1 %").arg(100 * line.state.strain, 0, 'f', 0)), row, 3);
    grid_->addWidget(new QLabel(QString("%1 N").arg(line.state.forceN, 0, 'f', 0)), row, 4);
    auto* fit = new QLabel(fitText(line.state.fit));
    setTextFont(fit, 1.0, QFont::DemiBold);
    if (line.state.fit != PadFit::good && line.state.fit != PadFit::fair) {
        QPalette palette = fit->palette();
        palette.setColor(QPalette::WindowText, colours().hot);
        fit->setPalette(palette);
    }
    grid_->addWidget(fit, row, 5);
    QStringList fitting;
    for (double mm : line.fitting) fitting << thicknessText(mm);
    grid_->addWidget(quietLabel(fitting.isEmpty() ? say("none of the usual ones") : fitting.join(", ")), row,
                     6);
}

void GapPage::stateGap(Id<Site> id, double gapMm) {
    const Site* site = session_.document().find(id);
    if (!site || (site->gap && site->gap->value == gapMm)) return;
    Site changed = *site;
    changed.gap = Millimetre{gapMm};
    Edit edit(session_.document(), titled("Gap at {site}", {{"site", site->name}}));
    edit.put(changed);
    session_.perform(edit.finish());
}

} // namespace ibuki
