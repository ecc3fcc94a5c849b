// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/mount.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QPushButton;

namespace ibuki {

struct LoadReduction;

/// What can be done with the run whose trace is shown: another run of the mount, borders as found, the
/// asymptote, the room probe's clock, the uncertainty budget, the study's rules. Each change is one action
/// that reduces the run again.
class RunBar : public QWidget {
    Q_OBJECT

public:
    explicit RunBar(Session& session, QWidget* parent = nullptr);

    /// load: of the run; may be nullptr.
    void show(const Run& run, const LoadReduction* load);
    void moveBorders(const HandMarks& marks);
    /// Of the shown run's room probe; nothing: as found from the data.
    void putProbeShift(std::optional<double> shiftS);

signals:
    void runChosen(qlonglong id);

private:
    const Run* run() const { return session_.document().find(run_); }
    /// title: what it does to "{mount}".
    void changeRun(const char* title, const std::function<void(Run&)>& change);
    void useAsymptote(bool use);
    void setProbeShift();

    Session& session_;
    std::optional<Id<Run>> run_;
    QComboBox* runs_;
    QPushButton* asFound_;
    QCheckBox* asymptote_;
    QPushButton* probe_;
};

} // namespace ibuki
