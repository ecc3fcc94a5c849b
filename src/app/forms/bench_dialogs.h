// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Sheets for the rig: a new bench from a layer template, the bench's own settings, one layer of its heat
// path, a new study. Each performs undoable changes at once; closing keeps what was done.

#include "app/session/session.h"
#include "core/domain/bench.h"
#include "core/setup/bench_template.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;

namespace ibuki {

class NewBenchDialog : public QDialog {
    Q_OBJECT

public:
    explicit NewBenchDialog(Session& session, QWidget* parent = nullptr);
    void accept() override; ///< adds the bench and selects it

private:
    Session& session_;
    QLineEdit* name_;
    QListWidget* templates_;
};

class BenchSheet : public QDialog {
    Q_OBJECT

public:
    explicit BenchSheet(Session& session, QWidget* parent = nullptr);

private:
    QVBoxLayout* makeFields(Id<Bench> bench, Id<Configuration> configuration);
    void listSites();
    void listSensors();
    void addSensor();

    Session& session_;
    QListWidget* sites_;
    QListWidget* sensors_;
};

/// A level's own rig: what differs from the bench as it is.
class RigSheet : public QDialog {
    Q_OBJECT

public:
    RigSheet(Session& session, Id<Configuration> rig, QWidget* parent = nullptr);
};

/// One place that can take a material: its faces, size, gap and how many are alike.
class SiteSheet : public QDialog {
    Q_OBJECT

public:
    SiteSheet(Session& session, Id<Site> site, QWidget* parent = nullptr);
};

/// One sensor of the rig: what it reads, in which column of the log, and how well.
class SensorSheet : public QDialog {
    Q_OBJECT

public:
    SensorSheet(Session& session, Id<Sensor> sensor, QWidget* parent = nullptr);
};

class LayerSheet : public QDialog {
    Q_OBJECT

public:
    LayerSheet(Session& session, Id<Layer> layer, QWidget* parent = nullptr);

private:
    void addBehind(LayerKind kind);
    void removeThis();

    Session& session_;
    Id<Layer> layer_;
};

} // namespace ibuki
