// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/due_page.h"

#include "app/ageing/ageing_lines.h"
#include "app/forms/ask.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "store/atomic_file.h"
#include "store/calendar/due_calendar.h"
#include "store/paper/ageing_csv.h"

#include <QHBoxLayout>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {

DuePage::DuePage(AgeingDesk& desk, QWidget* parent)
    : ExportedPage(say("When to come back"), parent),
      desk_(desk),
      wanted_(new QLabel),
      checks_(figureTable(say("Mounts to come back to"), checkHead())) {
    explain(this, Topic::ageing);
    wanted_->setWordWrap(true);
    wanted_->setObjectName("Wanted");
    auto* record = button(say("Record it…"), say("The load again on the chosen mount"));
    auto* calendar =
        button(say("Calendar file…"), say("These dates and those of the machines, for a calendar"));
    auto* head = new QHBoxLayout;
    head->addWidget(wanted_, 1);
    head->addWidget(record);
    head->addWidget(calendar);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(head);
    layout->addWidget(checks_, 1);
    connect(calendar, &QPushButton::clicked, this, [this] { saveCalendar(); });
    connect(record, &QPushButton::clicked, this, [this] { want(checks_->currentRow()); });
    connect(checks_, &QTableWidget::cellActivated, this, [this](int row, int) { want(row); });
}

void DuePage::want(int row) {
    const AgeingMatter* matter = desk_.matter();
    if (matter && row >= 0 && row < static_cast<int>(matter->checks.size()))
        emit checkWanted(matter->checks[static_cast<std::size_t>(row)].followUp);
}

void DuePage::refresh() {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return;
    const QString wanted = wantedText(countDue(matter->checks));
    wanted_->setText(!wanted.isEmpty() ? wanted + "."
                     : matter->checks.empty()
                         ? say("Nothing is planned to come back to: state it in the plan, "
                               "Come back after, and put it on the tape.")
                         : say("No mount wants a look this week."));
    fillTable(*checks_, checkRows(*matter));
}

std::string DuePage::csv() const {
    return desk_.matter() ? checksDueCsv(desk_.matter()->checks) : std::string();
}

void DuePage::saveCalendar() {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return;
    askFile(this,
            {FileWish::Kind::save, say("Dates for a calendar"), say("due") + ".ics", say("Calendar (*.ics)")},
            [this](const QString& path) {
                const AgeingMatter* now = desk_.matter();
                if (!now) return;
                try {
                    const auto events = dueEvents(now->checks, now->due, now->now);
                    if (events.empty()) return desk_.session().refuse(say("No date lies ahead."));
                    const Question* question = now->document.find(now->question);
                    const Plan* plan = question ? planOf(now->document, question->study) : nullptr;
                    writeFileAtomically(path.toStdString(),
                                        calendarText(events, plan ? plan->zone : Plan{}.zone, now->now));
                    desk_.session().post(say("Written to %1").arg(path));
                } catch (const InputError& error) {
                    desk_.session().refuse(error);
                }
            });
}

} // namespace ibuki
