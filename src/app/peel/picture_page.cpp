// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/picture_page.h"

#include "app/forms/ask.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/jobs/job_progress.h"
#include "app/peel/corner_canvas.h"
#include "app/peel/mask_canvas.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "store/paper/look_csv.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QListWidget>
#include <QMimeData>
#include <QSignalBlocker>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

const QString costJob() { return QStringLiteral("look-cost"); }

QStringList picturesIn(const QMimeData& data) {
    QStringList paths;
    for (const QUrl& url : data.urls())
        if (url.isLocalFile()) paths << url.toLocalFile();
    return paths;
}

} // namespace

PicturePage::PicturePage(Session& session, LookDesk& desk, QWidget* parent)
    : ExportedPage(say("Picture"), parent),
      session_(session),
      desk_(desk),
      folder_(new PictureFolder(this)),
      list_(new QListWidget),
      sideOf_(new QComboBox),
      canvases_(new QStackedWidget),
      corners_(new CornerCanvas),
      mask_(new MaskCanvas),
      tools_(nullptr),
      tool_(new QComboBox),
      threshold_(new QSlider(Qt::Horizontal)),
      thresholdReported_(new QLabel),
      brushReported_(new QLabel),
      refine_(button(say("Refine"), say("Cut film and bare apart again: what was marked as sure holds"))),
      folderButton_(button(say("Watch a folder…"),
                           say("Pictures that a camera or a telephone drops there come in by themselves"))),
      camera_(
          button(say("Photograph the practice bench"), say("Both faces, as the simulated bench has them"))),
      empty_(quietLabel()),
      shown_(new QWidget),
      figures_(new QFormLayout),
      reported_(quietLabel()),
      cost_(new QLabel) {
    explain(this, Topic::peel);
    setAcceptDrops(true);
    canvases_->addWidget(corners_);
    canvases_->addWidget(mask_);
    empty_->setObjectName("Peel empty");
    auto* left = new QVBoxLayout;
    left->addWidget(pageSwitch(canvases_, {say("Corners"), say("Mask")}));
    left->addWidget(canvases_, 1);
    tools_ = makeTools();
    left->addWidget(tools_);
    auto* inside = new QHBoxLayout(shown_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addLayout(left, 5);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* middle = new QVBoxLayout;
    middle->addWidget(empty_);
    middle->addWidget(shown_, 1);
    layout->addLayout(middle, 5);
    layout->addWidget(makeSide(), 2);
    connect(&desk_, &LookDesk::taken, this, [this](Id<JointPicture> id) {
        wanted_ = id;
        refresh();
    });
    connect(&desk_, &LookDesk::working, this, [this] {
        showProgress(session_.jobs().runner(LookDesk::job()), say("Measuring the picture"), this, true);
    });
    connect(folder_, &PictureFolder::appeared, this,
            [this](const QStringList& paths) { desk_.add(paths, side()); });
    connect(corners_, &CornerCanvas::cornersMoved, this, [this](const FaceCorners& corners) {
        if (const JointPicture* picture = chosen()) desk_.setCorners(picture->id, corners);
    });
    connect(mask_, &MaskCanvas::maskEdited, this, [this] {
        const JointPicture* picture = chosen();
        // A mask belongs to its corners: one painted over a view that has just changed is not kept.
        if (picture && openedAs_ && openedAs_->id == picture->id && openedAs_->corners == picture->corners)
            desk_.putMask(picture->id, mask_->mask());
    });
    connect(mask_, &MaskCanvas::seedsPainted, this, [this] { refine_->setEnabled(true); });
    connect(canvases_, &QStackedWidget::currentChanged, this,
            [this](int page) { tools_->setVisible(page == 1); });
    canvases_->setCurrentIndex(1);
}

QWidget* PicturePage::makeTools() {
    tool_->addItems({say("Brush: film"), say("Brush: bare"), say("Polygon: film"), say("Polygon: bare"),
                     say("Fill: film"), say("Fill: bare"), say("Surely film"), say("Surely bare")});
    tool_->setAccessibleName(say("Tool"));
    tool_->setObjectName("Tool");
    threshold_->setRange(5, 95);
    threshold_->setAccessibleName(say("Threshold"));
    threshold_->setObjectName("Threshold");
    threshold_->setToolTip(
        say("How thick a film has to look to count as covered. Moving it undoes corrections by hand."));
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(tool_);
    layout->addWidget(brushReported_);
    layout->addWidget(refine_);
    layout->addStretch(1);
    layout->addWidget(new QLabel(say("Threshold")));
    layout->addWidget(threshold_, 2);
    layout->addWidget(thresholdReported_);
    refine_->setEnabled(false);
    const auto tellBrush = [this] { brushReported_->setText(say("%1 mm").arg(mask_->brushMm(), 0, 'f', 1)); };
    tellBrush();
    connect(mask_, &MaskCanvas::brushChanged, this, tellBrush);
    connect(tool_, &QComboBox::currentIndexChanged, this,
            [this](int index) { mask_->setTool(static_cast<MaskTool>(index)); });
    connect(refine_, &QPushButton::clicked, this, &PicturePage::refine);
    connect(threshold_, &QSlider::valueChanged, this, [this](int value) {
        thresholdReported_->setText(say("%1 %").arg(value));
        if (!opened_ || opened_->measured.film.film.grey.empty()) return;
        const FilmPicture& film = opened_->measured.film;
        mask_->setMask(maskAt(film.film, std::min(film.thinFrom, value / 100.0), value / 100.0));
        if (!threshold_->isSliderDown()) desk_.setThreshold(*opened_, value / 100.0);
    });
    connect(threshold_, &QSlider::sliderReleased, this, [this] {
        if (opened_) desk_.setThreshold(*opened_, threshold_->value() / 100.0);
    });
    return row;
}

void PicturePage::connectSide(QPushButton& add, QPushButton& again, QPushButton& remove) {
    connect(&add, &QPushButton::clicked, this, &PicturePage::choosePictures);
    connect(folderButton_, &QPushButton::clicked, this, &PicturePage::chooseFolder);
    connect(&again, &QPushButton::clicked, this, [this] {
        if (const JointPicture* picture = chosen()) desk_.findCornersAgain(picture->id);
    });
    connect(&remove, &QPushButton::clicked, this, [this] {
        if (const JointPicture* picture = chosen()) desk_.remove(picture->id);
    });
    connect(list_, &QListWidget::currentRowChanged, this, [this](int) { open(); });
    connect(sideOf_, &QComboBox::activated, this, [this](int index) {
        if (const JointPicture* picture = chosen()) desk_.setSide(picture->id, static_cast<LookSide>(index));
    });
    connect(camera_, &QPushButton::clicked, &desk_, &LookDesk::photographPractice);
}

QWidget* PicturePage::makeSide() {
    for (const std::string_view word : Words<LookSide>::all) sideOf_->addItem(sayTerm(word));
    sideOf_->setAccessibleName(say("Side"));
    sideOf_->setObjectName("Side");
    list_->setAccessibleName(say("Pictures of this mount"));
    list_->setObjectName("Pictures");
    list_->setMaximumHeight(66);
    auto* add = button(say("Add pictures…"),
                       say("Photographs of the faces: files, or drop them here, or paste one"), true);
    auto* again = button(say("Find corners"), say("Look for the face's corners again"));
    auto* remove = button(say("Remove"), say("Take this picture out of the look"));
    connectSide(*add, *again, *remove);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(add);
    buttons->addWidget(folderButton_);
    auto* more = new QHBoxLayout;
    more->addWidget(sideOf_, 1);
    more->addWidget(again);
    more->addWidget(remove);
    figures_->setVerticalSpacing(4);
    reported_->setObjectName("Look told");
    cost_->setObjectName("Look cost");
    cost_->setWordWrap(true);
    auto* column = new QVBoxLayout;
    column->setContentsMargins(0, 0, 6, 0);
    column->addLayout(figures_);
    column->addWidget(cost_);
    column->addWidget(reported_);
    column->addStretch(1);
    auto* side = new QWidget;
    auto* layout = new QVBoxLayout(side);
    layout->setContentsMargins(6, 0, 0, 0);
    layout->addLayout(buttons);
    layout->addWidget(camera_);
    layout->addWidget(list_);
    layout->addLayout(more);
    layout->addWidget(scrolled(column), 1);
    return side;
}

LookSide PicturePage::side() const { return static_cast<LookSide>(std::max(0, sideOf_->currentIndex())); }

const JointPicture* PicturePage::chosen() const {
    const QListWidgetItem* item = list_->currentItem();
    return item ? desk_.picture(Id<JointPicture>{item->data(Qt::UserRole).toLongLong()}) : nullptr;
}

void PicturePage::choosePictures() {
    askFiles(
        this,
        {FileWish::Kind::openMany, say("Pictures of the joint"), {}, say("Pictures (*.png *.jpg *.jpeg)")},
        [this](const QStringList& paths) { desk_.add(paths, side()); });
}

void PicturePage::pastePicture() {
    const QMimeData* copied = QApplication::clipboard()->mimeData();
    if (copied && !picturesIn(*copied).isEmpty()) return desk_.add(picturesIn(*copied), side());
    desk_.addImage(QApplication::clipboard()->image(), say("pasted"), side());
}

void PicturePage::chooseFolder() {
    if (!folder_->folder().isEmpty()) {
        folder_->watch({});
        folderButton_->setText(say("Watch a folder…"));
        return;
    }
    askFile(this, {FileWish::Kind::folder, say("Folder that pictures appear in"), {}, {}},
            [this](const QString& path) {
                folder_->watch(path);
                folderButton_->setText(say("Stop watching"));
                session_.post(
                    say("Pictures that appear in %1 come in for the mount that is chosen then.").arg(path));
            });
}

void PicturePage::askKeptSize() {
    askNumber(this,
              {say("Size of kept pictures"),
               say("Pixels of the longer side: larger pictures are made smaller when they come in"),
               {}},
              600, 6'000, setKeptSide, keptSide());
}

void PicturePage::dragEnterEvent(QDragEnterEvent* event) {
    if (!picturesIn(*event->mimeData()).isEmpty() || event->mimeData()->hasImage())
        event->acceptProposedAction();
}

void PicturePage::dropEvent(QDropEvent* event) {
    const QStringList paths = picturesIn(*event->mimeData());
    if (!paths.isEmpty())
        desk_.add(paths, side());
    else
        desk_.addImage(qvariant_cast<QImage>(event->mimeData()->imageData()), say("dropped"), side());
    event->acceptProposedAction();
}

void PicturePage::refresh() {
    const JointInspection* look = desk_.look();
    const JointPicture* before = chosen();
    const std::int64_t keep = wanted_ ? wanted_->value : before ? before->id.value : 0;
    wanted_.reset();
    {
        const QSignalBlocker quiet(list_);
        list_->clear();
        const auto pictures =
            look ? picturesOf(session_.document(), look->id) : std::vector<const JointPicture*>();
        for (const JointPicture* picture : pictures) {
            QString text = sayTerm(word(picture->side)) + ": " + qtext(picture->fileName);
            if (picture->covered) text += say("  (%1 %)").arg(100 * *picture->covered, 0, 'f', 0);
            auto* item = new QListWidgetItem(text, list_);
            item->setData(Qt::UserRole, static_cast<qlonglong>(picture->id.value));
            if (keep == picture->id.value) list_->setCurrentItem(item);
        }
        if (list_->currentRow() < 0 && list_->count() > 0) list_->setCurrentRow(0);
    }
    const bool hasMount = desk_.site().has_value();
    camera_->setVisible(desk_.isPractice());
    camera_->setEnabled(hasMount);
    const bool hasPicture = chosen() != nullptr;
    shown_->setVisible(hasPicture);
    empty_->setVisible(!hasPicture);
    empty_->setText(
        hasMount ? say("No picture of this mount yet. Take one of each face when the cooler is off, straight "
                       "from above and in even light; drop it here, paste it, or add it as a file. Where it "
                       "was taken and by which camera is not kept.")
                 : say("Choose a mount on the tape: what its joint looked like is kept with it."));
    open();
}

void PicturePage::open() {
    const JointPicture* picture = chosen();
    if (!picture) {
        opened_.reset();
        openedAs_.reset();
        corners_->clear();
        mask_->clear();
        showFigures();
        return;
    }
    sideOf_->setCurrentIndex(static_cast<int>(picture->side));
    if (opened_ && openedAs_ && *openedAs_ == *picture) return showFigures();
    const bool isMaskAlone = opened_ && openedAs_ && opened_->id == picture->id
                             && openedAs_->corners == picture->corners && openedAs_->side == picture->side
                             && !picture->maskSha256.empty();
    if (isMaskAlone) { // corrected by hand, or another threshold: the photograph is open already
        opened_->mask = desk_.masks()(picture->maskSha256).value_or(opened_->mask);
        openedAs_ = *picture;
        return take(OpenedPicture(*opened_));
    }
    mask_->setEnabled(false); // until it shows what is stored
    desk_.open(picture->id, this, [this, as = *picture](OpenedPicture opened) {
        const JointPicture* now = chosen();
        if (!now || now->id != opened.id) return;
        if (now->corners != as.corners || now->side != as.side) return open(); // changed meanwhile
        openedAs_ = *now;
        opened.mask =
            now->maskSha256.empty() ? GreyPicture{} : desk_.masks()(now->maskSha256).value_or(opened.mask);
        take(opened);
        if (opened.mask.grey.empty()) canvases_->setCurrentIndex(0);
    });
    showProgress(session_.jobs().runner(QStringLiteral("look")), say("Opening the picture"), this, true);
}

void PicturePage::take(const OpenedPicture& opened) {
    const bool isSame =
        opened_ && opened_->id == opened.id && opened_->measured.corners == opened.measured.corners;
    opened_ = opened;
    mask_->setEnabled(true);
    if (!isSame || corners_->corners() != opened.measured.corners)
        corners_->show(opened.photograph, opened.measured.corners);
    if (opened.mask.grey.empty() || !opened.measured.corners) {
        mask_->clear();
    } else if (!isSame || mask_->mask().grey.empty()) {
        const JointPicture& as = *openedAs_;
        mask_->show(opened.measured.face, opened.mask,
                    {as.faceWidth ? as.faceWidth->value : 1, as.faceLength ? as.faceLength->value : 1});
    } else if (!(mask_->mask() == opened.mask)) {
        mask_->setMask(opened.mask);
    }
    refine_->setEnabled(false);
    const QSignalBlocker quiet(threshold_);
    threshold_->setValue(static_cast<int>(std::lround(100 * openedAs_->threshold.value_or(0.5))));
    thresholdReported_->setText(say("%1 %").arg(threshold_->value()));
    showFigures();
}

void PicturePage::showFigures() {
    while (figures_->rowCount() > 0) figures_->removeRow(0);
    reported_->clear();
    cost_->clear();
    if (!opened_ || !openedAs_) return;
    QStringList reported = flagLines(*openedAs_);
    if (!opened_->mask.grey.empty() && openedAs_->faceWidth && openedAs_->faceLength) {
        const CoverageFigures figures =
            coverageFigures(opened_->mask, {openedAs_->faceWidth->value, openedAs_->faceLength->value});
        for (const FigureRow& row : figureRows(*openedAs_, figures)) {
            auto* value = new QLabel(row.value);
            value->setTextInteractionFlags(Qt::TextSelectableByMouse);
            figures_->addRow(quietLabel(row.name), value);
        }
        const Site* site = session_.document().find(desk_.site());
        if (site && session_.mount()) {
            const QString expected = expectedLine(
                expectedSpread(session_.document(), session_.mount()->id, *site), figures.covered);
            if (!expected.isEmpty()) reported.prepend(expected);
        }
        startCost(opened_->mask);
    }
    if (const Site* site = session_.document().find(desk_.site());
        site && faceOf(session_.document(), *site).isAssumed)
        reported
            << say("The face's size is assumed, %1 × %2 mm: state it on the bench sheet for true figures in "
                   "mm.")
                   .arg(openedAs_->faceWidth ? openedAs_->faceWidth->value : 0)
                   .arg(openedAs_->faceLength ? openedAs_->faceLength->value : 0);
    reported_->setText(reported.join(QStringLiteral("\n")));
}

void PicturePage::startCost(const GreyPicture& mask) {
    const Mount* mount = session_.mount();
    const Question* question = session_.question();
    const JointInspection* look = desk_.look();
    if (!mount || !question || !look) return;
    std::optional<CostPaths> paths;
    GreyPicture both = mask;
    if (const auto joint = jointCoverage(session_.document(), *look, desk_.masks())) both = joint->mask;
    try {
        paths = costPaths(session_.document(), *question, *mount, both);
    } catch (const InputError&) { // the heat path tells why
        paths.reset();
    }
    if (!paths) {
        cost_->setText(
            say("What is bare costs cannot be told: the heat path of this bench is not calibrated yet."));
        return;
    }
    const auto residual = fellowResidual(session_.document(), *question, mount->id);
    session_.jobs().startNewest<VoidPenalty>(
        costJob(), this,
        [paths = *paths](const std::stop_token& stop, const Progress& progress) {
            FieldOptions options;
            options.grid.cellMm = 0.7;
            options.stop = stop;
            options.progress = progress;
            return voidPenalty(paths, options);
        },
        [this, residual](const VoidPenalty& cost) {
            if (!cost.cancelled) cost_->setText(costLine(cost, residual));
        },
        [this](const InputError& error) { session_.refuse(error); });
    cost_->setText(say("Working out what is bare in kelvins…"));
}

void PicturePage::refine() {
    const JointPicture* picture = chosen();
    if (!picture || !opened_ || !mask_->hasSeeds()) return;
    const FacePicture& face = opened_->measured.face;
    RgbPicture inside{face.faceWidth(), face.faceHeight(), {}};
    for (int row = 0; row < inside.height; ++row) {
        const auto begin =
            face.picture.rgb.begin()
            + 3 * ((row + face.margin) * static_cast<std::ptrdiff_t>(face.picture.width) + face.margin);
        inside.rgb.insert(inside.rgb.end(), begin, begin + 3 * inside.width);
    }
    if (inside.width != mask_->mask().width || inside.height != mask_->mask().height) return;
    session_.jobs().startNewest<GreyPicture>(
        QStringLiteral("refine"), this,
        [inside, mask = mask_->mask(), seeds = mask_->seeds()](const std::stop_token&, const Progress&) {
            return refinedMask(inside, mask, seeds);
        },
        [this, id = picture->id](const GreyPicture& refined) { desk_.putMask(id, refined); },
        [this](const InputError& error) { session_.refuse(error); });
    showProgress(session_.jobs().runner(QStringLiteral("refine")), say("Cutting film and bare apart"), this,
                 true);
}

QWidget* PicturePage::picture() { return canvases_->currentWidget(); }

std::string PicturePage::csv() const {
    if (!opened_ || !openedAs_ || opened_->mask.grey.empty() || !openedAs_->faceWidth
        || !openedAs_->faceLength)
        return {};
    return lookCsv(
        coverageFigures(opened_->mask, {openedAs_->faceWidth->value, openedAs_->faceLength->value}));
}

} // namespace ibuki
