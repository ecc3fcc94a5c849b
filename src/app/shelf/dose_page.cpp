// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/dose_page.h"

#include "app/drawn/theme.h"
#include "app/forms/caution_panel.h"
#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/face_drawing.h"
#include "app/shelf/shelf_items.h"
#include "app/shelf/shelf_subject.h"
#include "core/domain/bench.h"
#include "core/physics/bond_line.h"
#include "core/shelf/gap.h"
#include "core/shelf/shelf.h"
#include "words/words.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QScrollArea>
#include <QSlider>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

constexpr int sliderSteps = 1000;
constexpr double sliderTop = 3; ///< times face × bond line
constexpr std::array patternNames{words::mark("dot"), words::mark("line"), words::mark("cross"),
                                  words::mark("five dots"), words::mark("spread film")};
constexpr std::array allPatterns{Pattern::dot, Pattern::line, Pattern::cross, Pattern::fiveDots,
                                 Pattern::film};

double faceVolumeMm3(const DoseInput& input) {
    return input.widthMm * input.lengthMm * input.bondLineUm * 1e-3;
}

QString grams(double value) { return QString::number(value, 'f', value < 0.1 ? 3 : 2) + " g"; }

} // namespace

DosePage::DosePage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeInputs(), 4);
    drawing_ = new FaceDrawing;
    auto* middle = new QVBoxLayout;
    middle->setContentsMargins(10, 10, 10, 8);
    middle->addWidget(drawing_, 1);
    auto* row = new QHBoxLayout;
    row->addWidget(quietLabel(say("less")), 0);
    amount_ = new QSlider(Qt::Horizontal);
    amount_->setRange(1, sliderSteps);
    amount_->setPageStep(sliderSteps / 20);
    amount_->setAccessibleName(say("Amount"));
    amount_->setObjectName("Amount");
    connect(amount_, &QSlider::valueChanged, this, &DosePage::showAmount);
    row->addWidget(amount_, 1);
    row->addWidget(quietLabel(say("more")), 0);
    middle->addLayout(row);
    layout->addWidget(card(middle), 6);
    layout->addWidget(makeOutputs(), 5);
}

NumberField* DosePage::addField(QFormLayout* form, const QString& label, bool above) {
    auto* field = new NumberField(label, {0, above});
    addFormRow(form, label, field);
    connect(field, &NumberField::valueEdited, this, &DosePage::recalculate);
    return field;
}

QWidget* DosePage::makeInputs() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    about_ = cardTitle({});
    layout->addWidget(about_);
    auto* form = new QFormLayout;
    layout->addLayout(form);
    pattern_ = new QComboBox;
    for (const char* name : patternNames) pattern_->addItem(say(name));
    addFormRow(form, say("Pattern"), pattern_);
    connect(pattern_, &QComboBox::activated, this, &DosePage::showAmount);
    width_ = addField(form, say("Face width, mm"), true);
    length_ = addField(form, say("Face length, mm"), true);
    bondLine_ = addField(form, say("Bond line, µm"), true);
    density_ = addField(form, say("Density, g/mL"), true);
    allowance_ = addField(form, say("Squeezed out, share"), false);
    bore_ = addField(form, say("Syringe bore, mm"), true);
    allowance_->show(DoseInput{}.allowance);
    bore_->show(DoseInput{}.boreMm);
    auto* row = new QHBoxLayout;
    for (const PastePreset* paste : {&thinPaste, &thickPaste}) {
        auto* preset = button(paste->name, say("Bond line and allowance as such pastes usually behave"));
        connect(preset, &QPushButton::clicked, this, [this, paste] { takePaste(*paste); });
        row->addWidget(preset);
    }
    layout->addLayout(row);
    auto* again = button(say("As stated"), say("Take the figures of material and site over again"));
    connect(again, &QPushButton::clicked, this, &DosePage::takeOver);
    layout->addWidget(again);
    origin_ = quietLabel();
    layout->addWidget(origin_);
    layout->addStretch(1);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(0, 0, 0, 0);
    auto* scroll = scrolled(layout);
    scroll->setMinimumWidth(scroll->widget()->minimumSizeHint().width() + 4); // no scrolling sideways
    inside->addWidget(scroll);
    return card(inside);
}

