// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/import_dialog.h"

#include "app/bench/import_lines.h"
#include "app/bench/log_reading_panel.h"
#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/evidence/response.h"
#include "core/import/header_roles.h"
#include "core/reduce/probe.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

enum TableColumn { take, file, figure, level, second, mount, time, doubt };

constexpr const char* rereadingName = words::mark("Reading the log again");
constexpr const char* pairingName = words::mark("Laying the room probes beside their logs");

/// Choices of the level column that are no level.
constexpr qlonglong notKnown = 0;
constexpr qlonglong checkMountChoice = -1;
constexpr qlonglong baselineChoice = -2;
constexpr qlonglong firstProbeChoice = -100; ///< minus the index of the log whose room it reads

} // namespace

ImportDialog::ImportDialog(Session& session, LogBatch batch, BatchRules rules, QWidget* parent)
    : QDialog(parent),
      session_(session),
      batch_(std::move(batch)),
      rules_(std::move(rules)),
      reading_(new LogReadingPanel),
      table_(new QTableWidget),
      problems_(quietLabel()) {
    setWindowTitle(say("Bring in logs"));
    resize(1180, 740);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(sayMany("{count} log: where does it belong?",
                                        "{count} logs: where do they belong?", batch_.logs.size())));
    layout->addWidget(
        quietLabel(say("Each new mount is one application of its material. A second log of a mount that "
                       "was not touched is a repeated run: choose that mount.")));
    layout->addWidget(table_, 2);
    layout->addWidget(problems_);
    layout->addWidget(reading_, 3);
    connect(reading_, &LogReadingPanel::readingWanted, this, &ImportDialog::readAgain);
    auto* buttons = new QDialogButtonBox;
    auto* bring = buttons->addButton(say("Bring in"), QDialogButtonBox::AcceptRole);
    bring->setProperty("main", true);
    bring->setObjectName("accept");
    buttons->addButton(say("Leave"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    table_->setAccessibleName(say("Logs to bring in"));
    table_->setSelectionBehavior(QTableWidget::SelectRows);
    table_->setSelectionMode(QTableWidget::SingleSelection);
    reducedBeside_.resize(batch_.logs.size());
    const auto probes = probesAmong(batch_.logs); // as readLogBatch laid them
    for (std::size_t i = 0; i < probes.size(); ++i)
        if (probes[i]) reducedBeside_[*probes[i]] = i;
    if (session_.study()) rows_ = proposeImport(session_.document(), session_.study()->id, batch_.logs);
    fill();
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
        if (row != before) showReading();
    });
    table_->setCurrentCell(0, file);
    showReading();
}

std::optional<std::size_t> ImportDialog::probeFor(std::size_t log) const {
    for (std::size_t i = 0; i < rows_.size(); ++i)
        if (rows_[i].take && rows_[i].probeOf == log) return i;
    return std::nullopt;
}

void ImportDialog::showReading() {
    const int row = std::max(0, table_->currentRow());
    const auto i = static_cast<std::size_t>(row);
    if (i >= batch_.logs.size() || i >= rows_.size()) return;
    const auto probe = probeFor(i);
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
    const int row = std::max(0, table_->currentRow());
    const std::string path = batch_.sources[static_cast<std::size_t>(row)].path;
    const auto i = static_cast<std::size_t>(row);
    readTable(); // what the user chose in the rows stays
    const auto probe = probeFor(i);
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
    batch_.logs[i] = std::move(read.log);
    batch_.sources[i] = std::move(read.source);
    problems_->hide();
    for (auto& beside : reducedBeside_)
        if (beside == i) beside = batch_.logs.size(); // none of these: it was the probe as it was read before
    reducedBeside_[i] = probe;
    rows_[i].at = batch_.logs[i].trace.start ? batch_.logs[i].trace.start : batch_.logs[i].fileTime;
    rows_[i].atAssumed = !batch_.logs[i].trace.start;
    addRow(row);
    showReading();
}

/// Logs whose room probe is another one now, or none any more, are reduced again before they are brought in.
void ImportDialog::settleProbes() {
    struct Outdated {
        std::size_t log;
        std::optional<std::size_t> probe;
        ImportedLog data;
        std::optional<ImportedLog> room;
    };
    std::vector<Outdated> outdated;
    for (std::size_t i = 0; i < batch_.logs.size(); ++i)
        if (const auto probe = probeFor(i); probe != reducedBeside_[i])
            outdated.push_back(
                {i, probe, batch_.logs[i], probe ? std::optional(batch_.logs[*probe]) : std::nullopt});
    if (outdated.empty()) return bringIn();
    session_.jobs().startNewest<std::vector<Outdated>>(
        pairingName, this,
        [outdated = std::move(outdated)](const std::stop_token& stop, const Progress& progress) mutable {
            double done = 0;
            for (Outdated& one : outdated) {
                if (stop.stop_requested()) throw Cancelled{};
                reduceWith(one.data, one.room ? &*one.room : nullptr);
                progress(++done / static_cast<double>(outdated.size()));
            }
            return std::move(outdated);
        },
        [this](std::vector<Outdated> settled) {
            for (Outdated& one : settled) {
                batch_.logs[one.log].reduction = std::move(one.data.reduction);
                reducedBeside_[one.log] = one.probe;
            }
            bringIn();
        },
        [this](const InputError& error) {
            problems_->setText(saySentence(error));
            problems_->show();
        });
    showProgress(session_.jobs().runner(pairingName), say(pairingName), this);
}

