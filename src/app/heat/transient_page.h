// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "core/heat/transient_study.h"

#include <map>

class QComboBox;
class QCustomPlot;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace ibuki {

/// Load steps of the study's mounts over one another, read at one declared time; the structure function of a
/// mount where its log is fast enough.
class TransientPage : public ExportedPage {
    Q_OBJECT

public:
    explicit TransientPage(Session& session, QWidget* parent = nullptr);

    /// Reads the logs that it has not read yet, once it is looked at.
    void refresh();
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void showEvent(QShowEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    struct Read {
        TransientTask task;
        StepResponse response;
        LayersSeen layers;
    };
    struct Input {
        Question question;
        Evidence evidence;
        std::vector<TransientTask> tasks;
    };

    void start();
    void take(std::vector<Read> read);
    void judge();
    std::vector<TransientRun> runs() const; ///< of what is compared, as far as it was read
    void declare();
    void fillTable();
    void draw();
    void drawSteps();
    void drawLayers();
    QString whyNoLayers() const;
    const Read* readOf(std::optional<Id<Mount>> mount) const;

    Session& session_;
    QDoubleSpinBox* at_;
    QPushButton* declare_;
    QComboBox* shown_;
    QLabel* reported_;
    QCustomPlot* plot_;
    QLabel* why_; ///< in the place of a drawing that there is not
    QTableWidget* pairs_;
    bool stale_ = true;
    bool working_ = false;
    std::optional<Input> input_;
    std::map<Id<Run>, Read> read_;
    std::optional<TransientStudy> study_;
};

} // namespace ibuki
