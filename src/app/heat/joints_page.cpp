// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/joints_page.h"

#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/jobs/job_progress.h"
#include "app/say.h"
#include "app/session/session.h"
#include "store/paper/heat_csv.h"

#include <QComboBox>
#include <QHeaderView>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

QString number(double value) { return QString::number(value, 'f', 1).replace('-', QChar(0x2212)); }

QString intervalText(const std::optional<Interval>& ci) {
    return ci ? say("%1 to %2").arg(number(ci->lo), number(ci->hi)) : say("one mount each");
}

/// Label's conductivity at this bond line with ideal contacts, against what was measured.
QString claimText(const Material& material, const CalibratedGroup& group) {
    if (!material.claimedConductivity || !(material.claimedConductivity->value > 0))
        return say("states no conductivity");
    const double bondLine = resistanceOf(&material).bondLineUm;
    const double ideal = bondLine / material.claimedConductivity->value;
    const QString half = group.ci ? say(" ± %1").arg(number(0.5 * (group.ci->hi - group.ci->lo))) : QString();
    const double more = group.mm2KPerW - ideal;
    return say("%1 W/(m·K) at %2 µm would be %3; measured %4%5 %6")
        .arg(material.claimedConductivity->value)
        .arg(bondLine, 0, 'f', 0)
        .arg(number(ideal), number(std::abs(more)), half, more < 0 ? say("less") : say("more"));
}

} // namespace

JointsPage::JointsPage(Session& session, QWidget* parent)
    : HeatPage(say("Joints"), parent),
      session_(session),
      anchor_(new QComboBox),
      reported_(new QLabel),
      differences_(figureTable(say("Differences of R″"),
                               {say("Pair"), say("mm²·K/W"), say("Interval"), say("By draws")})),
      materials_(figureTable(say("R″ of each material"),
                             {say("Material"), say("Mounts"), say("K/W"), say("mm²·K/W"), say("Interval"),
                              say("By draws"), say("What its label says")})),
      drawnReported_(quietLabel()) {
    explain(this, Topic::heatPath);
    reported_->setWordWrap(true);
    reported_->setObjectName("Calibration told");
    anchor_->setAccessibleName(say("Anchored on"));
    auto* inside = new QVBoxLayout(this);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(quietLabel(say(
        "Differences between joints on this bench. They do not depend on what the path is anchored on.")));
    inside->addWidget(differences_, 1);
    auto* row = new QHBoxLayout;
    row->addWidget(new QLabel(say("Anchored on")));
    row->addWidget(anchor_, 1);
    inside->addLayout(row);
    inside->addWidget(reported_);
    inside->addWidget(materials_, 1);
    drawnReported_->setObjectName("Draws told");
    inside->addWidget(drawnReported_);
    connect(anchor_, &QComboBox::activated, this, &JointsPage::anchorChosen);
}

void JointsPage::fill(const HeatMatter& matter) {
    const Calibration& calibration = matter.calibration;
    shown_ = calibration;
    for (PathGroup& group : shown_->input.groups) group.material = nullptr; // of this snapshot only
    const QSignalBlocker quiet(anchor_);
    anchor_->clear();
    for (const PathGroup& group : calibration.input.groups) {
        const MaterialResistance r = resistanceOf(group.material);
        anchor_->addItem(say("%1, %2 mm²·K/W %3")
                             .arg(qtext(group.name), number(r.mm2KPerW),
                                  r.isAssumed ? say("assumed for its class") : say("as stated")));
    }
    anchor_->setCurrentIndex(static_cast<int>(calibration.input.anchor));
    QString text = say("The cooler then has %1 K/W").arg(calibration.coolerKPerW, 0, 'f', 4);
    if (calibration.coolerCi)
        text += say(" (%1 to %2)")
                    .arg(calibration.coolerCi->lo, 0, 'f', 4)
                    .arg(calibration.coolerCi->hi, 0, 'f', 4);
    text +=
        say("; at this joint 1 K/W stands for %1 mm² of it.").arg(calibration.effectiveAreaMm2, 0, 'f', 0);
    if (matter.anchorAssumed)
        text += " " + say("State R″ of one material on the Shelf to know more than differences.");
    reported_->setText(text);
    fillDifferences(calibration);
    fillMaterials(calibration);
    stale_ = true;
    drawnReported_->clear();
    if (isVisible()) draw();
}

