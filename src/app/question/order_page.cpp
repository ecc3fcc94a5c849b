// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/order_page.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/question/order_lines.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/laid_change.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "store/paper/sentences.h"
#include "words/words.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {
OrderPage::OrderPage(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), title_(cardTitle({})), list_(new QListWidget), costs_(new QLabel) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(makeList(), 3);
    columns->addWidget(makeSide(), 2);
}

QWidget* OrderPage::makeList() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(title_);
    list_->setAccessibleName(say("Order of mounts"));
    list_->setObjectName("Order of mounts");
    layout->addWidget(list_, 1);
    const auto add = [this](QHBoxLayout* row, const QString& text, const QString& tip, auto&& what) {
        auto* made = button(text, tip);
        connect(made, &QPushButton::clicked, this, what);
        row->addWidget(made);
        return made;
    };
    auto* first = new QHBoxLayout;
    add(first, say("Earlier"), QStringLiteral("Alt+Up"), [this] { moveSlotBy(-1); });
    add(first, say("Later"), QStringLiteral("Alt+Down"), [this] { moveSlotBy(1); });
    add(first, say("Do it next"), say("Out of order: it becomes what to do next"),
        [this] { moveSlotBy(-10'000); });
    auto* skip = add(first, say("Skip…"), say("With a reason; a skipped mount can be taken up again"),
                     [this] { skipOrTakeUp(); });
    connect(list_, &QListWidget::currentItemChanged, this, [this, skip] {
        const Slot* slot = session_.document().find(currentSlot());
        skip->setText(slot && !slot->skippedBecause.empty() ? say("Take up again") : say("Skip…"));
    });
    layout->addLayout(first);
    auto* second = new QHBoxLayout;
    add(second, say("Add a mount"), say("One more of the chosen level"), [this] { addOne(); });
    add(second, say("Extend…"), say("More mounts of every level"), [this] { extend(); });
    add(second, say("Stop early…"), say("Skip what is left and close the study"), [this] { stop(); });
    layout->addLayout(second);
    list_->installEventFilter(this);
    return card(layout);
}

bool OrderPage::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const int by = key->key() == Qt::Key_Up ? -1 : key->key() == Qt::Key_Down ? 1 : 0;
        if (by != 0 && key->modifiers().testFlag(Qt::AltModifier)) {
            moveSlotBy(by);
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

QWidget* OrderPage::makeSide() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(cardTitle(say("What this order costs")));
    costs_->setWordWrap(true);
    costs_->setAccessibleName(say("What this order costs"));
    costs_->setObjectName("Order costs");
    layout->addWidget(costs_);
    auto* form = new QFormLayout;
    form_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    form_->reference<Material>(say("Check mounts of"), &Plan::checkWith, say("none"), [this] {
        std::vector<std::pair<QString, Id<Material>>> names;
        for (const auto& [id, material] : session_.document().all<Material>())
            names.emplace_back(qtext(material.name), id);
        return names;
    });
    form_->requiredNumber(
        say("How many checks"), [](const Plan& p) { return p.checkMounts; },
        [](Plan& p, double v) { p.checkMounts = static_cast<int>(v); }, 0, false, 100);
    form_->requiredNumber(
        say("Seed of the order"), [](const Plan& p) { return p.seed; },
        [](Plan& p, double v) { p.seed = static_cast<int>(v); }, 0, false, 1e9);
    form_->requiredNumber(
        say("Looks at the verdict planned"), [](const Plan& p) { return p.plannedLooks; },
        [](Plan& p, double v) { p.plannedLooks = static_cast<int>(v); }, 1, false, 11);
    layout->addLayout(form);
    layout->addWidget(quietLabel(
        say("Checks stand at the start, in between and at the end: a bench that drifts shows itself. "
            "Planned looks share the error between them.")));
    auto* row = new QHBoxLayout;
    auto* shuffler = button(say("Draw another order"), say("Another seed"));
    connect(shuffler, &QPushButton::clicked, this, &OrderPage::shuffle);
    auto* lay = button(say("Put on the tape"), say("Replaces the planned mounts; what was made stays"), true);
    connect(lay, &QPushButton::clicked, this, &OrderPage::layOnTape);
    row->addWidget(shuffler);
    row->addWidget(lay);
    layout->addStretch(1);
    auto* frame = new QVBoxLayout;
    frame->setContentsMargins(0, 0, 0, 0);
    frame->addWidget(scrolled(layout), 1);
    row->setContentsMargins(18, 0, 18, 14);
    frame->addLayout(row);
    return card(frame);
}

void OrderPage::refresh(const PlanFigures& figures) {
    figures_ = figures;
    const Question* question = session_.question();
    if (!question) return;
    const Plan* stored = planOf(session_.document(), question->study);
    form_->show(stored ? std::optional(stored->id) : std::nullopt);
    fillList(figures);
}

void OrderPage::fillList(const PlanFigures& figures) {
    const OrderLines told = orderLines(session_.document(), *session_.question(), figures);
    const auto chosen = currentSlot();
    const int row = list_->currentRow();
    list_->clear();
    title_->setText(told.title);
    for (const OrderLine& line : told.lines) {
        auto* item = new QListWidgetItem(line.text, list_);
        if (line.slot) item->setData(Qt::UserRole, static_cast<qlonglong>(line.slot->value));
        if (line.quiet) item->setForeground(colours().quiet);
    }
    chooseRow(chosen, row);
    costs_->setText(told.costs.join("\n"));
}

/// The mount that was chosen before, else what to do next, else the row that was.
void OrderPage::chooseRow(std::optional<Id<Slot>> chosen, int row) {
    int next = -1;
    for (int i = 0; i < list_->count(); ++i) {
        const QVariant id = list_->item(i)->data(Qt::UserRole);
        if (!id.isValid()) continue;
        if (chosen && id.toLongLong() == chosen->value) {
            list_->setCurrentRow(i);
            return;
        }
        const Slot* slot = session_.document().find(Id<Slot>{id.toLongLong()});
        if (next < 0 && slot && !slot->mount && slot->skippedBecause.empty()) next = i;
    }
    list_->setCurrentRow(next >= 0 ? next : std::clamp(row, 0, std::max(0, list_->count() - 1)));
}

std::optional<Id<Slot>> OrderPage::currentSlot() const {
    const QListWidgetItem* item = list_->currentItem();
    if (!item || !item->data(Qt::UserRole).isValid()) return std::nullopt;
    return Id<Slot>{item->data(Qt::UserRole).toLongLong()};
}

void OrderPage::act(const Message& title, const std::function<void(Edit&, const Question&)>& change,
                    Dates dates) {
    const Question* question = session_.question();
    if (!question) return;
    Edit edit(session_.document(), title);
    try {
        change(edit, *question);
    } catch (const InputError& error) {
        session_.refuse(saySentence(error));
        return;
    }
    if (dates == Dates::anew)
        performLaid(session_, std::move(edit));
    else
        session_.perform(edit.finish());
}

void OrderPage::moveSlotBy(int by) {
    const auto id = currentSlot();
    const Slot* slot = session_.document().find(id);
    if (!slot || slot->mount || !slot->skippedBecause.empty()) {
        session_.refuse(
            say("Only a planned mount can be moved. Put the order on the tape first, then choose one."));
        return;
    }
    const auto planned = plannedSlots(session_.document(), slot->study);
    const auto at = std::find(planned.begin(), planned.end(), slot) - planned.begin();
    const auto to = std::clamp<std::ptrdiff_t>(at + by, 0, static_cast<std::ptrdiff_t>(planned.size()) - 1);
    if (to == at) return;
    act(titled(by < -1 ? words::mark("Do it next") : words::mark("Reorder the mounts")),
        [&](Edit& edit, const Question&) { moveSlot(edit, *id, static_cast<std::size_t>(to)); });
}

void OrderPage::skipOrTakeUp() {
    const auto id = currentSlot();
    const Slot* slot = session_.document().find(id);
    if (!slot || slot->mount) {
        session_.refuse(say("Choose a planned mount to skip. One that was made is rejected on Bench."));
        return;
    }
    if (!slot->skippedBecause.empty()) {
        act(
            titled("Take a mount up again"), [&](Edit& edit, const Question&) { takeUpAgain(edit, *id); },
            Dates::anew);
        return;
    }
    askText(
        this, {say("Skip this mount"), say("Why? The reason stays in the record."), {}},
        [this, planned = *id](const QString& reason) {
            act(
                titled("Skip a mount"),
                [&](Edit& edit, const Question&) { skipSlot(edit, planned, reason.trimmed().toStdString()); },
                Dates::anew);
            return QString();
        });
}

void OrderPage::addOne() {
    const auto id = currentSlot();
    const Design design = designOf(session_.document(), *session_.question());
    for (const DesignUnit& unit : design.units)
        if (id && unit.slot == *id && unit.cell) {
            act(
                titled("Add a mount of {level}", {{"level", design.cells[*unit.cell].name}}),
                [&](Edit& edit, const Question& question) { addMount(edit, question, *unit.cell, false); },
                Dates::anew);
            return;
        }
    session_.refuse(say("Choose a mount of the level of which one more is wanted."));
}

void OrderPage::extend() {
    const Question* question = session_.question();
    if (!question) return;
    const QString hint = extensionHint(session_.document(), *question, figures_);
    askNumber(this, {say("Extend the study"), hint, {}}, 1, 50, [this](int more) {
        act(titled("Extend by {mounts}", {{"mounts", more}}), [&](Edit& edit, const Question& asked) {
            extendStudy(edit, asked, more, session_.now(), figures_.clock);
        });
    });
}

void OrderPage::stop() {
    askText(this, {say("Stop the study early"), say("Why? What is left is skipped for this reason."), {}},
            [this](const QString& reason) {
                act(titled("Stop early"), [&](Edit& edit, const Question& question) {
                    stopEarly(edit, question.study, reason.trimmed().toStdString());
                });
                return QString();
            });
}

void OrderPage::shuffle() {
    act(titled("Draw another order"), [&](Edit& edit, const Question&) {
        Plan plan = figures_.plan;
        ++plan.seed;
        putPlan(edit, plan);
    });
}

void OrderPage::layOnTape() {
    act(titled("Put the plan on the tape"), [&](Edit& edit, const Question& question) {
        // The tape follows the study's first question; others get their levels beside it.
        const Question& first = *firstQuestion(session_.document(), question.study);
        layPlan(edit, first, planFor(session_.document(), question.study), session_.now(), figures_.clock);
        if (!figures_.plan.followUps.empty()) layFollowUps(edit, planFor(edit.document(), question.study));
    });
}

} // namespace ibuki
