// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_dialog.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/import/import_table.h"
#include "app/import/log_reading_panel.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "core/reduce/probe.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QSplitter>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr const char* rereadingName = words::mark("Reading the log again");
constexpr const char* pairingName = words::mark("Laying the room probes beside their logs");

} // namespace

ImportDialog::ImportDialog(Session& session, LogBatch batch, BatchRules rules, QWidget* parent)
    : QDialog(parent),
      session_(session),
      batch_(std::move(batch)),
      rules_(std::move(rules)),
      reading_(new LogReadingPanel),
      table_(new ImportTable(session, batch_.logs, rows_)),
      problems_(quietLabel()) {
    setWindowTitle(say("Bring in logs"));
    resize(1180, 740);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(sayMany("{count} log: where does it belong?",
                                        "{count} logs: where do they belong?", batch_.logs.size())));
    layout->addWidget(
        quietLabel(say("Each new mount is one application of its material. A second log of a mount that "
                       "was not touched is a repeated run: choose that mount.")));
    layout->addLayout(makeOrder());
    auto* parts = new QSplitter(Qt::Vertical);
    parts->setChildrenCollapsible(false);
    parts->addWidget(table_);
    parts->addWidget(reading_);
    const bool many = batch_.logs.size() > 12; // then the table is what one looks at
    parts->setStretchFactor(0, many ? 3 : 2);
    parts->setStretchFactor(1, many ? 2 : 3);
    parts->setSizes({many ? 320 : 200, many ? 330 : 430});
    layout->addWidget(parts, 1);
    layout->addWidget(problems_);
    connect(reading_, &LogReadingPanel::readingWanted, this, &ImportDialog::readAgain);
    auto* buttons = new QDialogButtonBox;
    auto* bring = buttons->addButton(say("Bring in"), QDialogButtonBox::AcceptRole);
    bring->setProperty("main", true);
    bring->setObjectName("accept");
    buttons->addButton(say("Leave"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    if (session_.study()) rows_ = proposeImport(session_.document(), session_.study()->id, batch_.logs);
    table_->fill();
    std::vector<std::string> refused;
    for (const InputError& error : batch_.refused) refused.push_back(words::sentence(error));
    tellProblems(refused);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
        if (row != before) showReading();
    });
    connect(table_, &ImportTable::linesChanged, this,
            [this] { summary_->setText(importSummary(table_->lines())); });
    sort_->setCurrentIndex(static_cast<int>(typicalSort(table_->lines())));
    arrange();
    table_->setCurrentCell(0, ImportTable::file);
    showReading();
}

QLayout* ImportDialog::makeOrder() {
    auto* row = new QHBoxLayout;
    sort_ = new QComboBox;
    sort_->addItems({say("as brought in"), say("day by day"), say("doubtful first"), say("by file name")});
    sort_->setAccessibleName(say("In which order"));
    sort_->setObjectName("In which order");
    words_ = new QLineEdit;
    words_->setPlaceholderText(say("find: file, level, doubt"));
    words_->setAccessibleName(say("Find among the logs"));
    words_->setObjectName("Find among the logs");
    words_->setClearButtonEnabled(true);
    onlyDoubtful_ = new QCheckBox(say("Only what is to look at"));
    onlyDoubtful_->setObjectName("Only what is to look at");
    auto* down = button(say("Fill down"),
                        say("Ctrl+D. What the topmost of the chosen rows says goes into the others"));
    connect(sort_, &QComboBox::currentIndexChanged, this, &ImportDialog::arrange);
    connect(words_, &QLineEdit::textChanged, this, &ImportDialog::arrange);
    connect(onlyDoubtful_, &QCheckBox::toggled, this, &ImportDialog::arrange);
    connect(down, &QPushButton::clicked, table_, &ImportTable::fillDown);
    summary_ = quietLabel();
    summary_->setObjectName("Summary of the logs");
    row->addWidget(sort_);
    row->addWidget(words_, 1);
    row->addWidget(onlyDoubtful_);
    row->addWidget(down);
    row->addWidget(summary_, 1);
    return row;
}

void ImportDialog::arrange() {
    table_->arrange(static_cast<ImportSort>(sort_->currentIndex()),
                    {words_->text(), onlyDoubtful_->isChecked()});
    summary_->setText(importSummary(table_->lines()));
}

