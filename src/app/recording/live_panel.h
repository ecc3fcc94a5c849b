// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/live_run.h"

#include <QPointer>
#include <QTimer>
#include <QWidget>

class QLabel;
class QListWidget;
class QPushButton;

namespace ibuki {

class AskSheet;
class GateBar;
class StatusLightRow;
class LivePlot;

/// The run while it is made, readable from two metres and worked with gloves: one number, the step and when
/// it ends, the steps, the lamps, the curve, and large keys. Single keys act while the panel itself has the
/// focus: Space moves on, P pauses, S leaves a step out, N writes a remark, M marks a moment, R takes a
/// reading, Esc held stops.
class LivePanel : public QWidget {
    Q_OBJECT

public:
    LivePanel(LiveRun& run, QWidget* parent = nullptr);
    void refresh();

signals:
    void compactWanted();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void changeEvent(QEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    QWidget* makeHead();
    QWidget* makeKeys();
    QWidget* makeBelow();
    void moveOn();
    void leaveOut();
    void closeWhatHasEnded();
    QString endedMeanwhile() const; ///< why nothing more goes into the recording; empty while it is made
    void writeRemark();
    void takeReading();
    void askStop();
    void tellTone(bool warning);
    void tellMarks();
    void fitText();

    LiveRun& run_;
    QTimer clock_; ///< of hands, between rows
    QTimer held_;  ///< Esc
    QLabel* title_ = nullptr;
    QLabel* figure_ = nullptr;
    QLabel* unit_ = nullptr;
    QLabel* step_ = nullptr;
    QLabel* until_ = nullptr;
    QLabel* next_ = nullptr;
    QLabel* doubts_ = nullptr;
    QLabel* hint_ = nullptr;
    GateBar* bar_ = nullptr;
    StatusLightRow* statusLights_ = nullptr;
    LivePlot* plot_ = nullptr;
    QListWidget* marks_ = nullptr;
    QPushButton* all_ = nullptr;
    QPushButton* on_ = nullptr;
    QPushButton* pause_ = nullptr;
    QPushButton* skip_ = nullptr;
    QPushButton* remark_ = nullptr;
    QPushButton* moment_ = nullptr;
    QPushButton* reading_ = nullptr;
    QPushButton* stop_ = nullptr;
    QPushButton* tones_ = nullptr;
    bool narrow_ = false;
    std::size_t reported_ = 0;   ///< marks in the list
    QPointer<AskSheet> leaving_; ///< asks why the rest of a step is left out
    std::size_t leavingPlace_ = 0;
};

/// Stored in the user's settings.
bool tonesAreOn();
void setTones(bool on);

} // namespace ibuki
