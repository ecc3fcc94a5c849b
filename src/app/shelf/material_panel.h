// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"

#include <QWidget>

class QListWidget;

namespace ibuki {

/// One material, edited in place: what its label says, how it behaves, how it is conditioned, what one can
/// buy of it. An empty field falls back on the class's usual value, which is told beside it.
class MaterialPanel : public QWidget {
    Q_OBJECT

public:
    explicit MaterialPanel(Session& session, QWidget* parent = nullptr);
    void show(Id<Material> material);

private:
    void addFields();
    void tellDefaults(const Material& material);
    void openPackage(std::optional<Id<Package>> package);
    void removePackage();

    Session& session_;
    EntityForm<Material> form_;
    QList<std::pair<QLineEdit*, QString (*)(const Material&)>> typical_;
    QListWidget* packages_ = nullptr;
};

} // namespace ibuki
