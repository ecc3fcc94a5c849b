// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_page.h"

#include "app/forms/ask.h"
#include "app/forms/caution_panel.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/figures_panel.h"
#include "app/shelf/lot_panel.h"
#include "app/shelf/material_panel.h"
#include "app/shelf/rates_sheet.h"
#include "app/shelf/shelf_board.h"
#include "app/shelf/shelf_subject.h"
#include "core/shelf/shelf_edit.h"
#include "core/shelf/shelf_worth.h"
#include "store/atomic_file.h"
#include "store/log/mapped_file.h"
#include "store/shelf/shelf_file.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <QScrollBar>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

ShelfPage::ShelfPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeBoard(), 11);
    detail_ = makeDetail();
    layout->addWidget(detail_, 9);
}

QWidget* ShelfPage::makeBoard() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    auto* row = new QHBoxLayout;
    search_ = new QLineEdit;
    search_->setPlaceholderText(say("find: name, supplier, condition"));
    search_->setAccessibleName(say("Find on the shelf"));
    search_->setObjectName("Find on the shelf");
    search_->setClearButtonEnabled(true);
    kind_ = new QComboBox;
    kind_->setAccessibleName(say("Class shown"));
    kind_->setObjectName("Class shown");
    kind_->addItem(say("every class"));
    for (std::string_view kind : Words<MaterialClass>::all) kind_->addItem(sayTerm(kind));
    order_ = new QComboBox;
    order_->setAccessibleName(say("Order"));
    order_->setObjectName("Order");
    for (const char* name : shelfOrderNames) order_->addItem(say(name));
    row->addWidget(search_, 2);
    row->addWidget(kind_, 1);
    row->addWidget(order_, 1);
    layout->addLayout(row);
    connect(search_, &QLineEdit::textChanged, this, &ShelfPage::arrange);
    connect(kind_, &QComboBox::activated, this, &ShelfPage::arrange);
    connect(order_, &QComboBox::activated, this, &ShelfPage::arrange);
    board_ = new ShelfBoard;
    scroll_ = scrolledWidget(board_);
    layout->addWidget(scroll_, 1);
    connect(board_, &ShelfBoard::wantsVisible, this, [this](const QRect& area) {
        scroll_->ensureVisible(area.center().x(), area.center().y(), 0, area.height() / 2 + 4);
    });
    connect(board_, &ShelfBoard::chosen, this,
            [this](int item) { choose(items_[shown_.at(static_cast<std::size_t>(item))]); });
    connect(board_, &ShelfBoard::setBeside, this, [this](int item) {
        const ShelfItem& beside = items_[shown_.at(static_cast<std::size_t>(item))];
        const bool again = besideMaterial_ == beside.material && besideLot_ == beside.lot;
        besideMaterial_ = again ? std::nullopt : std::optional(beside.material);
        besideLot_ = again ? std::nullopt : beside.lot;
        markChosen();
        tabs_->setCurrentIndex(0);
        showDetail();
    });
    empty_ = quietLabel();
    empty_->setAlignment(Qt::AlignCenter);
    layout->addWidget(empty_);
    layout->addWidget(makeButtons());
    return card(layout);
}

QWidget* ShelfPage::makeButtons() {
    auto* widget = new QWidget;
    auto* rows = new QVBoxLayout(widget);
    rows->setContentsMargins(0, 0, 0, 0);
    QHBoxLayout* row = nullptr;
    const auto add = [&](const QString& text, const QString& tip, auto what) {
        auto* made = button(text, tip);
        connect(made, &QPushButton::clicked, this, what);
        row->addWidget(made);
        return made;
    };
    rows->addLayout(row = new QHBoxLayout);
    add(say("Add material"), say("A new product: a paste, a pad, a sheet, a film"), &ShelfPage::addMaterial)
        ->setObjectName("Add material to the shelf");
    add(say("Add lot"), say("One tube or sheet of the chosen material"), &ShelfPage::addLot);
    add(say("Remove"), say("The chosen lot or material, when nothing uses it"), &ShelfPage::removeChosen);
    row->addStretch(1);
    rows->addLayout(row = new QHBoxLayout);
    worth_ = quietLabel();
    row->addWidget(worth_, 1);
    add(say("Rates…"), say("What one currency is worth in another"), &ShelfPage::askRates);
    add(say("Bring in…"), say("Materials and lots from a CSV or JSON file"), [this] {
        askFile(
            this,
            {FileWish::Kind::open, say("Bring in a shelf"), {}, say("Shelves (*.csv *.json);;All files (*)")},
            [this](const QString& path) { importFrom(path); });
    });
    add(say("Hand out…"), say("The whole shelf as CSV or JSON"), [this] {
        askFile(this,
                {FileWish::Kind::save, say("Hand out the shelf"), say("shelf.csv"),
                 say("CSV (*.csv);;JSON (*.json)")},
                [this](const QString& path) {
                    if (exportTo(path)) session_.post(say("Written: %1").arg(path));
                });
    });
    return widget;
}

