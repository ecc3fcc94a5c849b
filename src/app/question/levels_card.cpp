// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/levels_card.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/question/level_sheet.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/caution/blocking_caution.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/design_order.h"
#include "core/setup/question_setup.h"
#include "store/paper/sentences.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

/// "last of all", "at most 2 mounts": what is told behind a level's name.
QString ruleText(const Document& document, const Level& level) {
    QStringList words;
    const Placement placement = placementOf(document, level);
    if (placement != Placement::anywhere) words << sayTerm(word(placement));
    if (level.mostMounts)
        words << sayMany("at most {count} mount", "at most {count} mounts", *level.mostMounts);
    return words.isEmpty() ? QString() : "   " + words.join(", ");
}

} // namespace

LevelsCard::LevelsCard(Session& session, QWidget* parent)
    : QFrame(parent),
      session_(session),
      title_(cardTitle({})),
      levels_(new QListWidget),
      blocking_(new QLabel),
      material_(new QComboBox),
      compare_(button(say("Compare too"))),
      add_(button(say("Add level"))),
      addSecond_(button(say("Add level of the second factor"))) {
    setProperty("card", true);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(title_);
    levels_->setAccessibleName(say("Levels compared"));
    levels_->setObjectName("Levels compared");
    layout->addWidget(levels_, 1);
    blocking_->setWordWrap(true);
    blocking_->setAccessibleName(say("What holds the plan"));
    layout->addWidget(blocking_);
    auto* order = new QHBoxLayout;
    for (const auto& [text, by] : {std::pair{say("Up"), -1}, std::pair{say("Down"), 1}}) {
        auto* mover = button(text);
        connect(mover, &QPushButton::clicked, this, [this, by = by] { moveLevel(by); });
        order->addWidget(mover);
    }
    auto* edit = button(say("Level…"),
                        say("What it stands for, where it may stand in the order. Or Enter on the level."));
    connect(edit, &QPushButton::clicked, this, &LevelsCard::editLevel);
    auto* remove = button(say("Leave out"));
    connect(remove, &QPushButton::clicked, this, &LevelsCard::removeLevel);
    order->addWidget(edit);
    order->addWidget(remove);
    layout->addLayout(order);
    auto* row = new QHBoxLayout;
    material_->setAccessibleName(say("Material from the shelf"));
    material_->setPlaceholderText(say("every material is compared"));
    row->addWidget(material_, 1);
    row->addWidget(compare_);
    row->addWidget(add_);
    layout->addLayout(row);
    layout->addWidget(addSecond_);
    connect(compare_, &QPushButton::clicked, this, &LevelsCard::addLevelOfMaterial);
    connect(add_, &QPushButton::clicked, this, [this] { addEmptyLevel(false); });
    connect(addSecond_, &QPushButton::clicked, this, [this] { addEmptyLevel(true); });
    connect(levels_, &QListWidget::itemActivated, this, &LevelsCard::editLevel);
}

void LevelsCard::focusLevels() { levels_->setFocus(); }

const Level* LevelsCard::current() const {
    const QListWidgetItem* item = levels_->currentItem();
    return item ? session_.document().find(Id<Level>{item->data(Qt::UserRole).toLongLong()}) : nullptr;
}

void LevelsCard::refresh() {
    const Question* question = session_.question();
    if (!question) return;
    const bool byMaterial = question->factor == Factor::material;
    title_->setText(byMaterial ? say("Materials compared")
                               : say("Compared: ") + sayTerm(word(question->factor)));
    material_->setVisible(byMaterial);
    compare_->setVisible(byMaterial);
    add_->setVisible(!byMaterial);
    addSecond_->setVisible(question->secondFactor.has_value());
    if (question->secondFactor) addSecond_->setText(say("Add ") + sayTerm(word(*question->secondFactor)));
    fillLevels();
    fillHolds();
}

void LevelsCard::fillLevels() {
    const Question& question = *session_.question();
    const int row = levels_->currentRow();
    levels_->clear();
    material_->clear();
    std::vector<Id<Material>> used;
    auto levels = levelsOf(session_.document(), question.id);
    const auto second = secondLevelsOf(session_.document(), question.id);
    levels.insert(levels.end(), second.begin(), second.end());
    for (const Level* level : levels) {
        const QString factor = level->ofSecond && question.secondFactor
                                   ? sayTerm(word(*question.secondFactor)) + ": "
                                   : QString();
        auto* item =
            new QListWidgetItem(factor + qtext(level->name) + ruleText(session_.document(), *level), levels_);
        item->setData(Qt::UserRole, static_cast<qlonglong>(level->id.value));
        if (const Material* material = session_.document().find(level->material)) {
            item->setIcon(classIcon(material->kind));
            used.push_back(material->id);
        }
    }
    for (const auto& [id, material] : session_.document().all<Material>())
        if (std::find(used.begin(), used.end(), id) == used.end())
            material_->addItem(qtext(material.name), static_cast<qlonglong>(id.value));
    material_->setCurrentIndex(material_->count() > 0 ? 0 : -1); // the placeholder keeps it at none
    levels_->setCurrentRow(std::clamp(row, 0, std::max(0, levels_->count() - 1)));
}

