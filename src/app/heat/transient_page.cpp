// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/transient_page.h"

#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/copying.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/heat/transient_lines.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/domain/edit.h"
#include "store/paper/heat_csv.h"
#include "store/project/project.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

const QString jobName = QStringLiteral("load steps");
enum Shown { overTime, alongPath };
constexpr double lastShare = 0.98; ///< of the resistance: the rest is the room, which stores without end

bool isSame(const TransientTask& a, const TransientTask& b) {
    return a.recording == b.recording && a.probeShiftS == b.probeShiftS && a.settings == b.settings
           && a.load == b.load;
}

void addCurve(QCustomPlot& plot, const std::vector<double>& x, const std::vector<double>& y,
              const QPen& pen) {
    QCPGraph* graph = plot.addGraph();
    graph->setPen(pen);
    graph->setData(QVector<double>(x.begin(), x.end()), QVector<double>(y.begin(), y.end()), true);
}

QPen thin(QPen pen) {
    QColor colour = pen.color();
    colour.setAlphaF(0.45F);
    pen.setColor(colour);
    pen.setWidthF(1);
    return pen;
}

std::vector<double> meanOf(const TransientStudy& study, std::size_t group) {
    std::vector<double> mean(study.timesS.size(), 0.0);
    double n = 0;
    for (const MountStep& step : study.steps) {
        if (step.group != group) continue;
        ++n;
        for (std::size_t i = 0; i < mean.size(); ++i) mean[i] += (step.kPerW[i] - mean[i]) / n;
    }
    return n > 0 ? mean : std::vector<double>{};
}

} // namespace

TransientPage::TransientPage(Session& session, QWidget* parent)
    : ExportedPage(say("Load steps"), parent),
      session_(session),
      at_(new QDoubleSpinBox),
      declare_(button(say("Declare"), say("Keep this time for the question, whatever the curves show"))),
      shown_(new QComboBox),
      reported_(new QLabel),
      plot_(new QCustomPlot),
      why_(quietLabel()),
      pairs_(new QTableWidget) {
    explain(this, Topic::loadSteps);
    at_->setRange(0.01, 3'600);
    at_->setDecimals(2);
    at_->setSuffix(say(" s"));
    at_->setAccessibleName(say("Read at, after the step"));
    at_->setObjectName("Read at");
    at_->setKeyboardTracking(false);
    shown_->addItems({say("K/W over time"), say("Heat capacity along the path")});
    shown_->setAccessibleName(say("What is drawn"));
    reported_->setWordWrap(true);
    reported_->setObjectName("Load steps told");
    plot_->setAccessibleName(say("Load steps"));
    plot_->setMinimumHeight(220);
    keepNamesApart(*plot_);
    why_->setAlignment(Qt::AlignCenter);
    why_->setObjectName("Layers told");
    why_->setMinimumHeight(plot_->minimumHeight());
    why_->hide();
    pairs_->setAccessibleName(say("Pairs of materials at that time"));
    pairs_->setEditTriggers(QTableWidget::NoEditTriggers);
    pairs_->setTabKeyNavigation(false);
    pairs_->verticalHeader()->hide();
    pairs_->setMinimumHeight(5 * fontMetrics().height());
    copyRowOnKey(*pairs_);
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel(say("Read")));
    row->addWidget(at_);
    row->addWidget(new QLabel(say("after the step")));
    row->addWidget(declare_);
    row->addStretch(1);
    row->addWidget(shown_);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addLayout(row);
    inside->addWidget(plot_, 3);
    inside->addWidget(why_, 3);
    inside->addWidget(pairs_, 1);
    inside->addWidget(reported_);
    auto* outside = new QVBoxLayout(this);
    outside->setContentsMargins(0, 0, 0, 0);
    outside->addWidget(scrolled(inside)); // large text needs more than there is
    connect(at_, &QDoubleSpinBox::valueChanged, this, &TransientPage::judge);
    connect(declare_, &QPushButton::clicked, this, &TransientPage::declare);
    connect(shown_, &QComboBox::currentIndexChanged, this, &TransientPage::draw);
}

void TransientPage::refresh() {
    stale_ = true;
    if (isVisible()) start();
}

void TransientPage::showEvent(QShowEvent* event) {
    ExportedPage::showEvent(event);
    if (stale_) start();
}

void TransientPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
}

