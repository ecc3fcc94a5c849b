// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/tip.h"

#include "app/forms/widgets.h"
#include "app/say.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QSettings>
#include <QToolButton>

namespace ibuki {
namespace {

const QString doneKey = QStringLiteral("tipsDone");
const QString allHidden = QStringLiteral("all");

QStringList doneTips() { return QSettings().value(doneKey).toStringList(); }

} // namespace

Tip::Tip(const QString& id, const QString& text, QWidget* parent) : QFrame(parent), id_(id) {
    setProperty("tip", true);
    setObjectName(QStringLiteral("Tip ") + id_);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 3, 4, 3);
    layout->addWidget(quietLabel(text), 1);
    auto* away = new QToolButton;
    away->setText(QStringLiteral("×"));
    away->setAccessibleName(say("Put this tip away"));
    away->setToolTip(away->accessibleName());
    connect(away, &QToolButton::clicked, this, &Tip::done);
    layout->addWidget(away);
    if (isDone()) hide(); // shown with what it stands in otherwise, never as a window of its own
}

bool Tip::isDone() const {
    const QStringList done = doneTips();
    return done.contains(id_) || done.contains(allHidden);
}

void Tip::done() {
    hide();
    if (isDone()) return;
    QSettings().setValue(doneKey, doneTips() << id_);
}

void Tip::showAllAgain() {
    QSettings().remove(doneKey);
    for (QWidget* window : QApplication::topLevelWidgets())
        for (Tip* tip : window->findChildren<Tip*>()) tip->show();
}

void Tip::hideAll() {
    QSettings().setValue(doneKey, QStringList(allHidden));
    for (QWidget* window : QApplication::topLevelWidgets())
        for (Tip* tip : window->findChildren<Tip*>()) tip->hide();
}

} // namespace ibuki
