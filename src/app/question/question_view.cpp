// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/question_view.h"

#include "app/shell/amount_text.h"
#include "app/shell/class_mark_painter.h"
#include "app/shell/theme.h"
#include "app/shell/widgets.h"
#include "core/domain/lookup.h"
#include "core/plan/hold.h"
#include "store/paper/sentences.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace ibuki {
QuestionView::QuestionView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      sentence_(new QLabel),
      frozen_(new QLabel),
      body_(new QWidget),
      empty_(new QWidget),
      emptyButton_(new QPushButton),
      emptyText_(new QLabel) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    sentence_->setWordWrap(true);
    sentence_->setFont(textFont(1.45, QFont::Medium));
    sentence_->setAccessibleName("The study in one sentence");
    frozen_->setProperty("quiet", true);
    frozen_->setWordWrap(true);
    auto* top = new QVBoxLayout;
    top->setContentsMargins(18, 14, 18, 14);
    top->addWidget(sentence_);
    top->addWidget(frozen_);
    layout->addWidget(card(top));
    auto* columns = new QHBoxLayout(body_);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(makeSettings(), 3);
    columns->addWidget(makeLevels(), 2);
    layout->addWidget(body_, 1);

    auto* emptyLayout = new QVBoxLayout(empty_);
    emptyLayout->addStretch(1);
    emptyText_->setAlignment(Qt::AlignCenter);
    emptyText_->setWordWrap(true);
    emptyLayout->addWidget(emptyText_);
    emptyLayout->addWidget(emptyButton_, 0, Qt::AlignCenter);
    emptyLayout->addStretch(2);
    emptyButton_->setProperty("main", true);
    connect(emptyButton_, &QPushButton::clicked, this, [this] {
        if (session_.bench())
            emit studyWanted();
        else
            emit benchWanted();
    });
    layout->addWidget(empty_, 1);
    refresh();
}

QWidget* QuestionView::makeSettings() {
    auto* form = new QFormLayout;
    form->setContentsMargins(18, 14, 18, 14);
    form->setVerticalSpacing(7);
    studyForm_ = std::make_unique<EntityForm<Study>>(session_, form, "study");
    questionForm_ = std::make_unique<EntityForm<Question>>(session_, form, "question");
    loadForm_ = std::make_unique<EntityForm<Load>>(session_, form, "load");
    studyForm_->text("Study", &Study::name);
    site_ = new QComboBox;
    addFormRow(form, "Site under study", site_);
    connect(site_, &QComboBox::activated, this, [this](int index) {
        const Id<Site> site{site_->itemData(index).toLongLong()};
        changeQuestion("Change the site under study", [&](Question& question) { question.site = site; });
    });
    metric_ = new QComboBox;
    for (Metric metric : allMetrics) metric_->addItem(qtext(metricTitle(metric)), qtext(metricName(metric)));
    addFormRow(form, "Judged by", metric_);
    connect(metric_, &QComboBox::activated, this, [this](int index) {
        const std::string name = metric_->itemData(index).toString().toStdString();
        changeQuestion("Judge by " + std::string(metricTitle(*metricFromName(name))),
                       [&](Question& question) { question.metric = name; });
    });
    questionForm_->choice("Measured over", &Question::reference);
    questionForm_->choice("Taken", &Question::normalisation);
    questionForm_->number("Nominal power, W", &Question::nominalPower, 0, true);
    questionForm_->requiredNumber(
        "Difference that matters, K", [](const Question& q) { return q.margin.value; },
        [](Question& q, double v) { q.margin = Kelvin{v}; }, 0, true);
    questionForm_->requiredNumber(
        "Sure, in %", [](const Question& q) { return 100 * q.confidence; },
        [](Question& q, double v) { q.confidence = v / 100; }, 50, true, 100);
    questionForm_->performWith([this](Edit edit) {
        const Question* now = session_.question();
        const Question* then = now ? edit.document().find(now->id) : nullptr;
        // Only the nominal power enters a reduction; margin and normalisation are applied to its result.
        const bool enters = then && then->nominalPower != now->nominalPower;
        auto tasks = enters ? reductionTasks(edit.document(), *then) : std::vector<ReductionTask>{};
        session_.performReduced(std::move(edit), std::move(tasks));
    });
    loadForm_->text("Load", &Load::name);
    loadForm_->number("Target power, W", &Load::target, 0, true);
    studyForm_->note("Held constant", &Study::heldConstant);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scrolled(form));
    return card(layout);
}