void ImportDialog::tellProblems(const std::vector<std::string>& problems) {
    QStringList lines;
    for (const std::string& problem : problems) lines << qtext(problem);
    problems_->setText(lines.join("\n"));
    problems_->setVisible(!lines.isEmpty());
}

bool ImportDialog::readTable() {
    const auto problem = table_->read();
    if (problem) tellProblems({problem->toStdString()});
    return !problem;
}

void ImportDialog::showReading() {
    const int row = table_->currentLog();
    const auto i = static_cast<std::size_t>(row);
    if (row < 0 || i >= batch_.logs.size() || i >= rows_.size()) return;
    shown_ = row;
    const auto probe = probeOf(rows_, i);
    std::optional<Trace> joined;
    if (probe) {
        const LoadReduction* load = batch_.logs[i].reduction.main();
        const double shift = load ? load->ambient.probeShiftS.value_or(0) : 0;
        joined = withProbe(batch_.logs[i].trace, batch_.logs[*probe].trace, {shift, 0, true});
    }
    const Question* question = session_.question();
    reading_->show(batch_.logs[i], batch_.sources[i], joined ? &*joined : nullptr,
                   question ? question->metric : Metric::hottest);
}

void ImportDialog::readAgain(const LogOptions& options) {
    const int row = shown_;
    const std::string path = batch_.sources[static_cast<std::size_t>(row)].path;
    const auto i = static_cast<std::size_t>(row);
    readTable(); // what the user chose in the rows stays
    const auto probe = probeOf(rows_, i);
    session_.jobs().startNewest<ReadLog>(
        rereadingName, this,
        [path, options, rules = rules_, room = probe ? std::optional(batch_.logs[*probe]) : std::nullopt](
            const std::stop_token& stop, const Progress& progress) {
            LogOptions watched = options;
            watched.progress = progress;
            ReadLog read = readOneLog(path, rules, watched, stop);
            if (room) reduceWith(read.log, &*room);
            return read;
        },
        [this, row, probe](ReadLog read) { takeReading(row, std::move(read), probe); },
        [this](const InputError& error) {
            problems_->setText(say("Not read that way: ") + saySentence(error));
            problems_->show();
            showReading(); // the fields say again what holds
        });
    showProgress(session_.jobs().runner(rereadingName), say(rereadingName), this);
}

void ImportDialog::takeReading(int row, ReadLog read, std::optional<std::size_t> probe) {
    const auto i = static_cast<std::size_t>(row);
    problems_->hide();
    replaceLog(batch_, i, std::move(read), probe);
    rows_[i].at = batch_.logs[i].trace.start ? batch_.logs[i].trace.start : batch_.logs[i].fileTime;
    rows_[i].atAssumed = !batch_.logs[i].trace.start;
    table_->showRow(row);
    arrange();
    showReading();
}

/// Logs whose room probe is another one now, or none any more, are reduced again before they are brought in.
void ImportDialog::settleProbes() {
    auto changes = probeChanges(batch_, rows_);
    if (changes.empty()) return bringIn();
    session_.jobs().startNewest<std::vector<ProbeChange>>(
        pairingName, this,
        [changes = std::move(changes)](const std::stop_token& stop, const Progress& progress) mutable {
            reduceChanges(changes, stop, progress);
            return std::move(changes);
        },
        [this](std::vector<ProbeChange> settled) {
            takeChanges(batch_, std::move(settled));
            bringIn();
        },
        [this](const InputError& error) {
            problems_->setText(saySentence(error));
            problems_->show();
        });
    showProgress(session_.jobs().runner(pairingName), say(pairingName), this);
}

void ImportDialog::accept() {
    if (session_.study() && readTable()) settleProbes();
}

void ImportDialog::bringIn() {
    if (!session_.study()) return;
    try {
        table_->chooseLoads(); // times, and reductions beside other probes, may be others by now
        LogImport made = importOf(session_.document(), session_.study()->id, batch_, rows_);
        if (!session_.perform(made.set, made.acquired)) return;
        keep_ = std::move(made.toKeep);
    } catch (const InputError& error) {
        problems_->setText(saySentence(error));
        problems_->show();
        return;
    }
    QDialog::accept();
}

} // namespace ibuki
