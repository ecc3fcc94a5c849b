// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/bench_dialogs.h"

#include "app/drawn/theme.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace ibuki {
namespace {

void addRigFields(EntityForm<Configuration>& form) {
    form.text(say("Cooler"), &Configuration::cooler);
    form.choice(say("Fan"), &Configuration::fan);
    form.text(say("Fan setting"), &Configuration::fanNote);
    form.choice(say("Lid"), &Configuration::lid);
    form.choice(say("Chip on pins"), &Configuration::pinsOnChip);
    form.number(say("Force of all screws, N"), &Configuration::mountForce, 0, true);
    form.number(say("Backplate thickness, mm"), &Configuration::plateThickness, 0, true);
    form.number(say("Backplate radius, mm"), &Configuration::plateRadius, 0, true);
    form.number(say("Temperature limit, °C"), &Configuration::temperatureLimit);
    form.number(say("Stop the load above, °C"), &Configuration::stopAbove)
        ->setToolTip(say("While a run is recorded here; the chip's own protection stays what it is"));
    form.number(say("Power limit, W"), &Configuration::powerLimit, 0, true);
    form.number(say("Slowest part, time constant in min"), &Configuration::slowestMinutes, 0, true);
    form.number(say("Room differs around it, ± K"), &Configuration::ambientGradient, 0);
}

void addSiteFields(EntityForm<Site>& form) {
    form.choice(say("Site"), &Site::kind);
    form.choice(say("Face towards the chip"), &Site::lowerFace);
    form.choice(say("Face towards the cooler"), &Site::upperFace);
    form.text(say("Finish"), &Site::finish);
    form.number(say("Width, mm"), &Site::width, 0, true);
    form.number(say("Length, mm"), &Site::length, 0, true);
    form.number(say("Gap, mm"), &Site::gap, 0);
    form.requiredNumber(
        say("How many alike"), [](const Site& site) { return site.alike; },
        [](Site& site, double n) { site.alike = static_cast<int>(n); }, 1, false);
    form.choice(say("Open contacts beside it"), &Site::contactsNear);
    form.choice(say("Aluminium within reach"), &Site::aluminiumNear);
}

/// The fields of a sheet on one entity; `follow` comes when they have been named.
template <class E>
std::shared_ptr<EntityForm<E>> sheetForm(QDialog& sheet, Session& session, QVBoxLayout* layout,
                                         const QString& title, const char* what) {
    sheet.setWindowTitle(title);
    auto* rows = new QFormLayout;
    layout->addLayout(rows);
    return std::make_shared<EntityForm<E>>(session, rows, what);
}

void prepareList(QListWidget& list, const QString& name, std::function<void(qlonglong)> open) {
    list.setAccessibleName(name);
    list.setObjectName(name);
    QObject::connect(&list, &QListWidget::itemActivated, &list,
                     [open](const QListWidgetItem* item) { open(item->data(Qt::UserRole).toLongLong()); });
}

/// Each line carries its entity's id; the current row stays.
void fillList(QListWidget& list, const std::vector<std::pair<QString, qlonglong>>& lines) {
    const int row = list.currentRow();
    list.clear();
    for (const auto& [text, id] : lines) (new QListWidgetItem(text, &list))->setData(Qt::UserRole, id);
    list.setCurrentRow(std::min(row, list.count() - 1));
}

/// A changed limit runs through every question that rests on the bench's runs.
std::function<void(Edit)> reducingAgain(Session& session, Id<Configuration> changed) {
    return [&session, changed](Edit edit) {
        const Configuration* now = session.document().find(changed);
        const Configuration* then = edit.document().find(changed);
        std::vector<ReductionTask> tasks;
        if (now && then && now->temperatureLimit != then->temperatureLimit)
            for (const Study* study : edit.document().where(&Study::bench, then->bench))
                if (const Question* question = firstQuestion(edit.document(), study->id)) {
                    const auto more = reductionTasks(edit.document(), *question);
                    tasks.insert(tasks.end(), more.begin(), more.end());
                }
        session.performReduced(std::move(edit), std::move(tasks));
    };
}

} // namespace

