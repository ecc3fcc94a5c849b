// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/utf8.h"
#include "core/domain/mount.h"
#include "core/shelf/shelf.h"
#include "store/shelf/shelf_file.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <nlohmann/json.hpp>

using namespace ibuki;

class TestShelfFile : public QObject {
    Q_OBJECT

    static Document stocked() {
        Document document;
        Edit edit(document, "stock");
        Material film = story::materialNamed("Driftwood 52, \"blue\""); // what a careless writer would break
        film.kind = MaterialClass::phaseChange;
        film.thickness = Millimetre{0.2};
        film.melts = Celsius{52};
        film.containsGallium = YesNo::no;
        film.conditioningCycles = 3;
        film.note = "line one\nline two";
        film.id = edit.add(film);
        Lot lot = story::lotOf(film.id, "sheet 1");
        lot.supplier = "harbour chandler";
        lot.opened = *makeInstant(2031, 3, 4);
        lot.condition = LotCondition::even;
        lot.content = 4800;
        lot.remaining = 1330.5;
        lot.contentUnit = ContentUnit::squareMillimetre;
        lot.price = 21;
        lot.currency = "NOK";
        edit.add(lot);
        edit.add(story::materialNamed("Tern 11")); // without a lot
        apply(document, edit.finish());
        return document;
    }

