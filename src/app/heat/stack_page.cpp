// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/stack_page.h"

#include "app/forms/copying.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/heat/section.h"
#include "app/say.h"
#include "store/paper/heat_csv.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QListWidget>
#include <QSlider>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr int steps = 1'000;
constexpr int restMs = 120;

QString kelvin(double k) { return QString("%1").arg(k, 0, 'f', 1); }

/// Holds a label whose text changes while a slider moves: without a layout of its own, so that nothing around
/// it is laid out anew each time.
class StillHolder : public QWidget {
public:
    StillHolder(QLabel* label, int lines) : label_(label) {
        label->setParent(this);
        setFixedHeight(lines * fontMetrics().lineSpacing() + 4);
    }

protected:
    void resizeEvent(QResizeEvent*) override { label_->setGeometry(rect()); }

private:
    QLabel* label_;
};

double riseOf(const ChangedPath& path) { return chainSteps(path.path).junctionMeanC - path.path.ambientC; }

QString lidAnswer(const LidOrCooler& found) {
    return say("Lid off, or a better cooler? With its lid %1 K over room, with a cooler a fifth better %2 K, "
               "two fifths "
               "better %3 K; without the lid %4 K. Taking a lid off can break the chip and ends its "
               "warranty.")
        .arg(kelvin(found.withLidK[0]), kelvin(found.withLidK[1]), kelvin(found.withLidK[2]),
             kelvin(found.withoutK[0]));
}

QString resolutionAnswer(const Resolution& found) {
    QString text = say("What can this bench resolve? 1 K stands for %1 mm²·K/W").arg(found.now, 0, 'f', 1);
    if (found.withoutLid) text += say("; on the bare die for %1").arg(*found.withoutLid, 0, 'f', 1);
    return text
           + say("; with half as much power again for %1; under a cooler two fifths better for %2.")
                 .arg(found.morePower, 0, 'f', 1)
                 .arg(found.strongerCooler, 0, 'f', 1);
}

QString tellableAnswer(const TellableDifference& found) {
    QString text =
        say("With %1 mounts of each, as they scatter, materials have to differ by %2 mm²·K/W to be "
            "told apart")
            .arg(found.mounts, 0, 'g', 2)
            .arg(found.mm2KPerW, 0, 'f', 1);
    if (found.inSteadyAmbientMm2KPerW)
        text += say("; in a room that never changed, by %1").arg(*found.inSteadyAmbientMm2KPerW, 0, 'f', 1);
    return text + ".";
}

/// A pad in the joint's place: how thick, what it resists, what that would cost.
QString padAnswer(const BenchPath& bench, const WhatIf& what, const std::vector<PadChoice>& pads,
                  std::optional<double> gapMm) {
    QStringList each;
    for (const PadChoice& pad : pads) {
        WhatIf one = what;
        one.studiedMm2KPerW = pad.mm2KPerW;
        one.force = 1; // it is pressed as stated
        const QString size = say("%1 mm").arg(pad.thicknessMm, 0, 'f', 1);
        if (pad.fit == PadFit::noContact)
            each << say("%1 does not touch").arg(size);
        else if (pad.fit == PadFit::tooThick)
            each << say("%1 is too thick").arg(size);
        else
            each << say("%1 %2 K").arg(size, kelvin(riseOf(changed(bench, one))));
    }
    return (gapMm
                ? say("Which pad thickness? In this gap of %1 mm a pad in this place would make, over room: ")
                      .arg(*gapMm, 0, 'f', 2)
                : say("Which pad thickness? Pressed by a fifth, a pad in this place would make, over room: "))
           + each.join(", ") + ".";
}

/// With half of the heat in a core of 2 × 2 mm: what is usual of a chip under one thread's load is not known
/// here.
QString thinAnswer(const BenchPath& bench, const WhatIf& what) {
    std::vector<double> thicknesses;
    for (double t = 0.05; t < 1.55; t += 0.05) thicknesses.push_back(t);
    thicknesses.push_back(what.chipThicknessMm);
    const auto curve = hotCoreCurve(bench, what, 2, 0.5, thicknesses);
    if (curve.empty()) return {};
    const auto best =
        std::min_element(curve.begin(), curve.end(),
                         [](const HotCorePoint& a, const HotCorePoint& b) { return a.coreK < b.coreK; });
    return say("Thinner die? If half of the heat came from a core of 2 × 2 mm, that core would be least hot "
               "with a chip of "
               "%1 mm, %2 K over room; as it is (%3 mm) %4 K. It depends on core and joint, and is computed "
               "only: "
               "grinding destroys chips.")
        .arg(best->thicknessMm, 0, 'f', 2)
        .arg(kelvin(best->coreK))
        .arg(what.chipThicknessMm, 0, 'f', 2)
        .arg(kelvin(curve.back().coreK));
}

} // namespace

