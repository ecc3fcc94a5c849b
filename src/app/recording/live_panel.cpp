// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/live_panel.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/recording/gate_bar.h"
#include "app/recording/live_lines.h"
#include "app/recording/live_plot.h"
#include "app/recording/status_light_row.h"
#include "app/say.h"
#include "app/session/step_title.h"
#include "live/tone.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QListWidget>
#include <QSettings>
#include <QThreadPool>
#include <QVBoxLayout>
#include <algorithm>

namespace ibuki {
namespace {

constexpr int holdMs = 900;
const QString tonesKey = QStringLiteral("bench/tones");

/// Large enough for a glove.
QPushButton* key(const QString& text, const QString& keyName, const QString& toolTip, bool main = false) {
    QPushButton* made = button(text, keyName.isEmpty() ? toolTip : keyName + ": " + toolTip, main);
    made->setProperty("keyName", keyName);
    made->setMinimumHeight(46);
    made->setFocusPolicy(Qt::TabFocus); // a press leaves the keys with the panel
    return made;
}

/// With its key, as it is pressed.
void name(QPushButton* key, const QString& text) {
    key->setText(text + QStringLiteral("   ") + key->property("keyName").toString());
    key->setAccessibleName(text);
}

struct TypedKind {
    const char* name;
    Role role;
};
constexpr TypedKind typedKinds[] = {{words::mark("Room, °C"), Role::ambient},
                                    {words::mark("Coolant, °C"), Role::coolant},
                                    {words::mark("Power at the wall, W"), Role::wallPower},
                                    {words::mark("Noise, dB"), Role::noise}};

} // namespace

bool tonesAreOn() { return QSettings().value(tonesKey, true).toBool(); }
void setTones(bool on) { QSettings().setValue(tonesKey, on); }

LivePanel::LivePanel(LiveRun& run, QWidget* parent) : QWidget(parent), run_(run) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("The run under way"));
    setObjectName("Live panel");
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeHead());
    bar_ = new GateBar;
    layout->addWidget(bar_);
    layout->addWidget(makeBelow(), 1);
    held_.setSingleShot(true);
    held_.setInterval(holdMs);
    connect(&held_, &QTimer::timeout, &run_, &LiveRun::abort);
    clock_.setInterval(1'000);
    connect(&clock_, &QTimer::timeout, this, [this] {
        if (run_.stage() == RunStage::manualWork && isVisible()) refresh();
    });
    clock_.start();
    connect(&run_, &LiveRun::changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&run_, &LiveRun::stepped, this, [this] { tellTone(false); });
    connect(&run_, &LiveRun::warned, this, [this] { tellTone(true); });
    explain(this, Topic::gate);
}

QWidget* LivePanel::makeHead() {
    title_ = quietLabel();
    figure_ = new QLabel;
    figure_->setObjectName("Live difference");
    figure_->setAccessibleName(say("Difference now"));
    unit_ = new QLabel;
    setTextFont(unit_, 1.3);
    unit_->setProperty("quiet", true);
    auto* number = new QVBoxLayout;
    number->setSpacing(0);
    number->addStretch(1);
    number->addWidget(figure_);
    number->addWidget(unit_);
    number->addStretch(1);
    step_ = new QLabel;
    step_->setObjectName("Live step");
    until_ = new QLabel;
    until_->setObjectName("Live until");
    next_ = new QLabel;
    setTextFont(next_, 1.15);
    next_->setProperty("quiet", true);
    doubts_ = new QLabel;
    for (QLabel* label : {step_, until_, next_, doubts_}) label->setWordWrap(true);
    auto* words = new QVBoxLayout;
    words->addWidget(title_);
    words->addStretch(1);
    for (QLabel* label : {step_, until_, next_, doubts_}) words->addWidget(label);
    words->addStretch(1);
    auto* layout = new QHBoxLayout;
    layout->setContentsMargins(22, 8, 18, 8);
    layout->addLayout(number);
    layout->addSpacing(24);
    layout->addLayout(words, 1);
    layout->addWidget(makeKeys());
    return card(layout);
}