QWidget* ShelfPage::makeDetail() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    title_ = cardTitle({});
    layout->addWidget(title_);
    tabs_ = new QStackedWidget;
    figures_ = new FiguresPanel(session_);
    explain(figures_, Topic::typical);
    lot_ = new LotPanel(session_);
    material_ = new MaterialPanel(session_);
    cautions_ = new CautionPanel(session_);
    for (QWidget* panel : std::initializer_list<QWidget*>{figures_, lot_, material_, cautions_})
        tabs_->addWidget(scrolledWidget(panel));
    layout->addWidget(pageSwitch(tabs_, {say("Figures"), say("Lot"), say("Material"), say("Cautions")}));
    layout->addWidget(tabs_, 1);
    connect(tabs_, &QStackedWidget::currentChanged, this, &ShelfPage::showDetail);
    return card(layout);
}

void ShelfPage::refresh() {
    if (!session_.selection().material && !session_.document().all<Material>().empty()) {
        Selection selection = session_.selection();
        selection.material = session_.document().all<Material>().begin()->first;
        session_.select(selection);
    }
    if (!session_.document().find(besideLot_)) besideLot_.reset();
    if (!session_.document().find(besideMaterial_)) besideMaterial_.reset();
    items_ = shelfItems(session_.document(), shelfSite(session_), session_.now());
    arrange();
    worth_->setText(worth());
    detail_->setVisible(!items_.empty());
    showDetail();
}

void ShelfPage::arrange() {
    const int kind = kind_->currentIndex();
    shown_ = shelfSelection(items_, search_->text(),
                            kind > 0 ? std::optional(static_cast<MaterialClass>(kind - 1)) : std::nullopt,
                            static_cast<ShelfOrder>(order_->currentIndex()));
    std::vector<ShelfItem> chosen;
    chosen.reserve(shown_.size());
    for (std::size_t index : shown_) chosen.push_back(items_[index]);
    board_->show(std::move(chosen));
    scroll_->setVisible(!shown_.empty());
    empty_->setVisible(shown_.empty());
    empty_->setText(items_.empty()
                        ? say("The shelf is empty.\nAdd the first material: a paste, a pad, a sheet, "
                              "a film. Or bring in a shelf from a file.")
                        : say("Nothing on the shelf answers to that."));
    markChosen();
}

void ShelfPage::markChosen() {
    std::optional<std::size_t> chosen;
    std::optional<std::size_t> beside;
    const Selection& selection = session_.selection();
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        const ShelfItem& item = items_[shown_[i]];
        // A material without a chosen lot is shown by its first.
        if (item.material == selection.material && (item.lot == selection.lot || (!selection.lot && !chosen)))
            chosen = i;
        if (besideMaterial_ && item.material == *besideMaterial_ && item.lot == besideLot_) beside = i;
    }
    board_->mark(chosen, beside);
}

void ShelfPage::choose(const ShelfItem& item) {
    Selection selection = session_.selection();
    selection.material = item.material;
    selection.lot = item.lot;
    session_.select(selection);
    markChosen();
    showDetail();
}

void ShelfPage::showDetail() {
    CautionSubject subject = shelfSubject(session_);
    if (!subject.material) return;
    if (!subject.lot) { // the first one stands for the material
        const auto lots = session_.document().where(&Lot::material, subject.material->id);
        if (!lots.empty()) subject.lot = lots.front();
    }
    const bool two = besideMaterial_ && tabs_->currentIndex() == 0;
    title_->setText(two ? say("Beside each other")
                        : qtext(subject.lot ? subject.lot->name : subject.material->name));
    switch (tabs_->currentIndex()) {
    case 0: {
        std::vector<ShelfThing> things{
            {subject.material->id, subject.lot ? std::optional(subject.lot->id) : std::nullopt}};
        if (besideMaterial_) things.push_back({*besideMaterial_, besideLot_});
        figures_->show(things, subject.site);
        break;
    }
    case 1:
        lot_->show(subject.lot ? std::optional(subject.lot->id) : std::nullopt);
        break;
    case 2:
        material_->show(subject.material->id);
        break;
    default:
        cautions_->show(subject);
    }
}

