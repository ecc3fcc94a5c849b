// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/peel/look_desk.h"

#include <QWidget>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;

namespace ibuki {

class NoteField;

/// What was seen when the cooler came off: large buttons and their keys, how it came off, what cleaning took,
/// damage; and whether the mount counts after all.
class SeenPage : public QWidget {
    Q_OBJECT

public:
    SeenPage(Session& session, LookDesk& desk, QWidget* parent = nullptr);

    void refresh();
    void askReject();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Sign {
        QPushButton* button = nullptr;
        bool JointInspection::*member = nullptr;
        int key = 0;
    };
    QWidget* makeSigns();
    QWidget* makeCameOff();
    void toggle(const Sign& sign, bool on);
    void setEffort(int effort);

    Session& session_;
    LookDesk& desk_;
    std::vector<Sign> signs_;
    std::vector<QPushButton*> cameOff_;
    std::vector<QPushButton*> effort_;
    QLineEdit* minutes_;
    QLineEdit* wipes_;
    QComboBox* join_;
    NoteField* damage_;
    NoteField* note_;
    QPushButton* reject_;
    QLabel* rejected_;
    QLabel* before_; ///< what this bench has seen already
};

} // namespace ibuki
