// SPDX-License-Identifier: GPL-3.0-or-later
// Planning from nothing, through the real widgets: a new project, a bench, two materials on two coolers, a
// rig for the second cooler, the order on the tape, two logs brought in, what comes next.

#include "app/frame/tape.h"
#include "app/question/evening_board.h"
#include "app/question/level_sheet.h"
#include "app/question/question_view.h"
#include "core/design/design.h"
#include "core/setup/plan_setup.h"
#include "support/story_window.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QCheckBox>
#include <QListWidget>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>

using namespace ibuki;

class TestFreshPlan : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    QString live() {
        auto* label = find<QLabel>("Live figures");
        return label ? label->text() : QString();
    }
    std::vector<const Slot*> planned() { return plannedSlots(document(), session().study()->id); }
    const Level* levelNamed(const std::string& name) {
        for (const auto& [id, level] : document().all<Level>())
            if (level.name == name) return &level;
        return nullptr;
    }
    /// Opens the level's sheet from the list.
    LevelSheet* openLevel(const QString& text) {
        auto* list = find<QListWidget>("Levels compared");
        for (int row = 0; list && row < list->count(); ++row)
            if (list->item(row)->text().contains(text)) list->setCurrentRow(row);
        return story::press(*window_, "Level…") ? story::sheet<LevelSheet>() : nullptr;
    }

private slots:
    void initTestCase() {
        window_ = story::freshWindow("fresh-plan", folder_.filePath("fresh.ibuki"));
        QVERIFY(window_);
    }
    void cleanupTestCase() { window_.reset(); }

    void aStudyIsBegun() {
        QVERIFY(story::beginStudy(*window_, "material by cooler", "Two pastes, two coolers",
                                  {"Tern 11", "Plover 4"}));
        QCOMPARE(session().question()->secondFactor, std::optional(Factor::cooler));
        QTRY_VERIFY(live().contains("% to see"));
    }
    void aLevelGetsARigOfItsOwn() {
        LevelSheet* sheet = openLevel("other cooler");
        QVERIFY(sheet);
        QVERIFY(story::press(*sheet, "Open the rig…"));
        QVERIFY(story::notice(*window_).contains("the bench as it is"));
        QVERIFY(story::press(*sheet, "Make a rig…"));
        auto* rig = story::sheet<RigSheet>();
        QVERIFY(rig);
        auto* cooler = rig->findChild<QLineEdit*>("Cooler");
        story::type(cooler, "Gannet tall");
        QTest::keyClick(cooler, Qt::Key_Tab);
        const Level* other = levelNamed("other cooler");
        QTRY_VERIFY(other->configuration.has_value());
        QTRY_COMPARE(document().find(*other->configuration)->cooler, std::string("Gannet tall"));
        QVERIFY(document().find(*other->configuration)->variantOf.has_value());
        QVERIFY(!session().configuration()->variantOf); // the bench stays as it is
        rig->close();
        sheet->close();
    }
    void theSliderDecidesTheNumber() {
        auto* slider = find<QSlider>("Mounts of each level");
        slider->setFocus();
        while (slider->value() != 2)
            QTest::keyClick(slider, slider->value() > 2 ? Qt::Key_Left : Qt::Key_Right);
        QTRY_COMPARE(planOf(document(), session().study()->id)->mountsPerLevel, 2);
        QTRY_VERIFY(live().contains("8 mounts"));
    }
    void aLevelMaySayThatItSharesItsMount() {
        LevelSheet* sheet = openLevel("Tern 11");
        QVERIFY(sheet);
        auto* together = sheet->findChild<QCheckBox*>("Changed without re-mounting");
        QVERIFY(together);
        // A sheet of its own size may keep the box below its edge: the key reaches it all the same.
        together->setFocus();
        QTest::keyClick(together, Qt::Key_Space);
        QVERIFY(levelNamed("Tern 11")->withoutRemount);
        session().undoStack().undo();
        QVERIFY(!levelNamed("Tern 11")->withoutRemount);
        QTRY_VERIFY(!together->isChecked());
        sheet->close();
    }
    void theOrderStandsOnTheTape() {
        window_->questionView().showPage(QuestionView::Page::board);
        QTRY_COMPARE(find<EveningBoard>("Board")->lines().bars.size(), std::size_t{8});
        QVERIFY(story::press(*window_, "Put on the tape"));
        QTRY_COMPARE(planned().size(), std::size_t{8});
        for (const Slot* slot : planned()) QVERIFY(slot->level && slot->second && slot->plannedFor);
    }
    void spaceTellsTheRig() {
        auto* tape = window_->findChild<Tape*>();
        tape->setFocus();
        QTest::keyClick(tape, Qt::Key_Space);
        QTRY_VERIFY(find<QLabel>("Planned title"));
        const Slot* next = planned().front();
        const bool other = document().find(*next->second)->name == "other cooler";
        QTRY_COMPARE(find<QLabel>("Planned hands")->text().contains("Gannet tall"), other);
        QVERIFY(find<QLabel>("Planned title")->text().contains(other ? "other cooler" : "this cooler"));
    }
    void logsTakeTheirPlacesInThePlan() {
        const QString named = folder_.filePath("plover-4_other-cooler.csv");
        const QString nameless = folder_.filePath("evening.csv");
        std::ofstream(named.toStdString()) << logText(story::trace("Plover 4", 1));
        std::ofstream(nameless.toStdString()) << logText(story::trace("Tern 11", 1));
        const Id<Slot> next = planned().front()->id;
        const bool nextIsNamed = document().find(planned().front()->level)->name == "Plover 4"
                                 && document().find(planned().front()->second)->name == "other cooler";
        window_->benchView().bringIn({named, nameless});
        auto* table = story::sheet<ImportDialog>();
        QVERIFY(table);
        QVERIFY(!table->findChild<QTableWidget*>("Logs to bring in")->isColumnHidden(4));
        QCOMPARE(document().find(table->rows()[0].second)->name, std::string("other cooler"));
        QVERIFY(QString::fromStdString(words::text(*table->rows()[1].doubt)).contains("from the plan"));
        QTest::mouseClick(table->findChild<QPushButton*>("accept"), Qt::LeftButton);
        QTRY_COMPARE(document().all<Mount>().size(), std::size_t{2});
        QCOMPARE(planned().size(), std::size_t{6});
        if (!nextIsNamed) QVERIFY(document().find(next)->mount.has_value());
        int tall = 0;
        for (const auto& [id, mount] : document().all<Mount>())
            tall += document().find(mount.configuration)->variantOf ? 1 : 0;
        QVERIFY(tall >= 1);
        QTRY_VERIFY(find<QLabel>("Planned title") == nullptr); // the mount itself is shown now
    }
    void everythingIsUndone() {
        while (session().undoStack().canUndo()) {
            const QString what = session().undoStack().undoText();
            session().undoStack().undo();
            QVERIFY2(story::notice(*window_).isEmpty(), qPrintable(what + ": " + story::notice(*window_)));
        }
        QVERIFY(document().all<Study>().empty());
        QVERIFY(document().all<Configuration>().empty());
    }
};

IBUKI_TEST(TestFreshPlan)
#include "tst_fresh_plan.moc"
