// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QDialog>

class QLineEdit;
class QListWidget;

namespace ibuki {

class NumberField;

/// What one currency is worth in another. Amounts in two currencies are compared or added only by a rate that
/// stands here.
class RatesSheet : public QDialog {
    Q_OBJECT

public:
    explicit RatesSheet(Session& session, QWidget* parent = nullptr);

private:
    void list();
    void add();
    void remove();

    Session& session_;
    QListWidget* rates_;
    QLineEdit* from_;
    QLineEdit* to_;
    NumberField* rate_;
};

} // namespace ibuki