QWidget* DosePage::makeOutputs() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    big_ = new QLabel;
    setTextFont(big_, 3.6, QFont::DemiBold);
    big_->setAccessibleName(say("Mass to put on"));
    layout->addWidget(big_);
    figures_ = new QLabel;
    figures_->setWordWrap(true);
    figures_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    figures_->setAccessibleName(say("Dose"));
    layout->addWidget(figures_);
    coverage_ = new QLabel;
    coverage_->setWordWrap(true);
    setTextFont(coverage_, 1.1, QFont::Medium);
    coverage_->setAccessibleName(say("Coverage"));
    layout->addWidget(coverage_);
    cautions_ = new QLabel;
    cautions_->setWordWrap(true);
    cautions_->setAccessibleName(say("Grave cautions"));
    layout->addWidget(cautions_);
    layout->addWidget(quietLabel(say("Smallest amount that fills the face")));
    filling_ = new QGridLayout;
    filling_->setVerticalSpacing(3);
    layout->addLayout(filling_);
    caveat_ = quietLabel(say(
        "Physics: volume, mass, stroke, dot and line size. Model: the spread keeps its volume and grows "
        "evenly; "
        "it ignores yield and uneven pressure, so compare patterns by it and promise no coverage. Rule of "
        "thumb: what is squeezed out, how far a pattern reaches, thin and thick paste."));
    layout->addWidget(caveat_);
    layout->addStretch(1);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addWidget(scrolled(layout));
    return card(inside);
}

void DosePage::refresh() {
    const CautionSubject subject = shelfSubject(session_);
    QStringList now;
    if (subject.material) {
        const MaterialFacts facts = factsOf(*subject.material);
        now << QString::number(subject.material->id.value) << QString::number(facts.bondLineUm.value)
            << QString::number(facts.densityGPerMl.value) << qtext(subject.material->name);
    }
    if (subject.site) {
        now << QString::number(subject.site->id.value) << qtext(subject.site->name);
        if (subject.site->width && subject.site->length)
            now << QString::number(subject.site->width->value)
                << QString::number(subject.site->length->value);
    }
    const QStringList grave = graveCautions(session_.document(), subject, session_.now());
    cautions_->setText(grave.join("\n"));
    cautions_->setVisible(!grave.isEmpty());
    QPalette palette = cautions_->palette();
    palette.setColor(QPalette::WindowText, colours().hot);
    cautions_->setPalette(palette);
    const QString source = now.join('|');
    if (source != source_) {
        source_ = source;
        takeOver();
    } else {
        showAmount();
    }
}

void DosePage::takeOver() {
    const CautionSubject subject = shelfSubject(session_);
    QStringList origins;
    QStringList about;
    for (NumberField* field : {width_, length_, bondLine_, density_})
        field->clear(); // nothing of another face stays
    if (subject.material) {
        about << qtext(subject.material->name);
        const MaterialFacts facts = factsOf(*subject.material);
        density_->show(facts.densityGPerMl.value);
        bondLine_->show(isCut(subject.material->kind) ? classDefaults(MaterialClass::paste).bondLineUm
                                                      : facts.bondLineUm.value);
        if (facts.densityGPerMl.isDefault) origins << say("the density is the usual one of its class");
        if (isCut(subject.material->kind))
            origins << say("it is cut, not dispensed: the figures are those of a usual paste");
        else if (facts.bondLineUm.isDefault)
            origins << say("the bond line is the usual one of its class");
    }
    if (subject.site) {
        about << say("at ") + qtext(subject.site->name);
        if (subject.site->width && subject.site->length) {
            width_->show(subject.site->width->value);
            length_->show(subject.site->length->value);
        } else {
            origins << say("the site's size is not stated: type it, or state it on the bench");
        }
    }
    about_->setText(about.isEmpty() ? say("A face and a paste") : about.join(" "));
    origin_->setText(origins.isEmpty() ? QString()
                                       : say("Not from a statement: ") + origins.join("; ") + ".");
    recalculate();
}

void DosePage::takePaste(const PastePreset& paste) {
    allowance_->show(paste.allowance);
    const auto width = width_->value();
    const auto length = length_->value();
    if (width && length) {
        const Configuration* configuration = session_.configuration();
        const double force = configuration && configuration->mountForce ? configuration->mountForce->value
                                                                        : typicalMountForceN;
        const double pressurePa = force / (*width * *length) * 1e6;
        bondLine_->show(std::round(scalingBondLineUm(paste.yieldPa, pressurePa)));
        origin_->setText(say("The bond line is what %1 (yield %2 Pa) would rest at under %3 N.")
                             .arg(paste.name)
                             .arg(paste.yieldPa)
                             .arg(force));
    }
    recalculate();
}

std::optional<DoseInput> DosePage::input() const {
    DoseInput made;
    for (const auto& [field, to] : {std::pair{width_, &DoseInput::widthMm},
                                    {length_, &DoseInput::lengthMm},
                                    {bondLine_, &DoseInput::bondLineUm},
                                    {density_, &DoseInput::densityGPerMl},
                                    {allowance_, &DoseInput::allowance},
                                    {bore_, &DoseInput::boreMm}}) {
        const auto value = field->value();
        if (!value) return std::nullopt;
        made.*to = *value;
    }
    made.pattern = allPatterns.at(static_cast<std::size_t>(pattern_->currentIndex()));
    return made;
}

double DosePage::sliderVolume(const DoseInput& input) const {
    return sliderTop * faceVolumeMm3(input) * amount_->value() / sliderSteps;
}

