// SPDX-License-Identifier: GPL-3.0-or-later
// Questions that wait for nobody: what is not taken is told in their sheet, beside the field.

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/sheet_complaint.h"
#include "support/test_class.h"

#include <QApplication>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalSpy>
#include <QSpinBox>
#include <QVBoxLayout>
#include <QtTest>

using namespace ibuki;

class TestAsk : public QObject {
    Q_OBJECT

    static AskSheet* open() {
        for (QWidget* widget : QApplication::topLevelWidgets())
            if (auto* sheet = qobject_cast<AskSheet*>(widget); sheet && sheet->isVisible()) return sheet;
        return nullptr;
    }
    static void press(QDialog& sheet, QDialogButtonBox::StandardButton which) {
        QTest::mouseClick(sheet.findChild<QDialogButtonBox*>()->button(which), Qt::LeftButton);
    }

private slots:
    void whatIsNotTakenIsToldUnderTheField() {
        QWidget window;
        window.show();
        QStringList taken;
        askText(&window, {"Size", "How large, mm", "60"}, [&](const QString& text) {
            if (text.toInt() <= 0) return QString("\"%1\" is no size.").arg(text);
            taken << text;
            return QString();
        });
        QTRY_VERIFY(open());
        QVERIFY(taken.isEmpty()); // nobody waited for the answer
        AskSheet& sheet = *open();
        auto* field = sheet.findChild<QLineEdit*>("Answer");
        QCOMPARE(field->text(), QString("60"));
        QCOMPARE(field->accessibleName(), QString("How large, mm"));
        field->setText("wide");
        press(sheet, QDialogButtonBox::Ok);
        auto* why = sheet.findChild<QLabel*>("Complaint");
        QVERIFY(why && sheet.isVisible() && taken.isEmpty());
        QCOMPARE(why->text(), QString("\"wide\" is no size."));
        QCOMPARE(sheet.layout()->indexOf(why), sheet.layout()->indexOf(field) + 1);
        field->clear();
        QTest::keyClicks(field, "4"); // what is changed is no longer complained of
        QVERIFY(!sheet.findChild<QLabel*>("Complaint"));
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(taken, QStringList{"4"});
        QTRY_VERIFY(!open());
    }
    void aSheetThatIsLeftAnswersNothing() {
        QWidget window;
        int asked = 0;
        askNumber(&window, {"Extend", "Mounts", {}}, 1, 50, [&](int) { ++asked; });
        QTRY_VERIFY(open());
        press(*open(), QDialogButtonBox::Cancel);
        QTRY_VERIFY(!open());
        QCOMPARE(asked, 0);
    }
    void numbersAndChoices() {
        QWidget window;
        int answer = -1;
        askNumber(&window, {"Extend", "Mounts", {}}, 2, 50, [&](int n) { answer = n; });
        QTRY_VERIFY(open());
        QCOMPARE(open()->findChild<QSpinBox*>("Answer")->value(), 2);
        open()->findChild<QSpinBox*>("Answer")->setValue(7);
        press(*open(), QDialogButtonBox::Ok);
        QCOMPARE(answer, 7);
        QTRY_VERIFY(!open());
        askChoice(&window, {"Ask", "About", {}}, {"one", "other"}, [&](int index) { answer = index; });
        QTRY_VERIFY(open());
        open()->findChild<QComboBox*>("Answer")->setCurrentIndex(1);
        press(*open(), QDialogButtonBox::Ok);
        QCOMPARE(answer, 1);
        QTRY_VERIFY(!open());
    }
    void anotherQuestionMayFollow() { // the answer to one asks the next, while the first still closes
        QWidget window;
        QString reason;
        askText(&window, {"Who", "Role", "technician"}, [&](const QString&) {
            askText(&window, {"Why", "Reason", {}}, [&](const QString& text) {
                reason = text;
                return QString();
            });
            return QString();
        });
        QTRY_VERIFY(open());
        press(*open(), QDialogButtonBox::Ok);
        QTRY_VERIFY(open() && open()->windowTitle() == "Why");
        open()->findChild<QLineEdit*>("Answer")->setText("spare chip");
        press(*open(), QDialogButtonBox::Ok);
        QCOMPARE(reason, QString("spare chip"));
        QTRY_VERIFY(!open());
    }
    void aFormTellsItInTheRowBelow() {
        QWidget window;
        window.show();
        QDialog sheet(&window);
        auto* form = new QFormLayout(&sheet);
        auto* first = new QLineEdit;
        auto* second = new QLineEdit;
        form->addRow("Price", first);
        form->addRow("Currency", second);
        sheet.open();
        QTRY_COMPARE(openSheet(), &sheet);
        first->setProperty("wrong", true); // the marked field counts, wherever the focus is
        second->setFocus();
        complainIn(sheet, "A price is a number.");
        int row = -1;
        QFormLayout::ItemRole role{};
        form->getWidgetPosition(sheet.findChild<QLabel*>("Complaint"), &row, &role);
        QCOMPARE(row, 1);
        complainIn(sheet, "It needs its currency.");
        QCOMPARE(sheet.findChildren<QLabel*>("Complaint").size(), 1); // one takes the place of the other
        endComplaint(sheet);
        QVERIFY(!sheet.findChild<QLabel*>("Complaint"));
        QCOMPARE(form->rowCount(), 2); // and leaves no empty row
    }
    void aRowOfFieldsHasItBelow() {
        QWidget window;
        QDialog sheet(&window);
        auto* layout = new QVBoxLayout(&sheet);
        auto* row = new QHBoxLayout;
        auto* add = new QPushButton("Add");
        row->addWidget(new QLineEdit);
        row->addWidget(add);
        layout->addLayout(row);
        auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
        layout->addWidget(buttons);
        sheet.open();
        QTRY_COMPARE(openSheet(), &sheet);
        add->setFocus();
        complainIn(sheet, "A rate needs two currencies.");
        QCOMPARE(layout->indexOf(sheet.findChild<QLabel*>("Complaint")), 1);
        buttons->button(QDialogButtonBox::Close)->setFocus(); // no field is meant: above the buttons
        complainIn(sheet, "Nothing was typed.");
        QCOMPARE(layout->indexOf(sheet.findChild<QLabel*>("Complaint")) + 1, layout->indexOf(buttons));
    }
    void filesAreAnsweredThroughTheSeam() {
        QWidget window;
        QStringList got;
        FileWish seen;
        answerFiles([&](const FileWish& wish) {
            seen = wish;
            return QStringList{"/tmp/a.csv", "/tmp/b.csv"};
        });
        askFiles(&window, {FileWish::Kind::openMany, "Bring in logs", {}, "Logs (*.csv)"},
                 [&](const QStringList& files) { got = files; });
        QCOMPARE(got.size(), 2);
        QCOMPARE(seen.title, QString("Bring in logs"));
        answerFiles([](const FileWish&) { return QStringList(); }); // called off
        got.clear();
        askFile(&window, {FileWish::Kind::save, "Save", "a.csv", "CSV (*.csv)"},
                [&](const QString& file) { got << file; });
        QVERIFY(got.isEmpty());
        answerFiles({});
    }
    void returnGoesOnAndAcceptsFromTheLastField() {
        QDialog sheet;
        auto* layout = new QVBoxLayout(&sheet);
        auto* first = new QLineEdit;
        auto* second = new QLineEdit;
        layout->addWidget(first);
        layout->addWidget(second);
        layout->addWidget(dialogButtons(&sheet, "Do it"));
        QSignalSpy accepted(&sheet, &QDialog::accepted);
        sheet.show();
        QVERIFY(QTest::qWaitForWindowActive(&sheet));
        first->setFocus();
        QTest::keyClick(first, Qt::Key_Return);
        QVERIFY(second->hasFocus());
        QCOMPARE(accepted.count(), 0);
        QTest::keyClick(second, Qt::Key_Return);
        QCOMPARE(accepted.count(), 1);
        sheet.show();
        first->setFocus();
        QTest::keyClick(first, Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(accepted.count(), 2);
    }
};

IBUKI_TEST(TestAsk)
#include "tst_ask.moc"
