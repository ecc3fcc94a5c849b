// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "app/peel/look_desk.h"
#include "app/peel/peel_lines.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QListWidget;
class QPushButton;
class QSlider;
class QStackedWidget;

namespace ibuki {

class CornerCanvas;
class MaskCanvas;

/// The pictures of the mount: corners, mask, figures, and what is bare in kelvins.
class PicturePage : public ExportedPage {
    Q_OBJECT

public:
    PicturePage(Session& session, LookDesk& desk, QWidget* parent = nullptr);

    void refresh();
    void choosePictures();
    void pastePicture();
    void chooseFolder();
    void askKeptSize();
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QWidget* makeTools();
    void connectSide(QPushButton& add, QPushButton& again, QPushButton& remove);
    QWidget* makeSide();
    LookSide side() const;
    const JointPicture* chosen() const;
    void choose(Id<JointPicture> id);
    void open();
    void take(const OpenedPicture& opened);
    void showFigures();
    void startCost(const GreyPicture& mask);
    void refine();

    Session& session_;
    LookDesk& desk_;
    PictureFolder* folder_;
    QListWidget* list_;
    QComboBox* sideOf_;
    QStackedWidget* canvases_;
    CornerCanvas* corners_;
    MaskCanvas* mask_;
    QWidget* tools_;
    QComboBox* tool_;
    QSlider* threshold_;
    QLabel* thresholdReported_;
    QLabel* brushReported_;
    QPushButton* refine_;
    QPushButton* folderButton_;
    QPushButton* camera_;
    QLabel* empty_;
    QWidget* shown_;
    QFormLayout* figures_;
    QLabel* reported_;
    QLabel* cost_;
    std::optional<OpenedPicture> opened_;
    std::optional<Id<JointPicture>> wanted_;
    std::optional<JointPicture> openedAs_; ///< as it was stored when it was opened
};

} // namespace ibuki
