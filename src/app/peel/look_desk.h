// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/edit.h"
#include "core/inspect/joint_coverage.h"

#include <QImage>
#include <QObject>
#include <map>

namespace ibuki {

/// What a photograph is when it is looked at: its pixels, and the face as its corners have it.
struct OpenedPicture {
    Id<JointPicture> id;
    RgbPicture photograph;
    MeasuredFace measured; ///< by the stored corners; without corners where none are stored
    GreyPicture mask;      ///< as it is stored; empty where none is
};

/// The looks of the selected mount: takes pictures in, measures them beside the window, and puts what changes
/// into the project, each as one action that can be undone.
class LookDesk : public QObject {
    Q_OBJECT

public:
    explicit LookDesk(Session& session, QObject* parent = nullptr);

    std::optional<Id<Site>>
    site() const; ///< that the selected mount is looked at; nothing: no mount or question
    const JointInspection* look() const; ///< of the selected mount; nullptr: none yet
    const JointPicture* picture(Id<JointPicture> id) const { return session_.document().find(id); }

    void add(const QStringList& paths, LookSide side);
    void addImage(const QImage& image, const QString& name, LookSide side);
    bool isPractice() const; ///< the study's bench is simulated: it has a camera of its own
    void photographPractice();
    void open(Id<JointPicture> id, const QObject* asker, std::function<void(const OpenedPicture&)> ready);

    void setCorners(Id<JointPicture> id, const FaceCorners& corners);
    void findCornersAgain(Id<JointPicture> id);
    void setThreshold(const OpenedPicture& opened, double threshold);
    void putMask(Id<JointPicture> id, const GreyPicture& mask);
    void setSide(Id<JointPicture> id, LookSide side);
    void remove(Id<JointPicture> id);
    /// Creates the look where there is none yet, changes it; one action.
    void change(const Message& title, const std::function<void(JointInspection&)>& changed);
    /// The mount is rejected by what was seen; an empty reason takes it back.
    void reject(const std::string& reason);

    MaskSource masks();
    static QString job(); ///< under which pictures come in

signals:
    void working();                  ///< a picture is on its way in
    void taken(Id<JointPicture> id); ///< a picture came in

private:
    struct TakenIn;
    void takeIn(std::function<RgbPicture()> read, const QString& name, LookSide side);
    void put(const TakenIn& in);
    void measureAgain(Id<JointPicture> id, const std::optional<FaceCorners>& corners);
    Extent faceSize() const;
    JointInspection lookIn(Edit& edit, Id<Site> at) const;

    Session& session_;
    std::map<std::string, GreyPicture> masks_; ///< by digest, decoded once
};

/// Which folder a camera or a telephone drops its pictures into: pictures that appear there belong to the
/// mount that is chosen then.
class PictureFolder : public QObject {
    Q_OBJECT

public:
    explicit PictureFolder(QObject* parent = nullptr);

    void watch(const QString& folder); ///< empty: no longer
    const QString& folder() const { return folder_; }

signals:
    void appeared(const QStringList& paths);

private:
    void look();

    QString folder_;
    class QFileSystemWatcher* watcher_;
    class QTimer* settle_;
    std::map<QString, qint64> known_; ///< with their sizes: a file that still grows waits
    QStringList growing_;
};

/// Longer side of what is kept of a picture, px; a setting.
int keptSide();
void setKeptSide(int px);

} // namespace ibuki
