// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/log_reading_panel.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/run/trace_plot.h"
#include "app/say.h"
#include "core/domain/run_reduction.h"
#include "words/words.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLineEdit>
#include <QListWidget>
#include <QStackedWidget>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr int mostColumnsShown = 400; ///< each has a widget of its own
constexpr double timeUnits[] = {1, 1e-3, 1e-6, 1e-9};
const std::pair<const char*, char> separatorNames[] = {
    {words::mark("semicolon"), ';'}, {words::mark("tab"), '\t'},
    {words::mark("comma"), ','},     {words::mark("bar"), '|'},
    {words::mark("spaces"), blanks}, {words::mark("two or more spaces"), wideBlanks}};

/// As people write it.
QString unitText(Unit unit) {
    return unit == Unit::celsius      ? QString("°C")
           : unit == Unit::fahrenheit ? say("°F")
                                      : qtext(unitName(unit));
}

/// The first choice is "as found"; it tells what was found.
void setFound(QComboBox* box, const QString& found, int stated) {
    const QSignalBlocker quiet(box);
    box->setItemText(0, say("found: ") + found);
    box->setCurrentIndex(stated + 1);
}

} // namespace

LogReadingPanel::LogReadingPanel(QWidget* parent)
    : QWidget(parent),
      columns_(new QTableWidget(0, 4)),
      pages_(new QStackedWidget),
      plot_(new TracePlot),
      rows_(new QTableWidget),
      problems_(new QListWidget),
      summary_(quietLabel()) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(makeSettings(), 2);
    auto* right = new QVBoxLayout;
    right->setContentsMargins(12, 10, 12, 10);
    for (QWidget* page : std::initializer_list<QWidget*>{plot_, rows_, problems_}) pages_->addWidget(page);
    right->addWidget(pageSwitch(pages_, {say("Trace"), say("Rows"), say("Mended")}));
    right->addWidget(pages_, 1);
    right->addWidget(summary_);
    columns->addWidget(card(right), 3);
    rows_->setAccessibleName(say("First rows as they were read"));
    rows_->setObjectName("Rows read");
    rows_->setEditTriggers(QTableWidget::NoEditTriggers);
    rows_->setTabKeyNavigation(false);
    problems_->setAccessibleName(say("What was mended or left out, by line"));
    problems_->setObjectName("Mended lines");
    problems_->setWordWrap(true);
}

QComboBox* LogReadingPanel::addChoice(QFormLayout* form, const QString& label, const QStringList& choices) {
    auto* box = new QComboBox;
    box->addItem(QString());
    box->addItems(choices);
    addFormRow(form, label, box);
    connect(box, &QComboBox::activated, this, &LogReadingPanel::stateSettings);
    return box;
}

QWidget* LogReadingPanel::makeSettings() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    layout->addWidget(cardTitle(say("How it was read")));
    auto* form = new QFormLayout;
    QStringList names;
    for (const auto& [name, character] : separatorNames) names << say(name);
    separator_ = addChoice(form, say("Fields apart by"), names);
    decimal_ = addChoice(form, say("Decimal sign"), {say("point"), say("comma")});
    headerLine_ = new QLineEdit;
    addFormRow(form, say("Header in line"), headerLine_);
    connect(headerLine_, &QLineEdit::editingFinished, this, &LogReadingPanel::stateSettings);
    QStringList styles;
    for (std::string_view style : timeStyleWords) styles << qtext(style);
    time_ = addChoice(form, say("Time"), styles);
    timeUnit_ = addChoice(form, say("Unit of the time"), {"s", say("ms"), "µs", say("ns")});
    order_ = addChoice(form, say("Order of dates"),
                       {"year-month-day", say("day.month.year"), say("month/day/year")});
    layout->addLayout(form);
    columns_->setHorizontalHeaderLabels({say("Column"), say("Unit"), say("Is"), say("Sure")});
    columns_->setAccessibleName(say("Columns and what they are"));
    columns_->setObjectName("Columns");
    columns_->verticalHeader()->hide();
    columns_->setShowGrid(false);
    columns_->setTabKeyNavigation(false);
    columns_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    columns_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    layout->addWidget(columns_, 1);
    return card(layout);
}

