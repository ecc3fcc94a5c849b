// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/entity_form.h"

#include <QWidget>

class QListWidget;
class QPushButton;

namespace ibuki {

/// The study as a sentence and the settings it is made of.
class QuestionView : public QWidget {
    Q_OBJECT

public:
    explicit QuestionView(Session& session, QWidget* parent = nullptr);
    void refresh();

signals:
    void studyWanted();
    void benchWanted();

private:
    QWidget* makeSettings();
    QWidget* makeLevels();
    void fillSites();
    void fillLevels();
    void fillHolds();
    void addLevel();
    void removeLevel();
    void moveLevel(int by);
    void changeQuestion(const std::string& title, const std::function<void(Question&)>& change);

    Session& session_;
    QLabel* sentence_;
    QLabel* holds_ = nullptr;
    QLabel* frozen_;
    QWidget* body_;
    QWidget* empty_;
    QPushButton* emptyButton_;
    QLabel* emptyText_;
    QComboBox* site_ = nullptr;
    QComboBox* metric_ = nullptr;
    QComboBox* material_ = nullptr;
    QListWidget* levels_ = nullptr;
    std::unique_ptr<EntityForm<Study>> studyForm_;
    std::unique_ptr<EntityForm<Question>> questionForm_;
    std::unique_ptr<EntityForm<Load>> loadForm_;
};

} // namespace ibuki
