// SPDX-License-Identifier: GPL-3.0-or-later
// The heat path through the real widgets, on the demo project and on a new one: shares on the strip, two
// mounts beside each other, sliders, joints and their anchor, the field with a bare corner, every page as a
// file.

#include "app/forms/ask.h"
#include "app/forms/rehearsal_panel.h"
#include "app/frame/strip.h"
#include "app/heat/field_page.h"
#include "app/heat/heat_view.h"
#include "core/domain/lookup.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QListWidget>
#include <QSlider>
#include <QTableWidget>
#include <QTemporaryDir>

using namespace ibuki;

class TestHeatStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    bool isDemo() const { return where_ == story::Where::demo; }
    Session& session() { return window_->session(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    Strip* strip() { return window_->findChild<Strip*>(); }
    QString reported(const char* name) {
        auto* label = window_->findChild<QLabel*>(name);
        return label ? label->text() : QString();
    }
    bool openPage(const char* name) { return story::press(*window_, QString("Page ") + name); }
    std::vector<const Mount*> mounts() {
        return mountsOf(session().document(), *session().selection().bench);
    }
    QString difference(int row) {
        auto* table = window_->findChild<QTableWidget*>("Differences of R″");
        return table && row < table->rowCount() ? table->item(row, 1)->text() : QString();
    }

public:
    explicit TestHeatStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "heat-story", folder_.filePath("heat.ibuki"));
        QVERIFY(window_);
        if (!isDemo()) {
            window_->showStage(Stage::heatPath);
            QVERIFY(reported("Heat path empty").contains("no mount")); // what is missing is said
            QVERIFY(!strip()->model().sharesKnown());
            QVERIFY(story::beginStudy(*window_, "rank materials", "Three pastes",
                                      {"Tern 11", "Plover 4", "Dunlin C"}));
            QVERIFY(story::bringIn(*window_, story::nineLogFiles(folder_.path())));
        }
        window_->showStage(Stage::heatPath);
    }
    void cleanupTestCase() { window_.reset(); }

    void theStripShowsShares() {
        Selection none = session().selection();
        none.mount.reset();
        session().select(none);
        QTRY_VERIFY(strip()->model().sharesKnown());
        QVERIFY(strip()->model().caption.contains("mean of"));
        session().selectMount(mounts().front()->id);
        QTRY_COMPARE(strip()->model().caption, QString::fromStdString(mounts().front()->name));
        QVERIFY(strip()->model().sharesKnown());
        double sum = 0;
        for (const StripBlock& block : strip()->model().blocks) sum += *block.deltaK;
        QVERIFY(std::abs(sum - (*strip()->model().chipC - *strip()->model().ambientC)) < 0.1);
    }
    void twoMountsBesideEachOther() {
        session().selectMount(mounts()[0]->id);
        QVERIFY(story::trigger(*window_, "Hold this mount beside the next"));
        session().selectMount(mounts()[1]->id);
        QTRY_COMPARE(strip()->model().beside.size(), std::size_t{1});
        QCOMPARE(strip()->model().beside.front().caption, QString::fromStdString(mounts()[0]->name));
        QVERIFY(story::trigger(*window_, "Hold this mount beside the next")); // again: let go
        QTRY_VERIFY(strip()->model().beside.empty());
    }
    void slidersAreFollowedAndPutBack() {
        QVERIFY(openPage("Stack"));
        const QString before = reported("What if told");
        QVERIFY2(before.contains("K over room") && !before.contains("as measured"), qPrintable(before));
        auto* power = find<QSlider>("Power");
        QVERIFY(power);
        power->setFocus();
        QTest::keyClick(power, Qt::Key_End);
        QTRY_VERIFY(reported("What if told").contains("as measured"));
        QVERIFY(reported("What if told").contains("more"));
        QVERIFY(story::press(*window_, "As measured"));
        QTRY_COMPARE(reported("What if told"), before);
        auto* answers = find<QListWidget>("Answers to ready questions");
        QVERIFY(answers && answers->count() >= 3);
        QVERIFY(answers->item(0)->text().startsWith("Lid off"));
    }
    void whatIsTurnedOverStandsOnTheStrip() {
        QTest::qWait(50); // the view follows the selection of the test before
        QVERIFY(openPage("Stack"));
        QVERIFY(strip()->model().beside.empty());
        const double measured = strip()->model().totalK();
        const int height = strip()->height();
        auto* power = find<QSlider>("Power");
        power->setValue(power->maximum());
        QTRY_COMPARE(strip()->model().beside.size(), std::size_t{1});
        QVERIFY(strip()->model().beside.front().totalK() > 1.5 * measured);
        QCOMPARE(strip()->height(), height); // nothing moves under the hand
        auto* off = find<QCheckBox>("Lid off");
        if (off->isEnabled()) {
            off->setChecked(true);
            const auto& blocks = strip()->model().beside.front().blocks;
            QVERIFY(std::any_of(blocks.begin(), blocks.end(), [](const StripBlock& block) {
                return block.kind == LayerKind::lid && block.deltaK == 0.0;
            }));
        }
        window_->showStage(Stage::verdict);
        QTRY_VERIFY(strip()->model().beside.empty());
        window_->showStage(Stage::heatPath);
        QTRY_COMPARE(strip()->model().beside.size(), std::size_t{1});
        QVERIFY(story::press(*window_, "As measured"));
        QTRY_VERIFY(strip()->model().beside.empty());
    }
    void torqueIsTurnedOverWhereAJointGivesWay() {
        QVERIFY(openPage("Stack"));
        auto* torque = find<QSlider>("Torque");
        QVERIFY(torque && torque->isEnabled()); // a mount of a paste is selected
        const QString before = reported("What if told");
        torque->setValue(torque->maximum());
        QTRY_VERIFY(reported("What if told").contains("less"));
        QVERIFY(story::press(*window_, "As measured"));
        QTRY_COMPARE(reported("What if told"), before);
        auto* answers = find<QListWidget>("Answers to ready questions");
        for (const char* knob : {"Leakage", "Cooler"}) find<QSlider>(knob)->setValue(1'000);
        QTRY_VERIFY(reported("What if told").startsWith("Runaway"));
        QTRY_COMPARE(answers->count(), 0); // nothing of it is steady, and nothing is told of it
        QVERIFY(strip()->model().beside.empty());
        QVERIFY(story::press(*window_, "As measured"));
        QStringList all;
        for (int i = 0; i < answers->count(); ++i) all << answers->item(i)->text();
        QVERIFY2(all.join("\n").contains("Which pad thickness?"), qPrintable(all.join("\n")));
        QVERIFY2(all.join("\n").contains("to be told apart"), qPrintable(all.join("\n")));
    }
    void burstsHaveAHeadStart() {
        QVERIFY(openPage("Bursts"));
        const QRegularExpression peaks("first burst peaks at ([0-9.]+) K, the last at ([0-9.]+) K");
        const auto peak = [&](int which) {
            return peaks.match(reported("Bursts told")).captured(which).toDouble();
        };
        QTRY_VERIFY2(peaks.match(reported("Bursts told")).hasMatch(), qPrintable(reported("Bursts told")));
        const double air = peak(2);
        QVERIFY(peak(1) > 0 && peak(1) <= air);
        auto* cooler = find<QComboBox>("What the cooler stores");
        cooler->setCurrentIndex(2);
        QTRY_VERIFY(peak(2) < air); // a large loop
    }
    void loadStepsAreReadAtADeclaredTime() {
        QVERIFY(openPage("Load steps"));
        QTRY_VERIFY_WITH_TIMEOUT(reported("Load steps told").contains("Sampled every"), 20'000);
        auto* pairs = find<QTableWidget>("Pairs of materials at that time");
        QVERIFY(pairs);
        QVERIFY(reported("Load steps told").contains("No time was declared"));
        QVERIFY(reported("Load steps told").contains("seen as one")); // a reading a second shows no layers
        QVERIFY(pairs->rowCount() >= 3);
        auto* at = find<QDoubleSpinBox>("Read at");
        const double typical = at->value(); // five readings, at least 5 s
        QVERIFY(typical >= 5 && typical <= 10);
        QVERIFY(story::press(*window_, "Declare"));
        QTRY_COMPARE(session().question()->stepReadS, std::optional(typical));
        QTRY_VERIFY(!reported("Load steps told").contains("No time was declared"));
        const QString first = pairs->item(0, 1)->text();
        at->setValue(20);
        QTRY_VERIFY(reported("Load steps told").contains(QString("Declared is %1 s").arg(typical)));
        QVERIFY(pairs->item(0, 1)->text() != first);
        auto* shown = find<QComboBox>("What is drawn");
        const Id<Mount> chosen = *session().selection().mount;
        session().selectMount(mounts().back()->id);
        shown->setCurrentIndex(1); // refused with a reason
        QTRY_VERIFY2(reported("Layers told").contains("made up")
                         || reported("Layers told").contains("none of those"),
                     qPrintable(reported("Layers told")));
        shown->setCurrentIndex(0);
        session().selectMount(chosen);
        session().undoStack().undo();
        QTRY_VERIFY(!session().question()->stepReadS);
    }
    void aResultReadElsewhereIsAccountedFor() {
        QVERIFY(openPage("Elsewhere"));
        QVERIFY(reported("Account told").contains(isDemo() ? "they read 2.0 K" : "Somebody else"));
        if (isDemo()) QVERIFY(story::press(*window_, "Remove"));
        QTRY_VERIFY(reported("Account told").contains("Somebody else"));
        QVERIFY(story::press(*window_, "Add a result"));
        QTRY_COMPARE(session().document().all<ExternalResult>().size(), std::size_t{1});
        QTRY_VERIFY2(reported("Account told").startsWith("Here "), qPrintable(reported("Account told")));
        const auto type = [&](const char* name, const char* value) {
            auto* field = find<QLineEdit>(name);
            field->setFocus();
            field->setText(value);
            QTest::keyClick(field, Qt::Key_Return);
        };
        type("The first ran hotter by, K", "25");
        QTRY_VERIFY2(reported("Account told").contains("are left"), qPrintable(reported("Account told")));
        type("Power there, W", "-3"); // refused, and the value stays
        const auto read = [&] { return session().document().all<ExternalResult>().begin()->second; };
        QCOMPARE(read().power.value, 150.0);
        type("Power there, W", "60");
        QTRY_COMPARE(read().power.value, 60.0);
        QVERIFY(story::press(*window_, "Remove"));
        QTRY_VERIFY(session().document().all<ExternalResult>().empty());
        session().undoStack().undo();
        QTRY_COMPARE(session().document().all<ExternalResult>().size(), std::size_t{1});
    }
    void differencesStayWhateverTheAnchor() {
        QTest::qWait(50); // the view follows the selection of the test before
        QVERIFY(openPage("Joints"));
        auto* anchor = find<QComboBox>("Anchored on");
        QVERIFY(anchor && anchor->count() >= 3);
        const QString first = difference(0);
        const QString cooler = reported("Calibration told"), path = reported("What if told");
        const int other = anchor->currentIndex() == 0 ? 1 : 0;
        anchor->setCurrentIndex(other);
        emit anchor->activated(other);
        QTRY_VERIFY(reported("Calibration told") != cooler);
        QCOMPARE(reported("What if told"), path); // what was measured stays, whatever it is anchored on
        const auto number = [](QString text) {
            return text.remove("✓ ").replace(QChar(0x2212), '-').toDouble();
        };
        QVERIFY2(std::abs(number(difference(0)) - number(first)) <= 0.03 * std::abs(number(first)) + 0.11,
                 qPrintable(first + " " + difference(0)));
    }
    void intervalsAreDrawnToo() {
        QVERIFY(openPage("Joints"));
        QTRY_VERIFY_WITH_TIMEOUT(reported("Draws told").contains("draws (JCGM 101)"), 60'000);
        auto* differences = find<QTableWidget>("Differences of R″");
        QVERIFY(differences->item(0, 3)->text().contains(" to "));
    }
    void aBareCornerCostsKelvins() {
        QVERIFY(openPage("Field"));
        auto* bare = find<QComboBox>("Where the joint is bare");
        QVERIFY(bare);
        bare->setCurrentIndex(static_cast<int>(BareWhere::corner));
        auto* page = window_->findChild<FieldPage*>();
        QTRY_VERIFY_WITH_TIMEOUT(page->isFine(), 60'000);
        const QRegularExpression cost("costs the chip ([0-9.]+) K in the mean and ([0-9.]+) K");
        const auto found = cost.match(reported("Field told"));
        QVERIFY2(found.hasMatch(), qPrintable(reported("Field told")));
        QVERIFY(found.captured(1).toDouble() > 0.1);
        QVERIFY(found.captured(2).toDouble() >= found.captured(1).toDouble());
        bare->setCurrentIndex(static_cast<int>(BareWhere::byCross)); // as a pattern spreads
        QTRY_VERIFY_WITH_TIMEOUT(page->isFine(), 60'000);
        QVERIFY(reported("Field told").contains("% of the joint is covered"));
        const double even = page->hottestC();
        find<QComboBox>("Where the heat is made")->setCurrentIndex(1);
        QTRY_VERIFY_WITH_TIMEOUT(page->isFine() && page->hottestC() > even + 1, 60'000);
        find<QComboBox>("Where the heat is made")->setCurrentIndex(0);
    }
    void theStudyIsRehearsed() {
        QVERIFY(openPage("Rehearsal"));
        RehearsalPanel* panel = nullptr;
        for (RehearsalPanel* one : window_->findChildren<RehearsalPanel*>())
            if (one->isVisible()) panel = one;
        QVERIFY(panel);
        const QRegularExpression shares(
            "right one in ([0-9]+) of 100 campaigns, a wrong one in ([0-9]+), and say nothing in ([0-9]+)");
        const auto read = [&] {
            auto* label = panel->findChild<QLabel*>("Rehearsal told");
            return shares.match(label->text());
        };
        QTRY_VERIFY_WITH_TIMEOUT(read().hasMatch() && !panel->isWorking(), 30'000);
        const auto before = read();
        const int sum = before.captured(1).toInt() + before.captured(2).toInt() + before.captured(3).toInt();
        QVERIFY(sum >= 99 && sum <= 101);
        auto* difference = panel->findChild<QSlider*>("True difference");
        difference->setValue(difference->maximum()); // 5 K: nobody misses that
        QTRY_VERIFY_WITH_TIMEOUT(read().captured(1).toInt() >= 95, 30'000);
        QVERIFY(panel->csv().find("limit,") != std::string::npos);
    }
    void everyPageIsAFile() {
        for (const char* page :
             {"Stack", "Bursts", "Joints", "Load steps", "Elsewhere", "Field", "Rehearsal"})
            for (const char* ending : {"csv", "svg", "png"}) {
                const QString path = folder_.filePath(QString("%1.%2").arg(page, ending));
                QVERIFY(openPage(page));
                answerFiles([path](const FileWish&) { return QStringList{path}; });
                QVERIFY(story::press(*window_, "Export…"));
                answerFiles({});
                QVERIFY2(QFileInfo(path).size() > 100, qPrintable(path));
            }
    }
};

IBUKI_STORY_ON_BOTH(TestHeatStory)
#include "tst_heat_story.moc"
