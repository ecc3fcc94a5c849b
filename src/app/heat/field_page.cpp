// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/field_page.h"

#include "app/forms/topic.h"
#include "app/heat/field_picture_view.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "app/session/session.h"
#include "core/heat/power_map.h"
#include "core/physics/spread.h"
#include "store/paper/heat_csv.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>
#include <array>
#include <cmath>

namespace ibuki {
namespace {

constexpr std::array cellsMm{1.5, 0.7, 0.4}; ///< each finer than the one before
constexpr double spreadLineMm = 0.05;        ///< its bond line: shape and share do not depend on it

bool isPattern(BareWhere where) { return where >= BareWhere::byDot; }

CoverageMask spreadMask(BareWhere where, double dose, const Extent& face) {
    constexpr std::array patterns{Pattern::dot, Pattern::line, Pattern::cross, Pattern::fiveDots};
    const Pattern pattern =
        patterns.at(static_cast<std::size_t>(where) - static_cast<std::size_t>(BareWhere::byDot));
    SpreadInput input;
    input.widthMm = face.widthMm;
    input.lengthMm = face.lengthMm;
    input.bondLineMm = spreadLineMm;
    input.strokes = patternStrokes(pattern, face.widthMm, face.lengthMm,
                                   typicalReachMm(pattern, face.widthMm, face.lengthMm));
    input.volumeMm3 = dose * face.areaMm2() * spreadLineMm;
    return maskOf(spread(input));
}

/// Where the two faces of a joint lie on each other.
Extent overlapAt(const HeatPath& path, std::size_t joint) {
    const Extent& a = path.solids[joint].size;
    const Extent& b = path.solids[joint + 1].size;
    return {std::min(a.widthMm, b.widthMm), std::min(a.lengthMm, b.lengthMm)};
}

} // namespace

CoverageMask bareMask(BareWhere where, double covered, const Extent& face) {
    if (isPattern(where)) return spreadMask(where, covered, face);
    constexpr int n = 200;
    CoverageMask mask{n, n, {}};
    const double bare = 1 - covered, side = std::sqrt(bare);
    const double inner = std::sqrt(covered); // of the rectangle inside a frame
    for (int row = 0; row < n; ++row)
        for (int column = 0; column < n; ++column) {
            const double x = (column + 0.5) / n, y = (row + 0.5) / n;
            const double off = std::max(std::abs(x - 0.5), std::abs(y - 0.5));
            const bool isBare = (where == BareWhere::corner && x < side && y < side)
                                || (where == BareWhere::edge && x < bare)
                                || (where == BareWhere::middle && off < side / 2)
                                || (where == BareWhere::frame && off > inner / 2);
            mask.covered.push_back(isBare ? 0.0F : 1.0F);
        }
    return mask;
}

FieldPage::FieldPage(Session& session, QWidget* parent)
    : HeatPage(say("Field"), parent),
      session_(session),
      view_(new FieldPictureView),
      bare_(new QComboBox),
      power_(new QComboBox),
      inCores_(new QSlider(Qt::Horizontal)),
      inCoresReported_(new QLabel),
      coveredName_(new QLabel(say("Covered"))),
      faces_(new QComboBox),
      covered_(new QSlider(Qt::Horizontal)),
      coveredReported_(new QLabel),
      reported_(new QLabel) {
    explain(this, Topic::heatPath);
    bare_->addItems({say("nowhere"), say("in one corner"), say("along one edge"), say("in the middle"),
                     say("all round"), say("as a dot spreads"), say("as a line spreads"),
                     say("as a cross spreads"), say("as five dots spread")});
    power_->addItems({say("evenly"), say("in a core in the middle"), say("in a core in one corner"),
                      say("in eight cores")});
    power_->setAccessibleName(say("Where the heat is made"));
    inCores_->setRange(10, 90);
    inCores_->setValue(50);
    inCores_->setAccessibleName(say("Share of the heat in the cores"));
    covered_->setRange(30, 100);
    covered_->setValue(80);
    bare_->setAccessibleName(say("Where the joint is bare"));
    faces_->setAccessibleName(say("Face that is shown"));
    covered_->setAccessibleName(say("Share of the joint that is covered"));
    reported_->setWordWrap(true);
    reported_->setObjectName("Field told");
    auto* form = new QFormLayout;
    form->addRow(say("Shown"), faces_);
    form->addRow(say("Bare"), bare_);
    auto* share = new QHBoxLayout;
    share->addWidget(covered_, 1);
    share->addWidget(coveredReported_);
    form->addRow(coveredName_, share);
    form->addRow(say("Heat"), power_);
    auto* cores = new QHBoxLayout;
    cores->addWidget(inCores_, 1);
    cores->addWidget(inCoresReported_);
    form->addRow(say("In cores"), cores);
    auto* side = new QVBoxLayout;
    side->addLayout(form);
    side->addWidget(reported_);
    side->addStretch(1);
    auto* inside = new QHBoxLayout(this);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(view_, 3);
    inside->addLayout(side, 2);
    connect(bare_, &QComboBox::currentIndexChanged, this, &FieldPage::start);
    connect(covered_, &QSlider::valueChanged, this, &FieldPage::start);
    connect(power_, &QComboBox::currentIndexChanged, this, &FieldPage::start);
    connect(inCores_, &QSlider::valueChanged, this, &FieldPage::start);
    connect(faces_, &QComboBox::currentIndexChanged, this, &FieldPage::tell);
}

void FieldPage::fill(const HeatMatter&) {} // what it shows comes from the stack

void FieldPage::show(const ChangedPath& path) {
    path_ = path;
    isStale_ = true;
    if (isVisible()) start();
}

void FieldPage::bareAt(BareWhere where, double covered) {
    covered_->setValue(static_cast<int>(std::lround(100 * covered)));
    bare_->setCurrentIndex(static_cast<int>(where));
}

void FieldPage::showEvent(QShowEvent* event) {
    HeatPage::showEvent(event);
    if (isStale_) start();
}

void FieldPage::start() {
    coveredReported_->setText(say("%1 %").arg(covered_->value()));
    covered_->setEnabled(bare_->currentIndex() > 0);
    const bool byPattern = isPattern(static_cast<BareWhere>(bare_->currentIndex()));
    coveredName_->setText(byPattern ? say("Dose, of a full face") : say("Covered"));
    inCoresReported_->setText(say("%1 %").arg(inCores_->value()));
    inCores_->setEnabled(power_->currentIndex() > 0);
    if (!path_) return;
    isStale_ = false;
    isFine_ = false;
    const QSignalBlocker quiet(faces_);
    const int shown = std::max(0, faces_->currentIndex());
    faces_->clear();
    faces_->addItem(say("powered face"));
    for (const PathInterface& joint : path_->path.interfaces) faces_->addItem(qtext(joint.name));
    faces_->setCurrentIndex(std::min(shown, faces_->count() - 1));
    startAt(0);
}

void FieldPage::startAt(std::size_t fineness) {
    HeatPath path = path_->path;
    HeatPath whole = path;
    whole.interfaces[path_->studied].covered = 1;
    const auto where = static_cast<BareWhere>(bare_->currentIndex());
    if (where != BareWhere::nowhere)
        path.interfaces[path_->studied].mask =
            bareMask(where, covered_->value() / 100.0, overlapAt(path, path_->studied));
    path.sources = whole.sources = powerMap(static_cast<PowerPlaces>(power_->currentIndex()),
                                            path.solids.front().size, path.powerW, inCores_->value() / 100.0);
    session_.jobs().startNewest<Worked>(
        QStringLiteral("field"), this,
        [path, whole, fineness](const std::stop_token& stop, const Progress& progress) {
            FieldOptions options;
            options.grid.cellMm = cellsMm[fineness];
            options.stop = stop;
            options.progress = [&](double share) { progress(0.5 * share); };
            Worked worked{solveField(path, options)};
            options.progress = [&](double share) { progress(0.5 + 0.5 * share); };
            if (worked.field.cancelled) return worked;
            const ConductionField covered = solveField(whole, options);
            worked.wholeMaxC = covered.powered.maxC;
            worked.wholeMeanC = covered.powered.meanC;
            worked.field.cancelled = covered.cancelled;
            return worked;
        },
        [this, fineness](Worked worked) { take(std::move(worked), fineness); },
        [this](const InputError& error) { session_.refuse(error); });
    showProgress(session_.jobs().runner(QStringLiteral("field")), say("Working out the field"), this, true);
}

void FieldPage::take(Worked worked, std::size_t fineness) {
    if (worked.field.cancelled) return;
    worked_ = std::move(worked);
    isFine_ = fineness + 1 == cellsMm.size();
    tell();
    if (!isFine_) startAt(fineness + 1);
}

const FieldFace* FieldPage::face() const {
    if (!worked_) return nullptr;
    const int index = faces_->currentIndex();
    return index <= 0 ? &worked_->field.powered
                      : &worked_->field.interfaces[static_cast<std::size_t>(index) - 1].hot;
}

void FieldPage::tell() {
    const FieldFace* shown = face();
    if (!shown) return view_->clear();
    view_->show(*shown);
    QString text = say("%1 °C in the mean, %2 °C at its hottest.")
                       .arg(shown->meanC, 0, 'f', 1)
                       .arg(shown->maxC, 0, 'f', 1);
    const ConductionField& field = worked_->field;
    if (bare_->currentIndex() > 0)
        text += " " + say("%1 % of the joint is covered.").arg(100 * coveredShare(), 0, 'f', 0) + " "
                + say("What is bare costs the chip %1 K in the mean and %2 K at its hottest.")
                      .arg(field.powered.meanC - worked_->wholeMeanC, 0, 'f', 1)
                      .arg(field.powered.maxC - worked_->wholeMaxC, 0, 'f', 1);
    text +=
        " "
        + (isFine_ ? say("%1 cells.") : say("%1 cells so far; a finer picture follows.")).arg(field.cells);
    reported_->setText(text);
}

double FieldPage::coveredShare() const {
    const auto where = static_cast<BareWhere>(bare_->currentIndex());
    return bareMask(where, covered_->value() / 100.0, overlapAt(path_->path, path_->studied)).mean();
}

QWidget* FieldPage::picture() { return view_; }

std::string FieldPage::csv() const {
    const FieldFace* shown = face();
    return shown ? faceCsv(*shown) : std::string();
}

} // namespace ibuki
