// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/lot_panel.h"

#include "app/forms/ask.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/base/input_error.h"
#include "core/shelf/shelf.h"
#include "store/log/mapped_file.h"
#include "words/words.h"

#include <QBuffer>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QImageReader>
#include <QListWidget>
#include <QRegularExpression>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr int pictureEdge = 1280; ///< pixels: enough to read a label, small enough for a project file

template <class E, class Member> const E* first(const Document& document, Member E::*member, Id<Lot> lot) {
    const auto found = document.where(member, lot);
    return found.empty() ? nullptr : found.front();
}

/// Null with a refusal when it cannot be read.
QImage readPicture(Session& session, const QString& path) {
    try {
        const MappedFile file(path.toStdString()); // no pipe, no device
        QByteArray bytes =
            QByteArray::fromRawData(file.bytes().data(), static_cast<qsizetype>(file.bytes().size()));
        QBuffer buffer(&bytes);
        QImageReader reader(&buffer);
        reader.setAutoTransform(true);
        QImage image = reader.read();
        file.requireWhole();
        if (image.isNull())
            session.refuse(say("%1 is no picture that can be read: %2. Choose a PNG or JPEG file.")
                               .arg(path, reader.errorString()));
        return image;
    } catch (const InputError& error) {
        session.refuse(error);
        return {};
    }
}

} // namespace

