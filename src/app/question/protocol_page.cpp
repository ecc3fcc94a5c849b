// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/protocol_page.h"

#include "app/forms/entity_form.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/question/cycles_sheet.h"
#include "app/question/protocol_curve.h"
#include "app/question/protocol_lines.h"
#include "app/say.h"
#include "app/session/laid_change.h"
#include "app/session/step_title.h"
#include "core/domain/lookup.h"
#include "core/plan/step_times.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

enum Column { kindColumn, loadColumn, minutesColumn, gateColumn, valueColumn, aloneColumn, columnCount };

QString valueUnit(GateKind gate) {
    switch (gate) {
    case GateKind::none:
        return {};
    case GateKind::chipSlopeBelow:
    case GateKind::ambientSlopeBelow:
        return "K/min";
    case GateKind::remainingBelow:
    case GateKind::aboveIdleBelow:
        return "K";
    case GateKind::chipAbove:
    case GateKind::chipBelow:
        return "°C";
    }
    return {};
}

} // namespace

ProtocolPage::ProtocolPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      curve_(new ProtocolCurve),
      forecast_(new QLabel),
      bench_(quietLabel()),
      steps_(new QTableWidget(0, columnCount)),
      preset_(new QComboBox),
      other_(new QComboBox),
      difference_(new QLabel) {
    auto* columns = new QHBoxLayout;
    columns->addWidget(makeSteps(), 3);
    columns->addWidget(makeDifference(), 2);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeCurve(), 1);
    layout->addLayout(columns, 1);
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(scrolled(layout));
}

QWidget* ProtocolPage::makeCurve() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 8, 14, 8);
    layout->setSpacing(4);
    auto* head = new QHBoxLayout;
    head->addWidget(cardTitle(say("The curve this bench should draw")), 1);
    preset_->setAccessibleName(say("Begin from"));
    preset_->setObjectName("Begin from");
    preset_->setPlaceholderText(say("begin from …"));
    for (ProtocolPreset preset :
         {ProtocolPreset::air, ProtocolPreset::liquid, ProtocolPreset::laptop, ProtocolPreset::phaseChange})
        preset_->addItem(sayTerm(presetName(preset)));
    connect(preset_, &QComboBox::activated, this, &ProtocolPage::usePresetChosen);
    head->addWidget(preset_);
    layout->addLayout(head);
    auto* tip = new Tip(QStringLiteral("protocol"),
                        say("Drag the knobs above the curve, or a diamond along it; Alt with arrow keys does "
                            "the same to the chosen step."));
    connect(curve_, &ProtocolCurve::minutesMeant, tip, &Tip::done);
    connect(curve_, &ProtocolCurve::gateMeant, tip, &Tip::done);
    layout->addWidget(tip);
    explain(this, Topic::expectedCurve);
    layout->addWidget(curve_, 1);
    forecast_->setWordWrap(true);
    forecast_->setObjectName("Forecast of the step");
    layout->addWidget(forecast_);
    bench_->setObjectName("Expected bench");
    layout->addWidget(bench_);
    connect(curve_, &ProtocolCurve::focusedChanged, this, &ProtocolPage::showForecast);
    connect(curve_, &ProtocolCurve::minutesMeant, this,
            [this](std::size_t row, double minutes, bool dragging) {
                meanChange(
                    row, [minutes](ProtocolStep& step) { step.minutes = minutes; }, dragging);
            });
    connect(curve_, &ProtocolCurve::gateMeant, this, [this](std::size_t row, double value, bool dragging) {
        meanChange(
            row, [value](ProtocolStep& step) { step.gateValue = value; }, dragging);
    });
    return card(layout);
}