QWidget* LivePanel::makeKeys() {
    on_ = key({}, say("Space"), say("on to what comes next"), true);
    pause_ = key({}, QStringLiteral("P"), say("no load until it goes on; the step begins anew"));
    skip_ = key(say("Leave out…"), QStringLiteral("S"), say("the step is left out, with a reason"));
    remark_ = key(say("Remark…"), QStringLiteral("N"), say("words that stay with the recording"));
    moment_ = key(say("Mark"), QStringLiteral("M"), say("this moment, without words"));
    reading_ = key(say("Reading…"), QStringLiteral("R"), say("what you read yourself, into the recording"));
    stop_ = key(say("Stop…"), say("Esc, held"), say("nothing more is run; what was recorded stays"));
    for (QPushButton* one : {skip_, remark_, moment_, reading_}) name(one, one->text());
    auto* small = key(say("Small window"), {}, say("Above all others, for a machine whose screen is busy"));
    connect(on_, &QPushButton::clicked, this, &LivePanel::moveOn);
    connect(pause_, &QPushButton::clicked, &run_, &LiveRun::pause);
    connect(skip_, &QPushButton::clicked, this, &LivePanel::leaveOut);
    connect(remark_, &QPushButton::clicked, this, &LivePanel::writeRemark);
    connect(moment_, &QPushButton::clicked, &run_, &LiveRun::moment);
    connect(reading_, &QPushButton::clicked, this, &LivePanel::takeReading);
    connect(stop_, &QPushButton::clicked, this, &LivePanel::askStop);
    connect(small, &QPushButton::clicked, this, &LivePanel::compactWanted);
    auto* grid = new QGridLayout;
    grid->setContentsMargins(0, 0, 0, 0);
    grid->addWidget(on_, 0, 0, 1, 2);
    grid->addWidget(stop_, 0, 2);
    int place = 0;
    for (QPushButton* one : {pause_, skip_, remark_, moment_, reading_, small}) {
        grid->addWidget(one, 1 + place / 3, place % 3);
        ++place;
    }
    auto* keys = new QWidget;
    keys->setLayout(grid);
    return keys;
}

QWidget* LivePanel::makeBelow() {
    statusLights_ = new StatusLightRow;
    explain(statusLights_, Topic::watch);
    plot_ = new LivePlot;
    all_ = button(say("All temperatures"), say("Every channel in place of the difference"));
    all_->setCheckable(true);
    connect(all_, &QPushButton::toggled, this, [this] { refresh(); });
    tones_ = button(say("Tones"), say("A tone when a step ends and when something is off"));
    tones_->setCheckable(true);
    tones_->setChecked(tonesAreOn());
    connect(tones_, &QPushButton::toggled, this, &setTones);
    hint_ = quietLabel();
    auto* foot = new QHBoxLayout;
    foot->addWidget(hint_, 1);
    foot->addStretch(0);
    foot->addWidget(tones_);
    foot->addWidget(all_);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(14, 8, 14, 8);
    left->addWidget(statusLights_);
    left->addWidget(plot_, 1);
    left->addLayout(foot);
    marks_ = new QListWidget;
    marks_->setAccessibleName(say("What happened"));
    wrapItems(*marks_);
    marks_->setSpacing(3);
    marks_->setFocusPolicy(Qt::TabFocus);
    auto* right = new QVBoxLayout;
    right->setContentsMargins(14, 10, 14, 10);
    right->addWidget(cardTitle(say("What happened")));
    right->addWidget(marks_, 1);
    auto* layout = new QHBoxLayout;
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(card(left), 3);
    layout->addWidget(card(right), 1);
    auto* below = new QWidget;
    below->setLayout(layout);
    return below;
}

/// As large as the width allows beside the words.
void LivePanel::fitText() {
    const double line = fontMetrics().height();
    const double ambientFor = std::min(width() / (line * 7.1), height() / (line * 3.6));
    setTextFont(figure_, std::clamp(ambientFor, 4.0, 8.6), QFont::DemiBold);
    const bool narrow = ambientFor < 7;
    const double words = narrow ? 1.35 : 1.9;
    title_->setVisible(!narrow);
    narrow_ = narrow;
    setTextFont(doubts_, narrow ? 1.0 : 1.15, QFont::DemiBold);
    setTextFont(step_, words, QFont::DemiBold);
    setTextFont(until_, words);
}

void LivePanel::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fitText();
}

void LivePanel::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::FontChange && figure_) fitText();
}

void LivePanel::refresh() {
    closeWhatHasEnded();
    const LiveLines reported = liveLines(run_);
    const bool manualWork = run_.stage() == RunStage::manualWork;
    const bool recording = run_.stage() == RunStage::recording;
    title_->setText(QString::fromStdString(run_.title()));
    hint_->setText(all_->isChecked() ? say("°C, by minutes since the load began")
                   : narrow_         ? say("K over room, by minutes since the load began")
                                     : say("K over room, by minutes since the load began; behind it earlier "
                                                   "mounts, rejected ones dashed"));
    figure_->setText(reported.figure);
    QPalette palette = figure_->palette();
    palette.setColor(QPalette::WindowText, manualWork ? colours().ink : colours().hot);
    figure_->setPalette(palette);
    unit_->setText(reported.unit);
    step_->setText(reported.step);
    until_->setText(reported.until);
    next_->setText(reported.next);
    next_->setVisible(!reported.next.isEmpty());
    doubts_->setText(reported.doubts.join("\n"));
    doubts_->setVisible(!reported.doubts.isEmpty());
    bar_->setVisible(!run_.steps().empty());
    bar_->show(run_.steps(), run_.status().place, reported.share, run_.status().paused);
    statusLights_->show(statusLightLines(run_));
    plot_->show(run_, all_->isChecked());
    name(on_, manualWork ? say("Done: move on") : run_.status().paused ? say("Go on") : say("Move on"));
    on_->setEnabled(manualWork || (recording && run_.status().step));
    name(pause_, run_.status().paused ? say("Go on") : say("Pause"));
    for (QPushButton* one : {pause_, skip_}) one->setEnabled(recording && run_.status().step.has_value());
    for (QPushButton* one : {remark_, moment_, reading_}) one->setEnabled(recording);
    stop_->setEnabled(manualWork || recording);
    tellMarks();
}