void LogReadingPanel::show(const ImportedLog& log, const LogSource& source, const Trace* withAmbient,
                           Metric metric) {
    log_ = &log;
    source_ = &source;
    fillSettings();
    fillColumns();
    fillRows();
    fillProblems();
    plot_->show(withAmbient ? *withAmbient : log.trace, log.reduction, metric);
    QStringList words{
        say("%1 samples, every %2 s").arg(log.reduction.samples).arg(log.reduction.intervalS, 0, 'g', 3)};
    const JudgedBy judged = judgedBy(log.reduction, metric);
    if (const LoadReduction* load = judged.load(-1)) {
        if (judged.loads->size() > 1) words << say("%1 loads").arg(judged.loads->size());
        if (load->ambient.probeShiftS)
            words << say("room probe's clock moved by %1 s, ± %2 s")
                         .arg(*load->ambient.probeShiftS, 0, 'f', 0)
                         .arg(load->ambient.probeShiftUncertaintyS.value_or(0), 0, 'f', 0);
    }
    for (const Flag& flag : *judged.flags)
        if (flag.severity != Severity::info) words << "▸ " + sayText(flag.message);
    summary_->setText(words.join("\n"));
}

void LogReadingPanel::fillSettings() {
    const LogOptions& stated = source_->options;
    const LogReport& found = source_->report;
    int separator = -1;
    QString foundSeparator;
    for (int i = 0; i < static_cast<int>(std::size(separatorNames)); ++i) {
        if (stated.dialect.separator == separatorNames[i].second) separator = i;
        if (found.dialect.separator == separatorNames[i].second)
            foundSeparator = say(separatorNames[i].first);
    }
    setFound(separator_, found.jsonLines ? say("one object a line") : foundSeparator, separator);
    setFound(decimal_, found.dialect.decimal == ',' ? say("comma") : say("point"),
             stated.dialect.decimal ? (*stated.dialect.decimal == ',' ? 1 : 0) : -1);
    {
        const QSignalBlocker quiet(headerLine_);
        headerLine_->setText(QString::number(found.dialect.headerLine));
    }
    setFound(time_, qtext(timeStyleWords.at(static_cast<std::size_t>(found.time.style))),
             stated.time.style ? static_cast<int>(*stated.time.style) : -1);
    int unit = -1;
    QString foundUnit = "s";
    for (int i = 0; i < 4; ++i) {
        if (stated.time.secondsPerUnit == timeUnits[i]) unit = i;
        if (found.time.secondsPerUnit == timeUnits[i]) foundUnit = timeUnit_->itemText(i + 1);
    }
    setFound(timeUnit_, foundUnit, unit);
    setFound(order_, order_->itemText(static_cast<int>(found.time.order) + 1),
             stated.time.order ? static_cast<int>(*stated.time.order) : -1);
    const bool dated = found.time.style >= TimeStyle::stamp && !found.time.clockOnly;
    order_->setEnabled(dated);
    timeUnit_->setEnabled(found.time.style <= TimeStyle::epoch);
    for (QWidget* field : std::initializer_list<QWidget*>{separator_, decimal_, headerLine_})
        field->setEnabled(!found.jsonLines);
}

/// Rows keep their boxes from log to log.
QComboBox* LogReadingPanel::roleBox(int row) {
    if (auto* there = qobject_cast<QComboBox*>(columns_->cellWidget(row, 2))) return there;
    auto* box = new QComboBox;
    for (std::string_view role : roleWordList) box->addItem(sayTerm(role));
    connect(box, &QComboBox::activated, this, [this, row](int choice) { stateRole(row, choice); });
    columns_->setCellWidget(row, 2, box);
    return box;
}