LotPanel::LotPanel(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      body_(new QWidget),
      none_(
          quietLabel(say("No lot yet. A lot is one tube or one sheet; mounts name the lot they took from."))),
      form_(session, new QFormLayout, words::mark("lot")) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(2, 2, 8, 2);
    outer->addWidget(none_);
    outer->addWidget(body_);
    outer->addStretch(1);
    auto* layout = new QVBoxLayout(body_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(form_.layout());
    addFields();
    layout->addWidget(offcutBox_ = makeOffcuts());
    picture_ = new QLabel;
    picture_->setAccessibleName(say("Picture of the lot"));
    picture_->setAlignment(Qt::AlignCenter);
    layout->addWidget(picture_);
    auto* row = new QHBoxLayout;
    auto* choose = button(say("Picture…"), say("A photograph of the lot"));
    connect(choose, &QPushButton::clicked, this, &LotPanel::choosePicture);
    auto* remove = button(say("Remove picture"));
    connect(remove, &QPushButton::clicked, this, &LotPanel::removePicture);
    row->addWidget(choose);
    row->addWidget(remove);
    row->addStretch(1);
    layout->addLayout(row);
}

void LotPanel::addFields() {
    form_.text(say("Lot"), &Lot::name);
    form_.text(say("Supplier"), &Lot::supplier)
        ->setToolTip(say("An original and a look-alike are two lots to compare."));
    form_.date(say("Made"), &Lot::made);
    form_.date(say("Bought"), &Lot::bought);
    form_.date(say("Opened"), &Lot::opened);
    form_.date(say("Expires"), &Lot::expires);
    form_.text(say("Storage"), &Lot::storage);
    form_.choice(say("Condition on opening"), &Lot::condition);
    form_.choice(say("Unit of content"), &Lot::contentUnit);
    form_.number(say("Content"), &Lot::content, 0, true);
    form_.number(say("Left, as weighed"), &Lot::remaining, 0)
        ->setToolTip(say("What is left now, weighed or measured. Mounts take from it from here on."));
    form_.number(say("Sheet width, mm"), &Lot::sheetWidth, 0, true);
    form_.number(say("Sheet length, mm"), &Lot::sheetLength, 0, true);
    form_.text(say("Currency"), &Lot::currency)->setPlaceholderText(say("such as NOK"));
    form_.number(say("Price"), &Lot::price, 0);
    form_.note(say("Remarks"), &Lot::note);
    form_.performWith([this](Edit edit) { keep(std::move(edit)); });
}

QWidget* LotPanel::makeOffcuts() {
    auto* widget = new QWidget;
    auto* layout = new QVBoxLayout(widget);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(quietLabel(say("Off-cuts kept")));
    offcuts_ = new QListWidget;
    offcuts_->setAccessibleName(say("Off-cuts"));
    offcuts_->setMaximumHeight(80);
    layout->addWidget(offcuts_);
    auto* row = new QHBoxLayout;
    auto* add = button(say("Add off-cut…"));
    connect(add, &QPushButton::clicked, this, &LotPanel::addOffcut);
    auto* remove = button(say("Remove off-cut"));
    connect(remove, &QPushButton::clicked, this, &LotPanel::removeOffcut);
    row->addWidget(add);
    row->addWidget(remove);
    row->addStretch(1);
    layout->addLayout(row);
    return widget;
}

/// A stated remainder counts from now: what mounts took before is in it already.
void LotPanel::keep(Edit edit) {
    const Lot* before = session_.document().find(form_.shown());
    const Lot* after = before ? edit.document().find(before->id) : nullptr;
    if (after && after->remaining != before->remaining) {
        Lot lot = *after;
        lot.takenBefore = lotState(session_.document(), *before, session_.now()).taken;
        edit.put(lot);
        after = edit.document().find(before->id);
    }
    try {
        if (after) checkLot(*after);
        session_.perform(edit.finish());
    } catch (const InputError& error) {
        session_.refuse(saySentence(error));
        form_.show(form_.shown());
    }
}

void LotPanel::show(std::optional<Id<Lot>> id) {
    const Lot* lot = session_.document().find(id);
    body_->setVisible(lot != nullptr);
    none_->setVisible(lot == nullptr);
    form_.show(id);
    if (!lot) return;
    const Material* material = session_.document().find(lot->material);
    offcutBox_->setVisible(material && isCut(material->kind));
    offcuts_->clear();
    for (const Offcut* offcut : session_.document().where(&Offcut::lot, lot->id)) {
        if (offcut->used) continue;
        (new QListWidgetItem(QString("%1 × %2 mm").arg(offcut->width.value).arg(offcut->length.value),
                             offcuts_))
            ->setData(Qt::UserRole, static_cast<qlonglong>(offcut->id.value));
    }
    const LotPicture* shown = first(session_.document(), &LotPicture::lot, lot->id);
    QPixmap pixmap;
    if (shown) pixmap.loadFromData(QByteArray::fromStdString(session_.file(shown->sha256)));
    picture_->setVisible(!pixmap.isNull());
    if (shown && !pixmap.isNull()) {
        picture_->setPixmap(pixmap.scaled(340, 240, Qt::KeepAspectRatio, Qt::SmoothTransformation));
        picture_->setToolTip(qtext(shown->fileName));
    }
}

void LotPanel::choosePicture() {
    askFile(this,
            {FileWish::Kind::open, say("Picture of the lot"), {}, say("Pictures (*.png *.jpg *.jpeg *.bmp)")},
            [this](const QString& path) { setPicture(path); });
}

bool LotPanel::setPicture(const QString& path) {
    const Lot* lot = session_.document().find(form_.shown());
    if (!lot) return false;
    QImage image = readPicture(session_, path);
    if (image.isNull()) return false;
    if (std::max(image.width(), image.height()) > pictureEdge)
        image = image.scaled(pictureEdge, pictureEdge, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, image.hasAlphaChannel() ? "PNG" : "JPG", 88);
    Edit edit(session_.document(), titled("Picture of {lot}", {{"lot", lot->name}}));
    const LotPicture* before = first(session_.document(), &LotPicture::lot, lot->id);
    LotPicture picture = before ? *before : LotPicture{};
    picture.lot = lot->id;
    picture.fileName = QFileInfo(path).fileName().toStdString();
    Acquired acquired{{}, {storedFile(bytes.toStdString())}};
    picture.sha256 = acquired.files.front().sha256;
    picture.bytes = bytes.size();
    if (before)
        edit.put(picture);
    else
        edit.add(picture);
    return session_.perform(edit.finish(), acquired);
}

void LotPanel::removePicture() {
    if (!form_.shown()) return;
    const LotPicture* shown = first(session_.document(), &LotPicture::lot, *form_.shown());
    if (!shown) return;
    Edit edit(session_.document(), titled("Remove a picture"));
    edit.remove(shown->id);
    session_.perform(edit.finish());
}

void LotPanel::addOffcut() {
    if (!form_.shown()) return;
    askText(this, {say("Off-cut"), say("Width × length, mm, such as 60 x 20"), {}},
            [this, lot = *form_.shown()](const QString& typed) {
                const QStringList parts = typed.split(QRegularExpression("[x×*]"));
                const auto width = parts.size() == 2 ? numberFrom(parts[0]) : std::nullopt;
                const auto length = parts.size() == 2 ? numberFrom(parts[1]) : std::nullopt;
                if (!width || !length || *width <= 0 || *length <= 0)
                    return say("\"%1\" is no size. Write it as 60 x 20.").arg(typed);
                Edit edit(session_.document(), titled("Add an off-cut"));
                edit.add(Offcut{{}, lot, Millimetre{*width}, Millimetre{*length}, false});
                session_.perform(edit.finish());
                return QString();
            });
}

void LotPanel::removeOffcut() {
    const QListWidgetItem* item = offcuts_->currentItem();
    if (!item) return;
    Edit edit(session_.document(), titled("Remove an off-cut"));
    edit.remove(Id<Offcut>{item->data(Qt::UserRole).toLongLong()});
    session_.perform(edit.finish());
}

} // namespace ibuki
