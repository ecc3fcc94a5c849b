// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/study.h"
#include "core/setup/next_step.h"
#include "store/paper/sentences.h"

#include <QWidget>
#include <map>

class QLabel;
class QLayout;
class QListWidget;
class QListWidgetItem;
class QPushButton;
class QStackedWidget;

namespace ibuki {

class LadderPage;
class NextStepBar;
class VerdictPage;
struct SideComparison;
struct VerdictMatter;

/// At the left one of its pages, the ladder first; at the right, in sentences, what is settled, what is not
/// and which caveats weigh. Every page can be exported.
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
    QLayout* layPages();
    QLayout* laySentences();
    void fillSentences(const Question& question);
    VerdictPage* currentPage() const;
    VerdictMatter matter(const Question& question) const;
    void fillPage();
    void openEvidence(const QListWidgetItem* item);
    void meanMount(Id<Mount> mount);
    void meanPair(std::optional<std::size_t> pair);

    Session& session_;
    std::unique_ptr<Evidence> evidence_;
    std::vector<SideComparison> sides_;
    QLabel* title_;
    QLabel* evidenceText_;
    QPushButton* export_;
    LadderPage* ladder_;
    QStackedWidget* pages_;
    std::map<EvidenceOn, QWidget*> holding_; ///< the page with that evidence
    QListWidget* sentences_;
    NextStepBar* next_;
};

} // namespace ibuki
