// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/course_page.h"

#include "app/ageing/ageing_lines.h"
#include "app/drawn/class_mark_painter.h"
#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/quantity/span.h"
#include "store/paper/ageing_csv.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr double nearPx = 12;
constexpr int manyReadings = 2'000;
constexpr int calendarItem = static_cast<int>(ageingClocks.size());

int allReadings(const AgeingJudgement& judged) {
    int sum = 0;
    for (const GroupAgeing& one : judged.groups) sum += one.group.readings();
    return sum;
}

SpanUnit unitFor(double hours) {
    if (hours < 72) return {1, say("h")};
    if (hours < 90 * hoursPerDay) return {hoursPerDay, say("days")};
    if (hours < 1.5 * hoursPerYear) return {hoursPerYear / 12, say("months")};
    return {hoursPerYear, say("years")};
}

/// Of all groups together; 1 of cycles.
SpanUnit axisUnit(const AgeingJudgement& judged, AgeingClock clock) {
    if (clock != AgeingClock::hours && clock != AgeingClock::loadHours) return {};
    double longest = 1;
    for (const GroupAgeing& one : judged.groups)
        if (const ClockedCourse* course = one.by(clock)) longest = std::max(longest, course->course.last());
    return unitFor(longest);
}

} // namespace

CoursePage::CoursePage(AgeingDesk& desk, QWidget* parent)
    : ExportedPage(say("Course"), parent),
      desk_(desk),
      scope_(new QComboBox),
      clock_(new QComboBox),
      head_(new QLabel),
      plot_(new QCustomPlot),
      groups_(new QListWidget),
      reported_(new QLabel),
      models_(figureTable(say("Courses that were tried"), modelHead())),
      foot_(quietLabel()),
      plan_(button(say("Plan the mounts"), say("Those that it still needs, and when to come back to them"))) {
    explain(this, Topic::ageing);
    scope_->setAccessibleName(say("Which mounts"));
    scope_->setObjectName("Which mounts");
    scope_->addItems({say("Mounts of this study"), say("Mounts of all benches")});
    clock_->setAccessibleName(say("Clock"));
    clock_->setObjectName("Clock");
    for (const AgeingClock one : ageingClocks) clock_->addItem(clockLabel(one));
    clock_->addItem(say("Calendar"));
    plot_->setObjectName("Drift plot");
    plot_->setMinimumHeight(180);
    keepNamesApart(*plot_);
    groups_->setAccessibleName(say("Materials"));
    groups_->setObjectName("Materials followed");
    groups_->setWordWrap(true);
    groups_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    reported_->setWordWrap(true);
    reported_->setObjectName("Drift told");
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    foot_->setObjectName("Drift foot");
    head_->setObjectName("Drift head");

    auto* head = new QHBoxLayout;
    head->addWidget(scope_);
    head->addWidget(clock_);
    head->addWidget(head_, 1);
    auto* rules = button(say("What matters…"), say("Threshold, what counts as no change, usual intervals"));
    connect(rules, &QPushButton::clicked, this, [this] { desk_.openRules(); });
    head->addWidget(plan_);
    head->addWidget(rules);
    connect(plan_, &QPushButton::clicked, this, [this] {
        if (const GroupAgeing* ageing = chosen()) desk_.planChecks(*ageing);
    });
    auto* left = new QVBoxLayout;
    left->addWidget(plot_, 3);
    left->addWidget(foot_);
    auto* reportBox = new QVBoxLayout;
    reportBox->setContentsMargins(0, 0, 0, 0);
    reportBox->addWidget(reported_);
    reportBox->addStretch(1);
    auto* right = new QVBoxLayout;
    right->addWidget(groups_, 3);
    right->addWidget(scrolled(reportBox), 3);
    right->addWidget(models_, 3);
    auto* both = new QHBoxLayout;
    both->addLayout(left, 5);
    both->addLayout(right, 4);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(head);
    layout->addLayout(both, 1);
    connect(scope_, &QComboBox::activated, this, [this] {
        fillGroups();
        followClock();
        fillChosen();
    });
    connect(clock_, &QComboBox::activated, this, [this] { fillChosen(); });
    connect(groups_, &QListWidget::currentRowChanged, this, [this] {
        followClock();
        fillChosen();
    });
    connect(plot_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) { selectAt(event->pos()); });
}

void CoursePage::changeEvent(QEvent* event) {
    ExportedPage::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && desk_.matter()) refresh();
}

const AgeingJudgement* CoursePage::judged() const {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return nullptr;
    return scope_->currentIndex() == 0 ? &matter->study : &matter->fleet;
}

const GroupAgeing* CoursePage::chosen() const {
    const AgeingJudgement* all = judged();
    const int row = groups_->currentRow();
    if (!all || row < 0 || row >= static_cast<int>(all->groups.size())) return nullptr;
    return &all->groups[static_cast<std::size_t>(row)];
}

bool CoursePage::byDate() const { return clock_->currentIndex() == calendarItem; }

AgeingClock CoursePage::clock() const {
    return byDate() ? AgeingClock::hours : ageingClocks.at(static_cast<std::size_t>(clock_->currentIndex()));
}

