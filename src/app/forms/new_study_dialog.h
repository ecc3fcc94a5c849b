// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/study.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;

namespace ibuki {

/// A study begins from a kind of question, a name and materials of the shelf.
class NewStudyDialog : public QDialog {
    Q_OBJECT

public:
    explicit NewStudyDialog(Session& session, QWidget* parent = nullptr);
    void accept() override; ///< adds the study, with materials that are new to the shelf, and selects it

protected:
    /// Return in the field of a new material adds it; elsewhere it asks.
    void keyPressEvent(QKeyEvent* event) override;

private:
    void addMaterial();
    void explainKind();
    StudyTemplate chosenKind() const;
    void proposeName();

    Session& session_;
    QComboBox* kind_;
    QLabel* what_;
    QLineEdit* name_;
    QLineEdit* newMaterial_;
    QListWidget* materials_;
    QString proposed_; ///< another name in the field is the user's own
};

} // namespace ibuki
