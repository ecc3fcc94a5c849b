// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"

#include <QWidget>

namespace ibuki {

class LevelsCard;

/// What is compared, and what is the same for every mount. What the sentence says is edited in the sentence;
/// what is rare stands behind More.
class AskedPage : public QWidget {
    Q_OBJECT

public:
    explicit AskedPage(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    QWidget* makeSame();

    Session& session_;
    LevelsCard* levels_;
    std::unique_ptr<EntityForm<Study>> studyForm_;
    std::unique_ptr<EntityForm<Plan>> planForm_;
};

} // namespace ibuki
