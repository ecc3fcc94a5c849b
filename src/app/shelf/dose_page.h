// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/shelf/dose.h"

#include <QWidget>
#include <array>

class QComboBox;
class QFormLayout;
class QGridLayout;
class QLabel;
class QSlider;

namespace ibuki {

class FaceDrawing;
class NumberField;

/// How much paste, in which pattern: from face, bond line and density to volume, mass, stroke and bead; the
/// pattern drawn to scale with what it will cover. Starts from the chosen material and site; every figure can
/// be changed here without changing them.
class DosePage : public QWidget {
    Q_OBJECT

public:
    explicit DosePage(Session& session, QWidget* parent = nullptr);
    void refresh(); ///< takes material and site over again when they have changed

private:
    QWidget* makeInputs();
    QWidget* makeOutputs();
    NumberField* addField(QFormLayout* form, const QString& label, bool above);
    void takeOver();
    void takePaste(const PastePreset& paste);
    std::optional<DoseInput> input() const;
    void recalculate(); ///< amount from face, bond line and allowance
    void showAmount();  ///< of the slider
    void showNoAmount();
    QStringList amountLines(const Dose& amount) const;
    void showFilling(const DoseInput& input);
    double sliderVolume(const DoseInput& input) const;
    void setSlider(const DoseInput& input, double volumeMm3);

    Session& session_;
    QString source_; ///< material, site and their figures as taken over last
    QLabel* about_ = nullptr;
    QLabel* origin_ = nullptr;
    NumberField* width_ = nullptr;
    NumberField* length_ = nullptr;
    NumberField* bondLine_ = nullptr;
    NumberField* density_ = nullptr;
    NumberField* allowance_ = nullptr;
    NumberField* bore_ = nullptr;
    QComboBox* pattern_ = nullptr;
    QSlider* amount_ = nullptr;
    QLabel* big_ = nullptr;
    QLabel* figures_ = nullptr;
    QLabel* coverage_ = nullptr;
    QGridLayout* filling_ = nullptr;
    QLabel* caveat_ = nullptr;
    QLabel* cautions_ = nullptr;
    FaceDrawing* drawing_ = nullptr;
};

} // namespace ibuki
