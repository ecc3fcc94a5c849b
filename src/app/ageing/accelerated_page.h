// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "core/physics/acceleration.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;

namespace ibuki {

/// How many days of a harder test stand for how many years of a use, and what such a test cannot show.
class AcceleratedPage : public ExportedPage {
    Q_OBJECT

public:
    explicit AcceleratedPage(QWidget* parent = nullptr);

    std::string csv() const override;

private:
    QLineEdit* addField(QFormLayout* form, const QString& label, double* value, double begin);
    void tell();

    UseAndTest asked_;
    double years_ = 10;
    QComboBox* by_;
    QLabel* reported_;
    QList<QWidget*> heatRows_;
    QList<QWidget*> swingRows_;
    QList<QWidget*> solderRows_;
};

} // namespace ibuki