void TransientPage::start() {
    const Question* question = session_.question();
    if (!question) return;
    stale_ = false;
    const Document& document = session_.document();
    Input input{*question, gatherEvidence(document, *question), {}};
    input.tasks = transientTasks(document, *question, input.evidence);
    const bool isOther =
        !input_ || input_->question.id != question->id || input_->question.stepReadS != question->stepReadS;
    input_ = std::move(input);
    if (isOther && question->stepReadS) {
        const QSignalBlocker quiet(at_);
        at_->setValue(*question->stepReadS);
    }
    std::vector<TransientTask> due;
    for (const TransientTask& task : input_->tasks) {
        const auto known = read_.find(task.run);
        if (known == read_.end() || !isSame(known->second.task, task)) due.push_back(task);
    }
    if (due.empty()) return take({});
    working_ = true;
    session_.jobs().startNewest<std::vector<Read>>(
        jobName, this,
        [path = session_.path().toStdString(), due](const std::stop_token& stop, const Progress& progress) {
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            std::vector<Read> read;
            for (const TransientTask& task : due) {
                if (stop.stop_requested()) break;
                progress(static_cast<double>(read.size()) / static_cast<double>(due.size()));
                Read one{task,
                         stepResponseOf(project.loadWithProbe(task.recording, task.probeShiftS),
                                        task.settings, task.load),
                         {}};
                one.layers = layersOf(one.response);
                read.push_back(std::move(one));
            }
            return read;
        },
        [this](std::vector<Read> read) { take(std::move(read)); },
        [this](const InputError& error) {
            working_ = false;
            reported_->setText(saySentence(error));
        });
    showProgress(session_.jobs().runner(jobName), say("Reading the load steps"), this, true);
}

void TransientPage::take(std::vector<Read> read) {
    working_ = false;
    for (Read& one : read) read_.insert_or_assign(one.task.run, std::move(one));
    if (!input_) return;
    if (!input_->question.stepReadS && !study_) {
        const QSignalBlocker quiet(at_);
        at_->setValue(typicalReadS(runs()));
    }
    judge();
}

std::vector<TransientRun> TransientPage::runs() const {
    std::vector<TransientRun> found;
    for (const TransientTask& task : input_->tasks)
        if (const auto at = read_.find(task.run); at != read_.end())
            found.push_back({task.mount, task.run, at->second.response});
    return found;
}

void TransientPage::judge() {
    if (!input_ || working_) return;
    study_ = transientStudy(session_.document(), input_->question, input_->evidence, runs(), at_->value());
    reported_->setText(transientLines(*study_, input_->question.stepReadS).join("\n"));
    declare_->setEnabled(input_->question.stepReadS != at_->value());
    fillTable();
    draw();
}

void TransientPage::declare() {
    if (!input_) return;
    Edit edit(session_.document(), titled("Declare when load steps are read"));
    Question question = *session_.document().find(input_->question.id);
    question.stepReadS = at_->value();
    edit.put(question);
    session_.perform(edit.finish());
}

void TransientPage::fillTable() {
    const QStringList heads = transientHeads(*study_);
    pairs_->setColumnCount(static_cast<int>(heads.size()));
    pairs_->setHorizontalHeaderLabels(heads);
    pairs_->setRowCount(static_cast<int>(study_->pairs.size()));
    for (std::size_t i = 0; i < study_->pairs.size(); ++i) {
        const QStringList cells = transientRow(*study_, study_->pairs[i]);
        for (int column = 0; column < cells.size(); ++column)
            pairs_->setItem(static_cast<int>(i), column, fixedItem(cells[column]));
    }
    pairs_->horizontalHeader()->setStretchLastSection(false); // else it stretches once only
    pairs_->resizeColumnsToContents();
    pairs_->horizontalHeader()->setStretchLastSection(true);
    pairs_->setVisible(!study_->pairs.empty());
}

const TransientPage::Read* TransientPage::readOf(std::optional<Id<Mount>> mount) const {
    for (const auto& [run, read] : read_)
        if (mount && read.task.mount == *mount) return &read;
    return nullptr;
}

void TransientPage::draw() {
    plot_->clearGraphs();
    plot_->clearItems();
    plot_->setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    const bool isAlong = shown_->currentIndex() == alongPath;
    if (isAlong) drawLayers();
    const bool isRefused = isAlong && plot_->graphCount() == 0;
    why_->setText(isRefused ? whyNoLayers() : QString());
    why_->setVisible(isRefused);
    plot_->setVisible(!isRefused);
    if (!isAlong && study_) drawSteps();
    plot_->replot();
}