NewBenchDialog::NewBenchDialog(Session& session, QWidget* parent)
    : QDialog(parent), session_(session), name_(new QLineEdit), templates_(new QListWidget) {
    setWindowTitle(say("Describe a bench"));
    resize(560, 420);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(say("Which layers does the heat cross?")));
    layout->addWidget(quietLabel(say("Start from the nearest; layers can be added, changed and removed "
                                     "afterwards by opening them on the strip.")));
    auto* form = new QFormLayout;
    name_->setPlaceholderText(say("for example node-2"));
    addFormRow(form, say("Name of the bench"), name_);
    layout->addLayout(form);
    templates_->setAccessibleName(say("Template"));
    templates_->setObjectName("Template");
    for (const BenchTemplateInfo& info : benchTemplates)
        templates_->addItem(sayTerm(info.name) + ": " + sayText(layersOf(info)));
    templates_->setCurrentRow(0);
    layout->addWidget(templates_, 1);
    layout->addWidget(dialogButtons(this, say("Describe it")));
}

void NewBenchDialog::accept() {
    const QString name = name_->text().trimmed();
    if (name.isEmpty()) {
        markWrong(name_, true);
        session_.refuse(say("A bench needs a name. Type one."));
        name_->setFocus();
        return;
    }
    Edit edit(session_.document(), titled("Describe {bench}", {{"bench", name.toStdString()}}));
    const auto which =
        benchTemplates.at(static_cast<std::size_t>(std::max(0, templates_->currentRow()))).which;
    const Id<Bench> bench = addBench(edit, which, name.toStdString(), words::text);
    if (!session_.perform(edit.finish())) return;
    Selection selection;
    selection.bench = bench;
    session_.select(selection);
    QDialog::accept();
}

BenchSheet::BenchSheet(Session& session, QWidget* parent)
    : QDialog(parent), session_(session), sites_(new QListWidget(this)), sensors_(new QListWidget(this)) {
    setWindowTitle(say("Bench"));
    resize(940, 640);
    auto* layout = new QVBoxLayout(this);
    const Bench* bench = session.bench();
    const Configuration* configuration = session.configuration();
    if (!bench || !configuration) return;
    layout->addWidget(cardTitle(say("What stays the same on this bench")));
    auto* sides = new QHBoxLayout; // beside each other: one under the other is higher than many a screen
    layout->addLayout(sides, 1);
    sides->addWidget(scrolled(makeFields(bench->id, configuration->id)), 3);
    auto* right = new QVBoxLayout;
    right->addWidget(quietLabel(say("Sites that can take a material (Enter opens one)")));
    right->addWidget(sites_, 1);
    right->addWidget(quietLabel(say("Sensors (Enter opens one)")));
    right->addWidget(sensors_, 2);
    sides->addLayout(right, 2);
    auto* row = new QHBoxLayout;
    auto* add = button(say("Add sensor"));
    connect(add, &QPushButton::clicked, this, &BenchSheet::addSensor);
    row->addWidget(add);
    row->addStretch(1);
    row->addWidget(closeButton(this));
    layout->addLayout(row);
    prepareList(*sites_, say("Sites"),
                [this](qlonglong id) { openDialog(new SiteSheet(session_, Id<Site>{id}, this)); });
    prepareList(*sensors_, say("Sensors"),
                [this](qlonglong id) { openDialog(new SensorSheet(session_, Id<Sensor>{id}, this)); });
    connect(&session_, &Session::documentChanged, this, &BenchSheet::listSites);
    connect(&session_, &Session::documentChanged, this, &BenchSheet::listSensors);
    listSites();
    listSensors();
}