StackPage::StackPage(QWidget* parent)
    : HeatPage(say("Stack"), parent),
      section_(new Section),
      reported_(new QLabel),
      lidOff_(new QCheckBox(say("Lid off"))),
      answers_(new QListWidget) {
    explain(this, Topic::heatPath);
    reported_->setWordWrap(true);
    reported_->setObjectName("What if told");
    lidOff_->setObjectName("Lid off");
    answers_->setAccessibleName(say("Answers to ready questions"));
    wrapItems(*answers_);
    copyItemOnKey(*answers_);
    answers_->setSpacing(3);
    rest_.setSingleShot(true);
    rest_.setInterval(restMs);
    connect(&rest_, &QTimer::timeout, this, &StackPage::tellAnswers);
    using W = WhatIf;
    knobs_ = {{say("Power"), "W", &W::powerW, 10, 500, 1, 0},
              {say("Joint R″"), "mm²·K/W", &W::studiedMm2KPerW, 0.5, 60, 1, 1},
              {say("Torque"), "%", &W::force, 0.3, 3, 100, 0},
              {say("Covered"), "%", &W::covered, 0.3, 1, 100, 0},
              {say("Leakage"), "W", &W::leakageW, 0, 100, 1, 0},
              {say("Cooler"), "K/W", &W::coolerKPerW, 0.01, 1.2, 1, 3},
              {say("Room"), "°C", &W::ambientC, 5, 45, 1, 1},
              {say("Chip thickness"), "mm", &W::chipThicknessMm, 0.05, 1.5, 1, 2},
              {say("Chip size"), "%", &W::chipScale, 0.5, 2, 100, 0},
              {say("Plate thickness"), "mm", &W::plateThicknessMm, 0.5, 10, 1, 1}};
    auto* inside = new QVBoxLayout(this);
    inside->setContentsMargins(0, 0, 0, 0);
    auto* above = new QHBoxLayout;
    above->addWidget(section_, 3);
    above->addWidget(scrolled(layKnobs()), 2); // large text needs more than there is
    inside->addLayout(above, 3);
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    inside->addWidget(new StillHolder(reported_, 1));
    inside->addWidget(answers_, 2);
}

QLayout* StackPage::layKnobs() {
    auto* grid = new QGridLayout;
    grid->setVerticalSpacing(3);
    int row = 0;
    for (Knob& knob : knobs_) {
        knob.slider = new QSlider(Qt::Horizontal);
        knob.slider->setRange(0, steps);
        knob.slider->setAccessibleName(knob.name);
        knob.slider->setObjectName(knob.name);
        knob.reported = new QLabel;
        const int widest = std::max(fontMetrics().horizontalAdvance("00.0 mm²·K/W"),
                                    fontMetrics().horizontalAdvance(say("choose a mount")));
        knob.reported->setFixedSize(widest + 6, fontMetrics().lineSpacing()); // else all is laid out anew
        auto* name = new QLabel(knob.name);
        name->setBuddy(knob.slider);
        grid->addWidget(name, row, 0);
        grid->addWidget(knob.slider, row, 1);
        grid->addWidget(knob.reported, row++, 2);
        connect(knob.slider, &QSlider::valueChanged, this, &StackPage::readKnobs);
    }
    connect(lidOff_, &QCheckBox::toggled, this, &StackPage::readKnobs);
    grid->addWidget(lidOff_, row, 0);
    auto* back = button(say("As measured"), say("Puts every slider back"));
    connect(back, &QPushButton::clicked, this, &StackPage::putBack);
    grid->addWidget(back, row++, 1, 1, 2, Qt::AlignRight);
    grid->setRowStretch(row, 1);
    return grid;
}

void StackPage::fill(const HeatMatter& matter) {
    bench_ = matter.bench;
    const WhatIf before = base_;
    base_ = asItStands(bench_);
    joints_.clear();
    pairs_.clear();
    const auto& groups = matter.calibration.input.groups;
    tellable_ = tellableDifference(matter.calibration);
    gapMm_ = matter.gapMm;
    pads_ = padChoices(matter.material, matter.gapMm);
    const bool gives = wayOf(bench_.studiedClass) != GivesWay::notAtAll;
    for (Knob& knob : knobs_) {
        if (knob.value != &WhatIf::force) continue;
        knob.slider->setEnabled(gives);
        knob.slider->setToolTip(gives
                                    ? say("Of the torque it was tightened with; screws that are elastic and "
                                          "not against a stop. A maker's torque is not to be exceeded.")
                                    : say("Choose a mount of a paste or a pad: others do not give way"));
    }
    for (const CalibratedGroup& group : matter.calibration.groups) joints_.push_back(group.mm2KPerW);
    for (const ResistanceDifference& d : matter.calibration.differences)
        pairs_.emplace_back(say("%1 against %2").arg(qtext(groups[d.a].name), qtext(groups[d.b].name)), d);
    baseRiseK_ = riseOf(changed(bench_, base_));
    if (!(base_ == before)) return putBack();
    showAll(); // the same path: what was turned over stays
    tellAnswers();
}

