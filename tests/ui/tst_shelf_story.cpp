// SPDX-License-Identifier: GPL-3.0-or-later
// Shelf through the real widgets: a material and a lot, a dose, a cut that is saved and kept, pads and gaps,
// a stop that is met and seen, an application with two weighings; and all of it undone.

#include "app/forms/caution_panel.h"
#include "app/forms/entity_form.h"
#include "app/frame/main_window.h"
#include "app/run/application_sheet.h"
#include "app/shelf/cut_page.h"
#include "app/shelf/lot_panel.h"
#include "app/shelf/shelf_board.h"
#include "app/shelf/shelf_page.h"
#include "app/shelf/shelf_view.h"
#include "core/domain/lookup.h"
#include "core/shelf/shelf.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QComboBox>
#include <QListWidget>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QtTest>

using namespace ibuki;

class TestShelfStory : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    template <class W> W* named(const QString& name) { return story::visible<W>(*window_, name); }
    void press(const QString& name) {
        // Views follow a change once its event is over: the button may still be on its way.
        QTRY_VERIFY2(named<QPushButton>(name) && named<QPushButton>(name)->isEnabled(), qPrintable(name));
        QTest::mouseClick(named<QPushButton>(name), Qt::LeftButton);
        QTest::qWait(30); // views follow once the event is over
    }
    void type(const QString& field, const QString& text) {
        QTRY_VERIFY2(named<QLineEdit>(field), qPrintable(field));
        auto* line = named<QLineEdit>(field);
        line->setText(text);
        emit line->editingFinished();
        QTest::qWait(30);
    }
    void choose(const QString& box, const QString& item) {
        QTRY_VERIFY2(named<QComboBox>(box), qPrintable(box));
        auto* combo = named<QComboBox>(box);
        const int index = combo->findText(item);
        QVERIFY2(index >= 0, qPrintable(item));
        combo->setCurrentIndex(index);
        emit combo->activated(index);
        QTest::qWait(30);
    }
    QString reported(const QString& label) {
        return named<QLabel>(label) ? named<QLabel>(label)->text() : QString();
    }
    QString notice() { return story::notice(*window_); }
    template <class E> const E* byName(const std::string& name) {
        const auto found = document().where(&E::name, name);
        return found.empty() ? nullptr : found.front();
    }
    void select(const std::string& material, const std::string& bench) {
        Selection selection = session().selection();
        const Bench* wanted = byName<Bench>(bench);
        if (selection.bench != wanted->id) {
            selection.study.reset();
            selection.mount.reset();
        }
        selection.bench = wanted->id;
        selection.material = byName<Material>(material)->id;
        selection.lot.reset();
        selection.site.reset();
        session().select(selection);
        QTest::qWait(30);
    }
    void openPage(ShelfView::Page page) {
        window_->showStage(Stage::shelf);
        window_->shelfView().showPage(page);
        QTest::qWait(30);
    }
    void undoTo(int count) {
        while (session().undoStack().index() > count) session().undoStack().undo();
        QTest::qWait(30);
    }