void ShelfPage::addMaterial() {
    Edit edit(session_.document(), titled("Add a material"));
    Material material;
    material.name = words::say("New material");
    const Id<Material> id = edit.add(material);
    if (!session_.perform(edit.finish())) return;
    search_->clear();
    kind_->setCurrentIndex(0);
    Selection selection = session_.selection();
    selection.material = id;
    selection.lot.reset();
    session_.select(selection);
    tabs_->setCurrentIndex(2);
    refresh();
    if (auto* field = material_->findChild<QLineEdit*>(say("Material"))) {
        field->setFocus();
        field->selectAll();
    }
}

void ShelfPage::addLot() {
    const Material* material = session_.document().find(session_.selection().material);
    if (!material) {
        session_.refuse(say("A lot is one tube or sheet of a material. Add the material first."));
        return;
    }
    Edit edit(session_.document(), titled("Add a lot of {material}", {{"material", material->name}}));
    Lot lot;
    lot.material = material->id;
    lot.name = words::say("{material}, lot {number}",
                          {{"material", material->name},
                           {"number", session_.document().where(&Lot::material, material->id).size() + 1}});
    lot.currency = mainCurrency(session_.document());
    if (isCut(material->kind)) lot.contentUnit = ContentUnit::squareMillimetre;
    Selection selection = session_.selection();
    selection.lot = edit.add(lot);
    if (!session_.perform(edit.finish())) return;
    session_.select(selection);
    tabs_->setCurrentIndex(1);
    refresh();
    if (auto* field = lot_->findChild<QLineEdit*>(say("Lot"))) {
        field->setFocus();
        field->selectAll();
    }
}

void ShelfPage::removeChosen() {
    const Document& document = session_.document();
    const Material* material = document.find(session_.selection().material);
    const Lot* lot = shelfSubject(session_).lot;
    if (!material) return;
    Edit edit(document, titled("Remove {name}", {{"name", lot ? lot->name : material->name}}));
    if (lot) {
        if (isUsed(document, *lot)) {
            session_.refuse(say("%1 stays: mounts have taken from it.").arg(qtext(lot->name)));
            return;
        }
        removeLot(edit, lot->id);
    } else {
        if (isUsed(document, *material)) {
            session_.refuse(
                say("%1 has lots or stands in a study and stays on the shelf. Remove those first.")
                    .arg(qtext(material->name)));
            return;
        }
        removeMaterial(edit, material->id);
    }
    session_.perform(edit.finish());
}

void ShelfPage::askRates() { openDialog(new RatesSheet(session_, this)); }

QString ShelfPage::worth() const {
    const ShelfWorth worth = worthLeft(session_.document(), session_.now());
    if (worth.byCurrency.empty()) return {};
    QStringList apart;
    for (const Money& money : worth.byCurrency) apart << moneyText(money);
    return say("Left on the shelf: %1.")
        .arg(worth.total ? moneyText(*worth.total) : apart.join(say(" and ")));
}

bool ShelfPage::importFrom(const QString& path) {
    Edit edit(session_.document(), titled("Bring in a shelf"));
    try {
        const MappedFile file(path.toStdString());
        const ShelfImport found = importShelf(edit, file.bytes(), path.toStdString());
        file.requireWhole();
        if (!session_.perform(edit.finish())) return false;
        session_.post(say("Brought in %1 new materials and %2 new lots; %3 were there and changed.")
                          .arg(found.newMaterials)
                          .arg(found.newLots)
                          .arg(found.changed));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

bool ShelfPage::exportTo(const QString& path) {
    try {
        writeFileAtomically(path.toStdString(), path.endsWith(".json", Qt::CaseInsensitive)
                                                    ? shelfJson(session_.document())
                                                    : shelfCsv(session_.document()));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

} // namespace ibuki