void ImportDialog::fill() {
    const Question* question = session_.question();
    table_->setColumnCount(8);
    const QString other =
        question && question->secondFactor ? sayTerm(word(*question->secondFactor)) : say("second");
    table_->setHorizontalHeaderLabels(
        {"", say("File"), say("Steady"), say("Level"), other, say("Mount"), say("Time"), say("Look at")});
    table_->setColumnHidden(second, !question || !question->secondFactor);
    table_->verticalHeader()->hide();
    table_->setRowCount(static_cast<int>(rows_.size()));
    for (int row = 0; row < table_->rowCount(); ++row) addRow(row);
    table_->resizeColumnsToContents();
    table_->setColumnWidth(take, 30);
    table_->setColumnWidth(level, std::max(150, table_->columnWidth(level)));
    table_->setColumnWidth(second, std::max(130, table_->columnWidth(second)));
    table_->setColumnWidth(mount, std::max(150, table_->columnWidth(mount)));
    table_->setColumnWidth(time, std::max(150, table_->columnWidth(time)));
    table_->setColumnWidth(doubt, 160); // and as much as is left
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    table_->resizeRowsToContents();
    QStringList lines;
    for (const std::string& refused : batch_.refused) lines << qtext(refused);
    problems_->setText(lines.join("\n"));
    problems_->setVisible(!lines.isEmpty());
}

void ImportDialog::addRow(int row) {
    const ImportRow& proposal = rows_[static_cast<std::size_t>(row)];
    const ImportedLog& log = batch_.logs[static_cast<std::size_t>(row)];
    auto* check = new QTableWidgetItem;
    check->setCheckState(proposal.take ? Qt::Checked : Qt::Unchecked);
    check->setToolTip(say("Bring this log in"));
    table_->setItem(row, take, check);
    table_->setItem(row, file, fixedItem(qtext(log.fileName)));
    table_->setItem(row, figure, fixedItem(steadyText(log, proposal, session_.question())));
    table_->setCellWidget(row, level, levelChoice(row));
    table_->setCellWidget(row, second, secondChoice(row));
    table_->setCellWidget(row, mount, mountChoice(row));
    auto* at = new QTableWidgetItem(proposal.at ? qtext(dateTimeText(*proposal.at)) : QString());
    if (proposal.atAssumed)
        at->setToolTip(say("Assumed from the file's own date; change it if you know better"));
    table_->setItem(row, time, at);
    table_->setItem(row, doubt, fixedItem(doubtText(log, proposal)));
}

QWidget* ImportDialog::levelChoice(int row) {
    const ImportRow& proposal = rows_[static_cast<std::size_t>(row)];
    auto* box = new QComboBox;
    box->setAccessibleName(say("Level of ") + qtext(batch_.logs[static_cast<std::size_t>(row)].fileName));
    box->addItem(say("not known"), notKnown);
    if (const Question* question = session_.question())
        for (const Level* entry : levelsOf(session_.document(), question->id))
            box->addItem(qtext(entry->name), static_cast<qlonglong>(entry->id.value));
    const Plan* plan = session_.study() ? planOf(session_.document(), session_.study()->id) : nullptr;
    if (plan && plan->checkWith) box->addItem(say("check mount"), checkMountChoice);
    if (plan && plan->baseline) box->addItem(say("baseline"), baselineChoice);
    for (std::size_t i = 0; i < batch_.logs.size(); ++i)
        if (static_cast<int>(i) != row)
            box->addItem(say("room probe of ") + qtext(batch_.logs[i].fileName),
                         firstProbeChoice - static_cast<qlonglong>(i));
    const qlonglong chosen = proposal.probeOf ? firstProbeChoice - static_cast<qlonglong>(*proposal.probeOf)
                             : proposal.kind == SlotKind::checkMount ? checkMountChoice
                             : proposal.kind == SlotKind::baseline   ? baselineChoice
                             : proposal.level ? static_cast<qlonglong>(proposal.level->value)
                                              : notKnown;
    box->setCurrentIndex(std::max(0, box->findData(chosen)));
    return box;
}