/// A hold is told with its material; what answers it lies on Shelf.
void LevelsCard::fillHolds() {
    const Document& document = session_.document();
    QStringList words;
    for (const BlockingCaution& blocking : blockingCautions(document, *session_.question(), session_.now()))
        words << say("Held, %1. %2")
                     .arg(qtext(document.find(blocking.material)->name),
                          QString::fromStdString(cautionText(blocking.caution)));
    if (!words.isEmpty()) words << say("Answer or acknowledge it on Shelf, under Cautions.");
    for (const Shortage& shortage : shortagesOf(document, *session_.question(), session_.now()))
        words << shortageText(document, shortage);
    blocking_->setText(words.join("\n"));
    blocking_->setVisible(!words.isEmpty());
    QPalette palette = blocking_->palette();
    palette.setColor(QPalette::WindowText, colours().hot);
    blocking_->setPalette(palette);
}

void LevelsCard::addLevelOfMaterial() {
    const Question* question = session_.question();
    const Material* material = session_.document().find(Id<Material>{material_->currentData().toLongLong()});
    if (!question) return;
    if (!material) {
        session_.refuse(say("Every material of the shelf is compared already. Add another on Shelf."));
        return;
    }
    const Site* site = session_.document().find(question->site);
    const Configuration* configuration = site ? session_.document().find(site->configuration) : nullptr;
    if (site)
        for (const BlockingCaution& blocking :
             blockingCautions(session_.document(), *material, *site, configuration, session_.now()))
            if (blocking.caution.state == CautionState::applies && !blocking.caution.rule->mayOverride) {
                session_.refuse(QString::fromStdString(cautionText(blocking.caution)));
                return;
            }
    Edit edit(session_.document(), titled("Compare {material} too", {{"material", material->name}}));
    Level level;
    level.question = question->levelsFrom.value_or(question->id);
    level.name = material->name;
    level.material = material->id;
    addLevel(edit, level);
    session_.perform(edit.finish());
}

void LevelsCard::addEmptyLevel(bool second) {
    const Question* question = session_.question();
    if (!question) return;
    Level level;
    level.question = question->levelsFrom.value_or(question->id);
    level.ofSecond = second;
    level.name = say("level %1").arg(levels_->count() + 1).toStdString();
    const auto levels = levelsOf(session_.document(), question->id);
    if (!second && !levels.empty() && question->factor != Factor::beforeAfter)
        level.material = levels.back()->material;
    Edit edit(session_.document(), titled("Add a level"));
    const Id<Level> id = addLevel(edit, level);
    if (session_.perform(edit.finish())) openDialog(new LevelSheet(session_, id, this));
}

void LevelsCard::editLevel() {
    if (const Level* level = current()) openDialog(new LevelSheet(session_, level->id, this));
}

void LevelsCard::removeLevel() {
    const Level* level = current();
    if (!level) return;
    const auto stays = [&](const auto& uses) {
        return std::any_of(uses.begin(), uses.end(),
                           [](const Slot* slot) { return slot->mount.has_value(); });
    };
    std::vector<const Slot*> uses = session_.document().where(&Slot::level, std::optional(level->id));
    for (const Slot* slot : session_.document().where(&Slot::second, std::optional(level->id)))
        uses.push_back(slot);
    if (stays(uses)) {
        session_.refuse(say("%1 has mounts in this study and stays. Reject its mounts to leave it out.")
                            .arg(qtext(level->name)));
        return;
    }
    Edit edit(session_.document(), titled("Leave out {level}", {{"level", level->name}}));
    removeUnusedLevel(edit, level->id);
    session_.perform(edit.finish());
}

void LevelsCard::moveLevel(int by) {
    const Level* moved = current();
    if (!moved) return;
    std::vector<Level> all;
    for (const Level* level : moved->ofSecond ? secondLevelsOf(session_.document(), session_.question()->id)
                                              : levelsOf(session_.document(), session_.question()->id))
        all.push_back(*level);
    const auto at =
        std::find_if(all.begin(), all.end(), [&](const Level& level) { return level.id == moved->id; });
    const auto row = at - all.begin();
    if (at == all.end() || row + by < 0 || row + by >= static_cast<std::ptrdiff_t>(all.size())) return;
    std::swap(all[static_cast<std::size_t>(row)], all[static_cast<std::size_t>(row + by)]);
    Edit edit(session_.document(), titled("Reorder the levels"));
    for (std::size_t i = 0; i < all.size(); ++i) {
        all[i].position = static_cast<int>(i) + (moved->ofSecond ? 1000 : 0);
        edit.put(all[i]);
    }
    levels_->setCurrentRow(levels_->currentRow() + by);
    session_.perform(edit.finish());
}

} // namespace ibuki