QVBoxLayout* BenchSheet::makeFields(Id<Bench> bench, Id<Configuration> configuration) {
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 8, 0);
    auto* form = new QFormLayout;
    left->addLayout(form);
    // Kept alive by the dialog: the fields' connections refer to the forms.
    auto benchForm = std::make_shared<EntityForm<Bench>>(session_, form, words::mark("bench"));
    benchForm->text(say("Name"), &Bench::name);
    auto rig = std::make_shared<EntityForm<Configuration>>(session_, form, words::mark("bench"));
    addRigFields(*rig);
    rig->performWith(reducingAgain(session_, configuration));
    benchForm->note(say("Remarks"), &Bench::note);
    benchForm->show(bench);
    rig->show(configuration);
    QObject::connect(this, &QObject::destroyed, [benchForm, rig] {});
    left->addWidget(quietLabel(
        say("The limit belongs to the sensor of the metric. Runs near it are lower bounds; changing "
            "it reduces this bench's runs again.")));
    left->addStretch(1);
    return left;
}

void BenchSheet::listSites() {
    std::vector<std::pair<QString, qlonglong>> lines;
    if (const Configuration* configuration = session_.configuration())
        for (const Site* site : session_.document().where(&Site::configuration, configuration->id))
            lines.emplace_back(qtext(site->name)
                                   + (site->alike > 1 ? say(", %1 alike").arg(site->alike) : QString()),
                               site->id.value);
    fillList(*sites_, lines);
}

void BenchSheet::listSensors() {
    std::vector<std::pair<QString, qlonglong>> lines;
    if (const Configuration* configuration = session_.configuration())
        for (const Sensor* sensor : session_.document().where(&Sensor::configuration, configuration->id)) {
            QString line = sayTerm(word(sensor->role));
            if (!sensor->reads.empty()) line += say(" reads ") + qtext(sensor->reads);
            if (sensor->accuracy) line += QString(", ± %1 K").arg(sensor->accuracy->value);
            lines.emplace_back(line, sensor->id.value);
        }
    fillList(*sensors_, lines);
}

void BenchSheet::addSensor() {
    const Configuration* configuration = session_.configuration();
    if (!configuration) return;
    Edit edit(session_.document(), titled("Add a sensor"));
    Sensor sensor;
    sensor.configuration = configuration->id;
    sensor.role = Role::ambient;
    const Id<Sensor> id = edit.add(sensor);
    if (session_.perform(edit.finish())) openDialog(new SensorSheet(session_, id, this));
}

RigSheet::RigSheet(Session& session, Id<Configuration> rig, QWidget* parent) : QDialog(parent) {
    resize(480, 460);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(
        quietLabel(say("What this level's rig has of its own. Layers, sites and sensors are the bench's.")));
    const auto fields = sheetForm<Configuration>(*this, session, layout, say("Rig"), words::mark("rig"));
    fields->text(say("Name of the rig"), &Configuration::name);
    addRigFields(*fields);
    fields->performWith(reducingAgain(session, rig));
    follow(*this, session, rig, fields);
    layout->addWidget(closeButton(this));
}

SensorSheet::SensorSheet(Session& session, Id<Sensor> sensor, QWidget* parent) : QDialog(parent) {
    resize(460, 340);
    auto* layout = new QVBoxLayout(this);
    const auto fields = sheetForm<Sensor>(*this, session, layout, say("Sensor"), words::mark("sensor"));
    fields->choice(say("Measures"), &Sensor::role);
    fields->text(say("Reads"), &Sensor::reads);
    fields->text(say("Column of the log"), &Sensor::column);
    fields->number(say("Accuracy, ± K"), &Sensor::accuracy, 0);
    fields->number(say("Resolution, K"), &Sensor::resolution, 0);
    fields->number(say("Known offset, K"), &Sensor::offset);
    fields->number(say("Accuracy, share of the reading"), &Sensor::accuracyShare, 0);
    fields->number(say("Lag of a room probe, s"), &Sensor::lagS, 0);
    fields->number(say("Noise at rest, K"), &Sensor::noise, 0);
    follow(*this, session, sensor, fields);
    auto* row = new QHBoxLayout;
    auto* remove = button(say("Remove"));
    connect(remove, &QPushButton::clicked, this, [&session, sensor] {
        Edit edit(session.document(), titled("Remove a sensor"));
        edit.remove(sensor);
        session.perform(edit.finish());
    });
    row->addWidget(remove);
    row->addStretch(1);
    row->addWidget(closeButton(this));
    layout->addLayout(row);
}