QWidget* ProtocolPage::makeSteps() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(cardTitle(say("Steps after the hands are done")));
    steps_->setHorizontalHeaderLabels(
        {say("step"), say("load"), "min", say("goes on when"), say("value"), say("alone")});
    steps_->setAccessibleName(say("Steps"));
    steps_->setObjectName("Steps");
    steps_->setTabKeyNavigation(false);
    steps_->setMinimumHeight(7 * fontMetrics().height());
    steps_->verticalHeader()->hide();
    steps_->setSelectionBehavior(QAbstractItemView::SelectRows);
    steps_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    steps_->horizontalHeader()->setSectionResizeMode(gateColumn, QHeaderView::Stretch);
    connect(steps_, &QTableWidget::cellChanged, this, [this](int row, int) { changeStep(row); });
    connect(steps_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0) curve_->chooseRow(static_cast<std::size_t>(row));
    });
    layout->addWidget(steps_, 1);
    auto* row = new QHBoxLayout;
    auto* add = button(say("Add step"));
    auto* remove = button(say("Remove step"));
    connect(add, &QPushButton::clicked, this, &ProtocolPage::addStep);
    connect(remove, &QPushButton::clicked, this, &ProtocolPage::removeStep);
    row->addWidget(add);
    row->addWidget(remove);
    auto* cycles =
        button(say("Cycles…"), say("Of the chosen conditioning step: heating and cooling, again and again"));
    connect(cycles, &QPushButton::clicked, this, &ProtocolPage::openCycles);
    row->addWidget(cycles);
    row->addStretch(1);
    layout->addLayout(row);
    return card(layout);
}

QWidget* ProtocolPage::makeDifference() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(cardTitle(say("Against another study")));
    other_->setAccessibleName(say("Other study"));
    other_->setObjectName("Other study");
    other_->setPlaceholderText(say("there is no other study"));
    layout->addWidget(other_);
    difference_->setWordWrap(true);
    difference_->setTextFormat(Qt::RichText);
    difference_->setAccessibleName(say("What the protocols do differently"));
    difference_->setObjectName("Difference");
    difference_->setAlignment(Qt::AlignTop);
    auto* scroll = new QScrollArea; // steps may be many, and words long
    scroll->setWidget(difference_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    layout->addWidget(scroll, 1);
    layout->addWidget(quietLabel(
        say("Soak and measure are done for every load; a step may be made for one load alone. A soak "
            "lasts at least as long as the bench's slowest part asks for (bench sheet).")));
    connect(other_, &QComboBox::activated, this, &ProtocolPage::fillDifference);
    return card(layout);
}

void ProtocolPage::refresh() {
    if (!session_.study()) return;
    fillSteps();
    expected_ = expectedBench(session_.document(), session_.study()->id);
    fillCurve(protocolOf(session_.document(), session_.study()->id));
    fillStudies();
    fillDifference();
}

void ProtocolPage::fillSteps() {
    const QSignalBlocker quiet(steps_);
    const Id<Study> study = session_.study()->id;
    const auto steps = protocolOf(session_.document(), study);
    const auto loads = loadsOf(session_.document(), study);
    steps_->setRowCount(static_cast<int>(steps.size()));
    const auto choice = [&](int row, int column, const QString& name, const QStringList& items, int current) {
        auto* box = new QComboBox;
        box->addItems(items);
        box->setCurrentIndex(current);
        box->setAccessibleName(say("%1 of step %2").arg(name).arg(row + 1));
        connect(box, &QComboBox::activated, this, [this, row] { changeStep(row); });
        steps_->setCellWidget(row, column, box);
    };
    QStringList kinds;
    for (std::string_view kind : Words<StepKind>::all) kinds << sayTerm(kind);
    QStringList gates;
    for (std::string_view gate : Words<GateKind>::all) gates << sayTerm(gate);
    QStringList loadNames{say("every")};
    for (const Load* load : loads) loadNames << qtext(load->name);
    for (int row = 0; row < steps_->rowCount(); ++row) {
        const ProtocolStep& step = steps[static_cast<std::size_t>(row)];
        choice(row, kindColumn, say("Kind"), kinds, static_cast<int>(step.kind));
        int load = 0;
        for (std::size_t i = 0; i < loads.size(); ++i)
            if (step.load == loads[i]->id) load = static_cast<int>(i) + 1;
        choice(row, loadColumn, say("Load"), loadNames, load);
        choice(row, gateColumn, say("Gate"), gates, static_cast<int>(step.gate));
        steps_->setItem(row, minutesColumn, new QTableWidgetItem(numberText(step.minutes)));
        auto* value =
            new QTableWidgetItem(step.gate == GateKind::none ? QString() : numberText(step.gateValue));
        value->setToolTip(valueUnit(step.gate));
        steps_->setItem(row, valueColumn, value);
        auto* alone = new QTableWidgetItem;
        alone->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
        alone->setCheckState(step.unattended ? Qt::Checked : Qt::Unchecked);
        steps_->setItem(row, aloneColumn, alone);
    }
}

