// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"
#include "store/paper/sentences.h"

#include <QWidget>

namespace ibuki {

class LevelsCard;

/// What is asked: the settings that the sentence is made of, and the levels.
class AskedPage : public QWidget {
    Q_OBJECT

public:
    explicit AskedPage(Session& session, QWidget* parent = nullptr);
    void refresh();
    void editPart(AskedPart part); ///< puts the focus where the part is edited, or opens its sheet

private:
    QWidget* makeSettings();
    void addQuestionFields(QFormLayout* form);
    void addPlanFields(QFormLayout* form);
    void fillSites();
    void fillFactors();
    void fillHeldAgainst();
    void fillComparedLoad();
    void changeQuestion(const Message& title, const std::function<void(Question&)>& change);

    Session& session_;
    LevelsCard* levels_;
    QLabel* frozen_ = nullptr;
    QComboBox* site_ = nullptr;
    QComboBox* metric_ = nullptr;
    QComboBox* secondFactor_ = nullptr;
    QComboBox* heldAgainst_ = nullptr;
    QComboBox* reference_ = nullptr;
    QComboBox* taken_ = nullptr;
    QComboBox* comparedLoad_ = nullptr;
    QLineEdit* margin_ = nullptr;
    QLineEdit* confidence_ = nullptr;
    QPushButton* loads_ = nullptr;
    std::unique_ptr<EntityForm<Study>> studyForm_;
    std::unique_ptr<EntityForm<Question>> questionForm_;
    std::unique_ptr<EntityForm<Plan>> planForm_;
};

} // namespace ibuki
