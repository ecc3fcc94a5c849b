// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_page.h"

#include "app/bench/bench_view.h"
#include "app/forms/ask.h"
#include "app/forms/widgets.h"
#include "app/recording/after_run_bar.h"
#include "app/recording/check_up_sheet.h"
#include "app/recording/compact_window.h"
#include "app/recording/live_lines.h"
#include "app/recording/live_panel.h"
#include "app/say.h"

#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

BenchPage::BenchPage(Session& session, LiveRun& run, QWidget* parent)
    : QWidget(parent),
      session_(session),
      run_(run),
      pages_(new QStackedWidget),
      view_(new BenchView(session)),
      live_(new LivePanel(run)),
      back_(button({}, say("Back to the run that is recorded"), true)),
      after_(new AfterRunBar(session)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(back_);
    layout->addWidget(after_);
    layout->addWidget(pages_, 1);
    pages_->addWidget(view_);
    pages_->addWidget(live_);
    back_->setObjectName("Back to the run");
    connect(back_, &QPushButton::clicked, this, [this] {
        away_ = false;
        refresh();
        live_->setFocus();
    });
    connect(view_, &BenchView::recordWanted, this, [this](Id<Mount> mount) { record({{}, mount}); });
    connect(view_, &BenchView::slotRecordWanted, this, [this](Id<Slot> slot) { record({slot, {}}); });
    connect(view_, &BenchView::followUpRecordWanted, this, [this](Id<FollowUp> id) {
        const FollowUp* later = session_.document().find(id);
        const Slot* slot = later ? session_.document().find(later->slot) : nullptr;
        if (slot && slot->mount)
            record({{}, slot->mount, false, id});
        else
            session_.refuse(say("Its mount is not made yet."));
    });
    connect(after_, &AfterRunBar::peelWanted, this, &BenchPage::peelWanted);
    connect(after_, &AfterRunBar::againWanted, this, [this](Id<Mount> mount) { record({{}, mount}); });
    connect(live_, &LivePanel::compactWanted, this, &BenchPage::showCompact);
    connect(&session_, &Session::selectionChanged, this, &BenchPage::follow);
    connect(&run_, &LiveRun::changed, this, [this] {
        if (run_.isOn() != (pages_->currentWidget() == live_) || away_) refresh();
    });
    connect(&run_, &LiveRun::ended, this, &BenchPage::runEnded);
    refresh();
}

BenchPage::~BenchPage() = default;

bool BenchPage::lookedAway() const {
    if (run_.stage() == RunStage::manualWork) return session_.mount() != nullptr;
    return run_.mount() && session_.selection().mount != run_.mount();
}

void BenchPage::follow() {
    away_ = run_.isOn() && lookedAway();
    refresh();
}

void BenchPage::refresh() {
    const bool live = run_.isOn() && !away_;
    const bool came = live && pages_->currentWidget() != live_;
    pages_->setCurrentWidget(live ? static_cast<QWidget*>(live_) : view_);
    back_->setVisible(run_.isOn() && away_);
    if (run_.isOn() && away_) {
        const LiveLines reported = liveLines(run_);
        back_->setText(
            say("A run is under way: %1 %2, %3").arg(reported.figure, reported.unit, reported.step));
    }
    if (run_.isOn()) after_->forget();
    after_->refresh();
    if (live)
        live_->refresh();
    else
        view_->refresh();
    if (came) live_->setFocus();
}

void BenchPage::record(RunFor whom) {
    if (run_.isOn()) {
        away_ = false;
        refresh();
        return;
    }
    openDialog(new RunSheet(session_, run_, whom, this));
}

void BenchPage::showCompact() {
    if (!run_.isOn()) return;
    if (!compact_) {
        compact_ = std::make_unique<CompactWindow>(run_);
        connect(compact_.get(), &CompactWindow::wholeWanted, this, [this] {
            compact_->hide();
            window()->showNormal();
            window()->activateWindow();
            live_->setFocus();
        });
    }
    compact_->show();
    compact_->setFocus();
    window()->showMinimized();
}

void BenchPage::addSource() {
    if (run_.stage() != RunStage::recording) {
        session_.refuse(say("No run is being recorded."));
        return;
    }
    const auto open = [this](const std::string& spec) {
        auto opened = std::make_shared<std::unique_ptr<Source>>();
        session_.jobs().startNewest<int>(
            QStringLiteral("sources"), this,
            [spec, opened](const std::stop_token&, const Progress&) {
                *opened = openSource(spec, {});
                return 0;
            },
            [this, opened](int) { run_.addSource(std::move(*opened)); },
            [this](const InputError& error) { session_.refuse(error); });
    };
    askChoice(this, {say("Add a source to the run"), say("Its readings come in from now on."), {}},
              {say("This machine"), say("A growing log…"), say("An instrument…")}, [this, open](int which) {
                  if (which == 0) {
                      open(sensorsSpec);
                      return;
                  }
                  const std::string kind = which == 1 ? followedSpec : instrumentSpec;
                  askFile(this,
                          {FileWish::Kind::open, say("Add a source to the run"), {}, say("All files (*)")},
                          [open, kind](const QString& file) { open(kind + ":" + file.toStdString()); });
              });
}

void BenchPage::dropSource() {
    const auto specs = run_.sources();
    QStringList names;
    for (const std::string& spec : specs) names << qtext(sourceTitle(spec));
    if (run_.stage() != RunStage::recording || names.isEmpty()) {
        session_.refuse(say("No run is being recorded."));
        return;
    }
    askChoice(
        this, {say("Drop a source of the run"), say("What it gave stays; it says nothing any more."), {}},
        names, [this, specs](int which) { run_.dropSource(specs.at(static_cast<std::size_t>(which))); });
}

void BenchPage::judgeCheckUp(Id<Bench> bench) {
    session_.jobs().startNewest<CheckUp>(
        QStringLiteral("check-up"), this,
        [path = session_.path().toStdString(), recording = run_.recording()](const std::stop_token&,
                                                                             const Progress&) {
            return checkUpOf(Project::open(path, Access::readOnly, Decode::whenAsked).loadTrace(recording));
        },
        [this, bench](CheckUp found) {
            openDialog(new CheckUpSheet(session_, bench, std::move(found), this));
        },
        [this](const InputError& error) { session_.post(error); });
}

void BenchPage::runEnded() {
    away_ = false;
    if (run_.isCheckUp() && session_.bench() && run_.extent().samples > 1) judgeCheckUp(session_.bench()->id);
    if (run_.mount() && session_.document().find(*run_.mount())) {
        after_->remember(*run_.mount());
        session_.selectMount(*run_.mount());
    }
    refresh();
}

} // namespace ibuki
