// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/budget_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/evidence/response.h"
#include "store/atomic_file.h"
#include "store/table/table.h"

#include <QApplication>
#include <QClipboard>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

QStringList headers() {
    return {say("Source"),
            say("Stated"),
            "u",
            say("Factor"),
            "K",
            say("Share"),
            say("Cancels between mounts of this bench")};
}

QString shortNumber(double value) { return QString::number(value, 'g', 3); }

QStringList cellsOf(const BudgetLine& line) {
    return {sayText(sourceOf(line)),
            sayText(line.stated),
            shortNumber(line.u),
            shortNumber(line.sensitivity),
            QString::number(line.contributionK, 'f', 3),
            QString("%1 %").arg(100 * line.share, 0, 'f', 1),
            sayTerm(cancelsWord(line.cancels)) + ": " + sayText(whyOf(line))};
}

} // namespace

BudgetSheet::BudgetSheet(Session& session, Id<Run> id, QWidget* parent) : QDialog(parent), session_(session) {
    setWindowTitle(say("Uncertainty"));
    resize(940, 460);
    auto* layout = new QVBoxLayout(this);
    const Run* run = session.document().find(id);
    const Question* question = session.question();
    if (run && question) run_ = budgetOf(session.document(), *run, *question);
    const Reduction* reduction = run ? reductionOf(session.document(), run->id) : nullptr;
    const LoadReduction* load = reduction && question ? loadOf(*reduction, *run, question->metric) : nullptr;
    if (load) deltaK_ = countedDeltaK(*load, question->metric).value_or(0);
    const Budget& budget = run_.budget;
    auto* head =
        cardTitle(budget.lines.empty()
                      ? say("Nothing is known of the uncertainty yet")
                      : say("%1 K ± %2 K (95 %)").arg(deltaK_, 0, 'f', 2).arg(budget.expandedK, 0, 'f', 2));
    head->setObjectName("Budget head");
    layout->addWidget(head);
    if (!budget.lines.empty())
        layout->addWidget(quietLabel(
            say("Combined %1 K, %2 of freedom, factor %3. Between two mounts of this bench %4 K "
                "of it stay, "
                "each.")
                .arg(budget.combinedK, 0, 'f', 3)
                .arg(!budget.df
                         ? say("any number of degrees")
                         : sayMany("{count} degree", "{count} degrees", static_cast<qint64>(*budget.df)))
                .arg(budget.coverage, 0, 'f', 2)
                .arg(budget.staysK, 0, 'f', 3)));
    addTable(layout);
    QStringList missing;
    for (const Message& figure : run_.missing) missing << sayText(figure);
    if (!missing.isEmpty())
        layout->addWidget(quietLabel(say("Not stated, so not counted: ") + missing.join("; ")
                                     + say(". The bench sheet holds sensors and room.")));
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    auto* copy = button(say("Copy"));
    auto* keep = button(say("Save as CSV…"));
    buttons->addButton(copy, QDialogButtonBox::ActionRole);
    buttons->addButton(keep, QDialogButtonBox::ActionRole);
    connect(copy, &QPushButton::clicked, this, [this] { QApplication::clipboard()->setText(asText('\t')); });
    connect(keep, &QPushButton::clicked, this, &BudgetSheet::save);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
}

void BudgetSheet::addTable(QVBoxLayout* layout) {
    auto* table =
        new QTableWidget(static_cast<int>(run_.budget.lines.size()), static_cast<int>(headers().size()));
    table->setHorizontalHeaderLabels(headers());
    table->setAccessibleName(say("Uncertainty budget"));
    table->setObjectName("Uncertainty budget");
    explain(this, Topic::uncertainty);
    table->setEditTriggers(QTableWidget::NoEditTriggers);
    table->setTabKeyNavigation(false);
    table->verticalHeader()->hide();
    table->setWordWrap(true);
    int row = 0;
    for (const BudgetLine& line : run_.budget.lines) {
        const QStringList cells = cellsOf(line);
        for (int column = 0; column < cells.size(); ++column) {
            auto* item = new QTableWidgetItem(cells[column]);
            if (column >= 2 && column <= 5) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table->setItem(row, column, item);
        }
        ++row;
    }
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setSectionResizeMode(static_cast<int>(headers().size()) - 1,
                                                    QHeaderView::Stretch);
    table->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    layout->addWidget(table, 1);
}

QString BudgetSheet::asText(QChar separator) const {
    const auto line = [&](QStringList cells) {
        if (separator == ',')
            for (QString& cell : cells) cell = qtext(csvField(cell.toStdString()));
        return cells.join(separator) + "\n";
    };
    QString text = line(headers());
    for (const BudgetLine& one : run_.budget.lines) text += line(cellsOf(one));
    text += line({say("combined"), "", "", "", QString::number(run_.budget.combinedK, 'f', 3), "100 %", ""});
    return text
           + line(
               {say("expanded, 95 %"), "", "", "", QString::number(run_.budget.expandedK, 'f', 3), "", ""});
}

void BudgetSheet::save() {
    askFile(this, {FileWish::Kind::save, say("Save the budget"), say("uncertainty.csv"), say("CSV (*.csv)")},
            [this](const QString& path) {
                try {
                    writeFileAtomically(path.toStdString(), asText(',').toStdString());
                    session_.post(say("Written to %1").arg(path));
                } catch (const InputError& error) {
                    session_.refuse(error);
                }
            });
}

} // namespace ibuki
