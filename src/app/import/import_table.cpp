// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_table.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/import/import_lines.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/import/run_choices.h"

#include <QComboBox>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>

namespace ibuki {
namespace {

/// Choices of the level column that are no level.
constexpr qlonglong notKnown = 0;
constexpr qlonglong checkMountChoice = -1;
constexpr qlonglong baselineChoice = -2;
constexpr qlonglong firstProbeChoice = -100; ///< minus the index of the log whose room it reads

/// The user has said where it belongs; that no load was found is still so.
void forgetDoubt(ImportRow& row) {
    if (row.doubt && row.doubt->code != "import-doubt.no-load") row.doubt.reset();
}

/// Offers every other log as the one whose room it reads only once it is opened: of sixty logs each.
class LevelBox : public QComboBox {
public:
    std::function<void(QComboBox&)> addRest;
    void showPopup() override {
        if (const auto add = std::exchange(addRest, nullptr)) add(*this);
        QComboBox::showPopup();
    }
};

} // namespace

ImportTable::ImportTable(Session& session, const std::vector<ImportedLog>& logs, std::vector<ImportRow>& rows,
                         QWidget* parent)
    : QTableWidget(parent), session_(session), logs_(logs), rows_(rows) {
    setAccessibleName(say("Logs to bring in"));
    setObjectName("Logs to bring in");
    setSelectionBehavior(QTableWidget::SelectRows);
    setSelectionMode(QTableWidget::ExtendedSelection);
    setTabKeyNavigation(false);
    setWordWrap(false);
    connect(this, &QTableWidget::cellChanged, this, [this](int row, int column) {
        if (row < logCount() && column == take) {
            rows_[static_cast<std::size_t>(row)].take = item(row, take)->checkState() == Qt::Checked;
            emit linesChanged();
        }
    });
}

void ImportTable::fill() {
    const QSignalBlocker quiet(this);
    const Question* question = session_.question();
    setColumnCount(columnCount);
    const QString other =
        question && question->secondFactor ? sayTerm(word(*question->secondFactor)) : say("second");
    setHorizontalHeaderLabels({"", say("File"), say("Steady"), say("Level"), other, say("Mount"), say("Load"),
                               say("Time"), say("Look at")});
    setColumnHidden(second, !question || !question->secondFactor);
    verticalHeader()->hide();
    setRowCount(logCount());
    for (int row = 0; row < logCount(); ++row) showRow(row);
    resizeColumnsToContents();
    setColumnWidth(take, 30);
    for (const auto& [column, least] : {std::pair{level, 150}, {second, 130}, {mount, 150}, {time, 150}})
        setColumnWidth(column, std::max(least, columnWidth(column)));
    setColumnWidth(mount, std::min(columnWidth(mount), 200)); // what to look at needs the room
    setColumnWidth(load, std::clamp(columnWidth(load), 90, 190));
    setColumnWidth(file, std::min(columnWidth(file), 260));
    setColumnWidth(doubt, 160); // and as much as is left
    horizontalHeader()->setStretchLastSection(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    resizeRowsToContents();
}

void ImportTable::showRow(int row) {
    const QSignalBlocker quiet(this);
    const ImportRow& proposal = rows_[static_cast<std::size_t>(row)];
    const ImportedLog& log = logs_[static_cast<std::size_t>(row)];
    auto* check = new QTableWidgetItem;
    check->setCheckState(proposal.take ? Qt::Checked : Qt::Unchecked);
    check->setToolTip(say("Bring this log in"));
    setItem(row, take, check);
    setItem(row, file, fixedItem(qtext(log.fileName)));
    item(row, file)->setToolTip(qtext(log.fileName));
    setItem(row, figure, fixedItem(steadyText(log, proposal, session_.question())));
    setCellWidget(row, level, levelChoice(row));
    setCellWidget(row, second, secondChoice(row));
    setCellWidget(row, mount, mountChoice(row));
    setItem(row, load, fixedItem(loadText(session_.document(), proposal)));
    item(row, load)->setToolTip(loadText(session_.document(), proposal));
    auto* at = new QTableWidgetItem(proposal.at ? qtext(dateTimeText(*proposal.at)) : QString());
    if (proposal.atAssumed)
        at->setToolTip(say("Assumed from the file's own date; change it if you know better"));
    setItem(row, time, at);
    setItem(row, doubt, fixedItem(doubtText(log, proposal)));
    item(row, doubt)->setToolTip(doubtText(log, proposal)); // it may be longer than the column
}

std::vector<ImportLine> ImportTable::lines() const {
    std::vector<ImportLine> lines;
    for (int row = 0; row < logCount(); ++row) {
        const ImportRow& proposal = rows_[static_cast<std::size_t>(row)];
        const ImportedLog& log = logs_[static_cast<std::size_t>(row)];
        const auto* levels = qobject_cast<QComboBox*>(cellWidget(row, level));
        lines.push_back({qtext(log.fileName), levels ? levels->currentText() : QString(),
                         doubtText(log, proposal), doubtCount(log, proposal), proposal.at, proposal.take});
    }
    return lines;
}

void ImportTable::arrange(ImportSort sort, const ImportFilter& filter) {
    const QSignalBlocker quiet(this);
    const auto places = importPlaces(lines(), sort, filter);
    clearSpans();
    const auto headings =
        std::count_if(places.begin(), places.end(), [](const ImportPlace& place) { return !place.log; });
    setRowCount(logCount() + static_cast<int>(headings));
    for (int row = 0; row < logCount(); ++row) setRowHidden(row, true);
    int heading = logCount();
    for (std::size_t place = 0; place < places.size(); ++place) {
        const int row = places[place].log ? static_cast<int>(*places[place].log) : heading++;
        verticalHeader()->moveSection(verticalHeader()->visualIndex(row), static_cast<int>(place));
        setRowHidden(row, false);
        if (places[place].log) continue;
        auto* day = new QTableWidgetItem(places[place].heading);
        day->setFlags(Qt::ItemIsEnabled);
        day->setFont(textFont(1.0, QFont::DemiBold));
        day->setBackground(colours().band);
        setItem(row, 0, day);
        setSpan(row, 0, 1, columnCount);
    }
    viewport()->update();
}

int ImportTable::currentLog() const { return currentRow() < logCount() ? currentRow() : -1; }

QWidget* ImportTable::levelChoice(int row) {
    const ImportRow& proposal = rows_[static_cast<std::size_t>(row)];
    auto* box = new LevelBox;
    box->setAccessibleName(say("Level of ") + qtext(logs_[static_cast<std::size_t>(row)].fileName));
    box->addItem(say("not known"), notKnown);
    if (const Question* question = session_.question())
        for (const Level* entry : levelsOf(session_.document(), question->id))
            box->addItem(qtext(entry->name), static_cast<qlonglong>(entry->id.value));
    const Plan* plan = session_.study() ? planOf(session_.document(), session_.study()->id) : nullptr;
    if (plan && plan->checkWith) box->addItem(say("check mount"), checkMountChoice);
    if (plan && plan->baseline) box->addItem(say("baseline"), baselineChoice);
    const auto addProbe = [this](QComboBox& to, std::size_t of) {
        const qlonglong choice = firstProbeChoice - static_cast<qlonglong>(of);
        if (to.findData(choice) < 0) to.addItem(say("room probe of ") + qtext(logs_[of].fileName), choice);
    };
    if (proposal.probeOf) addProbe(*box, *proposal.probeOf);
    box->addRest = [this, row, addProbe](QComboBox& to) {
        for (std::size_t i = 0; i < logs_.size(); ++i)
            if (static_cast<int>(i) != row) addProbe(to, i);
    };
    const qlonglong chosen = proposal.probeOf ? firstProbeChoice - static_cast<qlonglong>(*proposal.probeOf)
                             : proposal.kind == SlotKind::checkMount ? checkMountChoice
                             : proposal.kind == SlotKind::baseline   ? baselineChoice
                             : proposal.level ? static_cast<qlonglong>(proposal.level->value)
                                              : notKnown;
    box->setCurrentIndex(std::max(0, box->findData(chosen)));
    connect(box, &QComboBox::activated, this, [this, row] { levelChanged(row); });
    return box;
}

QWidget* ImportTable::secondChoice(int row) {
    const auto proposed = rows_[static_cast<std::size_t>(row)].second;
    auto* box = new QComboBox;
    box->setAccessibleName(say("Second level of ") + qtext(logs_[static_cast<std::size_t>(row)].fileName));
    box->addItem(say("not known"), notKnown);
    if (const Question* question = session_.question())
        for (const Level* entry : secondLevelsOf(session_.document(), question->id))
            box->addItem(qtext(entry->name), static_cast<qlonglong>(entry->id.value));
    box->setCurrentIndex(
        std::max(0, box->findData(proposed ? static_cast<qlonglong>(proposed->value) : notKnown)));
    connect(box, &QComboBox::activated, this, [this, row] { levelChanged(row); });
    return box;
}

QWidget* ImportTable::mountChoice(int row) {
    auto* box = new QComboBox;
    box->setEditable(true);
    box->setAccessibleName(say("Mount of ") + qtext(logs_[static_cast<std::size_t>(row)].fileName));
    box->addItem(qtext(rows_[static_cast<std::size_t>(row)].mountName), qlonglong{0});
    if (session_.bench())
        for (const Mount* known : mountsOf(session_.document(), session_.bench()->id))
            box->addItem(qtext(known->name), static_cast<qlonglong>(known->id.value));
    if (const auto known = rows_[static_cast<std::size_t>(row)].mount)
        box->setCurrentIndex(std::max(0, box->findData(static_cast<qlonglong>(known->value))));
    connect(box, &QComboBox::activated, this, [this, row] { mountChanged(row); });
    connect(box->lineEdit(), &QLineEdit::editingFinished, this, [this, row] { mountChanged(row); });
    return box;
}

void ImportTable::mountChanged(int row) {
    if (!cellWidget(row, mount)) return; // it is being put anew
    const ImportRow& target = rows_[static_cast<std::size_t>(row)];
    const auto before = std::pair(target.mount, target.mountName);
    readMount(row);
    if (before != std::pair(target.mount, target.mountName)) chooseLoads();
}

void ImportTable::chooseLoads() {
    if (!session_.study()) return;
    const Id<Study> study = session_.study()->id;
    chooseRuns(session_.document(), study, logs_,
               statedByNames(logs_, knownNames(session_.document(), study)), rows_);
    const QSignalBlocker quiet(this);
    for (int row = 0; row < logCount(); ++row) {
        const auto i = static_cast<std::size_t>(row);
        item(row, load)->setText(loadText(session_.document(), rows_[i]));
        item(row, load)->setToolTip(item(row, load)->text());
        item(row, doubt)->setText(doubtText(logs_[i], rows_[i]));
        item(row, doubt)->setToolTip(item(row, doubt)->text());
    }
}

/// What the two level columns say now.
void ImportTable::readLevels(int row) {
    ImportRow& target = rows_[static_cast<std::size_t>(row)];
    const auto chosen = [&](int column) {
        return qobject_cast<QComboBox*>(cellWidget(row, column))->currentData().toLongLong();
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

void ImportTable::readMount(int row) {
    ImportRow& target = rows_[static_cast<std::size_t>(row)];
    const auto* mounts = qobject_cast<QComboBox*>(cellWidget(row, mount));
    const bool chosen = mounts->itemText(mounts->currentIndex()) == mounts->currentText();
    const int known = chosen ? mounts->currentIndex() : mounts->findText(mounts->currentText());
    const qlonglong existing = known > 0 ? mounts->itemData(known).toLongLong() : 0;
    target.mount = existing ? std::optional(Id<Mount>{existing}) : std::nullopt;
    target.mountName = mounts->currentText().trimmed().toStdString();
}

/// A name that was proposed follows its level; one that was typed stays, and so does an existing mount.
void ImportTable::levelChanged(int row) {
    ImportRow& target = rows_[static_cast<std::size_t>(row)];
    const std::string proposed = target.mountName;
    readMount(row);
    readLevels(row);
    forgetDoubt(target);
    if (!target.mount && target.mountName == proposed && target.level && session_.study())
        target.mountName =
            nextMountName(session_.document(), session_.study()->id, rows_, static_cast<std::size_t>(row));
    showRow(row);
    chooseLoads();
    emit linesChanged();
}

std::vector<int> ImportTable::chosenLogs() const {
    std::vector<int> rows;
    for (int visual = 0; visual < rowCount(); ++visual) {
        const int row = verticalHeader()->logicalIndex(visual);
        if (row < logCount() && !isRowHidden(row) && selectionModel()->isRowSelected(row, {}))
            rows.push_back(row);
    }
    return rows;
}

void ImportTable::takeChosen() {
    const auto chosen = chosenLogs();
    if (chosen.empty()) return;
    const Qt::CheckState state =
        item(chosen.front(), take)->checkState() == Qt::Checked ? Qt::Unchecked : Qt::Checked;
    for (int row : chosen) item(row, take)->setCheckState(state);
}

void ImportTable::fillDown() {
    const auto chosen = chosenLogs();
    if (chosen.size() < 2) {
        session_.refuse(
            say("Choose several rows first, with Shift or Ctrl and a click: what the topmost says is "
                "filled into the others."));
        return;
    }
    readLevels(chosen.front());
    readMount(chosen.front());
    const ImportRow from = rows_[static_cast<std::size_t>(chosen.front())];
    for (std::size_t i = 1; i < chosen.size(); ++i) {
        const auto row = static_cast<std::size_t>(chosen[i]);
        ImportRow& to = rows_[row];
        to.take = from.take;
        to.level = from.level;
        to.second = from.second;
        to.kind = from.kind;
        to.probeOf.reset();
        forgetDoubt(to);
        to.mount = from.mount; // an existing one: further runs of it
        to.mountName = from.mount ? from.mountName : std::string();
        if (!to.mount && session_.study())
            to.mountName = nextMountName(session_.document(), session_.study()->id, rows_, row);
        showRow(chosen[i]);
    }
    chooseLoads();
    emit linesChanged();
}

void ImportTable::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_D && event->modifiers() == Qt::ControlModifier)
        fillDown();
    else if (event->key() == Qt::Key_Space && chosenLogs().size() > 1)
        takeChosen();
    else
        QTableWidget::keyPressEvent(event);
}

std::optional<QString> ImportTable::read() {
    for (int row = 0; row < logCount(); ++row) {
        ImportRow& target = rows_[static_cast<std::size_t>(row)];
        target.take = item(row, take)->checkState() == Qt::Checked;
        readLevels(row);
        readMount(row);
        const std::string typed = item(row, time)->text().trimmed().toStdString();
        const auto at = parseInstant(typed);
        if (!typed.empty() && !at) {
            setRowHidden(row, false);
            setCurrentCell(row, time);
            return say("%1: \"%2\" is no time. Write it as 2031-03-04 18:30.")
                .arg(qtext(logs_[static_cast<std::size_t>(row)].fileName), qtext(typed));
        }
        if (at && target.at && dateTimeText(*at) != dateTimeText(*target.at)) target.atAssumed = false;
        if (target.at && at && dateTimeText(*at) == dateTimeText(*target.at)) continue;
        target.at = at;
        if (target.when) target.when = at; // what the file's name said
    }
    return std::nullopt;
}

} // namespace ibuki
