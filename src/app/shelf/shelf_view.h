// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/entity_form.h"

#include <QWidget>

class QListWidget;
class QPushButton;

namespace ibuki {

/// Materials and their lots, edited in place.
class ShelfView : public QWidget {
    Q_OBJECT

public:
    explicit ShelfView(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    QWidget* makeMaterials();
    QWidget* makeMaterialForm();
    QWidget* makeLots();
    void fillMaterials();
    void fillLots();
    void addMaterial();
    void removeMaterial();
    void addLot();
    void removeLot();
    std::optional<Id<Lot>> shownLot() const;

    Session& session_;
    QListWidget* materials_ = nullptr;
    QComboBox* lots_ = nullptr;
    QWidget* materialCard_ = nullptr;
    QWidget* lotCard_ = nullptr;
    QWidget* lotFields_ = nullptr;
    QLabel* lotSummary_ = nullptr;
    QLabel* cautions_ = nullptr;
    QLabel* empty_ = nullptr;
    bool filling_ = false;
    std::optional<Id<Lot>> wantedLot_;
    std::unique_ptr<EntityForm<Material>> materialForm_;
    std::unique_ptr<EntityForm<Lot>> lotForm_;
};

} // namespace ibuki