void JointsPage::showEvent(QShowEvent* event) {
    HeatPage::showEvent(event);
    if (stale_ && shown_) draw();
}

void JointsPage::draw() {
    stale_ = false;
    drawn_ = {};
    if (!(shown_->df > 0)) return drawnReported_->setText(say("Nothing is drawn from one mount of each."));
    session_.jobs().startNewest<DrawnCalibration>(
        QStringLiteral("draws"), this,
        [calibration = *shown_](const std::stop_token& stop, const Progress& progress) {
            DrawOptions options;
            options.stop = stop;
            options.progress = progress;
            return drawCalibration(calibration, options);
        },
        [this](const DrawnCalibration& drawn) { takeDrawn(drawn); },
        [this](const InputError& error) { drawnReported_->setText(saySentence(error)); });
    showProgress(session_.jobs().runner(QStringLiteral("draws")), say("Drawing the calibration"), this, true);
}

/// Beside the intervals by variances; where both disagree, the one by draws is the better one and marked.
void JointsPage::takeDrawn(const DrawnCalibration& drawn) {
    if (drawn.cancelled || !shown_) return;
    drawn_ = drawn;
    bool allAgree = true;
    const auto put = [&](QTableWidget& table, std::size_t row, int column, const std::optional<Interval>& by,
                         const std::optional<Interval>& draws) {
        const bool isOther = by && draws && !agree(*by, *draws);
        allAgree = allAgree && !isOther;
        table.setItem(static_cast<int>(row), column,
                      fixedItem(draws ? (isOther ? QStringLiteral("≠ ") : QString()) + intervalText(draws)
                                      : QString()));
    };
    for (std::size_t i = 0; i < shown_->differences.size(); ++i)
        put(*differences_, i, 3, shown_->differences[i].ci, drawn.differences[i]);
    for (std::size_t g = 0; g < shown_->groups.size(); ++g)
        put(*materials_, g, 5, shown_->groups[g].ci, drawn.groups[g]);
    QString text = say("%1 draws (JCGM 101)").arg(drawn.draws);
    text +=
        allAgree
            ? say(": the intervals by variances will do.")
            : say(": where ≠ stands, the way from K/W to R″ is not straight; take the interval by draws.");
    if (drawn.refused > 0)
        text += " "
                + say("%1 more were refused: such an anchor would leave nothing for the cooler.")
                      .arg(drawn.refused);
    drawnReported_->setText(text);
}

void JointsPage::fillDifferences(const Calibration& calibration) {
    const auto& groups = calibration.input.groups;
    differences_->setRowCount(static_cast<int>(calibration.differences.size()));
    int row = 0;
    for (const ResistanceDifference& d : calibration.differences) {
        const bool isReported = d.ci && !d.ci->contains(0);
        differences_->setItem(
            row, 0, fixedItem(say("%1 less %2").arg(qtext(groups[d.a].name), qtext(groups[d.b].name))));
        differences_->setItem(row, 1,
                              fixedItem((isReported ? QString("✓ ") : QString()) + number(d.mm2KPerW)));
        differences_->setItem(row++, 2, fixedItem(intervalText(d.ci)));
    }
}

void JointsPage::fillMaterials(const Calibration& calibration) {
    const auto& groups = calibration.input.groups;
    materials_->setRowCount(static_cast<int>(groups.size()));
    for (std::size_t g = 0; g < groups.size(); ++g) {
        const CalibratedGroup& group = calibration.groups[g];
        const int row = static_cast<int>(g);
        const QString below = group.mm2KPerW < 0 ? say(" (below zero)") : QString();
        materials_->setItem(row, 0, fixedItem(qtext(groups[g].name)));
        materials_->setItem(row, 1, fixedItem(QString::number(group.mounts)));
        materials_->setItem(row, 2, fixedItem(QString::number(group.kPerW, 'f', 4)));
        materials_->setItem(row, 3, fixedItem(number(group.mm2KPerW) + below));
        if (group.mm2KPerW < 0)
            materials_->item(row, 3)->setToolTip(
                say("Scatter, cooler or anchor are larger than this joint: nothing is left for it"));
        materials_->setItem(row, 4, fixedItem(intervalText(group.ci)));
        materials_->setItem(
            row, 6, fixedItem(groups[g].material ? claimText(*groups[g].material, group) : QString()));
    }
}

std::string JointsPage::csv() const { return shown_ ? jointsCsv(*shown_) : std::string(); }

} // namespace ibuki
