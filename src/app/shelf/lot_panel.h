// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"

#include <QWidget>

class QListWidget;

namespace ibuki {

/// One tube or sheet, edited in place: where it is from, how old, how much is left, what it cost, its picture
/// and its off-cuts.
class LotPanel : public QWidget {
    Q_OBJECT

public:
    explicit LotPanel(Session& session, QWidget* parent = nullptr);
    void show(std::optional<Id<Lot>> lot);

    bool setPicture(const QString& path); ///< false with a notice

private:
    void addFields();
    QWidget* makeOffcuts();
    void keep(Edit edit);
    void choosePicture();
    void removePicture();
    void addOffcut();
    void removeOffcut();

    Session& session_;
    QWidget* body_;
    QLabel* none_;
    EntityForm<Lot> form_;
    QLabel* picture_ = nullptr;
    QWidget* offcutBox_ = nullptr;
    QListWidget* offcuts_ = nullptr;
};

} // namespace ibuki
