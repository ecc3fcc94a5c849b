// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/part_sheet.h"

#include "app/forms/dialog_buttons.h"
#include "app/forms/topic.h"
#include "app/question/level_sheet.h"
#include "app/question/levels_card.h"
#include "app/say.h"

#include <QVBoxLayout>

namespace ibuki {
namespace {

/// The levels with what varies, in a sheet of their own.
class LevelsSheet : public QDialog {
public:
    LevelsSheet(Session& session, QWidget* parent) : QDialog(parent) {
        setWindowTitle(say("What is compared"));
        resize(520, 460);
        auto* layout = new QVBoxLayout(this);
        auto* form = new QFormLayout;
        fields_ = std::make_unique<QuestionFields>(session, form);
        fields_->addFactor();
        fields_->addSecondFactor();
        auto* levels = new LevelsCard(session);
        layout->addLayout(form);
        layout->addWidget(levels, 1);
        layout->addWidget(closeButton(this));
        const auto refresh = [this, &session, levels] {
            if (!session.question()) return reject();
            fields_->refresh();
            levels->refresh();
        };
        connect(&session, &Session::documentChanged, this, refresh);
        refresh();
        levels->focusLevels();
    }

private:
    std::unique_ptr<QuestionFields> fields_;
};

} // namespace

PartSheet::Content PartSheet::contentOf(AskedPart part) {
    switch (part) {
    case AskedPart::site:
        return {say("Where"), say("The interface that is opened and filled anew with every mount."),
                [](QuestionFields& fields) { fields.addSite(); }};
    case AskedPart::metric:
        return {say("Judged by"),
                say("Stored figures know every metric: another choice measures nothing anew."),
                [](QuestionFields& fields) { fields.addMetric(); }};
    case AskedPart::reference:
    case AskedPart::taken:
        return {say("Measured over"),
                say("The room counts most; per watt, or at one nominal power, where the power varied."),
                [](QuestionFields& fields) {
                    fields.addReference();
                    fields.addTaken();
                    fields.addNominalPower();
                }};
    default:
        return {say("What matters"),
                say("A smaller difference is settled, but not worth anything to you; the plan and the "
                    "verdict follow it."),
                [](QuestionFields& fields) {
                    fields.addMargin();
                    fields.addConfidence();
                    fields.addGoal();
                    fields.addHeldAgainst();
                }};
    }
}

PartSheet::PartSheet(Session& session, AskedPart part, QWidget* parent)
    : PartSheet(session, contentOf(part), parent) {}

PartSheet* PartSheet::rare(Session& session, QWidget* parent) {
    return new PartSheet(session,
                         {say("More of what is asked"),
                          say("What the sentence says only when it is not usual."),
                          [](QuestionFields& fields) {
                              fields.addFactor();
                              fields.addSecondFactor();
                              fields.addGoal();
                              fields.addHeldAgainst();
                              fields.addTaken();
                              fields.addNominalPower();
                              fields.addComparedLoad();
                              fields.addTakenOut();
                              fields.addSpread();
                          }},
                         parent);
}

PartSheet::PartSheet(Session& session, const Content& content, QWidget* parent)
    : QDialog(parent),
      session_(session),
      question_(session.question()->id),
      form_(new QFormLayout),
      fields_(session, form_),
      frozen_(quietLabel()) {
    setWindowTitle(content.title);
    explain(this, Topic::metric);
    setMinimumWidth(420);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(quietLabel(content.why));
    content.add(fields_);
    layout->addLayout(form_);
    layout->addWidget(frozen_);
    layout->addStretch(1);
    layout->addWidget(closeButton(this));
    connect(&session_, &Session::documentChanged, this, &PartSheet::refresh);
    connect(&session_, &Session::selectionChanged, this, &PartSheet::refresh);
    refresh();
}

void PartSheet::refresh() {
    const Question* question = session_.question();
    if (!question || question->id != question_) {
        reject(); // another study, or undone
        return;
    }
    frozen_->setText(
        question->frozen
            ? say("Fixed since the first mount was measured. A change stays in the history.")
            : say("Fix the response before the first mount: choosing it afterwards would be choosing the "
                  "winner."));
    fields_.refresh();
}

void openPart(Session& session, AskedPart part, QWidget* parent, const QPoint& at) {
    if (!session.question()) return;
    QDialog* sheet = nullptr;
    if (part == AskedPart::loads)
        sheet = new LoadsSheet(session, session.question()->study, parent);
    else if (part == AskedPart::levels || part == AskedPart::secondLevels)
        sheet = new LevelsSheet(session, parent);
    else
        sheet = new PartSheet(session, part, parent);
    openDialog(sheet);
    sheet->move(at);
}

} // namespace ibuki