private slots:
    void initTestCase() {
        window_ = story::demoWindow("shelf", folder_.filePath("demo.ibuki"));
        QVERIFY(window_);
    }
    void cleanupTestCase() { window_.reset(); }

    void aMaterialAndALotAreAddedAndUndone() {
        openPage(ShelfView::Page::shelf);
        const auto before = document().all<Material>().size();
        const int undo = session().undoStack().index();
        press("Add material to the shelf");
        type("Material", "Sanderling 3");
        choose("Class", "putty");
        choose("Contains gallium", "no");
        type("Density, g/mL", "-3");
        QVERIFY(notice().contains("above 0"));
        type("Density, g/mL", "3,1");
        QCOMPARE(notice(), QString());
        press("Add lot");
        type("Lot", "Sanderling 3, tub");
        type("Bought", "yesterday");
        QVERIFY(notice().contains("no date"));
        type("Bought", "2031-02-28");
        type("Content", "50");
        type("Currency", "");
        type("Price", "12");
        QVERIFY(notice().contains("currency"));
        QVERIFY(!byName<Lot>("Sanderling 3, tub")->price);
        type("Currency", "NOK");
        type("Price", "12");
        const Lot* lot = byName<Lot>("Sanderling 3, tub");
        QCOMPARE(*lot->price, 12.0);
        QCOMPARE(byName<Material>("Sanderling 3")->densityGPerMl, std::optional(3.1));
        QCOMPARE(document().find(lot->material)->kind, MaterialClass::putty);
        undoTo(undo);
        QCOMPARE(document().all<Material>().size(), before);
        QVERIFY(!byName<Lot>("Sanderling 3, tub"));
    }
    void aLotThatMountsTookFromStays() {
        openPage(ShelfView::Page::shelf);
        select("Tern 11", "node-2");
        press("Remove");
        QVERIFY(notice().contains("stays"));
        QVERIFY(byName<Lot>("Tern 11, tube A"));
    }
    void findingByWordClassAndKeyboard() {
        openPage(ShelfView::Page::shelf);
        auto* board = named<ShelfBoard>("Lots on the shelf");
        const auto all = board->items().size();
        named<QLineEdit>("Find on the shelf")->setText("harbour");
        QVERIFY(board->items().size() < all && !board->items().empty());
        named<QLineEdit>("Find on the shelf")->clear();
        choose("Class shown", "paste");
        for (const ShelfItem& item : board->items()) QCOMPARE(item.kind, MaterialClass::paste);
        choose("Class shown", "every class");
        choose("Order", "least left first");
        QVERIFY(*board->items()[0].share <= *board->items()[1].share);
        choose("Order", "by name");
        board->setFocus();
        QTest::keyClick(board, Qt::Key_Home);
        QTest::keyClick(board, Qt::Key_Right);
        QTest::keyClick(board, Qt::Key_Return);
        QCOMPARE(session().selection().material, std::optional(board->items()[1].material));
        QTest::keyClick(board, Qt::Key_Down);
        QTest::keyClick(board, Qt::Key_Space); // beside the chosen one
        bool two = false;
        for (QLabel* label : window_->findChildren<QLabel*>())
            two = two || label->text() == "Beside each other";
        QVERIFY(two);
        QTest::keyClick(board, Qt::Key_Space); // and away again
    }
    void aPatternIsDosed() {
        select("Tern 11", "node-2");
        openPage(ShelfView::Page::dose);
        auto* mass = named<QLabel>("Mass to put on");
        QCOMPARE(mass->text(), QString("0.16 g")); // 34 × 34 mm × 35 µm × 1.5 × 2.7 g/mL = 0.164 g
        auto* amount = named<QSlider>("Amount");
        const int typical = amount->value();
        amount->setValue(typical / 3);
        const double grams =
            3.0 * 34 * 34 * 0.035 * (typical / 3) / 1000 * 2.7e-3; // full right: three times the face
        QCOMPARE(mass->text(), QString::number(grams, 'f', 3) + " g");
        QVERIFY(named<QLabel>("Coverage")->text().startsWith("covers 4")
                || named<QLabel>("Coverage")->text().startsWith("covers 5"));
        press("Fill with cross");
        QCOMPARE(named<QComboBox>("Pattern")->currentText(), QString("cross"));
        QVERIFY(named<QLabel>("Coverage")->text().startsWith("covers 100.0 %")
                || named<QLabel>("Coverage")->text().startsWith("covers 99.9 %"));
        press("thick paste");
        QVERIFY(amount->isEnabled());
        auto* width = named<QLineEdit>("Face width, mm");
        width->setText("-2");
        emit width->textEdited("-2");
        QCOMPARE(mass->text(), QString("–"));
        press("As stated");
        QVERIFY(mass->text().endsWith(" g"));
    }
    void padsAreCutSavedAndKept() {
        select("Basalt 2.0", "render-1");
        openPage(ShelfView::Page::cut);
        CutPage& page = window_->shelfView().cutPage();
        press("From the shelf");
        press("From the bench");
        auto* pieces = named<QTableWidget>("Pieces");
        QCOMPARE(pieces->rowCount(), 2);
        QCOMPARE(pieces->item(0, 4)->text(), QString("8"));
        QTRY_VERIFY(!page.isWorking() && page.plan());
        QVERIFY(page.plan()->missing.empty());
        for (const char* name : {"pads.svg", "pads.pdf"}) {
            QVERIFY(page.saveDrawing(folder_.filePath(name)));
            QVERIFY(QFileInfo(folder_.filePath(name)).size() > 500);
        }
        QVERIFY(!page.saveDrawing("/nowhere/pads.pdf"));
        QVERIFY(notice().contains("/nowhere/pads.pdf"));
        pieces->item(0, 1)->setText("wide");
        QTRY_VERIFY(!page.isWorking());
        QVERIFY(!page.plan());
        QVERIFY(!named<QPushButton>("It is cut")->isEnabled());
        pieces->item(0, 1)->setText("14");
        QTRY_VERIFY(!page.isWorking() && page.plan());
        const Id<Lot> lot = byName<Lot>("Basalt 2.0, sheets")->id;
        const double before = *lotState(document(), *document().find(lot), session().now()).left;
        const int undo = session().undoStack().index();
        press("It is cut");
        QVERIFY(*lotState(document(), *document().find(lot), session().now()).left < before);
        QCOMPARE(session().undoStack().index(), undo + 1);
        undoTo(undo);
        QCOMPARE(*lotState(document(), *document().find(lot), session().now()).left, before);
    }
    void gapsAreTriedAndStated() {
        select("Basalt 2.0", "render-1");
        openPage(ShelfView::Page::gap);
        QTRY_VERIFY(reported("Die contact").startsWith("The die touches"));
        choose("Pad tried at memory", "3 mm"); // 47 %: 251 N
        QTRY_VERIFY(reported("Forces and bow").contains("the pads take 296 N"));
        choose("Pad tried at power stage", "3 mm"); // 43 %: 131 N more than the screws have
        QTRY_VERIFY(reported("Die contact").contains("does not touch"));
        const int undo = session().undoStack().index();
        type("Gap at memory", "2,4");
        QTRY_VERIFY(reported("Die contact").startsWith("The die touches"));
        QCOMPARE(session().undoStack().index(), undo + 1);
        undoTo(undo);
    }
    void aStopIsMetSeenAndUndone() {
        select("Quickfin", "node-2");
        const int undo = session().undoStack().index();
        Edit edit(document(), "An aluminium plate");
        Site site = *document().find(session().question()->site);
        site.upperFace = Metal::aluminium;
        edit.put(site);
        QVERIFY(session().perform(edit.finish()));
        window_->showStage(Stage::question);
        QTRY_VERIFY(reported("What holds the plan").contains("Stop: Gallium"));
        openPage(ShelfView::Page::shelf);
        press("Page Cautions");
        press("Read GA-AL");
        QVERIFY(story::answer("").contains("role"));
        QVERIFY(document().all<Acknowledgement>().empty());
        QCOMPARE(story::answer("first technician"), QString());
        QCOMPARE(document().all<Acknowledgement>().size(), std::size_t{1});
        QTRY_VERIFY(named<QPushButton>("Take back GA-AL"));
        window_->showStage(Stage::question); // seen is not lifted
        QTRY_VERIFY(reported("What holds the plan").contains("Stop: Gallium"));
        undoTo(undo);
        QVERIFY(document().all<Acknowledgement>().empty());
        QTRY_VERIFY(!named<QLabel>("What holds the plan"));
    }
    void weighingsGiveTheMassApplied() {
        for (const auto& [id, mount] : document().all<Mount>())
            if (mount.name == "Tern 11 2") session().selectMount(id);
        window_->showStage(Stage::bench);
        const int undo = session().undoStack().index();
        press("Application…");
        ApplicationSheet* sheet = nullptr;
        QTRY_VERIFY((sheet = window_->findChild<ApplicationSheet*>()) && sheet->isVisible());
        const auto set = [&](const QString& name, const QString& text) {
            auto* field = sheet->findChild<QLineEdit*>(name);
            field->setText(text);
            emit field->editingFinished();
        };
        set("Syringe before, g", "12.50");
        set("Syringe after, g", "12.70"); // heavier than before
        QVERIFY(notice().contains("weighs more after"));
        set("Syringe after, g", "12.31");
        set("Spreads, 1 to 5", "6");
        QVERIFY(notice().contains("1 (poor) to 5"));
        const Application* application =
            applicationAt(document(), session().mount()->id, session().question()->site);
        QVERIFY(std::abs(*massAppliedG(*application) - 0.19) < 1e-9);
        sheet->close();
        undoTo(undo);
    }
    void aMountsCautionsAreReadForThatMount() {
        for (const auto& [id, mount] : document().all<Mount>())
            if (mount.name == "Slate 25 2") session().selectMount(id);
        const Mount* mount = session().mount();
        const int undo = session().undoStack().index();
        Edit edit(document(), "Laid again");
        for (const MountApplication* link : document().where(&MountApplication::mount, mount->id)) {
            MountApplication again = *link;
            again.use = ApplicationUse::laidAgain;
            edit.put(again);
        }
        QVERIFY(session().perform(edit.finish()));
        window_->showStage(Stage::bench);
        press("Cautions…");
        CautionSheet* sheet = nullptr;
        QTRY_VERIFY((sheet = window_->findChild<CautionSheet*>()) && sheet->isVisible());
        auto* read = sheet->findChild<QPushButton*>("Read SHEET-AGAIN");
        QVERIFY(read);
        QTest::mouseClick(read, Qt::LeftButton);
        QCOMPARE(story::answer("second technician"), QString());
        QCOMPARE(document().all<Acknowledgement>().size(), std::size_t{1});
        QCOMPARE(document().all<Acknowledgement>().begin()->second.mount,
                 std::optional(session().mount()->id));
        QTRY_VERIFY(sheet->findChild<QPushButton*>("Take back SHEET-AGAIN"));
        sheet->close();
        undoTo(undo);
    }
    void theShelfGoesOutAndComesIn() {
        openPage(ShelfView::Page::shelf);
        ShelfPage& page = window_->shelfView().shelfPage();
        const auto lots = document().all<Lot>().size();
        for (const char* name : {"shelf.csv", "shelf.json"}) {
            QVERIFY(page.exportTo(folder_.filePath(name)));
            QVERIFY(page.importFrom(folder_.filePath(name)));
            QCOMPARE(document().all<Lot>().size(), lots);
        }
        QFile bad(folder_.filePath("bad.csv"));
        QVERIFY(bad.open(QIODevice::WriteOnly));
        bad.write("material,lot,opened\nSanderling 3,a,2031-01-01\nSanderling 3,b,2031-13-01\n");
        bad.close();
        QVERIFY(!page.importFrom(bad.fileName()));
        QVERIFY2(notice().contains("bad.csv, line 3, column 3"), qPrintable(notice()));
        QVERIFY(!byName<Material>("Sanderling 3")); // nothing half-imported
    }
    void aPictureBelongsToALot() {
        openPage(ShelfView::Page::shelf);
        select("Tern 11", "node-2");
        press("Page Lot");
        QImage image(2000, 500, QImage::Format_RGB32);
        image.fill(Qt::darkGray);
        QVERIFY(image.save(folder_.filePath("tube.png")));
        auto* panel = window_->findChild<LotPanel*>();
        const int undo = session().undoStack().index();
        QVERIFY(!panel->setPicture(folder_.filePath("shelf.csv")));
        QVERIFY(notice().contains("no picture"));
        QVERIFY(panel->setPicture(folder_.filePath("tube.png")));
        QCOMPARE(document().all<LotPicture>().size(), std::size_t{1});
        const QImage kept = QImage::fromData(
            QByteArray::fromStdString(session().file(document().all<LotPicture>().begin()->second.sha256)));
        QCOMPARE(kept.width(), 1280);
        press("Remove picture");
        QVERIFY(document().all<LotPicture>().empty());
        undoTo(undo);
    }
    void aFreshProjectStartsWithAnEmptyShelf() {
        QVERIFY(session().createProject(folder_.filePath("fresh.ibuki")));
        for (auto page :
             {ShelfView::Page::shelf, ShelfView::Page::dose, ShelfView::Page::cut, ShelfView::Page::gap})
            openPage(page);
        openPage(ShelfView::Page::shelf);
        press("Add lot");
        QVERIFY(notice().contains("material first"));
        press("Add material to the shelf");
        press("Add lot");
        QCOMPARE(document().all<Lot>().size(), std::size_t{1});
        openPage(ShelfView::Page::dose);
        QCOMPARE(named<QLabel>("Mass to put on")->text(), QString("–"));
        for (const char* field : {"Face width, mm", "Face length, mm"}) {
            auto* line = named<QLineEdit>(field);
            line->setText("30");
            emit line->textEdited("30");
        }
        QVERIFY(named<QLabel>("Mass to put on")->text().endsWith(" g"));
    }
};

IBUKI_TEST(TestShelfStory)
#include "tst_shelf_story.moc"
