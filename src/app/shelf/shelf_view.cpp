// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_view.h"

#include "app/shell/class_mark_painter.h"
#include "app/shell/theme.h"
#include "app/shell/widgets.h"
#include "store/paper/sentences.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace ibuki {
ShelfView::ShelfView(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeMaterials(), 2);
    materialCard_ = makeMaterialForm();
    layout->addWidget(materialCard_, 3);
    lotCard_ = makeLots();
    layout->addWidget(lotCard_, 3);
    empty_ = new QLabel("The shelf is empty.\nAdd the first material: a paste, a pad, a sheet, a film.");
    empty_->setAlignment(Qt::AlignCenter);
    empty_->setProperty("quiet", true);
    layout->addWidget(empty_, 6);
    refresh();
}

QWidget* ShelfView::makeMaterials() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 12, 14, 12);
    layout->addWidget(cardTitle("On the shelf"));
    materials_ = new QListWidget;
    materials_->setAccessibleName("Materials on the shelf");
    materials_->setObjectName("Materials on the shelf");
    connect(materials_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (!item || filling_) return;
        Selection selection = session_.selection();
        selection.material = Id<Material>{item->data(Qt::UserRole).toLongLong()};
        session_.select(selection);
    });
    layout->addWidget(materials_, 1);
    auto* row = new QHBoxLayout;
    auto* add = button("Add");
    add->setObjectName("Add material to the shelf");
    add->setToolTip("Add a material");
    connect(add, &QPushButton::clicked, this, &ShelfView::addMaterial);
    auto* remove = button("Remove");
    remove->setToolTip("Remove a material that nothing uses");
    connect(remove, &QPushButton::clicked, this, &ShelfView::removeMaterial);
    row->addWidget(add);
    row->addWidget(remove);
    layout->addLayout(row);
    return card(layout);
}

QWidget* ShelfView::makeMaterialForm() {
    auto* form = new QFormLayout;
    form->setContentsMargins(14, 4, 14, 12);
    materialForm_ = std::make_unique<EntityForm<Material>>(session_, form, "material");
    materialForm_->text("Material", &Material::name);
    materialForm_->choice("Class", &Material::kind);
    materialForm_->number("Claimed W/(m·K)", &Material::claimedConductivity, 0, true)
        ->setToolTip("What the label says. Claims of different makers are not comparable and never rank.");
    materialForm_->number("Density, g/mL", &Material::densityGPerMl, 0, true);
    materialForm_->number("Thickness, mm", &Material::thickness, 0, true);
    materialForm_->number("Melts at, °C", &Material::melts);
    materialForm_->flag("Conducts electricity", &Material::conductsElectricity);
    materialForm_->flag("Contains gallium", &Material::containsGallium);
    materialForm_->flag("Can be used again", &Material::reusable);
    materialForm_->note("Conditioning", &Material::conditioning);
    materialForm_->note("Remarks", &Material::note);
    cautions_ = new QLabel;
    cautions_->setWordWrap(true);
    form->addRow(cautions_);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 12, 0, 0);
    auto* title = cardTitle("Material");
    title->setContentsMargins(14, 0, 0, 0);
    layout->addWidget(title);
    layout->addWidget(scrolled(form), 1);
    return card(layout);
}

QWidget* ShelfView::makeLots() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 12, 14, 12);
    layout->addWidget(cardTitle("Its lots: tubes and sheets"));
    auto* row = new QHBoxLayout;
    lots_ = new QComboBox;
    lots_->setAccessibleName("Lot");
    connect(lots_, &QComboBox::activated, this, [this] {
        wantedLot_ = shownLot();
        fillLots();
    });
    auto* add = button("Add lot");
    connect(add, &QPushButton::clicked, this, &ShelfView::addLot);
    auto* remove = button("Remove lot");
    connect(remove, &QPushButton::clicked, this, &ShelfView::removeLot);
    layout->addWidget(lots_);
    row->addWidget(add);
    row->addWidget(remove);
    layout->addLayout(row);
    lotSummary_ = new QLabel;
    lotSummary_->setWordWrap(true);
    lotSummary_->setProperty("quiet", true);
    layout->addWidget(lotSummary_);
    auto* form = new QFormLayout;
    form->setContentsMargins(0, 0, 0, 0);
    lotForm_ = std::make_unique<EntityForm<Lot>>(session_, form, "lot");
    lotForm_->text("Lot", &Lot::name);
    lotForm_->text("Supplier", &Lot::supplier);
    lotForm_->date("Bought", &Lot::bought);
    lotForm_->date("Opened", &Lot::opened);
    lotForm_->date("Expires", &Lot::expires);
    lotForm_->number("Content", &Lot::content, 0, true);
    lotForm_->number("Remaining", &Lot::remaining, 0);
    lotForm_->text("Unit of content", &Lot::contentUnit);
    lotForm_->number("Price", &Lot::price, 0);
    lotForm_->text("Currency", &Lot::currency);
    lotForm_->text("Storage", &Lot::storage);
    lotForm_->text("Condition on opening", &Lot::condition);
    lotForm_->note("Remarks", &Lot::note);
    lotFields_ = scrolled(form);
    layout->addWidget(lotFields_, 1);
    layout->addStretch(0);
    return card(layout);
}