void LogReadingPanel::fillColumns() {
    const auto& channels = log_->reduction.channels;
    const int shown =
        std::min<int>(mostColumnsShown, static_cast<int>(source_->report.dialect.columns.size()));
    columns_->setRowCount(shown);
    for (int row = 0; row < shown; ++row) {
        const auto i = static_cast<std::size_t>(row);
        columns_->setItem(row, 0, fixedItem(qtext(source_->report.dialect.columns[i])));
        columns_->setItem(row, 1, fixedItem(i < channels.size() ? unitText(channels[i].unit) : QString()));
        auto* box = roleBox(row);
        box->setCurrentIndex(static_cast<int>(source_->report.roles[i].role));
        box->setAccessibleName(say("What %1 is").arg(qtext(source_->report.dialect.columns[i])));
        const RoleGuess& guess = source_->report.roles[i];
        columns_->setItem(row, 3,
                          fixedItem(guess.confidence >= 1
                                        ? say("stated")
                                        : QString("%1 %").arg(100 * guess.confidence, 0, 'f', 0)));
    }
    columns_->resizeRowsToContents();
}

void LogReadingPanel::fillRows() {
    const LogReport& report = source_->report;
    const int columns = std::min<int>(mostColumnsShown, static_cast<int>(report.dialect.columns.size()));
    rows_->clear();
    rows_->setColumnCount(columns);
    rows_->setRowCount(static_cast<int>(report.preview.size()));
    QStringList names;
    for (int i = 0; i < columns; ++i) names << qtext(report.dialect.columns[static_cast<std::size_t>(i)]);
    rows_->setHorizontalHeaderLabels(names);
    QStringList lines;
    for (std::size_t row = 0; row < report.preview.size(); ++row) {
        lines << QString::number(report.previewLines[row]);
        for (int i = 0; i < columns && i < static_cast<int>(report.preview[row].size()); ++i)
            rows_->setItem(static_cast<int>(row), i,
                           fixedItem(qtext(report.preview[row][static_cast<std::size_t>(i)])));
    }
    rows_->setVerticalHeaderLabels(lines);
    rows_->resizeColumnsToContents();
}

void LogReadingPanel::fillProblems() {
    problems_->clear();
    for (const LogProblem& problem : source_->report.problems)
        problems_->addItem(problem.line ? say("Line %1: %2").arg(*problem.line).arg(sayText(problem.what))
                                        : sayText(problem.what));
    if (source_->report.furtherProblems > 0)
        problems_->addItem(say("and %1 more").arg(source_->report.furtherProblems));
    if (problems_->count() == 0) problems_->addItem(say("Every line was read as it stands."));
}

/// What the fields state now; "found" states nothing.
void LogReadingPanel::stateSettings() {
    if (!source_) return;
    LogOptions options = source_->options;
    const auto chosen = [](const QComboBox* box) { return box->currentIndex() - 1; };
    const int separator = chosen(separator_);
    options.dialect.separator =
        separator < 0 ? std::nullopt : std::optional(separatorNames[separator].second);
    options.dialect.decimal =
        chosen(decimal_) < 0 ? std::nullopt : std::optional(chosen(decimal_) == 1 ? ',' : '.');
    bool number = false;
    const long line = headerLine_->text().trimmed().toLong(&number);
    if (number && line > 0 && (line != source_->report.dialect.headerLine || options.dialect.headerLine))
        options.dialect.headerLine = line;
    const int style = chosen(time_);
    options.time.style = style < 0 ? std::nullopt : std::optional(static_cast<TimeStyle>(style));
    const int unit = chosen(timeUnit_);
    options.time.secondsPerUnit = unit < 0 ? std::nullopt : std::optional(timeUnits[unit]);
    const int order = chosen(order_);
    options.time.order = order < 0 ? std::nullopt : std::optional(static_cast<DateOrder>(order));
    if (options.dialect == source_->options.dialect && options.time == source_->options.time) return;
    emit readingWanted(options);
}

void LogReadingPanel::stateRole(int row, int choice) {
    LogOptions options = source_->options;
    const auto role = static_cast<Role>(choice);
    const std::string& column = source_->report.dialect.columns[static_cast<std::size_t>(row)];
    if (source_->report.roles[static_cast<std::size_t>(row)].role == role) return;
    options.roles[column] = role;
    emit readingWanted(options);
}

} // namespace ibuki