QWidget* ImportDialog::secondChoice(int row) {
    const auto proposed = rows_[static_cast<std::size_t>(row)].second;
    auto* box = new QComboBox;
    box->setAccessibleName(say("Second level of ")
                           + qtext(batch_.logs[static_cast<std::size_t>(row)].fileName));
    box->addItem(say("not known"), notKnown);
    if (const Question* question = session_.question())
        for (const Level* entry : secondLevelsOf(session_.document(), question->id))
            box->addItem(qtext(entry->name), static_cast<qlonglong>(entry->id.value));
    box->setCurrentIndex(
        std::max(0, box->findData(proposed ? static_cast<qlonglong>(proposed->value) : notKnown)));
    return box;
}

/// What the two level columns say now.
void ImportDialog::readLevels(int row) {
    ImportRow& target = rows_[static_cast<std::size_t>(row)];
    const auto chosen = [&](int column) {
        return qobject_cast<QComboBox*>(table_->cellWidget(row, column))->currentData().toLongLong();
    };
    const qlonglong first = chosen(level);
    const qlonglong other = chosen(second);
    target.probeOf = first <= firstProbeChoice
                         ? std::optional(static_cast<std::size_t>(firstProbeChoice - first))
                         : std::nullopt;
    target.kind = first == checkMountChoice ? SlotKind::checkMount
                  : first == baselineChoice ? SlotKind::baseline
                                            : SlotKind::level;
    target.level = first > 0 ? std::optional(Id<Level>{first}) : std::nullopt;
    target.second = first > 0 && other > 0 ? std::optional(Id<Level>{other}) : std::nullopt;
}

QWidget* ImportDialog::mountChoice(int row) {
    auto* box = new QComboBox;
    box->setEditable(true);
    box->setAccessibleName(say("Mount of ") + qtext(batch_.logs[static_cast<std::size_t>(row)].fileName));
    box->addItem(qtext(rows_[static_cast<std::size_t>(row)].mountName), qlonglong{0});
    if (session_.bench())
        for (const Mount* known : mountsOf(session_.document(), session_.bench()->id))
            box->addItem(qtext(known->name), static_cast<qlonglong>(known->id.value));
    if (const auto mount = rows_[static_cast<std::size_t>(row)].mount)
        box->setCurrentIndex(std::max(0, box->findData(static_cast<qlonglong>(mount->value))));
    return box;
}

bool ImportDialog::readTable() {
    for (int row = 0; row < table_->rowCount(); ++row) {
        ImportRow& target = rows_[static_cast<std::size_t>(row)];
        target.take = table_->item(row, take)->checkState() == Qt::Checked;
        readLevels(row);
        const auto* mounts = qobject_cast<QComboBox*>(table_->cellWidget(row, mount));
        const bool chosen = mounts->itemText(mounts->currentIndex()) == mounts->currentText();
        const int known = chosen ? mounts->currentIndex() : mounts->findText(mounts->currentText());
        const qlonglong existing = known > 0 ? mounts->itemData(known).toLongLong() : 0;
        target.mount = existing ? std::optional(Id<Mount>{existing}) : std::nullopt;
        target.mountName = mounts->currentText().trimmed().toStdString();
        const std::string typed = table_->item(row, time)->text().trimmed().toStdString();
        const auto at = parseInstant(typed);
        if (!typed.empty() && !at) {
            problems_->setText(say("Row %1: \"%2\" is no time. Write it as 2031-03-04 18:30.")
                                   .arg(row + 1)
                                   .arg(qtext(typed)));
            problems_->show();
            table_->setCurrentCell(row, time);
            return false;
        }
        if (at && target.at && dateTimeText(*at) != dateTimeText(*target.at)) target.atAssumed = false;
        if (!target.at || !at || dateTimeText(*at) != dateTimeText(*target.at)) target.at = at;
    }
    return true;
}

/// What the user said of the columns goes along in the same action.
void ImportDialog::addRemembered(ChangeSet& set) const {
    Document after = session_.document();
    apply(after, set);
    Edit edit(after, set.title);
    for (const LogSource& source : batch_.sources)
        if (!source.options.roles.empty())
            rememberRoles(edit, source.report.fingerprint, source.options.roles);
    const ChangeSet more = edit.finish();
    set.changes.insert(set.changes.end(), more.changes.begin(), more.changes.end());
}

void ImportDialog::accept() {
    if (session_.study() && readTable()) settleProbes();
}

void ImportDialog::bringIn() {
    if (!session_.study()) return;
    try {
        ImportChanges changes = importChanges(session_.document(), session_.study()->id, batch_.logs, rows_);
        addRemembered(changes.set);
        Acquired acquired;
        for (const auto& [index, id] : changes.recordings)
            acquired.recordings.push_back({id, batch_.logs[index].trace});
        if (!session_.perform(changes.set, acquired)) return;
        for (const auto& [index, id] : changes.recordings)
            keep_.push_back({id, batch_.sources[index].path, batch_.logs[index].sha256,
                             batch_.sources[index].options, batch_.sources[index].keptRows,
                             batch_.sources[index].stamp});
    } catch (const InputError& error) {
        problems_->setText(saySentence(error));
        problems_->show();
        return;
    }
    QDialog::accept();
}

} // namespace ibuki
