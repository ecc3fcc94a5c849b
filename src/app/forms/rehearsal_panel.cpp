// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/rehearsal_panel.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/base/input_error.h"
#include "core/evidence/scatter.h"
#include "core/setup/plan_setup.h"
#include "store/paper/heat_csv.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QSlider>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr long campaigns = 10'000;
constexpr long curveCampaigns = 3'000;
constexpr int curveMounts = 10;
constexpr double slideK = 0.1; ///< one step of the slider

QString practiceName(StudyPractice practice, int mounts) {
    switch (practice) {
    case StudyPractice::plan:
        return sayMany("this plan: {count} mount of each, in blocks",
                       "this plan: {count} mounts of each, in blocks", mounts);
    case StudyPractice::oneEach:
        return say("one mount of each, the coolest wins");
    case StudyPractice::bestOfThree:
        return say("best of three, one after the other");
    case StudyPractice::oneAfterTheOther:
        return say("mean of three, all of one, then all of the next");
    case StudyPractice::ambientLeftIn:
        return say("the same, room not taken off");
    case StudyPractice::atLimit:
        return say("the same, at the temperature limit");
    }
    return {};
}

QString percent(double share) { return QString::number(100 * share, 'f', 0); }

} // namespace

RehearsalBars::RehearsalBars(QWidget* parent) : QWidget(parent) {
    setAccessibleName(say("What verdicts are worth by each practice"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
}

void RehearsalBars::show(std::vector<Bar> bars) {
    bars_ = std::move(bars);
    QStringList words;
    for (const Bar& bar : bars_)
        words << say("%1: right %2 %, wrong %3 %, nothing said %4 %")
                     .arg(bar.name, percent(bar.right), percent(bar.wrong), percent(bar.none));
    setAccessibleDescription(words.join("; "));
    setFixedHeight(sizeHint().height()); // every practice is seen, however little room the curve then has
    update();
}

QSize RehearsalBars::sizeHint() const {
    return {600, static_cast<int>(bars_.size()) * (fontMetrics().height() + 16)};
}

void RehearsalBars::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Colours& c = colours();
    painter.setFont(textFont(0.95));
    const double line = painter.fontMetrics().height(), row = line + 16;
    double names = 0, costs = 0;
    for (const Bar& bar : bars_) {
        names = std::max<double>(names, painter.fontMetrics().horizontalAdvance(bar.name));
        costs = std::max<double>(costs, painter.fontMetrics().horizontalAdvance(bar.cost));
    }
    const double from = names + 12, wide = width() - from - costs - 12;
    double y = 0;
    for (const Bar& bar : bars_) {
        painter.setPen(c.ink);
        painter.drawText(QRectF(0, y, names + 4, line + 8), Qt::AlignLeft | Qt::AlignVCenter, bar.name);
        double x = from;
        // Told apart by fill and by what stands in it: full, empty, hatched.
        const auto part = [&](double share, const QBrush& fill, const QColor& ink, const QString& word) {
            const QRectF rect(x, y, wide * share, line + 8);
            painter.fillRect(rect, c.sheet);
            painter.setPen(QPen(c.line, 1));
            painter.setBrush(fill);
            painter.drawRect(rect);
            const QString full = word + " " + percent(share), figure = percent(share);
            for (const QString& text : {full, figure})
                if (painter.fontMetrics().horizontalAdvance(text) + 8 < rect.width()) {
                    if (fill.style() == Qt::BDiagPattern) {
                        QRectF patch = painter.boundingRect(rect, Qt::AlignCenter, text);
                        painter.fillRect(patch.adjusted(-3, 0, 3, 0), c.sheet);
                    }
                    painter.setPen(ink);
                    painter.drawText(rect, Qt::AlignCenter, text);
                    break;
                }
            x += rect.width();
        };
        part(bar.right, c.ink, c.sheet, say("right"));
        part(bar.none, QBrush(c.sheet), c.ink, say("nothing said"));
        part(bar.wrong, QBrush(c.hot, Qt::BDiagPattern), c.ink, say("wrong"));
        painter.setPen(c.quiet);
        painter.drawText(QRectF(width() - costs, y, costs, line + 8), Qt::AlignRight | Qt::AlignVCenter,
                         bar.cost);
        y += row;
    }
}

RehearsalPanel::RehearsalPanel(Session& session, QWidget* parent)
    : ExportedPage(say("Rehearsal"), parent),
      session_(session),
      difference_(new QSlider(Qt::Horizontal)),
      differenceReported_(new QLabel),
      reported_(new QLabel),
      basis_(quietLabel()),
      bars_(new RehearsalBars),
      curve_(new QCustomPlot) {
    explain(this, Topic::chance);
    difference_->setRange(1, 50);
    difference_->setAccessibleName(say("True difference of the best from the others"));
    difference_->setObjectName("True difference");
    reported_->setObjectName("Rehearsal told");
    reported_->setWordWrap(true);
    curve_->setAccessibleName(say("Right and wrong over the mounts of each"));
    curve_->setMinimumHeight(130);
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel(say("The best truly lies below the others by")));
    row->addWidget(difference_, 1);
    row->addWidget(differenceReported_);
    auto* inside = new QVBoxLayout(this);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addLayout(row);
    inside->addWidget(reported_);
    inside->addWidget(bars_);
    inside->addWidget(curve_, 1);
    inside->addWidget(basis_);
    connect(difference_, &QSlider::valueChanged, this, &RehearsalPanel::start);
}

void RehearsalPanel::refresh() {
    stale_ = true;
    if (isVisible()) start();
}

void RehearsalPanel::showEvent(QShowEvent* event) {
    ExportedPage::showEvent(event);
    if (stale_) start();
}

