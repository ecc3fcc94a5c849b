// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/run_sheet.h"

#include "app/forms/ask.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/import/check_up.h"
#include "core/plan/mount_brief.h"
#include "core/practice/practice.h"
#include "core/setup/run_setup.h"
#include "store/project/earlier_rises.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QProcess>
#include <QVBoxLayout>
#include <cmath>

namespace ibuki {
namespace {

constexpr int shownReadings = 6;

QString readingLine(const SourceReading& reading) {
    if (!reading.trouble.empty()) return qtext(reading.trouble);
    QStringList values;
    for (std::size_t i = 0; i < reading.channels.size() && values.size() < shownReadings; ++i) {
        const SourceChannel& channel = reading.channels[i];
        const double value = i < reading.values.size() ? reading.values[i] : NAN;
        values << qtext(channel.column) + ": "
                      + (std::isfinite(value) ? QString::number(value, 'f', 1) : QStringLiteral("–"));
    }
    const auto more = static_cast<qint64>(reading.channels.size()) - values.size();
    if (more > 0) values << sayMany("and {count} more", "and {count} more", more);
    return values.join("  ·  ");
}

std::vector<std::string> wordsOf(const QString& command) {
    std::vector<std::string> words;
    for (const QString& word : QProcess::splitCommand(command)) words.push_back(word.toStdString());
    return words;
}

/// As it can be typed again: words with spaces in quotes.
QString commandText(const std::vector<std::string>& command) {
    QStringList words;
    for (const std::string& word : command) {
        QString one = qtext(word);
        if (one.isEmpty() || one.contains(' ') || one.contains('"'))
            one = '"' + one.replace("\"", "\"\"\"") + '"';
        words << one;
    }
    return words.join(' ');
}

} // namespace

RunSheet::RunSheet(Session& session, LiveRun& run, RunFor whom, QWidget* parent)
    : QDialog(parent), session_(session), run_(run), whom_(whom) {
    setWindowTitle(say("Record a run"));
    resize(760, 560);
    const Document& document = session.document();
    const Slot* slot = document.find(whom.slot);
    const Mount* mount = document.find(whom.mount);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(
        slot    ? sayText(briefOf(document, *slot, session.now()).title)
        : mount ? say("Another run of %1").arg(qtext(mount->name))
        : whom.checkUp
            ? say("Check-up of the bench: five minutes idle, a load until it is steady, five to cool")
            : say("A recording that belongs to no mount")));
    layout->addWidget(makeSources(), 1);
    layout->addWidget(makeHow());
    layout->addWidget(dialogButtons(this, say("Begin")));
    begin_ = findChild<QPushButton*>("accept");
    listSources();
    loadEarlier();
}

std::optional<Id<Study>> RunSheet::study() const {
    const Document& document = session_.document();
    if (const Slot* slot = document.find(whom_.slot)) return slot->study;
    if (whom_.mount)
        if (const auto of = studyOf(document, *whom_.mount)) return of;
    return std::nullopt;
}

QWidget* RunSheet::makeSources() {
    sources_ = new QListWidget;
    sources_->setAccessibleName(say("Sources"));
    sources_->setWordWrap(true);
    reads_ = quietLabel();
    auto* machine = button(say("This machine"), say("The sensors that the kernel shows"));
    auto* log = button(say("A growing log…"), say("That another program is writing"));
    auto* instrument = button(say("An instrument…"), say("By a file that says how it is asked"));
    auto* simulated = button(say("A simulated bench…"), say("By a file that describes it"));
    auto* remove = button(say("Remove"), say("The chosen source is no source of this bench any more"));
    connect(machine, &QPushButton::clicked, this, [this] { addSource(sensorsSpec); });
    const auto fromFile = [this](QPushButton* from, const char* kind, const QString& filter) {
        connect(from, &QPushButton::clicked, this, [this, kind, filter, title = from->text()] {
            askFile(this, {FileWish::Kind::open, title, {}, filter},
                    [this, kind](const QString& file) { addSource(kind + (":" + file.toStdString())); });
        });
    };
    fromFile(log, followedSpec, say("All files (*)"));
    fromFile(instrument, instrumentSpec, say("Instrument (*.json)"));
    fromFile(simulated, simulatedSpec, say("Simulated bench (*.json)"));
    connect(remove, &QPushButton::clicked, this, &RunSheet::removeSource);
    auto* buttons = new QHBoxLayout;
    for (QPushButton* one : {machine, log, instrument, simulated}) buttons->addWidget(one);
    buttons->addStretch(1);
    buttons->addWidget(remove);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    layout->addWidget(cardTitle(say("Readings come from")));
    layout->addWidget(sources_, 1);
    layout->addWidget(reads_);
    layout->addLayout(buttons);
    return card(layout);
}

