// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/import_dialog.h"

#include "app/shell/theme.h"
#include "app/shell/widgets.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

enum TableColumn { take, file, figure, level, mount, time, doubt };

QString figureText(const Reduction& reduction, const Question& question) {
    const LoadReduction* load = reduction.main();
    if (!load) return "no load";
    const auto value = responseOf(*load, question);
    if (!value) return "no room";
    return (load->limit.bound ? "≥ " : "")
           + QString("%1 %2")
                 .arg(*value, 0, 'f', responseUnit(question) == "K" ? 1 : 4)
                 .arg(qtext(responseUnit(question)));
}

QTableWidgetItem* fixedItem(const QString& text) {
    auto* item = new QTableWidgetItem(text);
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    return item;
}

} // namespace

ImportDialog::ImportDialog(Session& session, LogBatch batch, QWidget* parent)
    : QDialog(parent),
      session_(session),
      batch_(std::move(batch)),
      table_(new QTableWidget),
      problems_(quietLabel()) {
    setWindowTitle("Bring in logs");
    resize(1020, 520);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(QString("%1 logs: where do they belong?").arg(batch_.logs.size())));
    layout->addWidget(
        quietLabel("Each new mount is one application of its material. A second log of a mount that "
                   "was not touched is a repeated run: choose that mount."));
    layout->addWidget(table_, 1);
    layout->addWidget(problems_);
    auto* buttons = new QDialogButtonBox;
    auto* bring = buttons->addButton("Bring in", QDialogButtonBox::AcceptRole);
    bring->setProperty("main", true);
    bring->setObjectName("accept");
    buttons->addButton("Leave", QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    table_->setAccessibleName("Logs to bring in");
    if (session_.study()) rows_ = proposeImport(session_.document(), session_.study()->id, batch_.logs);
    fill();
}

void ImportDialog::fill() {
    table_->setColumnCount(7);
    table_->setHorizontalHeaderLabels({"", "File", "Steady", "Level", "Mount", "Time", "Look at"});
    table_->verticalHeader()->hide();
    table_->setRowCount(static_cast<int>(rows_.size()));
    for (int row = 0; row < table_->rowCount(); ++row) addRow(row);
    table_->resizeColumnsToContents();
    table_->setColumnWidth(take, 30);
    table_->setColumnWidth(level, std::max(150, table_->columnWidth(level)));
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
    check->setToolTip("Bring this log in");
    table_->setItem(row, take, check);
    table_->setItem(row, file, fixedItem(qtext(log.fileName)));
    table_->setItem(
        row, figure,
        fixedItem(session_.question() ? figureText(log.reduction, *session_.question()) : QString()));
    table_->setCellWidget(row, level, levelChoice(row));
    table_->setCellWidget(row, mount, mountChoice(row));
    auto* at = new QTableWidgetItem(proposal.at ? qtext(dateTimeText(*proposal.at)) : QString());
    if (proposal.atAssumed) at->setToolTip("Assumed from the file's own date; change it if you know better");
    table_->setItem(row, time, at);
    QStringList looks;
    if (!proposal.doubt.empty()) looks << qtext(proposal.doubt);
    if (proposal.atAssumed) looks << "time assumed";
    for (const Flag& flag : log.reduction.flags)
        if (flag.severity != Severity::info && flag.code != "no-load-found")
            looks << qtext(flag.code).replace('-', ' ');
    table_->setItem(row, doubt, fixedItem(looks.join("; ")));
}

QWidget* ImportDialog::levelChoice(int row) {
    auto* box = new QComboBox;
    box->setAccessibleName("Level of " + qtext(batch_.logs[static_cast<std::size_t>(row)].fileName));
    box->addItem("not known", qlonglong{0});
    if (const Question* question = session_.question())
        for (const Level* entry : levelsOf(session_.document(), question->id))
            box->addItem(qtext(entry->name), static_cast<qlonglong>(entry->id.value));
    const auto proposed = rows_[static_cast<std::size_t>(row)].level;
    box->setCurrentIndex(
        std::max(0, box->findData(proposed ? static_cast<qlonglong>(proposed->value) : qlonglong{0})));
    return box;
}

QWidget* ImportDialog::mountChoice(int row) {
    auto* box = new QComboBox;
    box->setEditable(true);
    box->setAccessibleName("Mount of " + qtext(batch_.logs[static_cast<std::size_t>(row)].fileName));
    box->addItem(qtext(rows_[static_cast<std::size_t>(row)].mountName), qlonglong{0});
    if (session_.bench())
        for (const Mount* known : mountsOf(session_.document(), session_.bench()->id))
            box->addItem(qtext(known->name), static_cast<qlonglong>(known->id.value));
    return box;
}

bool ImportDialog::readTable() {
    for (int row = 0; row < table_->rowCount(); ++row) {
        ImportRow& target = rows_[static_cast<std::size_t>(row)];
        target.take = table_->item(row, take)->checkState() == Qt::Checked;
        const auto* levels = qobject_cast<QComboBox*>(table_->cellWidget(row, level));
        const qlonglong chosen = levels->currentData().toLongLong();
        target.level = chosen ? std::optional(Id<Level>{chosen}) : std::nullopt;
        const auto* mounts = qobject_cast<QComboBox*>(table_->cellWidget(row, mount));
        const int known = mounts->findText(mounts->currentText());
        const qlonglong existing = known > 0 ? mounts->itemData(known).toLongLong() : 0;
        target.mount = existing ? std::optional(Id<Mount>{existing}) : std::nullopt;
        target.mountName = mounts->currentText().trimmed().toStdString();
        const std::string typed = table_->item(row, time)->text().trimmed().toStdString();
        const auto at = parseInstant(typed);
        if (!typed.empty() && !at) {
            problems_->setText(QString("Row %1: \"%2\" is no time. Write it as 2031-03-04 18:30.")
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

void ImportDialog::accept() {
    if (!session_.study() || !readTable()) return;
    try {
        const ImportChanges changes =
            importChanges(session_.document(), session_.study()->id, batch_.logs, rows_);
        std::vector<RecordingData> recordings;
        for (const auto& [index, id] : changes.recordings)
            recordings.push_back({id, batch_.logs[index].trace});
        if (!session_.perform(changes.set, std::move(recordings))) return;
    } catch (const InputError& error) {
        problems_->setText(qtext(sentence(error)));
        problems_->show();
        return;
    }
    QDialog::accept();
}

} // namespace ibuki
