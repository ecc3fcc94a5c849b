// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Small questions to the user: a word, a number, one of several, a file. Each opens a sheet and answers
// later; nothing waits for it, so that the document may change meanwhile: who asks looks things up again by
// their ids.

#include <QDialog>
#include <QStringList>
#include <functional>
#include <optional>

class QComboBox;
class QLineEdit;
class QSpinBox;

namespace ibuki {

struct TextWish {
    QString title;
    QString label; ///< what to write, and how
    QString begin; ///< what stands in the field at first
};

/// One field and Ok, Cancel. What is not taken is told in the sheet, which stays open.
class AskSheet : public QDialog {
    Q_OBJECT

public:
    /// take: empty when the answer is taken, else why not.
    AskSheet(const TextWish& wish, std::function<QString(const QString&)> take, QWidget* parent);

    /// For a number or a choice the field is another; its text is the answer.
    void useNumber(int least, int most, int begin);
    void useChoice(const QStringList& choices);

    void accept() override;

private:
    QString answer() const;
    void putField(QWidget* field);

    std::function<QString(const QString&)> take_;
    QString label_;
    QWidget* field_ = nullptr;
};

/// Returns the sheet, which goes away by itself: for who has to close it, since what it asks about has ended.
AskSheet* askText(QWidget* parent, const TextWish& wish, std::function<QString(const QString&)> take);
/// begin: at first; nothing: the least.
void askNumber(QWidget* parent, const TextWish& wish, int least, int most, std::function<void(int)> take,
               std::optional<int> begin = std::nullopt);
void askChoice(QWidget* parent, const TextWish& wish, const QStringList& choices,
               std::function<void(int)> take);

struct FileWish {
    enum class Kind { open, openMany, save, folder };
    Kind kind = Kind::open;
    QString title;
    QString name;   ///< proposed, of save
    QString filter; ///< "CSV (*.csv);;JSON (*.json)"
};

/// take comes with at least one path; not at all when it is called off.
void askFiles(QWidget* parent, const FileWish& wish, std::function<void(const QStringList&)> take);
void askFile(QWidget* parent, const FileWish& wish, std::function<void(const QString&)> take);

/// Who answers in place of the user when it is set: for tests, which have no hands. An empty list calls it
/// off.
using FileAnswer = std::function<QStringList(const FileWish&)>;
void answerFiles(FileAnswer answer);

} // namespace ibuki