void ProtocolPage::fillCurve(const std::vector<ProtocolStep>& protocol) {
    const Document& document = session_.document();
    ProtocolDrawing drawing{
        expectedCurve(document, session_.study()->id, expected_, protocol), protocol, {}, {}};
    for (std::size_t i = 0; i < drawing.curve.steps.size(); ++i) {
        drawing.names << stepTitle(drawing.curve.steps[i]);
        drawing.forecasts << stepForecast(drawing.curve.steps[i], drawing.curve.forecasts[i]);
    }
    bench_->setText(benchForecast(drawing.curve.bench));
    curve_->show(std::move(drawing));
    showForecast();
}

void ProtocolPage::showForecast() {
    forecast_->setText(curve_->drawing().forecasts.value(curve_->focused()));
    if (const auto row = curve_->chosenRow(); row && steps_->currentRow() != static_cast<int>(*row))
        steps_->selectRow(static_cast<int>(*row));
}

void ProtocolPage::meanChange(std::size_t row, const std::function<void(ProtocolStep&)>& change,
                              bool dragging) {
    if (dragging) {
        auto protocol = protocolOf(session_.document(), session_.study()->id);
        change(protocol.at(row));
        fillCurve(protocol);
        return;
    }
    Edit edit(session_.document(), titled("Change a step of the protocol"));
    ProtocolStep step = ownSteps(edit).at(row);
    change(step);
    edit.put(step);
    performLaid(session_, std::move(edit));
    fillCurve(protocolOf(session_.document(), session_.study()->id)); // also when nothing changed
}

void ProtocolPage::fillStudies() {
    const qlonglong chosen = other_->currentData().toLongLong();
    other_->clear();
    for (const auto& [id, study] : session_.document().all<Study>())
        if (id != session_.study()->id) other_->addItem(qtext(study.name), static_cast<qlonglong>(id.value));
    const int index = other_->findData(chosen);
    other_->setCurrentIndex(index >= 0 ? index : other_->count() - 1);
}

void ProtocolPage::fillDifference() {
    const Id<Study> other{other_->currentData().toLongLong()};
    if (!session_.document().find(other)) {
        difference_->setText(say("With a second study, what its protocol does differently stands here."));
        return;
    }
    const auto lines = protocolDifference(session_.document(), session_.study()->id, other);
    if (lines.empty()) {
        difference_->setText(say("Both do the same."));
        return;
    }
    QString html = "<table cellspacing='0' cellpadding='3'>";
    html += say("<tr><td></td><td><b>here</b></td><td><b>%1</b></td></tr>")
                .arg(other_->currentText().toHtmlEscaped());
    const auto reported = [](const std::optional<Message>& step) {
        return step ? sayText(*step).toHtmlEscaped() : QStringLiteral("–");
    };
    for (const ProtocolDifference& line : lines)
        html += QString("<tr><td>%1</td><td>%2</td><td>%3</td></tr>")
                    .arg(sayText(line.step).toHtmlEscaped(), reported(line.here), reported(line.there));
    difference_->setText(html + "</table>");
}