    static InputError refusal(const std::string& bytes, Document document = {}) {
        Edit edit(document, "import");
        try {
            importShelf(edit, bytes, "shelf.csv");
        } catch (const InputError& error) {
            return error;
        }
        return InputError("accepted", {});
    }

private slots:
    void bothFormatsComeBackWhole() {
        const Document document = stocked();
        for (const std::string& text : {shelfCsv(document), shelfJson(document)}) {
            Document fresh;
            Edit edit(fresh, "import");
            const ShelfImport result = importShelf(edit, text, "shelf");
            QCOMPARE(result.newMaterials, 2);
            QCOMPARE(result.newLots, 1);
            apply(fresh, edit.finish());
            QCOMPARE(shelfCsv(fresh), shelfCsv(document));
            QCOMPARE(fresh.all<Lot>().begin()->second.opened, makeInstant(2031, 3, 4));
            QCOMPARE(fresh.all<Material>().begin()->second.note, std::string("line one\nline two"));
        }
    }
    void importingTheSameAgainChangesNothing() {
        const Document document = stocked();
        Edit edit(document, "import");
        const ShelfImport result = importShelf(edit, shelfCsv(document), "shelf.csv");
        QCOMPARE(result.newMaterials + result.newLots + result.changed, 0);
        QVERIFY(edit.finish().empty());
    }
    void whatIsMissingInTheFileStays() {
        Document document = stocked();
        Edit edit(document, "import");
        const ShelfImport result = importShelf(
            edit, "material;lot;price;currency\n\"Driftwood 52, \"\"blue\"\"\";sheet 1;25,5;NOK\n",
            "shelf.csv");
        QCOMPARE(result.changed, 1);
        apply(document, edit.finish());
        const Lot& lot = document.all<Lot>().begin()->second;
        QCOMPARE(*lot.price, 25.5);
        QCOMPARE(lot.supplier, std::string("harbour chandler"));
    }
    void aStatedRestCountsFromTheImport() {
        Document document = stocked();
        Edit mounted(document, "mount");
        Application application;
        application.lot = document.all<Lot>().begin()->first;
        application.area = SquareMillimetre{300};
        mounted.add(application);
        apply(document, mounted.finish());
        Edit edit(document, "import");
        importShelf(edit, "material,lot,remaining\n\"Driftwood 52, \"\"blue\"\"\",sheet 1,900\n",
                    "shelf.csv");
        apply(document, edit.finish());
        QCOMPARE(*lotState(document, document.all<Lot>().begin()->second, {}).left, 900.0);
    }
    void badFilesAreNamedByRowAndColumn_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("code");
        QTest::addColumn<int>("line");
        QTest::addColumn<int>("column");
        const auto row = [](const char* name, const char* text, const char* code, int line, int column) {
            QTest::newRow(name) << text << code << line << column;
        };
        row("wrong column", "material,colour\nTern 11,grey\n", "shelf-column", 1, 2);
        row("a date that cannot be", "material,lot,opened\nTern 11,a,2031-02-03\nTern 11,b,2031-02-30\n",
            "shelf-cell", 3, 3);
        row("negative thickness", "material,thickness_mm\nTern 11,-1\n", "shelf-value", 2, 1);
        row("negative stiffness", "material,modulus_MPa\nBasalt,-0.5\n", "shelf-value", 2, 1);
        row("no years at all", "material,reapply_years\nBasalt,0\n", "shelf-value", 2, 1);
        row("less than no cycle", "material,conditioning_cycles\nBasalt,-1\n", "shelf-value", 2, 1);
        row("a number that is none", "material,density_g_per_ml\nTern 11,heavy\n", "shelf-cell", 2, 2);
        row("a number without end", "material,density_g_per_ml\nTern 11,inf\n", "shelf-cell", 2, 2);
        row("half a cycle", "material,conditioning_cycles\nTern 11,2.5\n", "shelf-cell", 2, 2);
        row("more cycles than memory", "material,conditioning_cycles\nTern 11,2147483647\n", "shelf-cell", 2,
            2);
        row("more cycles than a number holds", "material,conditioning_cycles\nTern 11,99999999999\n",
            "shelf-cell", 2, 2);
        row("a price of the universe", "material,lot,price,currency\nTern 11,a,1e300,NOK\n", "shelf-cell", 2,
            3);
        row("a class that is none", "material,class\nTern 11,glue\n", "shelf-cell", 2, 2);
        row("price without currency", "material,lot,price\nTern 11,a,3\n", "price-currency", 2, 2);
        row("no name", "material,class\n,paste\n", "shelf-name", 2, 1);
    }
    void badFilesAreNamedByRowAndColumn() {
        QFETCH(QString, text);
        QFETCH(QString, code);
        QFETCH(int, line);
        QFETCH(int, column);
        const InputError error = refusal(text.toStdString());
        QCOMPARE(QString::fromStdString(error.code), code);
        QCOMPARE(error.where.file, std::string("shelf.csv"));
        QCOMPARE(error.where.line.value_or(0), static_cast<long>(line));
        QCOMPARE(error.where.column.value_or(0), static_cast<long>(column));
        QVERIFY(!words::mend(error.message).empty());
    }
    void badTextAndFormulasComeBackAsText() {
        Document document;
        Edit edit(document, "in");
        importShelf(edit, "material,material_note\nTern \xc0\xaf,=1+1\n\"'=cmd\",-2\n", "shelf.csv");
        apply(document, edit.finish());
        const std::string out = shelfCsv(document);
        QVERIFY(isUtf8(out));
        QVERIFY(out.find(",=1") == std::string::npos);
        QVERIFY(nlohmann::json::accept(shelfJson(document)));
        Document again;
        Edit back(again, "back");
        importShelf(back, out, "shelf.csv");
        apply(again, back.finish());
        std::vector<std::string> names;
        for (const auto& [id, material] : again.all<Material>())
            names.push_back(material.name + "|" + material.note);
        std::vector<std::string> before;
        for (const auto& [id, material] : document.all<Material>())
            before.push_back(material.name + "|" + material.note);
        QCOMPARE(names, before);
    }
    void badJsonIsNamedByPlace() {
        QCOMPARE(refusal("{\"schema\": \"other\"}").code, std::string("shelf-column"));
        QCOMPARE(refusal("{ broken").code, std::string("shelf-column"));
        const InputError error = refusal(
            R"({"schema": "ibuki-shelf-1", "materials": [{"material": "Tern 11", "lots": [{"lot": "a", "opened": "soon"}]}]})");
        QCOMPARE(error.code, std::string("shelf-cell"));
        QVERIFY(error.where.file.find("material 1, lot 1, opened") != std::string::npos);
        for (const char* odd : {R"({"schema": "ibuki-shelf-1", "materials": [3]})",
                                R"({"schema": "ibuki-shelf-1", "materials": [{"material": "a", "lots": 7}]})",
                                R"({"schema": 5, "materials": []})"})
            QVERIFY2(refusal(odd).code != "accepted", odd);
    }
};

IBUKI_TEST(TestShelfFile)
#include "tst_shelf_file.moc"
