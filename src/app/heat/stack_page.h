// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/heat/heat_page.h"
#include "core/heat/pressed_joint.h"

#include <QTimer>
#include <vector>

class QCheckBox;
class QLabel;
class QListWidget;
class QSlider;

namespace ibuki {

class Section;

/// The stack to scale with a slider for everything that could be otherwise, and the answers to ready
/// questions. What is moved stays until it is put back; nothing of it is stored.
class StackPage : public HeatPage {
    Q_OBJECT

public:
    explicit StackPage(QWidget* parent = nullptr);

    void fill(const HeatMatter& matter) override;
    std::string csv() const override;
    const WhatIf& what() const { return what_; }
    bool isTurned() const { return !(what_ == base_); } ///< something stands elsewhere than measured

signals:
    void whatIfChanged();

private:
    struct Knob {
        QString name;
        QString unit;
        double WhatIf::*value;
        double lowest, highest;
        double shownAs; ///< times the value
        int decimals;
        QSlider* slider = nullptr;
        QLabel* reported = nullptr;
    };
    QLayout* layKnobs();
    void putBack();
    void readKnobs();
    void showAll();
    void tellAnswers();

    Section* section_;
    QLabel* reported_;
    QCheckBox* lidOff_;
    QListWidget* answers_;
    std::vector<Knob> knobs_;
    BenchPath bench_;
    WhatIf base_, what_;
    double baseRiseK_ = 0;                                        ///< as measured
    QTimer rest_;                                                 ///< runs while a slider is being moved
    std::vector<std::pair<QString, ResistanceDifference>> pairs_; ///< of materials, with their names
    std::optional<TellableDifference> tellable_;
    std::vector<PadChoice> pads_;
    std::optional<double> gapMm_;
    std::vector<double> joints_; ///< R″ of each group
    bool filling_ = false;
};

} // namespace ibuki
