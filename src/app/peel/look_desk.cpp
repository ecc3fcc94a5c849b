// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/look_desk.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/domain/edit.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/evidence/look_rejections.h"
#include "core/practice/practice.h"
#include "store/picture/photograph_file.h"
#include "store/picture/png.h"

#include <QDir>
#include <QFileInfo>
#include <QFileSystemWatcher>
#include <QSettings>
#include <QTimer>
#include <algorithm>
#include <memory>

namespace ibuki {
namespace {

constexpr int leastKept = 600, mostKept = 6000;
constexpr int settleMs = 700;

QString keptKey() { return QStringLiteral("looks/keptSide"); }

RgbPicture rgbFrom(const QImage& image) {
    const QImage plain = image.convertToFormat(QImage::Format_RGB888);
    RgbPicture made{plain.width(), plain.height(), {}};
    made.rgb.reserve(static_cast<std::size_t>(plain.width()) * static_cast<std::size_t>(plain.height()) * 3);
    for (int row = 0; row < plain.height(); ++row) {
        const uchar* line = plain.constScanLine(row);
        made.rgb.insert(made.rgb.end(), line, line + 3 * plain.width());
    }
    return made;
}

} // namespace

int keptSide() {
    return std::clamp(QSettings().value(keptKey(), typicalKeptSide).toInt(), leastKept, mostKept);
}

void setKeptSide(int px) { QSettings().setValue(keptKey(), std::clamp(px, leastKept, mostKept)); }

/// A picture on its way into the project.
struct LookDesk::TakenIn {
    Id<Mount> mount;
    Id<Site> site;
    JointPicture picture;
    std::string bytes;
    std::string mask;
};

QString LookDesk::job() { return QStringLiteral("looks"); }

LookDesk::LookDesk(Session& session, QObject* parent) : QObject(parent), session_(session) {}

std::optional<Id<Site>> LookDesk::site() const {
    const Mount* mount = session_.mount();
    const Question* question = session_.question();
    return mount && question ? lookedSite(session_.document(), *question, *mount) : std::nullopt;
}

const JointInspection* LookDesk::look() const {
    const auto at = site();
    return at ? lookAt(session_.document(), session_.mount()->id, *at) : nullptr;
}

Extent LookDesk::faceSize() const {
    const auto at = site();
    const Site* where = at ? session_.document().find(*at) : nullptr;
    return where ? faceOf(session_.document(), *where).size : Extent{30, 30};
}

void LookDesk::add(const QStringList& paths, LookSide side) {
    for (const QString& path : paths)
        takeIn([file = path.toStdString()] { return readPhotograph(file); }, QFileInfo(path).fileName(),
               side);
}

void LookDesk::addImage(const QImage& image, const QString& name, LookSide side) {
    if (image.isNull())
        return session_.refuse(say("There is no picture to paste. Copy one first, or choose a file."));
    takeIn([picture = rgbFrom(image)] { return picture; }, name, side);
}

bool LookDesk::isPractice() const {
    const Study* study = session_.study();
    return study && practiceOf(session_.document(), study->id);
}

void LookDesk::photographPractice() {
    const Study* study = session_.study();
    const Practice* practice = study ? practiceOf(session_.document(), study->id) : nullptr;
    const auto at = site();
    const Site* where = at ? session_.document().find(*at) : nullptr;
    if (!practice || !where)
        return session_.refuse(say("Choose a mount on the tape first: a picture belongs to one."));
    for (const LookSide side : {LookSide::chip, LookSide::plate}) {
        const auto scene =
            practicePhotograph(session_.document(), *practice, session_.mount()->id, *where, side);
        if (!scene) return session_.refuse(say("There is no film to photograph on this mount."));
        takeIn([scene = *scene] { return photographOf(scene).picture; }, sayTerm(word(side)), side);
    }
}

void LookDesk::takeIn(std::function<RgbPicture()> read, const QString& name, LookSide side) {
    const auto at = site();
    if (!at) return session_.refuse(say("Choose a mount on the tape first: a picture belongs to one."));
    const Document& document = session_.document();
    auto in = std::make_shared<TakenIn>();
    in->mount = session_.mount()->id;
    in->site = *at;
    in->picture.side = side;
    in->picture.fileName = name.toStdString();
    JointInspection like;
    like.mount = in->mount;
    like.site = in->site;
    const MeasureFaceOptions options = measureOptions(document, like, side);
    const Extent size = faceSize();
    const int kept = keptSide();
    session_.jobs().queue(
        job(),
        [in, read = std::move(read), options, size, kept](const std::stop_token&, const Progress& progress) {
            progress(0.05);
            in->bytes = keptPhotograph(read(), kept);
            progress(0.4);
            const RgbPicture photograph = photographFrom(in->bytes, in->picture.fileName);
            in->picture.width = photograph.width;
            in->picture.height = photograph.height;
            if (in->picture.side == LookSide::detail) return;
            const MeasuredFace measured = measureFace(photograph, size, options);
            putMeasured(in->picture, measured, size);
            if (measured.corners) in->mask = pngBytes(measured.mask);
        },
        [this, in] { put(*in); }, [this](const InputError& error) { session_.refuse(error); });
    emit working();
}

void LookDesk::put(const TakenIn& in) {
    const Document& document = session_.document();
    const Mount* mount = document.find(in.mount);
    if (!mount || !document.find(in.site)) return; // it was undone meanwhile
    Edit edit(document, titled("Picture of {mount}", {{"mount", mount->name}}));
    const JointInspection* look = lookAt(document, in.mount, in.site);
    Id<JointInspection> id;
    if (look) {
        id = look->id;
    } else {
        JointInspection made;
        made.mount = in.mount;
        made.site = in.site;
        made.at = session_.now();
        id = edit.add(made);
    }
    Acquired acquired;
    JointPicture picture = in.picture;
    picture.look = id;
    acquired.files.push_back(storedFile(in.bytes));
    picture.sha256 = acquired.files.back().sha256;
    picture.bytes = static_cast<std::int64_t>(in.bytes.size());
    if (!in.mask.empty()) {
        acquired.files.push_back(storedFile(in.mask));
        picture.maskSha256 = acquired.files.back().sha256;
    }
    const Id<JointPicture> added = edit.add(picture);
    if (session_.perform(edit.finish(), acquired)) emit taken(added);
}

void LookDesk::open(Id<JointPicture> id, const QObject* asker,
                    std::function<void(const OpenedPicture&)> ready) {
    const JointPicture* picture = session_.document().find(id);
    const JointInspection* look = picture ? session_.document().find(picture->look) : nullptr;
    if (!look) return;
    const std::string bytes = session_.file(picture->sha256);
    if (bytes.empty()) return;
    GreyPicture mask;
    if (!picture->maskSha256.empty()) mask = masks()(picture->maskSha256).value_or(GreyPicture{});
    MeasureFaceOptions options = measureOptions(session_.document(), *look, picture->side);
    options.corners = cornersOf(*picture);
    const Extent size = picture->faceWidth && picture->faceLength
                            ? Extent{picture->faceWidth->value, picture->faceLength->value}
                            : faceSize();
    session_.jobs().startNewest<OpenedPicture>(
        QStringLiteral("look"), asker,
        [id, bytes, mask, options, size, name = picture->fileName](const std::stop_token&, const Progress&) {
            OpenedPicture opened{id, photographFrom(bytes, name), {}, mask};
            if (options.corners) opened.measured = measureFace(opened.photograph, size, options);
            return opened;
        },
        [ready = std::move(ready)](const OpenedPicture& opened) { ready(opened); },
        [this](const InputError& error) { session_.refuse(error); });
}

void LookDesk::measureAgain(Id<JointPicture> id, const std::optional<FaceCorners>& corners) {
    const JointPicture* picture = session_.document().find(id);
    const JointInspection* look = picture ? session_.document().find(picture->look) : nullptr;
    if (!look) return;
    const std::string bytes = session_.file(picture->sha256);
    MeasureFaceOptions options = measureOptions(session_.document(), *look, picture->side);
    options.corners = corners;
    if (!corners) options.find.guess.reset(); // it found what is not wanted
    const Extent size = faceSize();
    session_.jobs().startNewest<MeasuredFace>(
        QStringLiteral("look"), this,
        [bytes, options, size, name = picture->fileName](const std::stop_token&, const Progress&) {
            return measureFace(photographFrom(bytes, name), size, options);
        },
        [this, id, size](const MeasuredFace& measured) {
            const JointPicture* now = session_.document().find(id);
            if (!now) return;
            if (!measured.corners)
                return session_.refuse(
                    say("The face's corners were not found: click into the picture and drag them there."));
            JointPicture changed = *now;
            putMeasured(changed, measured, size);
            Acquired acquired{{}, {storedFile(pngBytes(measured.mask))}};
            changed.maskSha256 = acquired.files.front().sha256;
            Edit edit(session_.document(), titled("Corners of {picture}", {{"picture", changed.fileName}}));
            edit.put(changed);
            session_.perform(edit.finish(), acquired);
        },
        [this](const InputError& error) { session_.refuse(error); });
}

void LookDesk::setCorners(Id<JointPicture> id, const FaceCorners& corners) { measureAgain(id, corners); }

void LookDesk::findCornersAgain(Id<JointPicture> id) { measureAgain(id, std::nullopt); }

void LookDesk::setThreshold(const OpenedPicture& opened, double threshold) {
    const JointPicture* now = session_.document().find(opened.id);
    if (!now || opened.measured.film.film.grey.empty()) return;
    FilmPicture film = opened.measured.film;
    film.threshold = threshold;
    JointPicture changed = *now;
    const CoveredRange range = coveredRange(film);
    changed.threshold = threshold;
    changed.covered = range.covered;
    changed.coveredLow = range.low;
    changed.coveredHigh = range.high;
    Acquired acquired{
        {}, {storedFile(pngBytes(maskAt(film.film, std::min(film.thinFrom, threshold), threshold)))}};
    changed.maskSha256 = acquired.files.front().sha256;
    Edit edit(session_.document(), titled("Threshold of {picture}", {{"picture", changed.fileName}}));
    edit.put(changed);
    session_.perform(edit.finish(), acquired);
}

void LookDesk::putMask(Id<JointPicture> id, const GreyPicture& mask) {
    const JointPicture* now = session_.document().find(id);
    if (!now) return;
    JointPicture changed = *now;
    changed.covered = coverageMaskOf(mask).mean();
    changed.coveredLow = std::min(changed.coveredLow.value_or(*changed.covered), *changed.covered);
    changed.coveredHigh = std::max(changed.coveredHigh.value_or(*changed.covered), *changed.covered);
    Acquired acquired{{}, {storedFile(pngBytes(mask))}};
    changed.maskSha256 = acquired.files.front().sha256;
    Edit edit(session_.document(), titled("Correct the mask of {picture}", {{"picture", changed.fileName}}));
    edit.put(changed);
    session_.perform(edit.finish(), acquired);
}

void LookDesk::setSide(Id<JointPicture> id, LookSide side) {
    const JointPicture* now = session_.document().find(id);
    if (!now || now->side == side) return;
    JointPicture changed = *now;
    changed.side = side;
    Edit edit(session_.document(), titled("Side of {picture}", {{"picture", changed.fileName}}));
    edit.put(changed);
    session_.perform(edit.finish());
}

void LookDesk::remove(Id<JointPicture> id) {
    const JointPicture* now = session_.document().find(id);
    if (!now) return;
    Edit edit(session_.document(), titled("Remove a picture"));
    edit.remove(now->id);
    session_.perform(edit.finish());
}

/// The look of the selected mount, added to the edit where there is none yet.
JointInspection LookDesk::lookIn(Edit& edit, Id<Site> at) const {
    if (const JointInspection* now = look()) return *now;
    JointInspection made;
    made.mount = session_.mount()->id;
    made.site = at;
    made.at = session_.now();
    made.id = edit.add(made);
    return made;
}

void LookDesk::change(const Message& title, const std::function<void(JointInspection&)>& changed) {
    const auto at = site();
    if (!at) return;
    Edit edit(session_.document(), title);
    JointInspection value = lookIn(edit, *at);
    const JointInspection before = value;
    changed(value);
    if (value == before && look()) return;
    edit.put(value);
    session_.perform(edit.finish());
}

void LookDesk::reject(const std::string& reason) {
    const auto at = site();
    if (!at) return;
    const Mount& mount = *session_.mount();
    Edit edit(session_.document(),
              titled(reason.empty() ? words::mark("Take back {mount}") : words::mark("Reject {mount}"),
                     {{"mount", mount.name}}));
    rejectMount(edit, mount.id, reason, lookIn(edit, *at).id);
    session_.perform(edit.finish());
}

MaskSource LookDesk::masks() {
    return [this](const std::string& digest) -> std::optional<GreyPicture> {
        if (const auto known = masks_.find(digest); known != masks_.end()) return known->second;
        const std::string bytes = session_.file(digest);
        if (bytes.empty()) return std::nullopt;
        try {
            return masks_.emplace(digest, greyFromPng(bytes, digest)).first->second;
        } catch (const InputError& error) {
            session_.post(error);
            return std::nullopt;
        }
    };
}

PictureFolder::PictureFolder(QObject* parent)
    : QObject(parent), watcher_(new QFileSystemWatcher(this)), settle_(new QTimer(this)) {
    settle_->setSingleShot(true);
    settle_->setInterval(settleMs);
    connect(watcher_, &QFileSystemWatcher::directoryChanged, settle_, qOverload<>(&QTimer::start));
    connect(settle_, &QTimer::timeout, this, &PictureFolder::look);
}

void PictureFolder::watch(const QString& folder) {
    if (!folder_.isEmpty()) watcher_->removePath(folder_);
    folder_ = folder;
    known_.clear();
    growing_.clear();
    if (folder.isEmpty()) return;
    const QDir dir(folder);
    for (const QFileInfo& file : dir.entryInfoList(QDir::Files)) known_[file.filePath()] = file.size();
    watcher_->addPath(folder);
}

void PictureFolder::look() {
    const QDir dir(folder_);
    QStringList whole;
    bool grows = false;
    for (const QFileInfo& file :
         dir.entryInfoList({"*.png", "*.jpg", "*.jpeg", "*.PNG", "*.JPG", "*.JPEG"}, QDir::Files)) {
        const auto known = known_.find(file.filePath());
        if (known == known_.end()) {
            known_[file.filePath()] = file.size();
            growing_ << file.filePath();
            grows = true;
        } else if (growing_.contains(file.filePath())) {
            if (known->second != file.size() || file.size() == 0) {
                known->second = file.size();
                grows = true;
            } else {
                growing_.removeAll(file.filePath());
                whole << file.filePath();
            }
        }
    }
    if (grows) settle_->start(); // until it has been written
    if (!whole.isEmpty()) emit appeared(whole);
}

} // namespace ibuki
