// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/question_fields.h"

#include <QDialog>

class QListWidget;

namespace ibuki {

/// One level of a question: what it stands for and where it may stand in the order.
class LevelSheet : public QDialog {
    Q_OBJECT

public:
    LevelSheet(Session& session, Id<Level> level, QWidget* parent = nullptr);

private:
    QLayout* makeRigRow(Session& session, Id<Level> level);
    void makeRig(Session& session, Id<Level> level);
    void openRig(Session& session, Id<Level> level);

    EntityForm<Level> form_;
};

/// The loads that every mount is put under.
class LoadsSheet : public QDialog {
    Q_OBJECT

public:
    LoadsSheet(Session& session, Id<Study> study, QWidget* parent = nullptr);

private:
    void fill();
    void showCurrent();
    void add();
    void remove();

    Session& session_;
    Id<Study> study_;
    QListWidget* list_;
    std::unique_ptr<EntityForm<Load>> form_;
    std::unique_ptr<QuestionFields> compared_;
};

} // namespace ibuki
