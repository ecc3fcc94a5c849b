// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/external_page.h"

#include "app/forms/copying.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/heat/account_bars.h"
#include "app/heat/external_lines.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/material.h"
#include "store/paper/heat_csv.h"

#include <QListWidget>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

namespace ibuki {
namespace {

QString nameOf(const Document& document, Id<Material> id) {
    const Material* material = document.find(id);
    return material ? qtext(material->name) : QString();
}

QString titleOf(const Document& document, const ExternalResult& read) {
    const QString pair = say("%1 less %2: %3")
                             .arg(nameOf(document, read.first), nameOf(document, read.second),
                                  kelvinText(read.difference.value, true));
    return read.source.empty() ? pair : qtext(read.source) + "\n" + pair;
}

} // namespace

ExternalPage::ExternalPage(Session& session, QWidget* parent)
    : HeatPage(say("Elsewhere"), parent),
      session_(session),
      list_(new QListWidget),
      add_(button(say("Add a result"), say("Of two materials that were mounted here"))),
      remove_(button(say("Remove"), say("The chosen result"))),
      reported_(new QLabel),
      bars_(new AccountBars) {
    explain(this, Topic::external);
    list_->setAccessibleName(say("Results read elsewhere"));
    list_->setMaximumHeight(7 * fontMetrics().height()); // the fields below are what is worked with
    wrapItems(*list_);
    copyItemOnKey(*list_);
    reported_->setWordWrap(true);
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setObjectName("Account told");
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(add_);
    buttons->addWidget(remove_);
    buttons->addStretch(1);
    auto* left = new QVBoxLayout;
    left->addWidget(list_, 1);
    left->addLayout(buttons);
    left->addWidget(makeForm(), 2);
    left->addStretch(0);
    auto* right = new QVBoxLayout;
    right->addWidget(reported_);
    right->addWidget(bars_);
    right->addStretch(1);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(left, 2);
    layout->addLayout(right, 3);
    connect(add_, &QPushButton::clicked, this, &ExternalPage::add);
    connect(remove_, &QPushButton::clicked, this, &ExternalPage::remove);
    connect(list_, &QListWidget::currentRowChanged, this, &ExternalPage::showChosen);
}

ExternalPage::~ExternalPage() = default;

QWidget* ExternalPage::makeForm() {
    auto* rows = new QFormLayout;
    rows->setContentsMargins(0, 0, 0, 0);
    fields_ = std::make_unique<EntityForm<ExternalResult>>(session_, rows, "a result read elsewhere");
    auto& form = *fields_;
    const auto mounted = [this] { return mounted_; };
    using Read = ExternalResult;
    form.text(say("Where it was read"), &Read::source);
    form.oneOf<Material>(say("First material"), &Read::first, mounted);
    form.oneOf<Material>(say("Second material"), &Read::second, mounted);
    form.requiredNumber(
        say("The first ran hotter by, K"), [](const Read& read) { return read.difference.value; },
        [](Read& read, double kelvin) { read.difference = Kelvin{kelvin}; }, -1'000, true, 1'000);
    form.requiredNumber(
        say("Power there, W"), [](const Read& read) { return read.power.value; },
        [](Read& read, double watt) { read.power = Watt{watt}; }, 0, true, 100'000);
    form.requiredNumber(
        say("Chip there, mm²"), [](const Read& read) { return read.chipMm2; },
        [](Read& read, double mm2) { read.chipMm2 = mm2; }, 0, true, 100'000);
    form.choice(say("Lid there"), &Read::lid)->removeItem(static_cast<int>(LidState::noChip));
    form.number(say("Cooler there, K/W"), &Read::cooler, 0, true)->setPlaceholderText(say("as here"));
    form.requiredNumber(
        say("Mounts of each"), [](const Read& read) { return read.mounts; },
        [](Read& read, double n) { read.mounts = static_cast<int>(n); }, 1, false, 1'000);
    form.text(say("Note"), &Read::note);
    form_ = scrolled(rows);
    return form_;
}

void ExternalPage::fill(const HeatMatter& matter) {
    mounted_.clear();
    for (const PathGroup& group : matter.calibration.input.groups) {
        const auto isIt = [&](const auto& one) { return one.second == group.material->id; };
        if (group.material && std::none_of(mounted_.begin(), mounted_.end(), isIt))
            mounted_.emplace_back(qtext(group.material->name), group.material->id);
    }
    namesNoMaterials_ = mounted_.size() < 2 && matter.calibration.input.groups.size() >= 2;
    add_->setEnabled(mounted_.size() >= 2);
    accounts_.clear();
    const Question* question = session_.question();
    for (const ExternalResult* read : matter.document.where(&ExternalResult::question, question->id)) {
        Account account{*read, {}, say("One of both was not mounted here.")};
        const auto first = groupOf(matter.calibration, read->first);
        const auto second = groupOf(matter.calibration, read->second);
        if (first && second && first == second)
            account.reported = say("A material does not differ from itself.");
        if (first && second && first != second) {
            account.found = explainDisagreement(matter.calibration, matter.bench, *first, *second, *read);
            account.reported =
                accountText(*account.found, nameOf(matter.document, read->first),
                            nameOf(matter.document, read->second), matter.bench.path.powerW, *read);
        }
        accounts_.push_back(std::move(account));
    }
    const QSignalBlocker quiet(list_);
    list_->clear();
    int row = accounts_.empty() ? -1 : 0;
    for (const Account& account : accounts_) {
        list_->addItem(titleOf(matter.document, account.read));
        if (chosen_ == account.read.id) row = list_->count() - 1;
    }
    list_->setCurrentRow(row);
    showChosen();
}

void ExternalPage::showChosen() {
    const int row = list_->currentRow();
    const bool any = row >= 0 && row < static_cast<int>(accounts_.size());
    form_->setVisible(any);
    list_->setVisible(any); // an empty one would only take the room
    remove_->setEnabled(any);
    if (!any) {
        chosen_.reset();
        fields_->show(std::nullopt);
        bars_->show(nullptr);
        reported_->setText(
            namesNoMaterials_ ? say("What was mounted here is not told as materials of the shelf: state it "
                                    "in the levels or in the "
                                    "applications, and a result of others can be held against it.")
            : mounted_.size() < 2
                ? say("Two materials have to be mounted here before a result of others can be held against "
                      "them.")
                : say("Somebody else found another difference between two of these materials? Add what they "
                      "read, with their power, chip, lid and cooler: what the benches explain, what scatter "
                      "explains and what is left is worked out here."));
        return;
    }
    const Account& account = accounts_[static_cast<std::size_t>(row)];
    chosen_ = account.read.id;
    fields_->show(chosen_);
    reported_->setText(account.reported);
    bars_->show(account.found ? &*account.found : nullptr);
}

void ExternalPage::add() {
    const Question* question = session_.question();
    if (!question || mounted_.size() < 2) return;
    ExternalResult read;
    read.question = question->id;
    read.first = mounted_[0].second;
    read.second = mounted_[1].second;
    Edit edit(session_.document(), titled("Add a result read elsewhere"));
    chosen_ = edit.add(read);
    session_.perform(edit.finish());
    form_->setFocus();
    for (QLineEdit* field : form_->findChildren<QLineEdit*>()) {
        field->setFocus(); // the first: where it was read
        break;
    }
}

void ExternalPage::remove() {
    if (!chosen_) return;
    Edit edit(session_.document(), titled("Remove a result read elsewhere"));
    edit.remove(*chosen_);
    session_.perform(edit.finish());
}

std::string ExternalPage::csv() const {
    std::string text;
    for (const Account& account : accounts_)
        if (account.found)
            text += accountCsv(nameOf(session_.document(), account.read.first).toStdString(),
                               nameOf(session_.document(), account.read.second).toStdString(),
                               account.read.source, *account.found, text.empty());
    return text;
}

QWidget* ExternalPage::picture() { return bars_; }

} // namespace ibuki