void LivePanel::tellMarks() {
    if (reported_ > run_.marks().size()) { // another run
        marks_->clear();
        reported_ = 0;
    }
    for (; reported_ < run_.marks().size(); ++reported_) {
        const LiveMark& mark = run_.marks()[reported_];
        auto* item = new QListWidgetItem(markLine(mark));
        if (mark.kind == MarkKind::warning || mark.kind == MarkKind::stop) {
            item->setText(QStringLiteral("▲ ") + item->text());
            item->setForeground(colours().hot);
        }
        marks_->insertItem(0, item);
    }
}

void LivePanel::tellTone(bool warning) {
    if (!tonesAreOn()) return;
    QThreadPool::globalInstance()->start([tone = warning ? Tone::warning : Tone::step] {
        if (!playTone(tone))
            QMetaObject::invokeMethod(
                qApp, [] { QApplication::beep(); }, Qt::QueuedConnection);
    });
}

void LivePanel::moveOn() {
    if (run_.stage() == RunStage::manualWork)
        run_.moveOn();
    else if (run_.status().paused)
        run_.pause();
    else
        leaveOut();
}

void LivePanel::leaveOut() {
    if (run_.stage() != RunStage::recording || !run_.status().step) return;
    leavingPlace_ = run_.status().place;
    leaving_ = askText(
        this,
        {say("Leave the rest of this step out"),
         say("Why? \"%1\" ends now, and the reason stays in the record.").arg(stepTitle(*run_.status().step)),
         {}},
        [this](const QString& reason) {
            if (reason.trimmed().isEmpty()) return say("A step is left out with a reason only.");
            run_.skip(reason);
            return QString();
        });
}

/// The step that is asked about may end by itself while the reason is being written: the next one must not be
/// left out in its place.
void LivePanel::closeWhatHasEnded() {
    const bool same = run_.stage() == RunStage::recording && run_.status().place == leavingPlace_;
    if (leaving_ && !same) leaving_->reject();
}

QString LivePanel::endedMeanwhile() const {
    if (run_.stage() == RunStage::recording) return {};
    return say("The recording has ended meanwhile. Write it down with the mount.");
}

void LivePanel::writeRemark() {
    if (run_.stage() != RunStage::recording) return;
    askText(this,
            {say("Remark"),
             say("It stays with the recording at %1.").arg(clockText(run_.extent().durationS)),
             {}},
            [this](const QString& text) {
                if (const QString why = endedMeanwhile(); !why.isEmpty()) return why;
                run_.remark(text);
                return QString();
            });
}

void LivePanel::takeReading() {
    if (run_.stage() != RunStage::recording) return;
    QStringList names;
    for (const TypedKind& kind : typedKinds) names << say(kind.name);
    askChoice(this, {say("Reading by hand"), say("What did you read?"), {}}, names, [this, names](int which) {
        askText(this, {names.value(which), say("It goes into the recording, from now on."), {}},
                [this, which](const QString& typed) {
                    const auto value = numberFrom(typed);
                    if (!value) return say("\"%1\" is no number. Write digits, such as 21.5.").arg(typed);
                    if (const QString why = endedMeanwhile(); !why.isEmpty()) return why;
                    run_.type(typedKinds[which].role, *value);
                    return QString();
                });
    });
}

void LivePanel::askStop() {
    askChoice(this, {say("Stop the run"), say("The load ends; what was recorded stays."), {}},
              {say("Go on with the run"), say("Stop it now")}, [this](int which) {
                  if (which == 1) run_.abort();
              });
}

void LivePanel::keyPressEvent(QKeyEvent* event) {
    if (event->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) {
        QWidget::keyPressEvent(event);
        return;
    }
    switch (event->key()) {
    case Qt::Key_Space:
        if (!event->isAutoRepeat()) moveOn();
        return;
    case Qt::Key_P:
        if (!event->isAutoRepeat()) run_.pause();
        return;
    case Qt::Key_S:
        leaveOut();
        return;
    case Qt::Key_N:
        writeRemark();
        return;
    case Qt::Key_M:
        if (!event->isAutoRepeat()) run_.moment();
        return;
    case Qt::Key_R:
        takeReading();
        return;
    case Qt::Key_Escape:
        if (!event->isAutoRepeat()) held_.start();
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

void LivePanel::keyReleaseEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && !event->isAutoRepeat()) held_.stop();
    QWidget::keyReleaseEvent(event);
}

void LivePanel::focusOutEvent(QFocusEvent* event) {
    held_.stop();
    QWidget::focusOutEvent(event);
}

} // namespace ibuki
