// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/study.h"

#include <QFrame>

class QComboBox;
class QLabel;
class QListWidget;
class QPushButton;

namespace ibuki {

/// The levels of the question in force, with what holds the plan.
class LevelsCard : public QFrame {
    Q_OBJECT

public:
    explicit LevelsCard(Session& session, QWidget* parent = nullptr);
    void refresh();
    void focusLevels();

private:
    void fillLevels();
    void fillHolds();
    void addLevelOfMaterial();
    void addEmptyLevel(bool second);
    void editLevel();
    void removeLevel();
    void moveLevel(int by);
    const Level* current() const;

    Session& session_;
    QLabel* title_;
    QListWidget* levels_;
    QLabel* blocking_;
    QComboBox* material_;
    QPushButton* compare_;
    QPushButton* add_;
    QPushButton* addSecond_;
};

} // namespace ibuki
