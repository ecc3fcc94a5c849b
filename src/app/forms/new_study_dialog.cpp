// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/new_study_dialog.h"

#include "app/forms/dialog_buttons.h"
#include "app/forms/entity_form.h"
#include "app/say.h"
#include "core/setup/study_setup.h"
#include "words/words.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {

NewStudyDialog::NewStudyDialog(Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      kind_(new QComboBox),
      what_(quietLabel()),
      name_(new QLineEdit),
      newMaterial_(new QLineEdit),
      materials_(new QListWidget) {
    setWindowTitle(say("New study"));
    resize(560, 520);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(say("What is compared?")));
    auto* form = new QFormLayout;
    for (const StudyTemplateInfo& info : studyTemplates())
        kind_->addItem(sayTerm(word(info.which)), static_cast<int>(info.which));
    addFormRow(form, say("Kind of study"), kind_);
    form->addRow(QString(), what_);
    addFormRow(form, say("Name of the study"), name_);
    connect(kind_, &QComboBox::currentIndexChanged, this, [this] {
        explainKind();
        proposeName();
    });
    newMaterial_->setProperty("returnIsTaken", true);
    explainKind();
    layout->addLayout(form);
    layout->addWidget(quietLabel(say(
        "Tick the materials. One that is not on the shelf yet can be added here; describe it on Shelf.")));
    materials_->setAccessibleName(say("Materials"));
    materials_->setObjectName("Materials");
    for (const auto& [id, material] : session.document().all<Material>()) {
        auto* item = new QListWidgetItem(QString::fromStdString(material.name), materials_);
        item->setData(Qt::UserRole, static_cast<qlonglong>(id.value));
        item->setCheckState(Qt::Unchecked);
    }
    connect(materials_, &QListWidget::itemChanged, this, &NewStudyDialog::proposeName);
    layout->addWidget(materials_, 1);
    proposeName();
    name_->selectAll();
    auto* row = new QHBoxLayout;
    newMaterial_->setAccessibleName(say("Name of a new material"));
    newMaterial_->setObjectName("Name of a new material");
    newMaterial_->setPlaceholderText(say("name of a new material"));
    auto* add = new QPushButton(say("Add material"));
    add->setObjectName("Add material");
    add->setAutoDefault(false);
    connect(add, &QPushButton::clicked, this, &NewStudyDialog::addMaterial);
    row->addWidget(newMaterial_, 1);
    row->addWidget(add);
    layout->addLayout(row);
    layout->addWidget(dialogButtons(this, say("Ask")));
}

StudyTemplate NewStudyDialog::chosenKind() const {
    return static_cast<StudyTemplate>(kind_->currentData().toInt());
}

void NewStudyDialog::explainKind() {
    const StudyTemplateInfo& info = templateInfo(chosenKind());
    QString text = sayText(purposeOf(info.which)) + ". ";
    if (info.mostMaterials == info.leastMaterials)
        text += sayMany("Tick one material.", "Tick {count} materials.", info.leastMaterials);
    else if (info.leastMaterials > 0)
        text += say("Tick at least %1.").arg(info.leastMaterials);
    what_->setText(text);
}

void NewStudyDialog::proposeName() {
    if (!name_->text().isEmpty() && name_->text() != proposed_) return;
    std::vector<std::string> ticked;
    for (int i = 0; i < materials_->count(); ++i)
        if (materials_->item(i)->checkState() == Qt::Checked)
            ticked.push_back(materials_->item(i)->text().toStdString());
    proposed_ = qtext(proposedName(session_.document(), kind_->currentText().toStdString(), ticked));
    name_->setText(proposed_);
}

void NewStudyDialog::addMaterial() {
    const QString name = newMaterial_->text().trimmed();
    if (name.isEmpty()) return;
    const auto known = materials_->findItems(name, Qt::MatchFixedString);
    auto* item = known.isEmpty() ? new QListWidgetItem(name, materials_) : known.front();
    if (known.isEmpty()) item->setData(Qt::UserRole, qlonglong{0});
    item->setCheckState(Qt::Checked);
    materials_->scrollToItem(item);
    newMaterial_->clear();
    newMaterial_->setFocus();
}

void NewStudyDialog::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (enter && newMaterial_->hasFocus() && !newMaterial_->text().trimmed().isEmpty())
        addMaterial();
    else
        QDialog::keyPressEvent(event);
}

void NewStudyDialog::accept() {
    addMaterial(); // a name still in the field counts
    const QString name = name_->text().trimmed();
    if (name.isEmpty() || !session_.selection().bench) {
        markWrong(name_, name.isEmpty());
        session_.refuse(name.isEmpty() ? say("A study needs a name. Type one.")
                                       : say("Describe a bench first."));
        name_->setFocus();
        return;
    }
    markWrong(name_, false);
    Edit edit(session_.document(), titled("Ask: {study}", {{"study", name.toStdString()}}));
    std::vector<Id<Material>> chosen;
    for (int i = 0; i < materials_->count(); ++i) {
        const QListWidgetItem* item = materials_->item(i);
        if (item->checkState() != Qt::Checked) continue;
        Id<Material> id{item->data(Qt::UserRole).toLongLong()};
        if (!id) {
            Material material;
            material.name = item->text().toStdString();
            id = edit.add(material);
        }
        chosen.push_back(id);
    }
    Id<Study> study;
    try {
        study = addStudy(edit,
                         {chosenKind(), *session_.selection().bench, name.toStdString(), chosen, words::text},
                         session_.now());
    } catch (const InputError& error) {
        materials_->setFocus(); // what it asks for is ticked there
        session_.refuse(saySentence(error));
        return;
    }
    if (!session_.perform(edit.finish())) return;
    Selection selection = session_.selection();
    selection.study = study;
    selection.question.reset();
    selection.mount.reset();
    session_.select(selection);
    QDialog::accept();
}

} // namespace ibuki