QWidget* QuestionView::makeLevels() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(cardTitle("Materials compared"));
    levels_ = new QListWidget;
    levels_->setAccessibleName("Materials compared");
    layout->addWidget(levels_, 1);
    holds_ = new QLabel;
    holds_->setWordWrap(true);
    holds_->setAccessibleName("What holds the plan");
    layout->addWidget(holds_);
    auto* order = new QHBoxLayout;
    for (const auto& [text, by] : {std::pair{"Up", -1}, std::pair{"Down", 1}}) {
        auto* mover = button(text);
        connect(mover, &QPushButton::clicked, this, [this, by = by] { moveLevel(by); });
        order->addWidget(mover);
    }
    auto* remove = button("Leave out");
    connect(remove, &QPushButton::clicked, this, &QuestionView::removeLevel);
    order->addWidget(remove);
    layout->addLayout(order);
    auto* row = new QHBoxLayout;
    material_ = new QComboBox;
    material_->setAccessibleName("Material from the shelf");
    material_->setPlaceholderText("every material is compared");
    auto* add = button("Compare too");
    connect(add, &QPushButton::clicked, this, &QuestionView::addLevel);
    row->addWidget(material_, 1);
    row->addWidget(add);
    layout->addLayout(row);
    return card(layout);
}

void QuestionView::refresh() {
    const Question* question = session_.question();
    body_->setVisible(question != nullptr);
    empty_->setVisible(question == nullptr);
    if (!question) {
        sentence_->setText("Nothing is asked yet");
        frozen_->setText(
            "A study says what is compared, where, under which load, and which difference matters.");
        emptyText_->setText(session_.bench() ? "The bench is described. Next: the question."
                                             : "First describe the bench: the layers that the heat crosses.");
        emptyButton_->setText(session_.bench() ? "Ask a question" : "Describe a bench");
        return;
    }
    sentence_->setText(QString::fromStdString(studySentence(session_.document(), *question)));
    frozen_->setText(
        question->frozen
            ? "The response is fixed since the first mount was measured. It can still be changed; the "
              "history keeps what it was, and all runs are reduced again."
            : "Fix the response before the first mount: choosing it afterwards would be choosing the "
              "winner.");
    fillSites();
    metric_->setCurrentIndex(metric_->findData(QString::fromStdString(question->metric)));
    studyForm_->show(question->study);
    questionForm_->show(question->id);
    const auto loads = session_.document().where(&Load::study, question->study);
    if (!loads.empty()) loadForm_->show(loads.front()->id);
    fillLevels();
}

void QuestionView::fillSites() {
    site_->clear();
    const Configuration* configuration = session_.configuration();
    if (!configuration) return;
    for (const Site* site : session_.document().where(&Site::configuration, configuration->id))
        site_->addItem(QString::fromStdString(site->name), static_cast<qlonglong>(site->id.value));
    site_->setCurrentIndex(site_->findData(static_cast<qlonglong>(session_.question()->site.value)));
}

void QuestionView::fillLevels() {
    const int row = levels_->currentRow();
    levels_->clear();
    material_->clear();
    std::vector<Id<Material>> used;
    for (const Level* level : levelsOf(session_.document(), session_.question()->id)) {
        auto* item = new QListWidgetItem(QString::fromStdString(level->name), levels_);
        item->setData(Qt::UserRole, static_cast<qlonglong>(level->id.value));
        if (const Material* material = session_.document().find(level->material)) {
            item->setIcon(classIcon(material->kind));
            used.push_back(material->id);
        }
    }
    for (const auto& [id, material] : session_.document().all<Material>())
        if (std::find(used.begin(), used.end(), id) == used.end())
            material_->addItem(QString::fromStdString(material.name), static_cast<qlonglong>(id.value));
    material_->setCurrentIndex(material_->count() > 0 ? 0 : -1); // the placeholder keeps it at none
    levels_->setCurrentRow(std::clamp(row, 0, std::max(0, levels_->count() - 1)));
    fillHolds();
}

