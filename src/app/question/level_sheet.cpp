// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/level_sheet.h"

#include "app/forms/bench_dialogs.h"
#include "app/forms/dialog_buttons.h"
#include "app/say.h"
#include "core/domain/lookup.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

template <class E> std::vector<std::pair<QString, Id<E>>> namesOf(const Document& document) {
    std::vector<std::pair<QString, Id<E>>> names;
    for (const auto& [id, entity] : document.all<E>()) names.emplace_back(qtext(entity.name), id);
    return names;
}

} // namespace

LevelSheet::LevelSheet(Session& session, Id<Level> level, QWidget* parent)
    : QDialog(parent), form_(session, new QFormLayout, words::mark("level")) {
    setWindowTitle(say("Level"));
    setMinimumWidth(420);
    auto* layout = new QVBoxLayout(this);
    layout->addLayout(form_.layout());
    form_.text(say("Name of the level"), &Level::name);
    form_.reference<Material>(say("Material"), &Level::material, say("as found"),
                              [&session] { return namesOf<Material>(session.document()); });
    form_.reference<Lot>(say("Tube or sheet"), &Level::lot, say("any of the material"), [&session, level] {
        std::vector<std::pair<QString, Id<Lot>>> lots;
        const Level* shown = session.document().find(level);
        for (const auto& [id, lot] : session.document().all<Lot>())
            if (shown && shown->material == lot.material) lots.emplace_back(qtext(lot.name), id);
        return lots;
    });
    form_.number(say("Amount, g"), &Level::amount, 0, true);
    form_.choice(say("Pattern"), &Level::pattern);
    form_.number(say("Torque, N·m"), &Level::torque, 0, true);
    form_.reference<Configuration>(say("Rig"), &Level::configuration, say("the bench as it is"), [&session] {
        std::vector<std::pair<QString, Id<Configuration>>> rigs;
        for (const auto& [id, one] : session.document().all<Configuration>())
            if (session.bench() && one.bench == session.bench()->id && one.variantOf)
                rigs.emplace_back(qtext(one.name), id);
        return rigs;
    });
    form_.layout()->addRow(QString(), makeRigRow(session, level));
    form_.choice(say("Place in the order"), &Level::placement);
    form_.number(say("At most, mounts"), &Level::mostMounts, 1);
    form_.flag(say("Changed without re-mounting"), &Level::withoutRemount);
    layout->addWidget(quietLabel(
        say("Automatic: phase-change film ends an evening, gallium comes last of all, other "
            "conductors last in their block, everything else stands anywhere. Levels that are changed "
            "without re-mounting (a setting, more torque) follow each other on one mount.")));
    layout->addWidget(closeButton(this));
    form_.show(level);
    connect(&session, &Session::documentChanged, this, [this, level, &session] {
        if (session.document().find(level))
            form_.show(level);
        else
            reject(); // undone
    });
}

QLayout* LevelSheet::makeRigRow(Session& session, Id<Level> level) {
    auto* rigs = new QHBoxLayout;
    auto* make = button(say("Make a rig…"), say("The bench with another cooler, lid, fan or limit"));
    auto* open = button(say("Open the rig…"), say("What this level's rig has of its own"));
    connect(make, &QPushButton::clicked, this, [this, &session, level] { makeRig(session, level); });
    connect(open, &QPushButton::clicked, this, [this, &session, level] { openRig(session, level); });
    rigs->addWidget(make);
    rigs->addWidget(open);
    rigs->addStretch(1);
    return rigs;
}

void LevelSheet::makeRig(Session& session, Id<Level> level) {
    const Level* of = session.document().find(level);
    if (!of || !session.bench()) return;
    Edit edit(session.document(), titled("Make a rig for {level}", {{"level", of->name}}));
    Level changed = *of;
    changed.configuration = addVariant(edit, session.bench()->id, of->name);
    if (!changed.configuration) return;
    edit.put(changed);
    if (session.perform(edit.finish())) openRig(session, level);
}

