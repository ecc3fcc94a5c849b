// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/study.h"
#include "core/setup/next_step.h"

#include <QWidget>

class QLabel;
class QListWidget;
class QStackedWidget;

namespace ibuki {

class ChecksPage;
class FactorsPage;
class Ladder;
class NextStepBar;
class PairsPage;
class SweepPage;
struct Evidence;

/// At the left the ladder, every pair, both factors, lines over power or the check mounts; at the right, in
/// sentences, what is settled, what is not and which caveats weigh.
class VerdictView : public QWidget {
    Q_OBJECT

public:
    explicit VerdictView(Session& session, QWidget* parent = nullptr);
    ~VerdictView() override;
    void refresh();

signals:
    void mountOpened(Id<Mount> mount);
    void stepTaken(StudyNeeds needs); ///< of what an empty verdict waits for

protected:
    void showEvent(QShowEvent* event) override; ///< seeing the verdict while mounts are to come is recorded

private:
    void fillSentences(const Question& question);
    void fillPage();
    void meanMount(Id<Mount> mount);
    void meanPair(std::optional<std::size_t> pair);

    Session& session_;
    std::unique_ptr<Evidence> evidence_;
    QLabel* title_;
    QLabel* legend_;
    QLabel* evidenceText_;
    Ladder* ladder_;
    QStackedWidget* pages_;
    PairsPage* pairs_;
    FactorsPage* factors_;
    SweepPage* sweep_;
    ChecksPage* checks_;
    QListWidget* sentences_;
    NextStepBar* next_;
};

} // namespace ibuki