std::vector<ProtocolStep> ProtocolPage::ownSteps(Edit& edit) const {
    const Id<Study> study = session_.study()->id;
    if (edit.document().where(&ProtocolStep::study, study).empty())
        usePreset(edit, study, ProtocolPreset::air);
    return protocolOf(edit.document(), study);
}

void ProtocolPage::usePresetChosen(int index) {
    Edit edit(session_.document(),
              titled("Begin from the protocol for {preset}",
                     {{"preset", Term{presetName(static_cast<ProtocolPreset>(index))}}}));
    usePreset(edit, session_.study()->id, static_cast<ProtocolPreset>(index));
    preset_->setCurrentIndex(-1);
    performLaid(session_, std::move(edit)); // the steps' times move the evenings
}

void ProtocolPage::changeStep(int row) {
    const auto minutes = numberFrom(steps_->item(row, minutesColumn)->text());
    const QString valueText = steps_->item(row, valueColumn)->text();
    const auto value = valueText.trimmed().isEmpty() ? std::optional(0.0) : numberFrom(valueText);
    if (!minutes || *minutes < 0 || !value || *value < 0) {
        session_.refuse(
            say("Step %1: \"%2\" is no number that can be. Write digits, such as 20.")
                .arg(row + 1)
                .arg(!minutes || *minutes < 0 ? steps_->item(row, minutesColumn)->text() : valueText));
        fillSteps();
        return;
    }
    Edit edit(session_.document(), titled("Change a step of the protocol"));
    auto steps = ownSteps(edit);
    if (row >= static_cast<int>(steps.size())) return;
    ProtocolStep step = steps[static_cast<std::size_t>(row)];
    const auto chosen = [&](int column) {
        return static_cast<QComboBox*>(steps_->cellWidget(row, column))->currentIndex();
    };
    step.kind = static_cast<StepKind>(chosen(kindColumn));
    const auto loads = loadsOf(session_.document(), session_.study()->id);
    const int load = chosen(loadColumn);
    step.load = load == 0 ? std::nullopt : std::optional(loads[static_cast<std::size_t>(load) - 1]->id);
    step.minutes = *minutes;
    step.gate = static_cast<GateKind>(chosen(gateColumn));
    step.gateValue = *value;
    step.unattended = steps_->item(row, aloneColumn)->checkState() == Qt::Checked;
    edit.put(step);
    performLaid(session_, std::move(edit));
}

void ProtocolPage::openCycles() {
    Edit edit(session_.document(), titled("Write the protocol down"));
    const auto steps = ownSteps(edit);
    const auto row = static_cast<std::size_t>(std::max(0, steps_->currentRow()));
    if (row >= steps.size() || steps[row].kind != StepKind::condition) {
        session_.refuse(say("Choose a conditioning step first: it alone has cycles."));
        return;
    }
    if (session_.perform(edit.finish())) openDialog(new CyclesSheet(session_, steps[row].id, this));
}

void ProtocolPage::addStep() {
    Edit edit(session_.document(), titled("Add a step to the protocol"));
    const auto steps = ownSteps(edit);
    ProtocolStep step;
    step.study = session_.study()->id;
    step.position = steps.empty() ? 0 : steps.back().position + 1;
    step.minutes = 10;
    step.unattended = true;
    edit.add(step);
    performLaid(session_, std::move(edit));
}

void ProtocolPage::removeStep() {
    const int row = steps_->currentRow();
    Edit edit(session_.document(), titled("Remove a step of the protocol"));
    const auto steps = ownSteps(edit);
    if (row < 0 || row >= static_cast<int>(steps.size())) {
        session_.refuse(say("Choose the step to remove."));
        return;
    }
    if (steps.size() == 1) {
        session_.refuse(say("A protocol has at least one step. Change this one instead."));
        return;
    }
    edit.remove(steps[static_cast<std::size_t>(row)].id);
    performLaid(session_, std::move(edit));
}

} // namespace ibuki