QString TransientPage::whyNoLayers() const {
    if (!session_.selection().mount) return say("Choose a mount on the tape: its log is looked at then.");
    const Read* read = readOf(session_.selection().mount);
    if (!read) return say("This mount is none of those that are compared here.");
    if (read->response.reason) return sayText(*read->response.reason) + ".";
    return say("Not from this log: it was sampled every %1 s with a noise of %2 K. A structure function "
               "takes a "
               "reading every millisecond and noise below 0.02 K; from less, its layers would be made up.")
        .arg(QString::number(read->response.intervalS, 'g', 3),
             QString::number(read->response.noiseK, 'g', 2));
}

void TransientPage::drawSteps() {
    plot_->xAxis->setScaleType(QCPAxis::stLogarithmic);
    plot_->xAxis->setTicker(QSharedPointer<QCPAxisTickerLog>::create());
    plot_->yAxis->setScaleType(QCPAxis::stLinear);
    plot_->yAxis->setTicker(QSharedPointer<QCPAxisTicker>::create());
    plot_->xAxis->setLabel(say("s after the step"));
    plot_->yAxis->setLabel("K/W");
    if (study_->timesS.empty()) return;
    const Selection& selection = session_.selection();
    bool isChosen = false;
    for (const MountStep& step : study_->steps) {
        const QPen pen = linePen(step.group.value_or(2));
        const bool bold = selection.mount == step.mount || selection.beside == step.mount;
        addCurve(*plot_, study_->timesS, step.kPerW, bold ? pen : thin(pen));
        if (!bold) continue;
        isChosen = true;
        nameLine(*plot_, qtext(step.name), pen.color(), study_->timesS.back(), step.kPerW.back());
    }
    const Comparison* shown = study_->shown();
    for (std::size_t g = 0; !isChosen && shown && g < shown->groups.size(); ++g) {
        const std::vector<double> mean = meanOf(*study_, g);
        if (mean.empty()) continue;
        addCurve(*plot_, study_->timesS, mean, linePen(g));
        nameLine(*plot_, qtext(shown->groups[g].name), linePen(g).color(), study_->timesS.back(),
                 mean.back());
    }
    auto* line = new QCPItemStraightLine(plot_);
    line->point1->setCoords(study_->atS, 0);
    line->point2->setCoords(study_->atS, 1);
    line->setPen(QPen(colours().quiet, 1, Qt::DashDotLine));
    plot_->rescaleAxes();
    const QCPRange seen = plot_->yAxis->range();
    plot_->yAxis->setRange(seen.lower - 0.4 * seen.size(), seen.upper + 0.06 * seen.size()); // and below
    plot_->xAxis->setRangeUpper(study_->timesS.back() * 3); // room for the names
}

/// Of the chosen mount, and of the one that is held beside it: where they part lies what differs.
void TransientPage::drawLayers() {
    plot_->xAxis->setScaleType(QCPAxis::stLinear);
    plot_->xAxis->setTicker(QSharedPointer<QCPAxisTicker>::create());
    plot_->xAxis->setLabel(say("K/W from the chip on"));
    plot_->yAxis->setLabel(say("J/K up to there"));
    plot_->yAxis->setScaleType(QCPAxis::stLogarithmic);
    plot_->yAxis->setTicker(QSharedPointer<QCPAxisTickerLog>::create());
    std::size_t place = 2;
    for (const auto& mount : {session_.selection().mount, session_.selection().beside}) {
        const Read* read = readOf(mount);
        if (!read || read->layers.structure.empty()) continue;
        std::vector<double> r, c;
        for (const StructurePoint& point : read->layers.structure) {
            if (point.kPerW > lastShare * read->layers.structure.back().kPerW) break;
            r.push_back(point.kPerW);
            c.push_back(point.jPerK);
        }
        addCurve(*plot_, r, c, linePen(place));
        const Mount* named = session_.document().find(mount);
        nameLine(*plot_, named ? qtext(named->name) : QString(), linePen(place).color(), r.back(), c.back());
        place = 0;
    }
    plot_->rescaleAxes();
    const QCPRange seen = plot_->xAxis->range();
    plot_->xAxis->setRangeUpper(seen.upper + 0.15 * seen.size()); // room for the names
    plot_->yAxis->setRangeUpper(4 * plot_->yAxis->range().upper);
}

std::string TransientPage::csv() const { return study_ ? stepsCsv(*study_) : std::string(); }

QWidget* TransientPage::picture() { return plot_; }

} // namespace ibuki
