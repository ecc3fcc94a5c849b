// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/material.h"

#include <QDialog>

class QComboBox;
class QLineEdit;

namespace ibuki {

class NumberField;

/// What one can buy of a material: content and price, taken over together.
class PackageSheet : public QDialog {
    Q_OBJECT

public:
    PackageSheet(Session& session, Id<Material> material, std::optional<Id<Package>> package,
                 QWidget* parent = nullptr);
    void accept() override;

private:
    Session& session_;
    Id<Material> material_;
    std::optional<Id<Package>> package_;
    NumberField* content_;
    QComboBox* unit_;
    NumberField* price_;
    QLineEdit* currency_;
    QLineEdit* note_;
};

} // namespace ibuki