SiteSheet::SiteSheet(Session& session, Id<Site> site, QWidget* parent) : QDialog(parent) {
    resize(440, 400);
    auto* layout = new QVBoxLayout(this);
    const auto fields = sheetForm<Site>(*this, session, layout, say("Site"), words::mark("site"));
    fields->text(say("Name"), &Site::name);
    addSiteFields(*fields);
    follow(*this, session, site, fields);
    layout->addWidget(closeButton(this), 0, Qt::AlignRight);
}

LayerSheet::LayerSheet(Session& session, Id<Layer> layer, QWidget* parent)
    : QDialog(parent), session_(session), layer_(layer) {
    setWindowTitle(say("Layer"));
    resize(480, 560);
    auto* layout = new QVBoxLayout(this);
    const Layer* shown = session.document().find(layer);
    if (!shown) return;
    layout->addWidget(cardTitle(say("Layer: ") + QString::fromStdString(shown->name)));
    auto* form = new QFormLayout;
    layout->addLayout(form);
    auto layerForm = std::make_shared<EntityForm<Layer>>(session, form, words::mark("layer"));
    layerForm->text(say("Name"), &Layer::name);
    if (shown->site) {
        const auto siteForm = std::make_shared<EntityForm<Site>>(session, form, words::mark("site"));
        addSiteFields(*siteForm);
        follow(*this, session, *shown->site, siteForm);
    } else if (shown->kind != LayerKind::room) {
        layerForm->choice(say("Metal"), &Layer::metal);
        layerForm->number(say("Width, mm"), &Layer::width, 0, true);
        layerForm->number(say("Length, mm"), &Layer::length, 0, true);
        layerForm->number(say("Thickness, mm"), &Layer::thickness, 0, true);
        layerForm->number(say("Conductivity, W/(m·K)"), &Layer::conductivity, 0, true);
    }
    follow(*this, session, layer, layerForm);
    if (shown->kind == LayerKind::room)
        layout->addWidget(quietLabel(say("The room is the air at the cooler's intake.")));
    layout->addStretch(1);
    auto* row = new QHBoxLayout;
    if (shown->kind != LayerKind::room) {
        auto* addInterface = new QPushButton(say("Add interface behind"));
        auto* addPlate = new QPushButton(say("Add layer behind"));
        connect(addInterface, &QPushButton::clicked, this, [this] { addBehind(LayerKind::interface); });
        connect(addPlate, &QPushButton::clicked, this, [this] { addBehind(LayerKind::plate); });
        row->addWidget(addInterface);
        row->addWidget(addPlate);
    }
    if (shown->kind != LayerKind::room && shown->kind != LayerKind::chip) {
        auto* remove = new QPushButton(say("Remove"));
        connect(remove, &QPushButton::clicked, this, &LayerSheet::removeThis);
        row->addWidget(remove);
    }
    row->addStretch(1);
    row->addWidget(closeButton(this));
    layout->addLayout(row);
}

void LayerSheet::addBehind(LayerKind kind) {
    const Layer* layer = session_.document().find(layer_);
    if (!layer) return;
    Edit edit(session_.document(), titled("Add a layer"));
    addLayer(edit, *layer, kind);
    if (session_.perform(edit.finish())) accept();
}

void LayerSheet::removeThis() {
    Edit edit(session_.document(), titled("Remove a layer"));
    removeLayer(edit, layer_);
    if (session_.perform(edit.finish())) accept();
}

} // namespace ibuki