/// A hold is told with its material; what answers it lies on Shelf.
void QuestionView::fillHolds() {
    const Document& document = session_.document();
    QStringList words;
    for (const Hold& hold : holdsOf(document, *session_.question(), session_.now()))
        words << QString("Held, %1. %2")
                     .arg(qtext(document.find(hold.material)->name),
                          QString::fromStdString(cautionText(hold.caution)));
    if (!words.isEmpty()) words << "Answer or acknowledge it on Shelf, under Cautions.";
    for (const Shortage& shortage : shortagesOf(document, *session_.question(), session_.now()))
        words << shortageText(document, shortage);
    holds_->setText(words.join("\n"));
    holds_->setVisible(!words.isEmpty());
    QPalette palette = holds_->palette();
    palette.setColor(QPalette::WindowText, colours().hot);
    holds_->setPalette(palette);
}

void QuestionView::changeQuestion(const std::string& title, const std::function<void(Question&)>& change) {
    const Question* question = session_.question();
    if (!question) return;
    Question changed = *question;
    change(changed);
    if (changed == *question) return;
    Edit edit(session_.document(), title);
    edit.put(changed);
    auto tasks = reductionTasks(edit.document(), changed);
    session_.performReduced(std::move(edit), std::move(tasks));
}

void QuestionView::addLevel() {
    const Question* question = session_.question();
    const Material* material = session_.document().find(Id<Material>{material_->currentData().toLongLong()});
    if (!question) return;
    if (!material) {
        session_.refuse("Every material of the shelf is compared already. Add another on Shelf.");
        return;
    }
    const Site* site = session_.document().find(question->site);
    const Configuration* configuration = site ? session_.document().find(site->configuration) : nullptr;
    if (site)
        for (const Hold& hold : holdsOf(session_.document(), *material, *site, configuration, session_.now()))
            if (hold.caution.state == CautionState::applies && !hold.caution.rule->mayOverride) {
                session_.refuse(QString::fromStdString(cautionText(hold.caution)));
                return;
            }
    Edit edit(session_.document(), "Compare " + material->name + " too");
    Level level;
    level.question = question->id;
    level.position = levels_->count();
    level.name = material->name;
    level.material = material->id;
    edit.add(level);
    session_.perform(edit.finish());
}

void QuestionView::removeLevel() {
    const QListWidgetItem* item = levels_->currentItem();
    const Level* level =
        item ? session_.document().find(Id<Level>{item->data(Qt::UserRole).toLongLong()}) : nullptr;
    if (!level) return;
    for (const auto& [id, slot] : session_.document().all<Slot>())
        if (slot.level == level->id) {
            session_.refuse(
                QString("%1 has mounts or planned slots in this study and stays. Reject its mounts "
                        "to leave it out.")
                    .arg(item->text()));
            return;
        }
    Edit edit(session_.document(), "Leave out " + level->name);
    edit.remove(level->id);
    session_.perform(edit.finish());
}

void QuestionView::moveLevel(int by) {
    const int row = levels_->currentRow();
    const int other = row + by;
    if (row < 0 || other < 0 || other >= levels_->count()) return;
    const auto levels = levelsOf(session_.document(), session_.question()->id);
    Edit edit(session_.document(), "Reorder the materials");
    std::vector<Level> all;
    for (const Level* level : levels) all.push_back(*level);
    std::swap(all[static_cast<std::size_t>(row)], all[static_cast<std::size_t>(other)]);
    for (std::size_t i = 0; i < all.size(); ++i) {
        all[i].position = static_cast<int>(i);
        edit.put(all[i]);
    }
    levels_->setCurrentRow(other);
    session_.perform(edit.finish());
}

} // namespace ibuki
