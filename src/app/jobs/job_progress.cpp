// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job_progress.h"

#include "app/jobs/job.h"
#include "app/say.h"

#include <QProgressDialog>

namespace ibuki {

void showProgress(JobRunner& job, const QString& title, QWidget* parent, bool beside) {
    auto* dialog = new QProgressDialog(title, say("Call off"), 0, 100, parent);
    dialog->setWindowTitle(title);
    dialog->setWindowModality(beside ? Qt::NonModal : Qt::WindowModal);
    dialog->setAutoClose(false);
    dialog->setAutoReset(false);
    dialog->setMinimumDuration(300);
    dialog->setValue(0); // starts the clock of the minimum duration
    QObject::connect(dialog, &QProgressDialog::canceled, &job, &JobRunner::cancel);
    QObject::connect(&job, &JobRunner::progressed, dialog,
                     [dialog](double share) { dialog->setValue(static_cast<int>(100 * share)); });
    QObject::connect(&job, &JobRunner::ended, dialog, &QObject::deleteLater);
}

} // namespace ibuki
