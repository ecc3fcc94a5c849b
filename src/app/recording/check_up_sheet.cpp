// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/check_up_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/words.h"
#include "core/plan/step_times.h"

#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

QString kelvin(const std::optional<double>& value, int digits) {
    return value ? QString::number(*value, 'f', digits) : QStringLiteral("–");
}

} // namespace

CheckUpSheet::CheckUpSheet(Session& session, Id<Bench> bench, CheckUp found, QWidget* parent)
    : QDialog(parent), session_(session), bench_(bench), found_(std::move(found)) {
    setWindowTitle(say("Check-up"));
    resize(700, 520);
    explain(this, Topic::checkUp);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(say("What this bench's readings are worth")));
    QStringList lines;
    if (found_.slowestMinutes)
        lines << say("Its slowest part has a time constant of %1 min: a soak to 0.2 K takes about %2 min.")
                     .arg(*found_.slowestMinutes, 0, 'f', 1)
                     .arg(soakMinutes(*found_.slowestMinutes), 0, 'f', 0);
    if (found_.ambientGradientK)
        lines << say("The room differs by ± %1 K around the bench.").arg(*found_.ambientGradientK, 0, 'f', 2);
    for (const Message& doubt : found_.doubts) lines << sayText(doubt);
    auto* reported = new QLabel(lines.join("\n"));
    reported->setWordWrap(true);
    reported->setObjectName("Check-up told");
    setTextFont(reported, 1.1);
    layout->addWidget(reported);
    auto* table = new QTableWidget(static_cast<int>(found_.channels.size()), 5);
    table->setAccessibleName(say("Channels checked"));
    table->setHorizontalHeaderLabels(
        {say("Channel"), say("Reads"), say("Noise, K"), say("Step, K"), say("Offset at rest, K")});
    table->setEditTriggers(QTableWidget::NoEditTriggers);
    table->setTabKeyNavigation(false);
    table->verticalHeader()->hide();
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    int row = 0;
    for (const CheckedChannel& channel : found_.channels) {
        int column = 0;
        for (const QString& text :
             {qtext(channel.column), sayTerm(roleName(channel.role)), kelvin(channel.noiseK, 2),
              kelvin(channel.resolutionK, 3), kelvin(channel.offsetK, 2)}) {
            QTableWidgetItem* item = fixedItem(text);
            if (column > 1) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table->setItem(row, column++, item);
        }
        ++row;
    }
    layout->addWidget(table, 1);
    layout->addWidget(
        quietLabel(say("On the bench's sheet, the plan lays its soaks by the slowest part, a run's gate "
                       "waits for it, the uncertainty counts the steps, and the watch knows how the "
                       "cores usually stand.")));
    layout->addWidget(dialogButtons(this, say("Put it on the bench's sheet")));
}

void CheckUpSheet::accept() {
    Edit edit(session_.document(), titled("Check-up of the bench"));
    putCheckUp(edit, bench_, found_);
    if (session_.perform(edit.finish())) QDialog::accept();
}

} // namespace ibuki