void CoursePage::followClock() {
    if (const GroupAgeing* ageing = chosen(); ageing && !byDate())
        clock_->setCurrentIndex(static_cast<int>(ageing->goesWith.value_or(AgeingClock::hours)));
}

void CoursePage::refresh() {
    fillGroups();
    fillChosen();
}

void CoursePage::fillGroups() {
    const QSignalBlocker quiet(groups_);
    const int row = groups_->currentRow();
    groups_->clear();
    const AgeingJudgement* all = judged();
    if (!all) return;
    for (const GroupAgeing& ageing : all->groups) {
        const QString answer = ageing.reported.empty() ? QString() : sayText(ageing.reported.front());
        auto* item = new QListWidgetItem(classIcon(ageing.group.kind),
                                         answer.isEmpty() ? qtext(ageing.group.name) : answer, groups_);
        item->setToolTip(qtext(ageing.group.name));
    }
    groups_->setCurrentRow(std::clamp(row, 0, std::max(0, groups_->count() - 1)));
}

void CoursePage::fillChosen() {
    const AgeingJudgement* all = judged();
    const GroupAgeing* ageing = chosen();
    QStringList lines;
    if (ageing)
        for (const Message& one : ageing->reported) lines << sayText(one) + ".";
    reported_->setText(lines.join("\n"));
    const bool isStudy = scope_->currentIndex() == 0;
    plan_->setVisible(isStudy && ageing && ageing->breakIn.says == BreakIn::Says::notResolved
                      && !ageing->wearsOut && ageing->breakIn.neededMounts);
    const ClockedCourse* course = ageing ? ageing->by(clock()) : nullptr;
    fillTable(*models_, course ? modelRows(*course) : std::vector<QStringList>{});
    QStringList foot;
    if (all)
        for (const Message& one : all->bench) foot << sayText(one) + ".";
    foot_->setText(foot.mid(0, 4).join(" "));
    foot_->setToolTip(foot.join("\n"));
    const bool isFollowed = all
                            && std::any_of(all->groups.begin(), all->groups.end(),
                                           [](const GroupAgeing& one) { return one.group.isFollowed(); });
    head_->setText(!all ? say("Following the mounts…")
                   : isFollowed
                       ? equalAgeLine(*all)
                       : say("No mount was measured twice. Plan to come back: Question, plan, Come back "
                             "after; or bring in a log of a mount that still stands."));
    head_->setWordWrap(true);
    plot_->setVisible(isFollowed);
    foot_->setVisible(isFollowed);
    models_->setVisible(isFollowed);
    draw();
}

void CoursePage::draw() {
    plot_->clearPlottables();
    plot_->clearItems();
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->yAxis->setLabel(say("Change since fresh, K"));
    const AgeingJudgement* all = judged();
    if (all) {
        drawQuickly(*plot_, allReadings(*all) > manyReadings);
        for (std::size_t i = 0; i < all->groups.size(); ++i)
            if (&all->groups[i] != chosen()) drawGroup(i, all->groups[i], false);
        for (std::size_t i = 0; i < all->groups.size(); ++i)
            if (&all->groups[i] == chosen()) drawGroup(i, all->groups[i], true);
        if (const GroupAgeing* ageing = chosen()) drawThreshold(*ageing);
    }
    plot_->rescaleAxes();
    plot_->yAxis->scaleRange(1.15);
    leaveRoomForNames(*plot_);
    plot_->replot();
}

namespace {

/// Hours become what the axis counts in.
QVector<double> inUnit(const std::vector<double>& values, double unit) {
    QVector<double> made;
    for (const double value : values) made << value / unit;
    return made;
}

} // namespace

void CoursePage::nameAxis(const SpanUnit& unit) {
    if (byDate()) {
        plot_->xAxis->setTicker(QSharedPointer<QCPAxisTickerDateTime>::create());
        plot_->xAxis->setLabel({});
        return;
    }
    plot_->xAxis->setTicker(QSharedPointer<QCPAxisTicker>::create());
    plot_->xAxis->setLabel(unit.name.isEmpty()
                               ? clockLabel(clock())
                               : QStringLiteral("%1, %2").arg(clockLabel(clock()), unit.name));
}

void CoursePage::drawBand(const AgeingCurves& curves, const SpanUnit& unit) {
    QVector<double> lo;
    QVector<double> hi;
    for (const Interval& one : curves.band) {
        lo << one.lo;
        hi << one.hi;
    }
    const auto edge = [&](const QVector<double>& y) {
        QCPGraph* graph = plot_->addGraph();
        graph->setData(inUnit(curves.t, unit.hours), y, true);
        graph->setPen(Qt::NoPen);
        return graph;
    };
    QCPGraph* below = edge(lo);
    QCPGraph* above = edge(hi);
    above->setChannelFillGraph(below);
    above->setBrush(QBrush(colours().band));
}

