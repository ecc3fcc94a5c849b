// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"
#include "app/shelf/cut_print.h"
#include "app/shelf/shelf_items.h"
#include "core/domain/bench.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QApplication>
#include <QFile>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QTransform>
#include <QtTest>

using namespace ibuki;

namespace {

/// The straight lines of a PDF's pages in millimetres on paper: content streams inflated, the current
/// transformation followed through q, Q and cm.
QList<QLineF> linesOf(const QByteArray& pdf) {
    QList<QLineF> lines;
    for (qsizetype at = pdf.indexOf("stream\n"); at >= 0; at = pdf.indexOf("stream\n", at + 1)) {
        const qsizetype begin = at + 7;
        const QByteArray packed = pdf.mid(begin, pdf.indexOf("endstream", begin) - begin);
        const QByteArray text = qUncompress(QByteArray("\0\x10\0\0", 4) + packed);
        QTransform now;
        QList<QTransform> kept;
        QList<double> numbers;
        QPointF from;
        const double mm = 25.4 / 72;
        for (const QString& word :
             QString::fromLatin1(text).split(QRegularExpression("\\s+"), Qt::SkipEmptyParts)) {
            bool isNumber = false;
            const double value = word.toDouble(&isNumber);
            if (isNumber) {
                numbers << value;
                continue;
            }
            const auto n = numbers.size();
            if (word == "q") kept << now;
            if (word == "Q" && !kept.isEmpty()) now = kept.takeLast();
            if (word == "cm" && n >= 6)
                now = QTransform(numbers[n - 6], numbers[n - 5], numbers[n - 4], numbers[n - 3],
                                 numbers[n - 2], numbers[n - 1])
                      * now;
            if (n >= 2 && (word == "m" || word == "l")) {
                const QPointF to = now.map(QPointF(numbers[n - 2], numbers[n - 1])) * mm;
                if (word == "l") lines << QLineF(from, to);
                from = to;
            }
            if (n >= 4 && word == "re") {
                const QRectF box(numbers[n - 4], numbers[n - 3], numbers[n - 2], numbers[n - 1]);
                lines << QLineF(now.map(box.topLeft()) * mm, now.map(box.topRight()) * mm);
            }
            numbers.clear();
        }
    }
    return lines;
}

bool hasHorizontal(const QList<QLineF>& lines, double lengthMm) {
    return std::any_of(lines.begin(), lines.end(), [&](const QLineF& line) {
        return std::abs(line.dy()) < 0.01 && std::abs(std::abs(line.dx()) - lengthMm) < 0.02;
    });
}

} // namespace

class TestShelfItems : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;

    static Document stocked() {
        Document document;
        Edit edit(document, "stock");
        const auto add = [&](const std::string& name, MaterialClass kind, double left,
                             const std::string& supplier) {
            Material material = story::materialNamed(name);
            material.kind = kind;
            Lot lot = story::lotOf(edit.add(material), name + ", lot");
            lot.supplier = supplier;
            lot.content = 10;
            lot.remaining = left;
            lot.price = 20;
            lot.currency = "NOK";
            edit.add(lot);
        };
        add("Tern 11", MaterialClass::paste, 8, "ship's stores");
        add("Plover 4", MaterialClass::paste, 2, "harbour chandler");
        add("Basalt 2.0", MaterialClass::gapPad, 5, "harbour chandler");
        edit.add(story::materialNamed("Heron HV")); // no lot
        apply(document, edit.finish());
        return document;
    }
    static QStringList names(const std::vector<ShelfItem>& items, const std::vector<std::size_t>& chosen) {
        QStringList all;
        for (std::size_t index : chosen) all << items[index].name;
        return all;
    }