void StackPage::putBack() {
    what_ = base_;
    filling_ = true;
    for (Knob& knob : knobs_) {
        const double share = (base_.*knob.value - knob.lowest) / (knob.highest - knob.lowest);
        knob.slider->setValue(std::clamp(static_cast<int>(std::lround(share * steps)), 0, steps));
    }
    lidOff_->setChecked(false);
    filling_ = false;
    showAll();
    tellAnswers();
}

/// A slider that is where it was put stands for the value as it was, not for the step beside it.
void StackPage::readKnobs() {
    if (filling_) return;
    for (const Knob& knob : knobs_) {
        const double share = (base_.*knob.value - knob.lowest) / (knob.highest - knob.lowest);
        const int unmoved = std::clamp(static_cast<int>(std::lround(share * steps)), 0, steps);
        what_.*knob.value = knob.slider->value() == unmoved
                                ? base_.*knob.value
                                : knob.lowest + (knob.highest - knob.lowest) * knob.slider->value() / steps;
    }
    what_.lidOff = lidOff_->isChecked();
    showAll();
    rest_.start(); // the answers take longer than a slider waits
}

void StackPage::showAll() {
    if (!bench_.studied) return;
    for (const Knob& knob : knobs_)
        knob.reported->setText(!knob.slider->isEnabled()
                                   ? say("choose a mount")
                                   : QString("%1 %2")
                                         .arg(what_.*knob.value * knob.shownAs, 0, 'f', knob.decimals)
                                         .arg(knob.unit));
    const ChangedPath now = changed(bench_, what_);
    lidOff_->setEnabled(now.hasLid);
    const HeatPathSteps path = chainSteps(now.path);
    if (path.runaway) { // nothing of it is steady: no figure is told
        reported_->setText(
            say("Runaway: leakage grows faster than heat is carried away; a chip would cut its power. "
                "Drawn is the last steady path."));
        emit whatIfChanged();
        return;
    }
    section_->show(now.path, path, now.studied);
    const double rise = path.junctionMeanC - now.path.ambientC;
    QString text = say("%1 °C in the mean of the chip, %2 K over room")
                       .arg(path.junctionMeanC, 0, 'f', 1)
                       .arg(kelvin(rise));
    if (!(what_ == base_))
        text += say("; as measured %1 K, so %2 K %3")
                    .arg(kelvin(baseRiseK_), kelvin(std::abs(rise - baseRiseK_)),
                         rise < baseRiseK_ ? say("less") : say("more"));
    reported_->setText(text + ".");
    emit whatIfChanged();
}

void StackPage::tellAnswers() {
    rest_.stop();
    answers_->clear();
    if (chainSteps(changed(bench_, what_).path).runaway) return;
    if (const auto found = lidOrCooler(bench_, what_)) answers_->addItem(lidAnswer(*found));
    answers_->addItem(resolutionAnswer(resolutionOf(bench_, what_)));
    if (tellable_) answers_->addItem(tellableAnswer(*tellable_));
    if (const QString thin = thinAnswer(bench_, what_); !thin.isEmpty()) answers_->addItem(thin);
    answers_->addItem(padAnswer(bench_, what_, pads_, gapMm_));
    if (pairs_.empty()) return;
    // The pair that is told apart the clearest: what nobody can tell here is not worth carrying over.
    const auto clearness = [](const ResistanceDifference& d) {
        return std::abs(d.mm2KPerW) / (d.ci ? 0.5 * (d.ci->hi - d.ci->lo) : 1);
    };
    const auto clearest = std::max_element(pairs_.begin(), pairs_.end(), [&](const auto& a, const auto& b) {
        return clearness(a.second) < clearness(b.second);
    });
    const auto& [name, d] = *clearest;
    for (const OtherStack& other : otherStacks()) {
        const CarriedOver over = carryOver(bench_, base_, joints_[d.a], joints_[d.b], d.ci, other);
        QString text = say("What would it be on %1? %2: %3 K here, %4 K there")
                           .arg(sayText(other.name), name)
                           .arg(over.here, 0, 'f', 1)
                           .arg(over.there, 0, 'f', 1);
        if (over.thereCi) text += say(" (%1 to %2)").arg(kelvin(over.thereCi->lo), kelvin(over.thereCi->hi));
        answers_->addItem(text + ".");
    }
}

std::string StackPage::csv() const {
    if (!bench_.studied) return {};
    const ChangedPath now = changed(bench_, what_);
    return layersCsv(now.path, chainSteps(now.path));
}

} // namespace ibuki