void CoursePage::drawReadings(const AgeingCurves& curves, const SpanUnit& unit, const QPen& pen,
                              bool isChosen) {
    for (const auto& dots : curves.mounts) {
        QVector<double> x;
        QVector<double> y;
        for (const auto& dot : dots) {
            if (byDate() && !dot.at) continue;
            x << (byDate() ? static_cast<double>(dot.at->ms) / 1'000 : dot.t / unit.hours);
            y << dot.changeK;
        }
        QCPGraph* graph = plot_->addGraph();
        graph->setData(x, y, true);
        QPen thin = pen;
        thin.setWidthF(0.8);
        graph->setPen(thin);
        graph->setLineStyle(byDate() || !isChosen || curves.t.empty() ? QCPGraph::lsLine : QCPGraph::lsNone);
        graph->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, isChosen ? 7 : 4));
        if (!dots.empty())
            graph->setProperty("mount", QVariant::fromValue<qlonglong>(dots.front().mount.value));
    }
}

void CoursePage::drawGroup(std::size_t place, const GroupAgeing& ageing, bool isChosen) {
    if (!ageing.group.isFollowed()) return;
    const AgeingCurves curves = ageingCurves(ageing, clock());
    QPen pen = linePen(place);
    QColor faint = pen.color();
    faint.setAlphaF(isChosen ? 0.9F : 0.35F);
    pen.setColor(faint);
    pen.setWidthF(isChosen ? 2.4 : 1.4);
    const SpanUnit unit = axisUnit(*judged(), clock());
    nameAxis(unit);
    if (isChosen && !byDate() && !curves.t.empty()) drawBand(curves, unit);
    // Of many readings only those of the chosen material are drawn as dots.
    if (isChosen || byDate() || allReadings(*judged()) <= manyReadings)
        drawReadings(curves, unit, pen, isChosen);
    if (byDate()) return;
    if (curves.t.empty()) {
        if (!curves.mounts.empty() && !curves.mounts.back().empty())
            nameLine(*plot_, qtext(ageing.group.name), faint, curves.mounts.back().back().t / unit.hours,
                     curves.mounts.back().back().changeK);
        return;
    }
    const auto line = [&](const std::vector<double>& t, const std::vector<double>& y, Qt::PenStyle style) {
        QCPGraph* graph = plot_->addGraph();
        graph->setData(inUnit(t, unit.hours), QVector<double>(y.begin(), y.end()), true);
        QPen drawn = pen;
        if (style != Qt::SolidLine) drawn.setStyle(style);
        graph->setPen(drawn);
    };
    line(curves.t, curves.changeK, Qt::SolidLine);
    if (isChosen && !curves.aheadT.empty()) line(curves.aheadT, curves.aheadK, Qt::DotLine);
    nameLine(*plot_, qtext(ageing.group.name), faint, curves.t.back() / unit.hours, curves.changeK.back());
}

void CoursePage::drawThreshold(const GroupAgeing& ageing) {
    const AgeingMatter* matter = desk_.matter();
    const ClockedCourse* course = ageing.by(clock());
    if (!matter || byDate() || !course || !ageing.wearsOut) return;
    const double threshold = judged()->rules.threshold.value;
    auto* line = new QCPItemStraightLine(plot_);
    line->point1->setCoords(0, threshold);
    line->point2->setCoords(1, threshold);
    line->setPen(QPen(colours().hot, 1.4, Qt::DashLine));
    const AgeingTime& time = course->threshold;
    if (!time.at || time.farBeyond) return;
    const double unit = axisUnit(*judged(), clock()).hours;
    QCPGraph* mark = plot_->addGraph();
    mark->setData({*time.at / unit}, {threshold});
    mark->setLineStyle(QCPGraph::lsNone);
    mark->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDiamond, colours().hot, 11));
    auto* text = new QCPItemText(plot_);
    text->setText(clockText(clock(), *time.at));
    text->setFont(textFont(0.95, QFont::DemiBold));
    text->setColor(colours().hot);
    text->setPositionAlignment(Qt::AlignHCenter | Qt::AlignBottom);
    text->position->setCoords(*time.at / unit, threshold);
    text->setPadding({0, 0, 0, 6});
    if (!time.interval) return;
    QCPGraph* span = plot_->addGraph();
    span->setData({time.interval->lo / unit, time.interval->hi / unit}, {threshold, threshold});
    span->setPen(QPen(colours().hot, 4));
}

void CoursePage::selectAt(const QPointF& pos) {
    for (int i = 0; i < plot_->graphCount(); ++i) {
        const QVariant mount = plot_->graph(i)->property("mount");
        if (!mount.isValid()) continue;
        for (const QCPGraphData& dot : *plot_->graph(i)->data()) {
            const QPointF at(plot_->xAxis->coordToPixel(dot.key), plot_->yAxis->coordToPixel(dot.value));
            if (QLineF(at, pos).length() < nearPx) {
                desk_.session().selectMount(Id<Mount>{mount.toLongLong()});
                return;
            }
        }
    }
}

std::string CoursePage::csv() const { return judged() ? ageingCsv(*judged()) : std::string(); }

QWidget* CoursePage::picture() { return plot_; }

} // namespace ibuki