void LevelSheet::openRig(Session& session, Id<Level> level) {
    const Level* of = session.document().find(level);
    if (of && of->configuration)
        openDialog(new RigSheet(session, *of->configuration, this));
    else
        session.refuse(say("This level is mounted in the bench as it is. Make a rig, or choose one."));
}

LoadsSheet::LoadsSheet(Session& session, Id<Study> study, QWidget* parent)
    : QDialog(parent), session_(session), study_(study), list_(new QListWidget) {
    setWindowTitle(say("Loads"));
    setMinimumSize(440, 380);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(quietLabel(say("Every mount is put under each of these. More heat shows wider gaps.")));
    list_->setAccessibleName(say("Loads"));
    list_->setObjectName("Loads");
    layout->addWidget(list_, 1);
    auto* row = new QHBoxLayout;
    auto* adder = button(say("Add load"));
    auto* remover = button(say("Remove load"));
    connect(adder, &QPushButton::clicked, this, &LoadsSheet::add);
    connect(remover, &QPushButton::clicked, this, &LoadsSheet::remove);
    row->addWidget(adder);
    row->addWidget(remover);
    row->addStretch(1);
    layout->addLayout(row);
    auto* form = new QFormLayout;
    form_ = std::make_unique<EntityForm<Load>>(session, form, words::mark("load"));
    form_->text(say("Load"), &Load::name);
    form_->number(say("Target power, W"), &Load::target, 0, true);
    form_->number(say("Duration, s"), &Load::durationS, 0, true);
    layout->addLayout(form);
    auto* counted = new QFormLayout;
    compared_ = std::make_unique<QuestionFields>(session, counted);
    compared_->addComparedLoad();
    layout->addLayout(counted);
    layout->addWidget(closeButton(this));
    connect(list_, &QListWidget::currentRowChanged, this, &LoadsSheet::showCurrent);
    connect(&session, &Session::documentChanged, this, &LoadsSheet::fill);
    fill();
}

void LoadsSheet::fill() {
    const int row = std::max(0, list_->currentRow());
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const Load* load : loadsOf(session_.document(), study_)) {
        auto* item = new QListWidgetItem(qtext(load->name), list_);
        if (load->target) item->setText(item->text() + QString("   %1 W").arg(load->target->value));
        item->setData(Qt::UserRole, static_cast<qlonglong>(load->id.value));
    }
    list_->setCurrentRow(std::min(row, list_->count() - 1));
    showCurrent();
    compared_->refresh();
}

void LoadsSheet::showCurrent() {
    if (const QListWidgetItem* item = list_->currentItem())
        form_->show(Id<Load>{item->data(Qt::UserRole).toLongLong()});
}

void LoadsSheet::add() {
    Edit edit(session_.document(), titled("Add a load"));
    Load load;
    load.study = study_;
    load.position = list_->count();
    load.name = say("load %1").arg(list_->count() + 1).toStdString();
    edit.add(load);
    if (session_.perform(edit.finish())) list_->setCurrentRow(list_->count() - 1);
}

void LoadsSheet::remove() {
    const QListWidgetItem* item = list_->currentItem();
    if (!item) return;
    if (list_->count() == 1) {
        session_.refuse(say("A study has at least one load. Change this one instead."));
        return;
    }
    const Id<Load> id{item->data(Qt::UserRole).toLongLong()};
    Edit edit(session_.document(),
              titled("Remove the load {load}", {{"load", session_.document().find(id)->name}}));
    std::vector<Id<ProtocolStep>> steps;
    for (const ProtocolStep* step : session_.document().where(&ProtocolStep::load, std::optional(id)))
        steps.push_back(step->id);
    for (Id<ProtocolStep> step : steps) edit.remove(step);
    edit.remove(id);
    session_.perform(edit.finish());
}

} // namespace ibuki