void ShelfView::refresh() {
    fillMaterials();
    const auto material = session_.selection().material;
    const bool any = !session_.document().all<Material>().empty();
    empty_->setVisible(!any);
    materialCard_->setVisible(any && material.has_value());
    lotCard_->setVisible(any && material.has_value());
    if (!material) return;
    materialForm_->show(material);
    const Material* shown = session_.document().find(material);
    QStringList warnings;
    const auto general = cautions({}, LidState::lidded).size();
    const auto all = cautions({shown}, LidState::lidded);
    for (std::size_t i = 0; i + general < all.size(); ++i) warnings << QString::fromStdString(all[i]);
    cautions_->setText(warnings.join("\n"));
    cautions_->setVisible(!warnings.isEmpty());
    fillLots();
}

void ShelfView::fillMaterials() {
    filling_ = true;
    materials_->clear();
    for (const auto& [id, material] : session_.document().all<Material>()) {
        auto* item =
            new QListWidgetItem(classIcon(material.kind), QString::fromStdString(material.name), materials_);
        item->setData(Qt::UserRole, static_cast<qlonglong>(id.value));
        const std::string_view kind = word(material.kind);
        item->setToolTip(QString::fromUtf8(kind.data(), static_cast<int>(kind.size())));
        if (session_.selection().material == id) materials_->setCurrentItem(item);
    }
    filling_ = false;
    if (!session_.selection().material && materials_->count() > 0) materials_->setCurrentRow(0);
}

std::optional<Id<Lot>> ShelfView::shownLot() const {
    if (lots_->currentIndex() < 0) return std::nullopt;
    return Id<Lot>{lots_->currentData().toLongLong()};
}

void ShelfView::fillLots() {
    const auto wanted = wantedLot_;
    lots_->clear();
    const auto material = session_.selection().material;
    if (material)
        for (const Lot* lot : session_.document().where(&Lot::material, *material))
            lots_->addItem(QString::fromStdString(lot->name), static_cast<qlonglong>(lot->id.value));
    const int index = wanted ? lots_->findData(static_cast<qlonglong>(wanted->value)) : 0;
    lots_->setCurrentIndex(lots_->count() == 0 ? -1 : std::max(0, index));
    const Lot* lot = session_.document().find(shownLot());
    lotFields_->setVisible(lot != nullptr);
    if (!lot) {
        lotSummary_->setText(
            "No lot yet. A lot is one tube or one sheet; mounts name the lot they took from.");
        return;
    }
    lotForm_->show(lot->id);
    QStringList parts;
    if (lot->content && lot->remaining && *lot->content > 0)
        parts << QString("%1 % left").arg(100 * *lot->remaining / *lot->content, 0, 'f', 0);
    if (lot->price && lot->content && *lot->content > 0)
        parts << QString("%1 %2 per %3")
                     .arg(*lot->price / *lot->content, 0, 'f', 2)
                     .arg(QString::fromStdString(lot->currency), QString::fromStdString(lot->contentUnit));
    lotSummary_->setText(parts.join(", "));
}

void ShelfView::addMaterial() {
    Edit edit(session_.document(), "Add a material");
    Material material;
    material.name = "New material";
    const Id<Material> id = edit.add(material);
    if (!session_.perform(edit.finish())) return;
    Selection selection = session_.selection();
    selection.material = id;
    session_.select(selection);
    refresh();
    if (auto* field = findChild<QLineEdit*>("Material")) {
        field->setFocus();
        field->selectAll();
    }
}

void ShelfView::removeMaterial() {
    const Material* material = session_.document().find(session_.selection().material);
    if (!material) return;
    if (!session_.document().where(&Level::material, std::optional(material->id)).empty()
        || !session_.document().where(&Lot::material, material->id).empty()) {
        session_.refuse(
            QString("%1 has lots or stands in a study and stays on the shelf. Remove those first.")
                .arg(QString::fromStdString(material->name)));
        return;
    }
    Edit edit(session_.document(), "Remove " + material->name);
    edit.remove(material->id);
    session_.perform(edit.finish());
}

void ShelfView::addLot() {
    const Material* material = session_.document().find(session_.selection().material);
    if (!material) return;
    Edit edit(session_.document(), "Add a lot of " + material->name);
    Lot lot;
    lot.material = material->id;
    lot.name = material->name + ", lot "
               + std::to_string(session_.document().where(&Lot::material, material->id).size() + 1);
    wantedLot_ = edit.add(lot);
    session_.perform(edit.finish());
}

void ShelfView::removeLot() {
    const Lot* lot = session_.document().find(shownLot());
    if (!lot) return;
    if (!session_.document().where(&Application::lot, std::optional(lot->id)).empty()) {
        session_.refuse("Mounts have taken from this lot: it stays.");
        return;
    }
    Edit edit(session_.document(), "Remove " + lot->name);
    edit.remove(lot->id);
    session_.perform(edit.finish());
}

} // namespace ibuki
