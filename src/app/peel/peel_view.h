// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/peel/look_desk.h"

#include <QWidget>

class QLabel;
class QPushButton;
class QStackedWidget;

namespace ibuki {

class LooksPage;
class PicturePage;
class SeenPage;

/// What the joint looked like when the cooler came off: pictures with their masks, what was seen, all looks
/// of the bench together.
class PeelView : public QWidget {
    Q_OBJECT

public:
    explicit PeelView(Session& session, QWidget* parent = nullptr);

    void refresh();
    PicturePage& pictures() { return *pictures_; }

private:
    Session& session_;
    LookDesk desk_;
    QLabel* title_;
    QPushButton* export_;
    QStackedWidget* pages_;
    PicturePage* pictures_;
    SeenPage* seen_;
    LooksPage* looks_;
};

} // namespace ibuki
