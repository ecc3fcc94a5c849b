// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/entity_form.h"
#include "app/forms/number_field.h"
#include "app/session/amount_text.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <QtTest>

using namespace ibuki;

class TestNumberField : public QObject {
    Q_OBJECT
private slots:
    void numbersAreReadWithPointOrComma() {
        QCOMPARE(numberFrom("1,5"), std::optional(1.5));
        QCOMPARE(numberFrom(" 1.5 "), std::optional(1.5));
        for (const char* text : {"", "abc", "1.5 K", "inf", "nan", "1,2,3"})
            QVERIFY2(!numberFrom(text), text);
        QCOMPARE(numberText(0.1), QString("0.1"));
        QCOMPARE(numberFrom(numberText(1.0 / 3)), std::optional(1.0 / 3));
    }
    void onlyWhatIsInRangeIsAValue() {
        NumberField field("Bore, mm", {0, true, 50});
        for (const char* wrong : {"", "wide", "0", "-1", "51", "1,2,3", "inf"}) {
            field.setText(wrong);
            QVERIFY2(!field.value(), wrong);
        }
        field.setText("8,66");
        QCOMPARE(field.value(), std::optional(8.66));
        field.setText("50");
        QCOMPARE(field.value(), std::optional(50.0));
        NumberField share("Squeezed out", {0, false});
        share.setText("0");
        QCOMPARE(share.value(), std::optional(0.0));
    }
    void theComplaintSaysTheRange() {
        QCOMPARE(NumberField("Bore, mm", {0, true}).complaint(), QString("Bore, mm must be above 0."));
        QCOMPARE(NumberField("Bore, mm", {1, false, 50}).complaint(),
                 QString("Bore, mm must be at least 1 and at most 50."));
    }
    void typingMarksAndTells() {
        NumberField field("Bore, mm", {0, true});
        QSignalSpy edited(&field, &NumberField::valueEdited);
        QTest::keyClicks(&field, "x");
        QVERIFY(field.property("wrong").toBool());
        QTest::keyClick(&field, Qt::Key_Backspace);
        QTest::keyClicks(&field, "3");
        QVERIFY(!field.property("wrong").toBool());
        QCOMPARE(edited.count(), 3);
    }
    void showingIsQuietAndKeepsWhatIsBeingTyped() {
        NumberField field("Bore, mm", {0, true});
        QSignalSpy edited(&field, &NumberField::valueEdited);
        field.show(2.5);
        QCOMPARE(field.text(), QString("2.5"));
        field.setText("2,50");
        field.show(2.5); // the same number
        QCOMPARE(field.text(), QString("2,50"));
        QCOMPARE(edited.count(), 0);
        QCOMPARE(field.accessibleName(), QString("Bore, mm"));
    }
};

IBUKI_TEST(TestNumberField)
#include "tst_number_field.moc"
