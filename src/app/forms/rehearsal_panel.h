// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "core/domain/study.h"
#include "core/plan/study_rehearsal.h"

#include <optional>

class QCustomPlot;
class QLabel;
class QSlider;

namespace ibuki {

class Session;

/// Shares of campaigns as bars: the right one crowned, nothing said, a wrong one crowned.
class RehearsalBars : public QWidget {
    Q_OBJECT

public:
    explicit RehearsalBars(QWidget* parent = nullptr);

    struct Bar {
        QString name, cost;
        double right = 0, none = 0, wrong = 0;
    };
    void show(std::vector<Bar> bars);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<Bar> bars_;
};

/// The open study's plan, carried out some thousand times on paper, beside what common practice would have
/// done.
class RehearsalPanel : public ExportedPage {
    Q_OBJECT

public:
    explicit RehearsalPanel(Session& session, QWidget* parent = nullptr);

    void refresh(); ///< rehearses anew when it is looked at
    std::string csv() const override;
    bool isWorking() const { return working_; }

protected:
    void showEvent(QShowEvent* event) override;

private:
    struct Worked {
        StudyRehearsal study;
        Rehearsal campaigns;
        Rehearsal overMounts;
    };
    QString jobName() const;
    void start();
    void take(const Worked& worked);
    void showCurve(const Rehearsal& overMounts);

    Session& session_;
    QSlider* difference_;
    QLabel* differenceReported_;
    QLabel* reported_;
    QLabel* basis_;
    RehearsalBars* bars_;
    QCustomPlot* curve_;
    std::optional<Worked> shown_;
    bool working_ = false;
    bool stale_ = true;
};

} // namespace ibuki