QWidget* RunSheet::makeHow() {
    const Slot* slot = session_.document().find(whom_.slot);
    manualWork_ = new QCheckBox(say("Hands first: remove, clean, apply, fasten"));
    manualWork_->setToolTip(say("Off when the mount is done already, or the machine is on by now"));
    manualWork_->setVisible(slot && !handSteps(session_.document(), *slot).empty());
    manualWork_->setChecked(false);
    protocol_ = new QCheckBox(say("Go through the study's protocol, and end with it"));
    protocol_->setChecked(study().has_value());
    protocol_->setVisible(study().has_value());
    every_ = new NumberField(say("Seconds between readings"), {0, true, 86'400});
    every_->show(1);
    speed_ = new NumberField(say("Speed of a simulated bench"), {0, true, 36'000});
    const Practice* practice = study() ? practiceOf(session_.document(), *study()) : nullptr;
    speed_->show(practice ? practice->speed : 1);
    auto* numbers = new QHBoxLayout;
    numbers->addWidget(new QLabel(say("Seconds between readings")));
    numbers->addWidget(every_);
    numbers->addSpacing(18);
    numbers->addWidget(new QLabel(say("Speed of a simulated bench, ×")));
    numbers->addWidget(speed_);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    layout->addWidget(manualWork_);
    layout->addWidget(protocol_);
    layout->addLayout(numbers);
    addLoadRows(layout);
    return card(layout);
}

void RunSheet::addLoadRows(QLayout* into) {
    const auto of = study();
    if (!of) return;
    auto* layout = static_cast<QVBoxLayout*>(into);
    for (const Load* load : loadsOf(session_.document(), *of)) {
        LoadRow row{load->id, new QLineEdit(commandText(load->command)), quietLabel(), new QCheckBox};
        row.command->setPlaceholderText(say("no command: you start the load yourself when told"));
        row.command->setAccessibleName(say("Command of %1").arg(qtext(load->name)));
        row.command->setObjectName("Load command");
        row.agreed->setObjectName("Load agreed");
        auto* line = new QHBoxLayout;
        line->addWidget(new QLabel(say("Program that makes \"%1\"").arg(qtext(load->name))));
        line->addWidget(row.command, 1);
        layout->addLayout(line);
        layout->addWidget(row.shown);
        layout->addWidget(row.agreed);
        loads_.push_back(row);
        connect(row.command, &QLineEdit::textEdited, this, [this, row] { showCommand(row); });
        connect(row.command, &QLineEdit::editingFinished, this, [this, row] { keepCommand(row); });
        showCommand(row);
    }
}

void RunSheet::showCommand(const LoadRow& row) {
    const auto command = wordsOf(row.command->text());
    QStringList shown;
    for (const std::string& word : command) shown << QStringLiteral("[%1]").arg(qtext(word));
    row.shown->setText(command.empty() ? QString()
                                       : say("Started as you, without a shell: %1").arg(shown.join(' ')));
    row.shown->setVisible(!command.empty());
    row.agreed->setVisible(!command.empty());
    row.agreed->setText(say("Start exactly this when the load is due, for this study"));
    row.agreed->setChecked(study() && run_.hasConsent(*study(), command));
}

void RunSheet::keepCommand(const LoadRow& row) {
    const Load* load = session_.document().find(row.load);
    const auto command = wordsOf(row.command->text());
    if (!load || load->command == command) return;
    Load changed = *load;
    changed.command = command;
    Edit edit(session_.document(), titled("Command of {load}", {{"load", load->name}}));
    edit.put(changed);
    session_.perform(edit.finish());
}

void RunSheet::listSources() {
    sources_->clear();
    const Bench* bench = session_.bench();
    for (const std::string& spec :
         bench ? sourcesOf(session_.document(), bench->id) : std::vector<std::string>{}) {
        auto* item = new QListWidgetItem(qtext(sourceTitle(spec)));
        item->setData(Qt::UserRole, qtext(spec));
        item->setToolTip(qtext(spec));
        item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
        item->setCheckState(Qt::Checked);
        sources_->addItem(item);
    }
    begin_->setEnabled(sources_->count() > 0);
    reads_->setText(sources_->count() > 0
                        ? say("Looking at what they read…")
                        : say("Choose where this bench's readings come from; it stays so for the "
                              "next run. The first source's clock counts."));
    if (sources_->count() > 0) lookAtSources();
}

std::vector<std::string> RunSheet::specs() const {
    std::vector<std::string> specs;
    for (int i = 0; i < sources_->count(); ++i)
        if (sources_->item(i)->checkState() == Qt::Checked)
            specs.push_back(sources_->item(i)->data(Qt::UserRole).toString().toStdString());
    return specs;
}

void RunSheet::lookAtSources() {
    session_.jobs().startNewest<std::vector<SourceReading>>(
        QStringLiteral("sources"), this,
        [document = session_.document(), specs = specs(),
         whom = whom_](const std::stop_token&, const Progress&) { return readOnce(document, specs, whom); },
        [this](const std::vector<SourceReading>& readings) {
            QStringList lines;
            for (const SourceReading& reading : readings)
                lines << qtext(sourceTitle(reading.spec)) + " — " + readingLine(reading);
            reads_->setText(lines.join("\n"));
            leaveOutSilent(readings);
        },
        [this](const InputError& error) { reads_->setText(saySentence(error)); });
}

/// What cannot be opened would only refuse the run; it stays in the list, to be ticked again.
void RunSheet::leaveOutSilent(const std::vector<SourceReading>& readings) {
    const auto works = [](const SourceReading& reading) { return reading.trouble.empty(); };
    if (std::none_of(readings.begin(), readings.end(), works)) return;
    for (const SourceReading& reading : readings)
        for (int i = 0; i < sources_->count() && !works(reading); ++i)
            if (sources_->item(i)->data(Qt::UserRole).toString() == qtext(reading.spec))
                sources_->item(i)->setCheckState(Qt::Unchecked);
}

void RunSheet::addSource(const std::string& spec) {
    const Bench* bench = session_.bench();
    if (!bench) return;
    const auto there = sourcesOf(session_.document(), bench->id);
    if (std::find(there.begin(), there.end(), spec) != there.end()) return;
    Edit edit(session_.document(), titled("Add a source"));
    BenchSource source;
    source.bench = bench->id;
    source.position = static_cast<int>(there.size()) + 1;
    source.spec = spec;
    edit.add(source);
    session_.perform(edit.finish());
    listSources();
}

void RunSheet::removeSource() {
    const Bench* bench = session_.bench();
    const auto* item = sources_->currentItem();
    if (!bench || !item) return;
    const std::string spec = item->data(Qt::UserRole).toString().toStdString();
    Edit edit(session_.document(), titled("Remove a source"));
    for (const BenchSource* source : session_.document().where(&BenchSource::bench, bench->id))
        if (source->spec == spec) edit.remove(source->id);
    session_.perform(edit.finish());
    listSources();
}

/// Curves of the mounts made before, from their recordings.
void RunSheet::loadEarlier() {
    const auto of = study();
    const Question* question = of ? firstQuestion(session_.document(), *of) : nullptr;
    if (!question) return;
    session_.jobs().startNewest<EarlierRises>(
        QStringLiteral("earlier curves"), this,
        [path = session_.path().toStdString(), study = *of, slot = whom_.slot,
         metric = question->metric](const std::stop_token& stop, const Progress&) {
            return earlierRises(Project::open(path, Access::readOnly, Decode::whenAsked), study, slot, metric,
                                stop);
        },
        [this](EarlierRises earlier) { earlier_ = std::move(earlier); },
        [](const InputError&) {}); // the run goes without them
}

namespace {

/// A load without a target leaves a simulated bench at rest.
std::optional<std::string> simulatedWithoutPower(const std::vector<std::string>& sources,
                                                 const std::vector<StepOccurrence>& steps) {
    const auto simulated = [](const std::string& spec) { return spec.starts_with("sim:"); };
    if (std::none_of(sources.begin(), sources.end(), simulated)) return std::nullopt;
    for (const StepOccurrence& step : steps)
        if (!step.load.empty() && !step.powerW) return step.load;
    return std::nullopt;
}

} // namespace

/// Steps, rules and the commands that there is consent for, as the study has them.
void RunSheet::conduct(RunPlan& plan, Id<Study> of) {
    const Document& document = session_.document();
    plan.study = of;
    if (protocol_->isChecked()) plan.conduct.steps = runSteps(document, of);
    plan.conduct.rules = monitorRules(document, of);
    plan.conduct.rules->earlier = earlier_;
    for (const LoadRow& row : loads_) {
        const Load* load = document.find(row.load);
        const auto command = wordsOf(row.command->text());
        if (!load || command.empty() || !row.agreed->isChecked()) continue;
        run_.consent(of, command);
        plan.conduct.commands[load->name] = command;
    }
}

void RunSheet::conductCheckUp(RunPlan& plan) {
    plan.wish.name = say("Check-up").toStdString();
    plan.conduct.steps = checkUpSteps(say("any steady load").toStdString(),
                                      checkUpPowerW(session_.document(), plan.wish.bench));
    plan.conduct.rules = MonitorRules{};
    if (const Configuration* configuration = session_.configuration())
        if (configuration->stopAbove) plan.conduct.rules->stopAboveC = configuration->stopAbove->value;
}

void RunSheet::accept() {
    const Bench* bench = session_.bench();
    const auto wanted = specs();
    if (!bench || wanted.empty()) {
        session_.refuse(say("Tick at least one source."));
        return;
    }
    const auto every = every_->value();
    const auto speed = speed_->value();
    if (!every || !speed) {
        session_.refuse(!every ? every_->complaint() : speed_->complaint());
        return;
    }
    RunPlan plan;
    plan.wish.bench = bench->id;
    plan.wish.slot = whom_.slot;
    plan.wish.mount = whom_.mount;
    plan.wish.followUp = whom_.followUp;
    plan.wish.sources = wanted;
    const Document& document = session_.document();
    const Slot* slot = document.find(whom_.slot);
    if (slot) plan.wish.name = sayText(briefOf(document, *slot, session_.now()).title).toStdString();
    if (slot && manualWork_->isChecked()) plan.manualWork = handSteps(document, *slot);
    if (const auto of = study()) conduct(plan, *of);
    if (const auto load = simulatedWithoutPower(wanted, plan.conduct.steps)) {
        session_.refuse(
            say("A simulated bench makes the power that is stated: say under Question how many watts "
                "\"%1\" is.")
                .arg(qtext(*load)));
        return;
    }
    plan.earlier = earlier_;
    plan.checkUp = whom_.checkUp;
    if (whom_.checkUp) conductCheckUp(plan);
    SourceOptions options;
    options.everyS = *every;
    options.speed = *speed;
    openSources(std::move(plan), options);
}

/// Beside the window; the sheet stays until they are open, so that what is wrong is told in it.
void RunSheet::openSources(RunPlan plan, const SourceOptions& options) {
    begin_->setEnabled(false);
    const auto wanted = plan.wish.sources;
    auto opened = std::make_shared<std::vector<std::unique_ptr<Source>>>();
    auto waiting = std::make_shared<RunPlan>(std::move(plan));
    session_.jobs().startNewest<int>(
        QStringLiteral("sources"), this,
        [document = session_.document(), whom = whom_, wanted, options, opened](const std::stop_token&,
                                                                                const Progress&) {
            for (const std::string& spec : wanted)
                opened->push_back(openRunSource(document, spec, whom, options));
            return 0;
        },
        [this, opened, waiting](int) {
            waiting->sources = std::move(*opened);
            if (run_.begin(std::move(*waiting))) QDialog::accept();
            begin_->setEnabled(true);
        },
        [this](const InputError& error) {
            begin_->setEnabled(true);
            session_.refuse(error);
        });
}

} // namespace ibuki