void DosePage::setSlider(const DoseInput& input, double volumeMm3) {
    const double share = volumeMm3 / (sliderTop * faceVolumeMm3(input));
    amount_->setValue(std::clamp(static_cast<int>(std::lround(share * sliderSteps)), 1, sliderSteps));
}

void DosePage::recalculate() {
    const auto given = input();
    if (given) {
        const QSignalBlocker quiet(amount_);
        setSlider(*given, faceVolumeMm3(*given) * (1 + given->allowance));
    }
    showAmount();
    if (given) showFilling(*given);
}

void DosePage::showNoAmount() {
    big_->setText("–");
    figures_->clear();
    coverage_->clear();
    QString complaint = say("A face with a width and a length, a bond line and a density are needed.");
    for (const NumberField* field : {width_, length_, bondLine_, density_, allowance_, bore_})
        if (!field->text().isEmpty() && !field->value()) complaint = field->complaint();
    drawing_->show(std::nullopt, complaint);
}

QStringList DosePage::amountLines(const Dose& amount) const {
    QStringList lines;
    lines << say("%1 mm³ (%2 mL), %3 times the pressed face")
                 .arg(amount.volumeMm3, 0, 'f', 1)
                 .arg(amount.volumeMm3 / 1000, 0, 'f', 3)
                 .arg(amount.ratio, 0, 'f', 2);
    lines << say("%1 mm of the plunger").arg(amount.strokeMm, 0, 'f', 2);
    if (amount.dotDiameterMm > 0)
        lines << say("each dot %1 mm across, as a half ball").arg(amount.dotDiameterMm, 0, 'f', 1);
    if (amount.beadWidthMm > 0)
        lines << say("a bead %1 mm wide, half round").arg(amount.beadWidthMm, 0, 'f', 1);
    if (amount.filmUm > 0) lines << say("spread %1 µm thick").arg(amount.filmUm, 0, 'f', 0);
    const CautionSubject subject = shelfSubject(session_);
    if (!subject.lot || subject.lot->contentUnit != ContentUnit::gram) return lines;
    if (const auto left = lotState(session_.document(), *subject.lot, session_.now()).left)
        lines << (*left < amount.massG
                      ? say("too little is left in %1: %2").arg(qtext(subject.lot->name), grams(*left))
                      : say("%1 such applications left in %2")
                            .arg(usesOf(*left, 0, amount.massG))
                            .arg(qtext(subject.lot->name)));
    return lines;
}

void DosePage::showAmount() {
    const auto given = input();
    amount_->setEnabled(given.has_value());
    if (!given) return showNoAmount();
    try {
        const double volume = sliderVolume(*given);
        const Dose amount = doseOfVolume(*given, volume);
        const SpreadInput laid = spreadInput(*given, volume);
        const Spread covered = spread(laid);
        big_->setText(grams(amount.massG));
        figures_->setText(amountLines(amount).join("\n"));
        QString reported = say("covers %1 %").arg(100 * covered.coverage, 0, 'f', 1);
        if (covered.outside > 0.0005)
            reported += say(", %1 % goes over the edge").arg(100 * covered.outside, 0, 'f', 0);
        if (covered.trappedPockets > 0)
            reported += sayMany(", {count} dry pocket enclosed", ", {count} dry pockets enclosed",
                                covered.trappedPockets);
        coverage_->setText(reported);
        drawing_->show(FaceDrawing::Shown{laid, covered, std::max(amount.dotDiameterMm, amount.beadWidthMm)},
                       {});
    } catch (const InputError& error) {
        drawing_->show(std::nullopt, saySentence(error));
    }
}

void DosePage::showFilling(const DoseInput& given) {
    while (QLayoutItem* item = filling_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    int row = 0;
    for (Pattern pattern : allPatterns) {
        DoseInput one = given;
        one.pattern = pattern;
        const double volume = pattern == Pattern::film
                                  ? faceVolumeMm3(one)
                                  : fillingVolumeMm3(spreadInput(one, faceVolumeMm3(one)));
        const Dose amount = doseOfVolume(one, volume);
        const QString name = say(patternNames.at(static_cast<std::size_t>(pattern)));
        auto* take = button(name, say("Set the slider to this amount"));
        take->setObjectName("Fill with " + name);
        take->setProperty("quiet", true);
        connect(take, &QPushButton::clicked, this, [this, pattern, one, volume] {
            pattern_->setCurrentIndex(static_cast<int>(pattern));
            setSlider(one, volume);
            showAmount();
        });
        filling_->addWidget(take, row, 0, Qt::AlignLeft);
        filling_->addWidget(new QLabel(grams(amount.massG)), row, 1, Qt::AlignRight);
        auto* ratio = new QLabel(QString("%1 ×").arg(amount.ratio, 0, 'f', 2));
        ratio->setProperty("quiet", true);
        filling_->addWidget(ratio, row, 2, Qt::AlignRight);
        ++row;
    }
    filling_->setColumnStretch(0, 1);
}

} // namespace ibuki
