// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/seen_page.h"

#include "app/forms/ask.h"
#include "app/forms/entity_form.h"
#include "app/forms/flow_layout.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/inspect/seen_before.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr int large = 44; // px: gloves

QPushButton* bigToggle(const QString& text) {
    auto* made = button(text);
    made->setCheckable(true);
    made->setProperty("page", true);
    made->setMinimumHeight(large);
    return made;
}

} // namespace

SeenPage::SeenPage(Session& session, LookDesk& desk, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(desk),
      minutes_(new QLineEdit),
      wipes_(new QLineEdit),
      join_(new QComboBox),
      damage_(new NoteField(2)),
      note_(new NoteField(2)),
      reject_(button(say("Reject this mount…"), say("By what was seen, with a reason"))),
      rejected_(quietLabel()),
      before_(quietLabel()) {
    explain(this, Topic::peel);
    setFocusPolicy(Qt::StrongFocus);
    for (const std::string_view word : Words<LookJoin>::all) join_->addItem(sayTerm(word));
    auto* form = new QFormLayout;
    for (QLineEdit* field : {minutes_, wipes_}) field->setPlaceholderText(say("not stated"));
    addFormRow(form, say("Cleaning, minutes"), minutes_);
    addFormRow(form, say("Wipes"), wipes_);
    addFormRow(form, say("Covered is what is wet on"), join_);
    addFormRow(form, say("Damage"), damage_);
    addFormRow(form, say("Remark"), note_);
    connect(minutes_, &QLineEdit::editingFinished, this, [this] {
        const auto value = numberFrom(minutes_->text());
        const bool wrong = !minutes_->text().trimmed().isEmpty() && (!value || *value < 0);
        markWrong(minutes_, wrong);
        if (wrong)
            return session_.refuse(say("\"%1\" is no time. Write minutes, such as 4.").arg(minutes_->text()));
        desk_.change(titled("Cleaning"), [&](JointInspection& look) { look.cleanMinutes = value; });
    });
    connect(wipes_, &QLineEdit::editingFinished, this, [this] {
        const auto value = numberFrom(wipes_->text());
        const bool wrong = !wipes_->text().trimmed().isEmpty() && (!value || *value < 0 || *value > 1000);
        markWrong(wipes_, wrong);
        if (wrong)
            return session_.refuse(say("\"%1\" is no count. Write a number, such as 3.").arg(wipes_->text()));
        desk_.change(titled("Cleaning"), [&](JointInspection& look) {
            look.wipes = value ? std::optional(static_cast<int>(*value)) : std::nullopt;
        });
    });
    connect(join_, &QComboBox::activated, this, [this](int index) {
        desk_.change(titled("Which side counts as covered"),
                     [&](JointInspection& look) { look.join = static_cast<LookJoin>(index); });
    });
    connect(damage_, &NoteField::edited, this, [this](const QString& text) {
        desk_.change(titled("Damage"), [&](JointInspection& look) { look.damage = text.toStdString(); });
    });
    connect(note_, &NoteField::edited, this, [this](const QString& text) {
        desk_.change(titled("Remark on a look"),
                     [&](JointInspection& look) { look.note = text.toStdString(); });
    });
    connect(reject_, &QPushButton::clicked, this, &SeenPage::askReject);
    auto* left = new QVBoxLayout;
    left->addWidget(cardTitle(say("What was seen")));
    left->addWidget(makeSigns());
    left->addWidget(cardTitle(say("How it came off")));
    left->addWidget(makeCameOff());
    left->addWidget(before_);
    left->addStretch(1);
    auto* right = new QVBoxLayout;
    right->addLayout(form);
    auto* row = new QHBoxLayout;
    row->addWidget(rejected_, 1);
    row->addWidget(reject_);
    right->addLayout(row);
    right->addStretch(1);
    auto* both = new QHBoxLayout;
    both->addLayout(left, 3);
    both->addSpacing(16);
    both->addLayout(right, 2);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scrolled(both));
}

QWidget* SeenPage::makeSigns() {
    auto* row = new QWidget;
    auto* layout = new FlowLayout(8, row, 8);
    const auto add = [&](const QString& text, bool JointInspection::*member, int key) {
        Sign sign{bigToggle(text), member, key};
        layout->addWidget(sign.button);
        connect(sign.button, &QPushButton::clicked, this, [this, sign](bool on) { toggle(sign, on); });
        signs_.push_back(sign);
    };
    add(say("Spread well (S)"), &JointInspection::spread, Qt::Key_S);
    add(say("Dry (D)"), &JointInspection::dry, Qt::Key_D);
    add(say("Cracked (C)"), &JointInspection::cracked, Qt::Key_C);
    add(say("Torn (T)"), &JointInspection::torn, Qt::Key_T);
    add(say("Slipped (L)"), &JointInspection::slipped, Qt::Key_L);
    add(say("Overhung (O)"), &JointInspection::overhung, Qt::Key_O);
    add(say("Pumped out (P)"), &JointInspection::pumpedOut, Qt::Key_P);
    add(say("Residue (R)"), &JointInspection::residue, Qt::Key_R);
    add(say("Stains on metal (M)"), &JointInspection::stained, Qt::Key_M);
    add(say("Bowed (B)"), &JointInspection::bowed, Qt::Key_B);
    add(say("Imprint uneven (U)"), &JointInspection::imprintUneven, Qt::Key_U);
    return row;
}

