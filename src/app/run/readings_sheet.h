// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QDialog>

class QComboBox;
class QLineEdit;
class QTableWidget;

namespace ibuki {

/// What no sensor gave of a run: score, frame rates, render time, noise, fan, anything else with a unit. Each
/// says whether higher or lower is better.
class ReadingsSheet : public QDialog {
    Q_OBJECT

public:
    ReadingsSheet(Session& session, Id<Run> run, QWidget* parent = nullptr);

private:
    QWidget* makeEntry();
    void fill();
    SideResponse chosenKind() const;
    void chooseKind();
    void add();
    void remove();

    Session& session_;
    Id<Run> run_;
    QTableWidget* table_;
    QComboBox* kind_ = nullptr;
    QLineEdit* name_ = nullptr;
    QLineEdit* value_ = nullptr;
    QLineEdit* unit_ = nullptr;
    QComboBox* better_ = nullptr;
    QLineEdit* note_ = nullptr;
};

} // namespace ibuki