private slots:
    void oneThingALotAndOneForAMaterialWithout() {
        const auto items = shelfItems(stocked(), nullptr, {});
        QCOMPARE(items.size(), std::size_t{4});
        QCOMPARE(std::count_if(items.begin(), items.end(), [](const ShelfItem& item) { return !item.lot; }),
                 1);
    }
    void searchFilterAndOrder() {
        const auto items = shelfItems(stocked(), nullptr, {});
        const auto found = [&](const QString& search, std::optional<MaterialClass> kind, ShelfOrder order) {
            return names(items, shelfSelection(items, search, kind, order));
        };
        QCOMPARE(found("HARBOUR", {}, ShelfOrder::name), (QStringList{"Basalt 2.0, lot", "Plover 4, lot"}));
        QCOMPARE(found("harbour paste", {}, ShelfOrder::name), QStringList{"Plover 4, lot"});
        QCOMPARE(found("", MaterialClass::paste, ShelfOrder::left),
                 (QStringList{"Plover 4, lot", "Tern 11, lot", "Heron HV"}));
        QVERIFY(found("nothing like it", {}, ShelfOrder::name).isEmpty());
    }
    void pricesInTwoCurrenciesAreOrderedOnlyByARate() {
        Document document = stocked();
        Edit edit(document, "foreign");
        Site face;
        face.width = face.length = Millimetre{30};
        Lot cheap = *document.where(&Lot::name, std::string("Plover 4, lot")).front();
        cheap.price = 3;
        cheap.currency = "EUR"; // 34.5 NOK
        edit.put(cheap);
        apply(document, edit.finish());
        auto items = shelfItems(document, &face, {});
        QCOMPARE(names(items, shelfSelection(items, "paste", {}, ShelfOrder::price)).front(),
                 QString("Tern 11, lot"));
        Edit rate(document, "rate");
        rate.add(ExchangeRate{{}, "EUR", "NOK", 1.1});
        apply(document, rate.finish());
        items = shelfItems(document, &face, {});
        QCOMPARE(names(items, shelfSelection(items, "paste", {}, ShelfOrder::price)).front(),
                 QString("Plover 4, lot"));
    }
    void placesAndPointsAgree() {
        const ShelfLayout layout = layoutShelf(11, 500, 120, 100);
        QCOMPARE(layout.columns, 4);
        QCOMPARE(layout.height, 300.0);
        for (std::size_t i = 0; i < 11; ++i) {
            const QPointF middle = layout.at(i).center();
            QCOMPARE(layout.indexAt(middle.x(), middle.y()), static_cast<int>(i));
        }
        QCOMPARE(layout.indexAt(490, 290), -1); // the empty place after the last
        QCOMPARE(layout.indexAt(-1, 5), -1);
        QCOMPARE(layoutShelf(3, 50, 120, 100).columns, 1);
    }
    void amountsReadWell() {
        QCOMPARE(contentText(2.1, ContentUnit::gram), QString("2.1 g"));
        QCOMPARE(contentText(1330, ContentUnit::squareMillimetre), QString("1330 mm²"));
        QCOMPARE(contentText(2, ContentUnit::sheet), QString("2 sheets"));
        QCOMPARE(spanText(1), QString("1 day"));
        QCOMPARE(spanText(20), QString("2 weeks"));
        QCOMPARE(spanText(800), QString("2 years"));
        QCOMPARE(moneyText({0.00036, "NOK"}), QString("0.0004 NOK"));
    }
    void aPrintedPlanKeepsItsScale() {
        CutJob job;
        job.pieces = {{"memory", 14, 12, 1, 8, true}, {"stage", 37, 23, 1, 2, false}};
        job.sheets = {{"sheet", 100, 90, 1, {}, false}, {"long", 260, 40, 1, {}, false}};
        const CutPlan plan = planCuts(job);
        const auto pages = cutPages(job, plan, "Pads");
        const QString path = folder_.filePath("pads.pdf");
        writeCutPdf(pages, path);
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray pdf = file.readAll();
        const auto box = QRegularExpression("MediaBox \\[0(?:\\.0+)? 0(?:\\.0+)? ([0-9.]+) ([0-9.]+)\\]")
                             .match(QString::fromLatin1(pdf));
        QVERIFY(box.hasMatch());
        QVERIFY_NEAR(box.captured(1).toDouble() * 25.4 / 72, 210, 0.2); // PDF boxes are whole points
        QVERIFY_NEAR(box.captured(2).toDouble() * 25.4 / 72, 297, 0.2);
        const auto lines = linesOf(pdf);
        QVERIFY(hasHorizontal(lines, 50));  // the ruler
        QVERIFY(hasHorizontal(lines, 100)); // the sheet
        QVERIFY(hasHorizontal(lines, 37));  // a piece
        QVERIFY(!hasHorizontal(lines, 49));
    }
    void svgPagesAreFilesOfTheirOwn() {
        CutJob job;
        job.pieces = {{"plate", 60, 60, 1, 2, true}};
        job.sheets = {{"sheet", 100, 90, 1, {}, false}};
        const auto pages = cutPages(job, planCuts(job), "Plates");
        const QStringList written = writeCutSvg(pages, folder_.filePath("plates.svg"));
        QCOMPARE(written.size(), 2);
        for (const QString& one : written) QVERIFY(QFile::exists(one));
    }
};

IBUKI_TEST(TestShelfItems)
#include "tst_shelf_items.moc"
