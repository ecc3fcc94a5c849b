// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/material_panel.h"

#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/package_sheet.h"
#include "app/shelf/shelf_items.h"
#include "core/shelf/class_defaults.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

const ClassDefaults& typicalOf(const Material& material) { return classDefaults(material.kind); }

QString typically(const std::optional<double>& value) {
    return value ? say("usual for its class: %1").arg(*value) : say("not stated");
}

} // namespace

MaterialPanel::MaterialPanel(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), form_(session, new QFormLayout, words::mark("material")) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(2, 2, 8, 2);
    layout->addLayout(form_.layout());
    addFields();
    layout->addWidget(quietLabel(say("Packages one can buy")));
    packages_ = new QListWidget;
    packages_->setAccessibleName(say("Packages"));
    packages_->setObjectName("Packages");
    packages_->setMaximumHeight(90);
    connect(packages_, &QListWidget::itemActivated, this, [this](const QListWidgetItem* item) {
        openPackage(Id<Package>{item->data(Qt::UserRole).toLongLong()});
    });
    layout->addWidget(packages_);
    auto* row = new QHBoxLayout;
    auto* add = button(say("Add package"));
    connect(add, &QPushButton::clicked, this, [this] { openPackage(std::nullopt); });
    auto* remove = button(say("Remove package"));
    connect(remove, &QPushButton::clicked, this, &MaterialPanel::removePackage);
    row->addWidget(add);
    row->addWidget(remove);
    row->addStretch(1);
    layout->addLayout(row);
    layout->addStretch(1);
}

void MaterialPanel::addFields() {
    form_.text(say("Material"), &Material::name);
    form_.choice(say("Class"), &Material::kind);
    form_.number(say("Claim, W/(m·K)"), &Material::claimedConductivity, 0, true)
        ->setToolTip(
            say("What the label says. Claims of different makers are not comparable and never rank."));
    const auto withTypical = [this](QLineEdit* field, QString (*tell)(const Material&)) {
        typical_ << std::pair{field, tell};
    };
    withTypical(form_.number(say("Density, g/mL"), &Material::densityGPerMl, 0, true),
                [](const Material& m) { return typically(typicalOf(m).densityGPerMl); });
    withTypical(form_.number(say("Bond line, µm"), &Material::bondLine, 0, true), [](const Material& m) {
        return isCut(m.kind) ? say("not stated") : typically(typicalOf(m).bondLineUm);
    });
    withTypical(form_.number(say("Thickness, mm"), &Material::thickness, 0, true), [](const Material& m) {
        return isCut(m.kind) ? typically(typicalOf(m).bondLineUm / 1000) : say("not stated");
    });
    withTypical(form_.number(say("Yield stress, Pa"), &Material::yieldPa, 0, true),
                [](const Material& m) { return typically(typicalOf(m).yieldPa); });
    withTypical(form_.number(say("Viscosity, Pa·s"), &Material::viscosityPaS, 0, true),
                [](const Material& m) { return typically(typicalOf(m).viscosityPaS); });
    withTypical(form_.number(say("Stiffness of a pad, MPa"), &Material::modulusMPa, 0, true),
                [](const Material& m) { return typically(typicalOf(m).modulusMPa); });
    withTypical(form_.number(say("Coldest, °C"), &Material::coldest),
                [](const Material& m) { return typically(typicalOf(m).minC); });
    withTypical(form_.number(say("Hottest, °C"), &Material::hottest),
                [](const Material& m) { return typically(typicalOf(m).maxC); });
    withTypical(form_.number(say("Melts at, °C"), &Material::melts),
                [](const Material& m) { return typically(typicalOf(m).meltsC); });
    form_.choice(say("Conducts electricity"), &Material::conductsElectricity);
    form_.choice(say("Contains gallium"), &Material::containsGallium);
    form_.choice(say("Can be used again"), &Material::reusable);
    withTypical(form_.number(say("Conditioning cycles"), &Material::conditioningCycles, 0),
                [](const Material& m) { return typically(typicalOf(m).cycles); });
    form_.number(say("Cycle from, °C"), &Material::conditioningLow);
    form_.number(say("Cycle to, °C"), &Material::conditioningHigh);
    form_.number(say("Rest after, h"), &Material::conditioningRest, 0);
    withTypical(form_.number(say("Applied anew after, years"), &Material::reapplyYears, 0, true),
                [](const Material& m) { return typically(typicalOf(m).reapplyYears); });
    form_.number(say("R″ as stated, mm²·K/W"), &Material::statedMm2KPerW, 0, true)
        ->setToolTip(say(
            "Where it is pressed, from its sheet or measured elsewhere; the heat path is anchored on it"));
    form_.note(say("Conditioning"), &Material::conditioning);
    form_.note(say("Remarks"), &Material::note);
}

void MaterialPanel::tellDefaults(const Material& material) {
    for (const auto& [field, tell] : typical_) field->setPlaceholderText(tell(material));
}

void MaterialPanel::show(Id<Material> id) {
    const Material* material = session_.document().find(id);
    if (!material) return;
    form_.show(id);
    tellDefaults(*material);
    packages_->clear();
    for (const Package* package : session_.document().where(&Package::material, id)) {
        QString line = say("%1 for %2")
                           .arg(contentText(package->content, package->unit),
                                moneyText({package->price, package->currency}));
        if (!package->note.empty()) line += ", " + qtext(package->note);
        (new QListWidgetItem(line, packages_))
            ->setData(Qt::UserRole, static_cast<qlonglong>(package->id.value));
    }
}

void MaterialPanel::openPackage(std::optional<Id<Package>> package) {
    if (form_.shown()) openDialog(new PackageSheet(session_, *form_.shown(), package, this));
}

void MaterialPanel::removePackage() {
    const QListWidgetItem* item = packages_->currentItem();
    if (!item) return;
    Edit edit(session_.document(), titled("Remove a package"));
    edit.remove(Id<Package>{item->data(Qt::UserRole).toLongLong()});
    session_.perform(edit.finish());
}

} // namespace ibuki
