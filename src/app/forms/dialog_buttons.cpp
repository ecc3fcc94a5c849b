// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/dialog_buttons.h"

#include "app/say.h"

#include <QDialog>
#include <QDialogButtonBox>
#include <QPushButton>

namespace ibuki {

QWidget* dialogButtons(QDialog* dialog, const QString& acceptText) {
    auto* box = new QDialogButtonBox;
    auto* accept = box->addButton(acceptText, QDialogButtonBox::AcceptRole);
    accept->setProperty("main", true);
    accept->setObjectName("accept");
    box->addButton(say("Leave"), QDialogButtonBox::RejectRole);
    QObject::connect(box, &QDialogButtonBox::accepted, dialog, &QDialog::accept);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    return box;
}

QPushButton* closeButton(QDialog* dialog) {
    auto* close = new QPushButton(say("Close"));
    close->setProperty("main", true);
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::accept);
    return close;
}

} // namespace ibuki
