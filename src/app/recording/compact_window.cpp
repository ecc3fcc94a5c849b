// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/compact_window.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/recording/gate_bar.h"
#include "app/recording/status_light_row.h"
#include "app/say.h"

#include <QCloseEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

namespace ibuki {

CompactWindow::CompactWindow(LiveRun& run, QWidget* parent)
    : QWidget(parent, Qt::Window | Qt::WindowStaysOnTopHint),
      run_(run),
      figure_(new QLabel),
      step_(new QLabel),
      until_(new QLabel),
      bar_(new GateBar),
      statusLights_(new StatusLightRow),
      on_(button(say("Done: move on"), say("Space"), true)) {
    setWindowTitle(say("Run"));
    setAccessibleName(say("The run under way, small"));
    setFocusPolicy(Qt::StrongFocus);
    setTextFont(figure_, 3.6, QFont::DemiBold);
    setTextFont(step_, 1.2, QFont::DemiBold);
    setTextFont(until_, 1.2);
    for (QLabel* label : {step_, until_}) label->setWordWrap(true);
    statusLights_->setBrief(true);
    on_->setFocusPolicy(Qt::NoFocus);
    auto* whole = button(say("Window"), say("Back to the window"));
    whole->setFocusPolicy(Qt::NoFocus);
    auto* words = new QVBoxLayout;
    words->addWidget(step_);
    words->addWidget(until_);
    words->addStretch(1);
    auto* top = new QHBoxLayout;
    top->addWidget(figure_);
    top->addSpacing(10);
    top->addLayout(words, 1);
    auto* foot = new QHBoxLayout;
    foot->addWidget(statusLights_, 1);
    foot->addWidget(on_);
    foot->addWidget(whole);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 8, 12, 8);
    layout->addLayout(top);
    layout->addWidget(bar_);
    layout->addLayout(foot);
    const int line = QFontMetrics(textFont()).height();
    resize(27 * line, 11 * line);
    connect(on_, &QPushButton::clicked, &run_, &LiveRun::moveOn);
    connect(whole, &QPushButton::clicked, this, &CompactWindow::wholeWanted);
    connect(&run_, &LiveRun::changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&run_, &LiveRun::ended, this, [this] {
        if (isVisible()) emit wholeWanted();
    });
}

void CompactWindow::refresh() {
    const LiveLines reported = liveLines(run_);
    figure_->setText(reported.figure);
    QPalette palette = figure_->palette();
    palette.setColor(QPalette::WindowText,
                     run_.stage() == RunStage::manualWork ? colours().ink : colours().hot);
    figure_->setPalette(palette);
    figure_->setToolTip(reported.unit);
    step_->setText(reported.step);
    until_->setText(reported.doubts.isEmpty() ? reported.until : reported.doubts.front());
    bar_->show(run_.steps(), run_.status().place, reported.share, run_.status().paused);
    statusLights_->show(statusLightLines(run_));
    on_->setVisible(run_.stage() == RunStage::manualWork);
}

void CompactWindow::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refresh();
}

void CompactWindow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat() && run_.stage() == RunStage::manualWork)
        run_.moveOn();
    else if (event->key() == Qt::Key_Escape)
        emit wholeWanted();
    else
        QWidget::keyPressEvent(event);
}

void CompactWindow::closeEvent(QCloseEvent* event) {
    emit wholeWanted();
    event->accept();
}

} // namespace ibuki
