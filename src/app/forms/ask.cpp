// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/ask.h"

#include "app/forms/sheet_complaint.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QSpinBox>
#include <QVBoxLayout>

namespace ibuki {
namespace {

FileAnswer& fileAnswer() {
    static FileAnswer answer;
    return answer;
}

QFileDialog::FileMode modeOf(FileWish::Kind kind) {
    return kind == FileWish::Kind::save       ? QFileDialog::AnyFile
           : kind == FileWish::Kind::folder   ? QFileDialog::Directory
           : kind == FileWish::Kind::openMany ? QFileDialog::ExistingFiles
                                              : QFileDialog::ExistingFile;
}

/// The ending of a filter's first pattern: "csv" of "CSV (*.csv)".
QString endingOf(const QString& filter) {
    const auto from = filter.indexOf("*.");
    if (from < 0) return {};
    QString ending;
    for (qsizetype i = from + 2; i < filter.size() && filter[i].isLetterOrNumber(); ++i) ending += filter[i];
    return ending;
}

} // namespace

AskSheet::AskSheet(const TextWish& wish, std::function<QString(const QString&)> take, QWidget* parent)
    : QDialog(parent), take_(std::move(take)), label_(wish.label) {
    setWindowTitle(wish.title);
    setMinimumWidth(380);
    auto* layout = new QVBoxLayout(this);
    auto* label = new QLabel(wish.label);
    label->setWordWrap(true);
    layout->addWidget(label);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    connect(buttons, &QDialogButtonBox::accepted, this, &AskSheet::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &AskSheet::reject);
    layout->addWidget(buttons);
    auto* line = new QLineEdit(wish.begin);
    line->selectAll();
    putField(line);
}

void AskSheet::putField(QWidget* field) {
    delete field_;
    field_ = field;
    field_->setAccessibleName(label_);
    field_->setObjectName("Answer");
    static_cast<QVBoxLayout*>(layout())->insertWidget(1, field_);
    field_->setFocus();
}

void AskSheet::useNumber(int least, int most, int begin) {
    auto* spin = new QSpinBox;
    spin->setRange(least, most);
    spin->setValue(begin);
    spin->selectAll();
    putField(spin);
}

void AskSheet::useChoice(const QStringList& choices) {
    auto* box = new QComboBox;
    box->addItems(choices);
    putField(box);
}

QString AskSheet::answer() const {
    if (const auto* line = qobject_cast<const QLineEdit*>(field_)) return line->text();
    if (const auto* spin = qobject_cast<const QSpinBox*>(field_)) return QString::number(spin->value());
    if (const auto* box = qobject_cast<const QComboBox*>(field_)) return QString::number(box->currentIndex());
    return {};
}

void AskSheet::accept() {
    endComplaint(*this);
    field_->setFocus(); // what is not taken is told under it
    if (const QString why = take_(answer()); !why.isEmpty()) complainIn(*this, why);
    if (!findChild<QLabel*>("Complaint"))
        QDialog::accept(); // told here, or by the window to which it was refused
}

AskSheet* askText(QWidget* parent, const TextWish& wish, std::function<QString(const QString&)> take) {
    auto* sheet = new AskSheet(wish, std::move(take), parent);
    openDialog(sheet);
    return sheet;
}

namespace {

/// An answer that is a whole number, which the field has seen to, is always taken.
std::function<QString(const QString&)> asNumber(std::function<void(int)> take) {
    return [take = std::move(take)](const QString& answer) {
        take(answer.toInt());
        return QString();
    };
}

} // namespace

void askNumber(QWidget* parent, const TextWish& wish, int least, int most, std::function<void(int)> take,
               std::optional<int> begin) {
    auto* sheet = new AskSheet(wish, asNumber(std::move(take)), parent);
    sheet->useNumber(least, most, begin.value_or(least));
    openDialog(sheet);
}

void askChoice(QWidget* parent, const TextWish& wish, const QStringList& choices,
               std::function<void(int)> take) {
    auto* sheet = new AskSheet(wish, asNumber(std::move(take)), parent);
    sheet->useChoice(choices);
    openDialog(sheet);
}

void askFiles(QWidget* parent, const FileWish& wish, std::function<void(const QStringList&)> take) {
    if (fileAnswer()) {
        if (const QStringList files = fileAnswer()(wish); !files.isEmpty()) take(files);
        return;
    }
    auto* dialog = new QFileDialog(parent, wish.title, {}, wish.filter);
    dialog->setFileMode(modeOf(wish.kind));
    if (wish.kind == FileWish::Kind::save) {
        dialog->setAcceptMode(QFileDialog::AcceptSave);
        dialog->setDefaultSuffix(endingOf(wish.filter));
        QObject::connect(dialog, &QFileDialog::filterSelected, dialog,
                         [dialog](const QString& filter) { dialog->setDefaultSuffix(endingOf(filter)); });
        dialog->selectFile(wish.name);
    }
    QObject::connect(dialog, &QFileDialog::filesSelected, parent, std::move(take));
    openDialog(dialog);
}

void askFile(QWidget* parent, const FileWish& wish, std::function<void(const QString&)> take) {
    askFiles(parent, wish, [take = std::move(take)](const QStringList& files) { take(files.front()); });
}

void answerFiles(FileAnswer answer) { fileAnswer() = std::move(answer); }

} // namespace ibuki
