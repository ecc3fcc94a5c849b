// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/application_sheet.h"

#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/domain/lookup.h"
#include "core/shelf/class_defaults.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr int bestRating = 5;

bool sound(const Application& application, QString& why) {
    for (const auto& rating :
         {application.spreads, application.staysPut, application.comesOff, application.cleansUp})
        if (rating && (*rating < 1 || *rating > bestRating))
            why = say("A rating is a whole number from 1 (poor) to 5 (good).");
    if (const auto mass = massAppliedG(application); mass && *mass < 0)
        why = say("The syringe weighs more after than before. Check the two weighings.");
    return why.isEmpty();
}

} // namespace

ApplicationSheet::ApplicationSheet(Session& session, Id<Application> application, Id<Mount> mount,
                                   QWidget* parent)
    : QDialog(parent),
      session_(session),
      application_(application),
      lot_(new QComboBox),
      reported_(quietLabel()) {
    setWindowTitle(say("Application"));
    resize(480, 560);
    auto* layout = new QVBoxLayout(this);
    auto* rows = rows_ = new QFormLayout;
    layout->addWidget(scrolled(rows), 1); // at large text not all of it fits a small screen
    addFormRow(rows, say("Lot taken from"), lot_);
    connect(lot_, &QComboBox::activated, this, &ApplicationSheet::chooseLot);
    auto form = std::make_shared<EntityForm<Application>>(session, rows, words::mark("application"));
    dispensed_ << form->number(say("Amount, g"), &Application::amount, 0, true);
    dispensed_ << form->number(say("Syringe before, g"), &Application::syringeBefore, 0, true);
    dispensed_.back()->setToolTip(say("The two weighings go before a stated amount"));
    dispensed_ << form->number(say("Syringe after, g"), &Application::syringeAfter, 0, true);
    cut_ << form->number(say("Cut from the sheet, mm²"), &Application::area, 0, true);
    cut_.back()->setToolTip(say("Leave empty for a piece that the cut helper has taken off already"));
    cut_ << form->number(say("Piece: one side, mm"), &Application::pieceWidth, 0, true);
    cut_.back()->setToolTip(say("The cautions compare the sides of a piece with those of the face"));
    cut_ << form->number(say("Piece: other side, mm"), &Application::pieceLength, 0, true);
    cut_ << form->number(say("Pieces on each other"), &Application::layers, 1);
    form->choice(say("Pattern"), &Application::pattern);
    form->number(say("Spreads, 1 to 5"), &Application::spreads, 1);
    form->number(say("Stays put, 1 to 5"), &Application::staysPut, 1);
    form->number(say("Comes off, 1 to 5"), &Application::comesOff, 1);
    form->number(say("Cleans up, 1 to 5"), &Application::cleansUp, 1);
    form->note(say("Remarks"), &Application::note);
    auto use = std::make_shared<EntityForm<MountApplication>>(session, rows, words::mark("application"));
    use->choice(say("For this mount"), &MountApplication::use)
        ->setToolTip(say("A sheet or film that was mounted before and laid again touches less well"));
    const auto showUse = [this, form = use.get(), mount] {
        for (const MountApplication* link : session_.document().where(&MountApplication::mount, mount))
            if (link->application == application_) return form->show(link->id);
    };
    showUse();
    auto manualWork = std::make_shared<EntityForm<Mount>>(session, rows, words::mark("mount"));
    manualWork->text(say("Mounted by"), &Mount::mountedBy)
        ->setToolTip(say("A role or initials; where two people mounted, the verdict tells how they differ"));
    manualWork->show(mount);
    form->performWith([this, form = form.get()](Edit edit) {
        keep(std::move(edit));
        form->show(application_); // a refused value goes back
    });
    form->show(application);
    layout->addWidget(reported_);
    auto* close = button(say("Close"), {}, true);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    layout->addWidget(close, 0, Qt::AlignRight);
    connect(&session_, &Session::documentChanged, this, [this, form, use, manualWork, showUse, mount] {
        if (!session_.document().find(application_) || !session_.document().find(mount)) {
            reject();
            return;
        }
        form->show(application_);
        manualWork->show(mount);
        showUse();
        fillLots();
        tell();
    });
    fillLots();
    tell();
}

void ApplicationSheet::keep(Edit edit) {
    QString why;
    const Application* after = edit.document().find(application_);
    if (after && !sound(*after, why))
        session_.refuse(why);
    else
        session_.perform(edit.finish());
}

void ApplicationSheet::fillLots() {
    const Application* application = session_.document().find(application_);
    lot_->clear();
    lot_->addItem(say("not known"), qlonglong{0});
    for (const auto& [id, lot] : session_.document().all<Lot>())
        lot_->addItem(qtext(lot.name), static_cast<qlonglong>(id.value));
    lot_->setCurrentIndex(application && application->lot
                              ? lot_->findData(static_cast<qlonglong>(application->lot->value))
                              : 0);
}

void ApplicationSheet::chooseLot(int index) {
    const Application* application = session_.document().find(application_);
    if (!application) return;
    Application changed = *application;
    const Id<Lot> lot{lot_->itemData(index).toLongLong()};
    changed.lot = lot ? std::optional(lot) : std::nullopt;
    if (changed == *application) return;
    Edit edit(session_.document(), titled("Change the lot of an application"));
    edit.put(changed);
    session_.perform(edit.finish());
}

/// Fields of what is cut or of what is dispensed; one that holds a figure stays in any case.
void ApplicationSheet::showRows(const Material* material) {
    const bool isKnown = material && material->kind != MaterialClass::unknown;
    const auto show = [&](const QList<QLineEdit*>& fields, bool belongs) {
        for (QLineEdit* field : fields) rows_->setRowVisible(field, belongs || !field->text().isEmpty());
    };
    show(dispensed_, !isKnown || !isCut(material->kind));
    show(cut_, !isKnown || isCut(material->kind) || material->kind == MaterialClass::putty);
}

void ApplicationSheet::tell() {
    const Document& document = session_.document();
    const Application* application = document.find(application_);
    const Lot* lot = application ? document.find(application->lot) : nullptr;
    const Material* material = lot ? document.find(lot->material) : nullptr;
    showRows(material);
    QStringList words;
    if (application && application->syringeBefore && application->syringeAfter)
        words << say("Weighed: %1 g were applied.").arg(*massAppliedG(*application), 0, 'f', 3);
    if (material) {
        const LotState state = lotState(document, *lot, session_.now());
        const auto taken = takenBy(*application, *lot, *material);
        if (taken) words << say("Takes %1 off the lot.").arg(contentText(*taken, lot->contentUnit));
        if (state.left) words << say("%1 is left in it.").arg(contentText(*state.left, lot->contentUnit));
        if (state.overdrawn > 0)
            words << say("More was taken than was there: %1 too much. Weigh the lot, or correct an amount.")
                         .arg(contentText(state.overdrawn, lot->contentUnit));
    }
    reported_->setText(words.join(" "));
}

std::optional<Id<Application>> statedApplication(Session& session, Id<Mount> mount, Id<Site> site) {
    if (const Application* there = applicationAt(session.document(), mount, site)) return there->id;
    Edit edit(session.document(), titled("State the application"));
    Application application;
    application.site = site;
    const Id<Application> id = edit.add(application);
    edit.add(MountApplication{{}, mount, id, ApplicationUse::fresh});
    return session.perform(edit.finish()) ? std::optional(id) : std::nullopt;
}

} // namespace ibuki
