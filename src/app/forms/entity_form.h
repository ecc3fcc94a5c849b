// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A form on one domain value: each field shows a member and, when the user leaves it, performs one undoable
// change of that member. Bad input keeps the field marked and the project unchanged, and says what is wrong.

#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/words.h"
#include "words/words.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QFormLayout>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QStyle>
#include <functional>
#include <memory>
#include <type_traits>

namespace ibuki {

/// "3,5" and "3.5"; nothing for anything that is no number.
std::optional<double> numberFrom(const QString& text);
QString numberText(double value); ///< shortest form that reads back the same

void markWrong(QLineEdit* field, bool wrong);

/// A plain text box that tells when the focus has left it with another text.
class NoteField : public QPlainTextEdit {
    Q_OBJECT

public:
    explicit NoteField(int lines, QWidget* parent = nullptr);
    void show(const QString& text);

signals:
    void edited(const QString& text);

protected:
    void focusOutEvent(QFocusEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    void fitLines();

    int lines_;
    QString shown_;
};

template <class E> class EntityForm {
public:
    /// what: the word used in undo titles, "material". after: called inside the same action, for example to
    /// reduce runs again; may be empty.
    EntityForm(Session& session, QFormLayout* layout, std::string what)
        : session_(session), layout_(layout), what_(std::move(what)) {}

    QLineEdit* text(const QString& label, std::string E::*member) {
        auto* field = addLine(label);
        QObject::connect(field, &QLineEdit::editingFinished, field, [this, field, label, member] {
            change(label, [&](E& entity) { entity.*member = field->text().trimmed().toStdString(); });
        });
        loaders_.push_back([field, member](const E& entity) {
            field->setText(QString::fromStdString(entity.*member));
            field->setCursorPosition(0);
        });
        return field;
    }

    /// A value that is written as text. read throws InputError for text that says nothing.
    QLineEdit* written(const QString& label, std::function<std::string(const E&)> text,
                       std::function<void(E&, const std::string&)> read) {
        auto* field = addLine(label);
        QObject::connect(field, &QLineEdit::editingFinished, field, [=, this] {
            try {
                E trial;
                read(trial, field->text().toStdString());
            } catch (const InputError& error) {
                markWrong(field, true);
                session_.refuse(label + ": " + saySentence(error));
                return;
            }
            markWrong(field, false);
            change(label, [&](E& entity) { read(entity, field->text().toStdString()); });
        });
        loaders_.push_back([field, text](const E& entity) {
            markWrong(field, false);
            field->setText(qtext(text(entity)));
            field->setCursorPosition(0);
        });
        return field;
    }

    void note(const QString& label, std::string E::*member, int lines = 2) {
        auto* field = new NoteField(lines);
        addRow(label, field);
        QObject::connect(field, &NoteField::edited, field, [this, label, member](const QString& text) {
            change(label, [&](E& entity) { entity.*member = text.toStdString(); });
        });
        loaders_.push_back(
            [field, member](const E& entity) { field->show(QString::fromStdString(entity.*member)); });
    }

    /// Optional quantity; least: smallest value that makes sense, refused below it.
    template <class Q>
    QLineEdit* number(const QString& label, std::optional<Q> E::*member, double least = -1e300,
                      bool above = false) {
        auto* field = addLine(label);
        field->setPlaceholderText(say("not stated"));
        QObject::connect(field, &QLineEdit::editingFinished, field, [=, this] {
            const QString typed = field->text().trimmed();
            const auto value = numberFrom(typed);
            if (!typed.isEmpty() && !acceptable(field, label, value, least, above)) return;
            markWrong(field, false);
            change(label, [&](E& entity) {
                entity.*member = value ? std::optional<Q>(quantity<Q>(*value)) : std::optional<Q>();
            });
        });
        loaders_.push_back([field, member](const E& entity) {
            markWrong(field, false);
            field->setText(entity.*member ? numberText(plain(*(entity.*member))) : QString());
        });
        return field;
    }

    /// A number that has to be there.
    QLineEdit* requiredNumber(const QString& label, std::function<double(const E&)> get,
                              std::function<void(E&, double)> set, double least, bool above,
                              double most = 1e300) {
        auto* field = addLine(label);
        QObject::connect(field, &QLineEdit::editingFinished, field, [=, this] {
            const auto value = numberFrom(field->text());
            if (!acceptable(field, label, value, least, above, most)) return;
            markWrong(field, false);
            change(label, [&](E& entity) { set(entity, *value); });
        });
        loaders_.push_back([field, get](const E& entity) {
            markWrong(field, false);
            field->setText(numberText(get(entity)));
        });
        return field;
    }

    void date(const QString& label, std::optional<Instant> E::*member) {
        auto* field = addLine(label);
        field->setPlaceholderText("year-month-day");
        QObject::connect(field, &QLineEdit::editingFinished, field, [=, this] {
            const std::string typed = field->text().trimmed().toStdString();
            const auto value = parseInstant(typed);
            if (!typed.empty() && !value) {
                markWrong(field, true);
                session_.refuse(
                    say("%1: \"%2\" is no date. Write it as 2031-03-04.").arg(label, field->text()));
                return;
            }
            markWrong(field, false);
            change(label, [&](E& entity) { entity.*member = value; });
        });
        loaders_.push_back([field, member](const E& entity) {
            markWrong(field, false);
            const auto& value = entity.*member;
            const bool dayOnly = value && value->ms % 86'400'000 == 0;
            field->setText(!value
                               ? QString()
                               : QString::fromStdString(dayOnly ? dateText(*value) : dateTimeText(*value)));
        });
    }

    template <class Enum> QComboBox* choice(const QString& label, Enum E::*member) {
        auto* box = new QComboBox;
        for (std::string_view item : Words<Enum>::all) box->addItem(sayTerm(item));
        addRow(label, box);
        QObject::connect(box, &QComboBox::activated, box, [this, label, member](int index) {
            change(label, [&](E& entity) { entity.*member = static_cast<Enum>(index); });
        });
        loaders_.push_back(
            [box, member](const E& entity) { box->setCurrentIndex(static_cast<int>(entity.*member)); });
        return box;
    }

    /// One of some entities, or none. choices: asked whenever the form is shown.
    template <class R>
    QComboBox* reference(const QString& label, std::optional<Id<R>> E::*member, const QString& none,
                         std::function<std::vector<std::pair<QString, Id<R>>>()> choices) {
        auto* box = new QComboBox;
        addRow(label, box);
        QObject::connect(box, &QComboBox::activated, box, [this, box, label, member](int index) {
            const Id<R> id{box->itemData(index).toLongLong()};
            change(label, [&](E& entity) { entity.*member = id ? std::optional(id) : std::nullopt; });
        });
        loaders_.push_back([box, member, none, choices](const E& entity) {
            box->clear();
            box->addItem(none, qlonglong{0});
            for (const auto& [name, id] : choices()) box->addItem(name, static_cast<qlonglong>(id.value));
            const auto& now = entity.*member;
            box->setCurrentIndex(std::max(0, box->findData(static_cast<qlonglong>(now ? now->value : 0))));
        });
        return box;
    }

    /// One of some entities. choices: asked whenever the form is shown.
    template <class R>
    QComboBox* oneOf(const QString& label, Id<R> E::*member,
                     std::function<std::vector<std::pair<QString, Id<R>>>()> choices) {
        auto* box = new QComboBox;
        addRow(label, box);
        QObject::connect(box, &QComboBox::activated, box, [this, box, label, member](int index) {
            change(label, [&](E& entity) { entity.*member = Id<R>{box->itemData(index).toLongLong()}; });
        });
        loaders_.push_back([box, member, choices](const E& entity) {
            box->clear();
            for (const auto& [name, id] : choices()) box->addItem(name, static_cast<qlonglong>(id.value));
            box->setCurrentIndex(box->findData(static_cast<qlonglong>((entity.*member).value)));
        });
        return box;
    }

    QCheckBox* flag(const QString& label, bool E::*member) {
        auto* box = new QCheckBox(label);
        box->setAccessibleName(label);
        box->setObjectName(label);
        layout_->addRow(QString(), box);
        QObject::connect(box, &QCheckBox::clicked, box, [this, label, member](bool on) {
            change(label, [&](E& entity) { entity.*member = on; });
        });
        loaders_.push_back([box, member](const E& entity) { box->setChecked(entity.*member); });
        return box;
    }

    /// Hands every change of this form over instead of performing it at once.
    void performWith(std::function<void(Edit)> perform) { perform_ = std::move(perform); }

    void show(std::optional<Id<E>> id) {
        id_ = id;
        const E* entity = session_.document().find(id);
        if (!entity) return;
        for (const auto& load : loaders_) load(*entity);
    }
    std::optional<Id<E>> shown() const { return id_; }
    QFormLayout* layout() const { return layout_; }

private:
    template <class Q> static Q quantity(double value) {
        if constexpr (std::is_arithmetic_v<Q>)
            return static_cast<Q>(value);
        else
            return Q{value};
    }
    static double plain(double value) { return value; }
    static double plain(int value) { return value; }
    template <class Q> static double plain(const Q& quantity) { return quantity.value; }

    QLineEdit* addLine(const QString& label) {
        auto* field = new QLineEdit;
        addRow(label, field);
        return field;
    }

    void addRow(const QString& label, QWidget* field) { addFormRow(layout_, label, field); }

    bool acceptable(QLineEdit* field, const QString& label, const std::optional<double>& value, double least,
                    bool above, double most = 1e300) {
        const bool fits = value && (above ? *value > least : *value >= least) && *value < most;
        if (fits) return true;
        markWrong(field, true);
        session_.refuse(
            !value ? say("%1: \"%2\" is no number. Write digits, such as 1.5.").arg(label, field->text())
                   : say("%1: %2 is out of range. It must be %3 %4%5.")
                         .arg(label, numberText(*value), above ? say("above") : say("at least"),
                              numberText(least),
                              most < 1e299 ? say(" and below %1").arg(numberText(most)) : QString()));
        return false;
    }

    template <class Change> void change(const QString& label, Change&& apply) {
        const E* entity = session_.document().find(id_);
        if (!entity) return;
        E changed = *entity;
        apply(changed);
        if (changed == *entity) return;
        Edit edit(session_.document(),
                  titled("Change {member} of {what}",
                         {{"member", label.toLower().toStdString()}, {"what", Term{what_}}}));
        edit.put(changed);
        if (perform_)
            perform_(std::move(edit));
        else
            session_.perform(edit.finish());
    }

    Session& session_;
    QFormLayout* layout_;
    std::string what_;
    std::optional<Id<E>> id_;
    std::vector<std::function<void(const E&)>> loaders_;
    std::function<void(Edit)> perform_;
};

/// Shows one entity in a sheet's form for as long as both are there: a sheet closes when what it shows is
/// undone or removed.
template <class E>
void follow(QDialog& sheet, Session& session, Id<E> id, const std::shared_ptr<EntityForm<E>>& form) {
    form->show(id);
    QObject::connect(&session, &Session::documentChanged, &sheet, [&sheet, &session, form, id] {
        if (session.document().find(id))
            form->show(id);
        else
            sheet.reject();
    });
}

} // namespace ibuki