QWidget* SeenPage::makeCameOff() {
    auto* whole = new QWidget;
    auto* rows = new QVBoxLayout(whole);
    rows->setContentsMargins(0, 0, 0, 0);
    auto* ways = new QWidget;
    auto* layout = new FlowLayout(8, ways, 8);
    for (std::size_t i = 1; i < Words<CameOff>::all.size(); ++i) {
        auto* way = bigToggle(sayTerm(Words<CameOff>::all[i]));
        layout->addWidget(way);
        cameOff_.push_back(way);
        connect(way, &QPushButton::clicked, this, [this, i](bool on) {
            desk_.change(titled("How it came off"), [&](JointInspection& look) {
                look.cameOff = on ? static_cast<CameOff>(i) : CameOff::notStated;
            });
        });
    }
    rows->addWidget(ways);
    auto* efforts = new QHBoxLayout;
    efforts->addWidget(new QLabel(say("Effort")));
    for (int effort = 1; effort <= 5; ++effort) {
        auto* one = bigToggle(QString::number(effort));
        one->setObjectName("Effort " + QString::number(effort));
        one->setAccessibleName(say("Effort %1 of 5").arg(effort));
        efforts->addWidget(one);
        effort_.push_back(one);
        connect(one, &QPushButton::clicked, this, [this, effort] { setEffort(effort); });
    }
    efforts->addStretch(1);
    rows->addLayout(efforts);
    return whole;
}

void SeenPage::toggle(const Sign& sign, bool on) {
    desk_.change(titled("What was seen"), [&](JointInspection& look) { look.*sign.member = on; });
}

/// The same once more takes it back.
void SeenPage::setEffort(int effort) {
    desk_.change(titled("Effort"), [&](JointInspection& look) {
        look.effort = look.effort == effort ? std::nullopt : std::optional(effort);
    });
}

void SeenPage::keyPressEvent(QKeyEvent* event) {
    for (const Sign& sign : signs_)
        if (event->key() == sign.key && event->modifiers() == Qt::NoModifier && sign.button->isEnabled())
            return toggle(sign, !(desk_.look() && desk_.look()->*sign.member));
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_5 && effort_.front()->isEnabled())
        return setEffort(event->key() - Qt::Key_1 + 1);
    QWidget::keyPressEvent(event);
}

void SeenPage::askReject() {
    const Mount* mount = session_.mount();
    if (!mount) return;
    if (mount->rejected) return desk_.reject({});
    askText(
        this, {say("Reject this mount"), say("Why? The reason stays in the record and in the report."), {}},
        [this](const QString& answer) {
            const QString reason = answer.trimmed();
            if (reason.isEmpty())
                return say("A mount is rejected with a reason only: say what was physically wrong with it.");
            desk_.reject(reason.toStdString());
            return QString();
        });
}

void SeenPage::refresh() {
    const JointInspection* look = desk_.look();
    const bool hasMount = desk_.site().has_value();
    const JointInspection shown = look ? *look : JointInspection{};
    for (const Sign& sign : signs_) {
        sign.button->setEnabled(hasMount);
        sign.button->setChecked(shown.*sign.member);
    }
    for (std::size_t i = 0; i < cameOff_.size(); ++i) {
        cameOff_[i]->setEnabled(hasMount);
        cameOff_[i]->setChecked(static_cast<std::size_t>(shown.cameOff) == i + 1);
    }
    for (std::size_t i = 0; i < effort_.size(); ++i) {
        effort_[i]->setEnabled(hasMount);
        effort_[i]->setChecked(shown.effort == static_cast<int>(i) + 1);
    }
    minutes_->setText(shown.cleanMinutes ? numberText(*shown.cleanMinutes) : QString());
    wipes_->setText(shown.wipes ? QString::number(*shown.wipes) : QString());
    join_->setCurrentIndex(static_cast<int>(shown.join));
    damage_->show(qtext(shown.damage));
    note_->show(qtext(shown.note));
    for (QWidget* field : std::initializer_list<QWidget*>{minutes_, wipes_, join_, damage_, note_, reject_})
        field->setEnabled(hasMount);
    const Mount* mount = session_.mount();
    const bool rejected = mount && mount->rejected;
    reject_->setText(rejected ? say("Take back") : say("Reject this mount…"));
    rejected_->setText(
        !rejected        ? QString()
        : !shown.rejects ? say("Rejected: %1").arg(qtext(mount->reason))
        : shown.figureKnown
            ? say("Rejected by look, when its figure was known already: %1").arg(qtext(mount->reason))
            : say("Rejected by look, before its figure was known: %1").arg(qtext(mount->reason)));
    QStringList reported;
    if (const Bench* bench = session_.bench())
        for (const Message& message : seenBefore(session_.document(), bench->id))
            reported << sayText(message) + ".";
    before_->setText(reported.join(QStringLiteral("\n")));
}

} // namespace ibuki
