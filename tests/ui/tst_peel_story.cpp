// SPDX-License-Identifier: GPL-3.0-or-later
// Peel through the real widgets, on the demo project and on a new one: a photograph comes in without what a
// camera wrote beside it, corners and mask are corrected by keys alone, what was seen is told by keys, a
// mount is rejected by look, all looks come together, Paper shows them.

#include "app/forms/ask.h"
#include "app/frame/tape.h"
#include "app/paper/paper_view.h"
#include "app/peel/corner_canvas.h"
#include "app/peel/mask_canvas.h"
#include "app/peel/peel_view.h"
#include "app/peel/picture_page.h"
#include "app/peel/seen_page.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "store/paper/report.h"
#include "store/picture/photograph_file.h"
#include "support/photograph_scenes.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QClipboard>
#include <QDropEvent>
#include <QListWidget>
#include <QMimeData>
#include <QSlider>
#include <QTemporaryDir>
#include <fstream>
#include <sstream>

using namespace ibuki;

class TestPeelStory : public QObject {
    Q_OBJECT

    const story::Where where_;
    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;
    Id<Mount> mount_;
    double truth_ = 0;

    Session& session() { return window_->session(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    const JointInspection* look() {
        const auto looks = session().document().where(&JointInspection::mount, mount_);
        return looks.empty() ? nullptr : looks.front();
    }
    const JointPicture* picture() {
        if (!look()) return nullptr;
        const auto pictures = session().document().where(&JointPicture::look, look()->id);
        return pictures.empty() ? nullptr : pictures.back();
    }
    bool settled() {
        return QTest::qWaitFor([&] { return session().jobs().running().isEmpty(); }, 20'000);
    }
    /// A photograph with a place and a maker written into it, as telephones do.
    QString photographFile() {
        PhotographScene scene;
        FilmScene film;
        film.spread = {34, 34, patternStrokes(Pattern::dot, 34, 34, 0), 34 * 34 * 0.04 * 0.8, 0.04, 0.3};
        scene.film = filmThickness(film);
        scene.colour = FilmColour::blue;
        truth_ = coverageMaskOf(maskOf(scene.film)).mean();
        const std::string jpeg = keptPhotograph(photographOf(scene).picture);
        const QByteArray reported = QByteArray("Exif\0\0MM\0*\0\0\0\x08\0\0", 16) + "SECRETPLACE 59.9N";
        const QString path = folder_.filePath("phone.jpg");
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly)) return {};
        file.write(jpeg.data(), 2);
        file.write("\xFF\xE1\0", 3);
        file.putChar(static_cast<char>(reported.size() + 2));
        file.write(reported);
        file.write(jpeg.data() + 2, static_cast<qint64>(jpeg.size()) - 2);
        return path;
    }

public:
    explicit TestPeelStory(story::Where where) : where_(where) {}

private slots:
    void initTestCase() {
        window_ = story::windowOn(where_, "peel-story", folder_.filePath("peel.ibuki"));
        QVERIFY(window_);
        if (where_ == story::Where::fresh) {
            QVERIFY(story::beginStudy(*window_, "rank materials", "Three pastes",
                                      {"Tern 11", "Plover 4", "Dunlin C"}));
            QVERIFY(story::bringIn(*window_, story::nineLogFiles(folder_.path())));
        }
        window_->showStage(Stage::peel);
        const auto mounts = mountsOf(session().document(), *session().selection().bench);
        for (const Mount* mount : mounts)
            if (!mount->rejected && session().document().where(&JointInspection::mount, mount->id).empty())
                mount_ = mount->id;
        if (!mount_) mount_ = mounts.front()->id;
        session().selectMount(mount_);
        QTest::qWait(50);
    }
    void cleanupTestCase() {
        answerFiles({});
        window_.reset();
    }

    void aPhotographComesInMeasured() {
        const QString path = photographFile();
        answerFiles([&](const FileWish&) { return QStringList{path}; });
        const std::size_t before = session().document().all<JointPicture>().size();
        QVERIFY(story::press(*window_, "Add pictures…"));
        QVERIFY(settled());
        QCOMPARE(session().document().all<JointPicture>().size(), before + 1);
        QVERIFY(picture() && picture()->covered);
        QVERIFY(std::abs(*picture()->covered - truth_) < 0.03);
        QVERIFY(find<MaskCanvas>("Mask"));
    }
    void nothingOfTheCameraIsInTheProject() { // by the bytes of the whole file
        const std::string kept = session().file(picture()->sha256);
        QVERIFY(!kept.empty() && kept.find("SECRETPLACE") == std::string::npos);
        QVERIFY(session().saveCopy(folder_.filePath("copy.ibuki")));
        std::ifstream file(folder_.filePath("copy.ibuki").toStdString(), std::ios::binary);
        std::ostringstream all;
        all << file.rdbuf();
        QVERIFY(all.str().size() > 10'000 && all.str().find("SECRETPLACE") == std::string::npos);
    }
    void whatIsNoPictureIsRefused() {
        const QString path = folder_.filePath("no.jpg");
        std::ofstream(path.toStdString()) << "no picture";
        answerFiles([&](const FileWish&) { return QStringList{path}; });
        const std::size_t before = session().document().all<JointPicture>().size();
        QVERIFY(story::press(*window_, "Add pictures…"));
        QVERIFY(settled());
        QCOMPARE(session().document().all<JointPicture>().size(), before);
        QVERIFY(window_->findChild<QLabel*>("Notice")->text().contains("no picture that can be read"));
    }
    void cornersAreMovedByKeysAlone() {
        QVERIFY(story::press(*window_, "Page Corners"));
        auto* canvas = find<CornerCanvas>("Corners");
        QVERIFY(canvas);
        QTRY_VERIFY(canvas->corners().has_value());
        const double before = (*canvas->corners())[1].x;
        const double covered = *picture()->covered;
        canvas->setFocus();
        QTest::keyClick(canvas, Qt::Key_2);
        QTest::keyClick(canvas, Qt::Key_Right, Qt::ShiftModifier);
        QTest::keyClick(canvas, Qt::Key_Right, Qt::ShiftModifier);
        QTRY_VERIFY_WITH_TIMEOUT(std::abs((*picture()->corners)[2] - before - 20) < 0.01, 10'000);
        QVERIFY(settled());
        QVERIFY(std::abs(*picture()->covered - covered) > 1e-6);
        session().undoStack().undo();
        QTRY_VERIFY(std::abs((*picture()->corners)[2] - before) < 0.01);
        QVERIFY(settled());
    }
    void aMaskIsCorrectedByKeysAlone() {
        QVERIFY(story::press(*window_, "Page Mask"));
        auto* canvas = find<MaskCanvas>("Mask");
        QVERIFY(canvas);
        QTest::qWait(60); // the view follows the undo
        QTRY_VERIFY_WITH_TIMEOUT(canvas->isEnabled() && !canvas->mask().grey.empty(), 20'000);
        auto* tool = find<QComboBox>("Tool");
        tool->setCurrentIndex(1); // brush: bare, in the covered middle
        const double covered = *picture()->covered;
        canvas->setFocus();
        for (int i = 0; i < 3; ++i) QTest::keyClick(canvas, Qt::Key_BracketRight);
        QTest::keyClick(canvas, Qt::Key_Space);
        QTRY_VERIFY(*picture()->covered < covered - 1e-4);
        tool->setCurrentIndex(4); // fill with film: it is whole again
        QTest::keyClick(canvas, Qt::Key_Space);
        QTRY_VERIFY(std::abs(*picture()->covered - covered) < 1e-6);
        tool->setCurrentIndex(3); // a polygon, bare
        QTest::keyClick(canvas, Qt::Key_Space);
        for (int i = 0; i < 2; ++i) QTest::keyClick(canvas, Qt::Key_Right, Qt::ShiftModifier);
        QTest::keyClick(canvas, Qt::Key_Space);
        for (int i = 0; i < 2; ++i) QTest::keyClick(canvas, Qt::Key_Down, Qt::ShiftModifier);
        QTest::keyClick(canvas, Qt::Key_Space);
        QTest::keyClick(canvas, Qt::Key_Return);
        QTRY_VERIFY(*picture()->covered < covered - 1e-3);
        session().undoStack().undo();
        QTRY_VERIFY(std::abs(*picture()->covered - covered) < 1e-6);
        tool->setCurrentIndex(6); // surely film, then refined
        QTest::keyClick(canvas, Qt::Key_Space);
        QVERIFY(story::press(*window_, "Refine"));
        QVERIFY(settled());
        QVERIFY(std::abs(*picture()->covered - truth_) < 0.08);
    }
    void theThresholdMovesWhatIsCovered() {
        auto* slider = find<QSlider>("Threshold");
        QVERIFY(slider);
        slider->setValue(90);
        QTRY_VERIFY(picture()->threshold && std::abs(*picture()->threshold - 0.9) < 1e-9);
        const double strict = *picture()->covered;
        slider->setValue(30);
        QTRY_VERIFY(*picture()->covered > strict);
    }
    void whatWasSeenIsToldByKeys() {
        QVERIFY(story::press(*window_, "Page Seen"));
        auto* page = window_->findChild<SeenPage*>();
        page->setFocus();
        QTest::keyClick(page, Qt::Key_D);
        QTest::keyClick(page, Qt::Key_R);
        QTest::keyClick(page, Qt::Key_4);
        QVERIFY(look() && look()->dry && look()->residue && !look()->torn);
        QCOMPARE(look()->effort, std::optional(4));
        QTest::keyClick(page, Qt::Key_D);
        QVERIFY(!look()->dry);
        QVERIFY(story::press(*window_, "pulled the chip out"));
        QCOMPARE(look()->cameOff, CameOff::pulledChipOut);
        auto* minutes = find<QLineEdit>("Cleaning, minutes");
        story::type(minutes, "abc");
        QTest::keyClick(minutes, Qt::Key_Return);
        QVERIFY(!look()->cleanMinutes);
        story::type(minutes, "4");
        QTest::keyClick(minutes, Qt::Key_Return);
        QCOMPARE(look()->cleanMinutes, std::optional(4.0));
    }
    void aLookRejectsAMountAndItIsToldThatTheFigureWasKnown() {
        QVERIFY(story::press(*window_, "Reject this mount…"));
        auto* sheet = story::sheet<AskSheet>();
        QVERIFY(sheet);
        story::type(sheet->findChild<QLineEdit*>(), "one corner was dry");
        sheet->accept();
        QTRY_VERIFY(session().document().find(mount_)->rejected);
        QVERIFY(look()->rejects && look()->figureKnown);
        const Question* question = session().question();
        const Evidence evidence = gatherEvidence(session().document(), *question);
        QVERIFY(evidence.byLook && evidence.byLook->mounts >= 1);
        bool reported = false;
        for (const VerdictSentence& sentence : verdictSentences(evidence, *question))
            reported = reported || sentence.text.find("by what") != std::string::npos;
        QVERIFY(reported);
        const std::string html = htmlReport(session().document(), *question);
        QVERIFY(html.find("What the joints looked like") != std::string::npos);
        QVERIFY(html.find("rejected by look, when its figure was known already") != std::string::npos);
        session().undoStack().undo();
        QTRY_VERIFY(!session().document().find(mount_)->rejected && !look()->rejects);
    }
    void allLooksComeTogether() {
        QVERIFY(story::press(*window_, "Page All looks"));
        auto* sheet = find<QListWidget>("Contact sheet");
        QTRY_VERIFY(sheet && sheet->count() >= 1);
        QVERIFY(!window_->findChild<QLabel*>("All looks told")->text().isEmpty());
        const QString path = folder_.filePath("looks.csv");
        answerFiles([&](const FileWish&) { return QStringList{path}; });
        QVERIFY(story::press(*window_, "Export…"));
        QTRY_VERIFY(QFile::exists(path));
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QVERIFY(file.readAll().startsWith("mount,material,covered"));
    }
    void paperShowsPicturesAndMasks() {
        const QString path = folder_.filePath("study.html");
        window_->showStage(Stage::paper);
        QVERIFY(window_->findChild<PaperView*>()->exportTo(path));
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray html = file.readAll();
        QVERIFY(html.contains("What the joints looked like"));
        QVERIFY(html.contains("data:image/jpeg;base64,"));
    }
    void theTapesLastPartOpensTheLook() {
        window_->showStage(Stage::bench);
        auto* tape = window_->findChild<Tape*>();
        tape->setFocus();
        QTest::keyClick(tape, Qt::Key_P);
        QTRY_COMPARE(window_->stage(), Stage::peel);
    }
    void picturesArePastedAndDropped() {
        QVERIFY(story::press(*window_, "Page Picture"));
        std::size_t before = session().document().all<JointPicture>().size();
        QApplication::clipboard()->setImage(QImage(folder_.filePath("phone.jpg")));
        QVERIFY(story::trigger(*window_, "Paste a picture of the joint"));
        QTRY_COMPARE_WITH_TIMEOUT(session().document().all<JointPicture>().size(), before + 1, 15'000);
        QVERIFY(settled());
        QMimeData dragged;
        dragged.setUrls({QUrl::fromLocalFile(folder_.filePath("phone.jpg"))});
        auto* page = window_->findChild<PicturePage*>();
        QDragEnterEvent enter({20, 20}, Qt::CopyAction, &dragged, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(page, &enter);
        QVERIFY(enter.isAccepted());
        QDropEvent drop({20, 20}, Qt::CopyAction, &dragged, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(page, &drop);
        QTRY_COMPARE_WITH_TIMEOUT(session().document().all<JointPicture>().size(), before + 2, 15'000);
        QVERIFY(settled());
    }
    void takenBackOnBenchItIsNoLongerByLook() {
        QVERIFY(story::press(*window_, "Page Seen"));
        QVERIFY(story::press(*window_, "Reject this mount…"));
        auto* sheet = story::sheet<AskSheet>();
        QVERIFY(sheet);
        story::type(sheet->findChild<QLineEdit*>(), "dry");
        sheet->accept();
        const Id<Mount> mount = session().mount()->id;
        QTRY_VERIFY(session().document().find(mount)->rejected);
        window_->showStage(Stage::bench);
        QTest::qWait(60);
        QVERIFY(story::press(*window_, "Reject mount…") || story::press(*window_, "Take back"));
        QTRY_VERIFY(!session().document().find(mount)->rejected);
        for (const JointInspection* look : session().document().where(&JointInspection::mount, mount))
            QVERIFY(!look->rejects);
        window_->showStage(Stage::peel);
        QTest::qWait(60);
    }
    void aWatchedFolderBringsPicturesIn() {
        QVERIFY(story::press(*window_, "Page Picture"));
        const QString drop = folder_.filePath("drop");
        QVERIFY(QDir().mkpath(drop));
        answerFiles([&](const FileWish& wish) {
            return wish.kind == FileWish::Kind::folder ? QStringList{drop} : QStringList();
        });
        QVERIFY(story::press(*window_, "Watch a folder…"));
        const std::size_t before = session().document().all<JointPicture>().size();
        QVERIFY(QFile::copy(folder_.filePath("phone.jpg"), drop + "/one.jpg"));
        QTRY_VERIFY_WITH_TIMEOUT(session().document().all<JointPicture>().size() == before + 1, 15'000);
        QVERIFY(settled());
    }
};

IBUKI_STORY_ON_BOTH(TestPeelStory)
#include "tst_peel_story.moc"
