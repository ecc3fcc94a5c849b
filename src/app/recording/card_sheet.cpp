// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/card_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "store/atomic_file.h"
#include "store/paper/mount_card.h"

#include <QBuffer>
#include <QDialogButtonBox>
#include <QPageSize>
#include <QPdfWriter>
#include <QPrintDialog>
#include <QPrinter>
#include <QTextBrowser>
#include <QTextDocument>
#include <QVBoxLayout>

namespace ibuki {
namespace {

/// Paper is white with black ink, whatever the room.
std::unique_ptr<QTextDocument> paperOf(const QString& html) {
    auto document = std::make_unique<QTextDocument>();
    QFont font = textFont();
    font.setPointSizeF(12);
    document->setDefaultFont(font);
    document->setHtml(html);
    return document;
}

} // namespace

CardSheet::CardSheet(Session& session, Id<Slot> slot, QWidget* parent)
    : QDialog(parent), session_(session), text_(new QTextBrowser) {
    setWindowTitle(say("Card of the next mount"));
    resize(720, 640);
    if (const Slot* planned = session.document().find(slot))
        html_ = qtext(mountCardHtml(briefOf(session.document(), *planned, session.now())));
    auto* layout = new QVBoxLayout(this);
    text_->setAccessibleName(say("Card"));
    text_->setObjectName("Card");
    text_->setHtml(html_);
    layout->addWidget(text_, 1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    auto* printer = button(say("Print…"), {}, true);
    auto* saver = button(say("Save as PDF…"));
    buttons->addButton(printer, QDialogButtonBox::ActionRole);
    buttons->addButton(saver, QDialogButtonBox::ActionRole);
    layout->addWidget(buttons);
    connect(printer, &QPushButton::clicked, this, &CardSheet::print);
    connect(saver, &QPushButton::clicked, this, &CardSheet::save);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

void CardSheet::print() {
    auto* printer = new QPrinter(QPrinter::HighResolution);
    auto* dialog = new QPrintDialog(printer, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, qOverload<QPrinter*>(&QPrintDialog::accepted), this,
            [this](QPrinter* chosen) { paperOf(html_)->print(chosen); });
    connect(dialog, &QObject::destroyed, this, [printer] { delete printer; });
    dialog->open();
}

void CardSheet::save() {
    askFile(this, {FileWish::Kind::save, say("Save the card"), say("card.pdf"), say("PDF (*.pdf)")},
            [this](const QString& path) {
                if (saveTo(path)) session_.post(say("Written to %1").arg(path));
            });
}

bool CardSheet::saveTo(const QString& path) {
    QByteArray bytes;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF());
        writer.setTitle(say("Ibuki card"));
        paperOf(html_)->print(&writer);
    }
    try {
        writeFileAtomically(path.toStdString(),
                            std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

} // namespace ibuki
