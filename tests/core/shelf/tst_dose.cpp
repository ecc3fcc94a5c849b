// SPDX-License-Identifier: GPL-3.0-or-later
// Reference values: worked example of docs/methods.md, "Dose".
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/shelf/dose.h"
#include "support/near.h"
#include "support/test_class.h"

#include <numbers>

using namespace ibuki;

class TestDose : public QObject {
    Q_OBJECT

    static DoseInput lid() { return {30, 30, 40, 2.6, 0.5, 8.66, Pattern::dot, 0}; }

private slots:
    void theWorkedExample() {
        const Dose result = dose(lid());
        QVERIFY_NEAR(result.volumeMm3, 54, 1e-12);
        QVERIFY_NEAR(result.massG, 0.1404, 1e-12);
        QVERIFY_NEAR(result.strokeMm, 0.92, 0.005);
        DoseInput narrow = lid();
        narrow.boreMm = 4.7;
        QVERIFY_NEAR(dose(narrow).strokeMm, 3.11, 0.005);
        QCOMPARE(usesOf(4, 0, result.massG), 28);
        QCOMPARE(usesOf(4, 0.1, result.massG), 25);
    }
    void theAlgebraCloses() {
        Random random(4);
        for (int i = 0; i < 300; ++i) {
            DoseInput input = lid();
            input.widthMm = 5 + 60 * random.uniform();
            input.lengthMm = 5 + 60 * random.uniform();
            input.bondLineUm = 5 + 300 * random.uniform();
            input.densityGPerMl = 1 + 6 * random.uniform();
            input.allowance = random.uniform();
            input.pattern = static_cast<Pattern>(i % 5);
            const Dose made = dose(input);
            const double area = input.widthMm * input.lengthMm;
            QVERIFY_NEAR(made.massG / input.densityGPerMl * 1e3 / area / (1 + input.allowance) * 1e3
                             / input.bondLineUm,
                         1, 1e-12);
            QVERIFY_NEAR(made.strokeMm * std::numbers::pi * input.boreMm * input.boreMm / 4 / made.volumeMm3,
                         1, 1e-12);
            QVERIFY_NEAR(made.ratio, 1 + input.allowance, 1e-12);
            QVERIFY_NEAR(doseOfVolume(input, made.volumeMm3).massG / made.massG, 1, 1e-12);
        }
    }
    void sizesHoldTheVolume() {
        DoseInput input = lid();
        const double r = dose(input).dotDiameterMm / 2;
        QVERIFY_NEAR(2.0 / 3 * std::numbers::pi * r * r * r, 54, 1e-9);
        input.pattern = Pattern::line;
        input.reachMm = 10;
        const double bead = dose(input).beadWidthMm / 2;
        QVERIFY_NEAR(std::numbers::pi / 2 * bead * bead * 20, 54, 1e-9);
        input.pattern = Pattern::film;
        QVERIFY_NEAR(dose(input).filmUm, 60, 1e-9);
    }
    void whatCannotBeIsRefused_data() {
        QTest::addColumn<QString>("code");
        QTest::addColumn<int>("field");
        QTest::newRow("no width") << "dose-face" << 0;
        QTest::newRow("no bond line") << "dose-face" << 1;
        QTest::newRow("negative density") << "dose-density" << 2;
        QTest::newRow("no bore") << "dose-bore" << 3;
        QTest::newRow("negative allowance") << "dose-allowance" << 4;
    }
    void whatCannotBeIsRefused() {
        QFETCH(QString, code);
        QFETCH(int, field);
        DoseInput input = lid();
        double* fields[] = {&input.widthMm, &input.bondLineUm, &input.densityGPerMl, &input.boreMm,
                            &input.allowance};
        *fields[field] = field == 2 || field == 4 ? -1 : 0;
        try {
            dose(input);
            QFAIL("accepted");
        } catch (const InputError& error) {
            QCOMPARE(QString::fromStdString(error.code), code);
        }
    }
};

IBUKI_TEST(TestDose)
#include "tst_dose.moc"