/// One a panel: Question and Heat path each have theirs.
QString RehearsalPanel::jobName() const {
    return QStringLiteral("rehearsal %1").arg(reinterpret_cast<quintptr>(this));
}

void RehearsalPanel::start() {
    const Question* question = session_.question();
    if (!question) return;
    if (stale_ && !shown_) {
        const QSignalBlocker quiet(difference_);
        const double marginK = kelvinPerUnit(session_.document(), *question) * question->margin.value;
        difference_->setValue(std::max(1, static_cast<int>(std::lround(marginK / slideK))));
    }
    stale_ = false;
    const double d = slideK * difference_->value();
    differenceReported_->setText(say("%1 K").arg(d, 0, 'f', 1));
    working_ = true;
    session_.jobs().startNewest<Worked>(
        jobName(), this,
        [document = session_.document(), question = *question, d,
         now = session_.now()](const std::stop_token& stop, const Progress& progress) {
            const Plan plan = planFor(document, question.study);
            std::optional<PowerAnalysis> analysis;
            try {
                analysis = powerAnalysisOf(document, question, plan, now);
            } catch (const InputError&) { // evenings that never come: the campaigns can be drawn all the same
            }
            Worked worked;
            worked.study = studyRehearsal(document, question, plan, d, analysis ? &*analysis : nullptr);
            RehearsalOptions options{campaigns};
            options.stop = stop;
            options.progress = [&](double share) { progress(0.5 * share); };
            worked.campaigns = rehearse(worked.study.scenario, options);
            options.campaigns = curveCampaigns;
            options.progress = [&](double share) { progress(0.5 + 0.5 * share); };
            if (!worked.campaigns.cancelled)
                worked.overMounts = rehearse(overMounts(worked.study.scenario, curveMounts), options);
            return worked;
        },
        [this](const Worked& worked) { take(worked); },
        [this](const InputError& error) {
            working_ = false;
            reported_->setText(saySentence(error));
            bars_->show({});
        });
    showProgress(session_.jobs().runner(jobName()), say("Rehearsing the study"), this, true);
}

void RehearsalPanel::take(const Worked& worked) {
    working_ = false;
    if (worked.campaigns.cancelled || worked.overMounts.cancelled) return;
    shown_ = worked;
    const RehearsalScenario& scenario = worked.study.scenario;
    std::vector<RehearsalBars::Bar> bars;
    for (std::size_t i = 0; i < scenario.practices.size(); ++i) {
        const RehearsedOutcome& outcome = worked.campaigns.practices[i];
        QString cost = sayMany("{count} mount", "{count} mounts", outcome.totalMounts);
        if (worked.study.hoursPerMount)
            cost += say(", %1 h").arg(*worked.study.hoursPerMount * outcome.totalMounts, 0, 'f', 0);
        if (worked.study.gramsPerMount)
            cost += say(", %1 g").arg(*worked.study.gramsPerMount * outcome.totalMounts, 0, 'f', 1);
        bars.push_back({practiceName(static_cast<StudyPractice>(i), scenario.practices[i].mounts), cost,
                        outcome.rightBest, outcome.noCall, outcome.wrongBest});
    }
    const RehearsedOutcome& plan = worked.campaigns.practices.front();
    reported_->setText(
        say("With this plan you would name the right one in %1 of 100 campaigns, a wrong one in %2, and say "
            "nothing in %3.")
            .arg(percent(plan.rightBest), percent(plan.wrongBest), percent(plan.noCall)));
    bars_->show(std::move(bars));
    QStringList basis;
    for (const Message& message : worked.study.basis) basis << sayText(message) + ".";
    basis_->setMinimumHeight(2 * basis_->fontMetrics().height());
    basis_->setText(basis.join(" ") + " " + say("%1 campaigns each.").arg(worked.campaigns.campaigns));
    showCurve(worked.overMounts);
}

void RehearsalPanel::showCurve(const Rehearsal& overMounts) {
    const Colours& c = colours();
    curve_->setBackground(QBrush(c.sheet));
    stylePlotAxis(curve_->xAxis);
    stylePlotAxis(curve_->yAxis);
    curve_->legend->setBrush(Qt::NoBrush);
    curve_->legend->setBorderPen(Qt::NoPen);
    curve_->legend->setTextColor(c.ink);
    curve_->legend->setFont(textFont(smallText));
    // Between what is all but certain with few mounts and what is not: no curve comes there.
    curve_->axisRect()->insetLayout()->setInsetAlignment(0, Qt::AlignLeft | Qt::AlignVCenter);
    curve_->clearGraphs();
    const auto add = [&](double RehearsedOutcome::*share, const QPen& pen, const QString& name) {
        QCPGraph* graph = curve_->addGraph();
        graph->setPen(pen);
        graph->setName(name);
        graph->setScatterStyle(QCPScatterStyle::ssDisc);
        for (std::size_t i = 0; i < overMounts.practices.size(); ++i)
            graph->addData(static_cast<double>(i + 1), 100 * overMounts.practices[i].*share);
    };
    add(&RehearsedOutcome::rightBest, QPen(colours().ink, 2), say("right"));
    add(&RehearsedOutcome::noCall, QPen(colours().quiet, 1.5, Qt::DashLine), say("nothing said"));
    add(&RehearsedOutcome::wrongBest, QPen(colours().hot, 2, Qt::DotLine), say("wrong"));
    curve_->legend->setVisible(true);
    curve_->xAxis->setLabel(say("mounts of each"));
    curve_->yAxis->setLabel("%");
    curve_->xAxis->setRange(0.5, curveMounts + 0.5);
    curve_->yAxis->setRange(-3, 103);
    curve_->replot();
}

std::string RehearsalPanel::csv() const {
    return shown_ ? rehearsalCsv(shown_->study.scenario, shown_->campaigns) : std::string();
}

} // namespace ibuki
