// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/question/plan_figures.h"
#include "app/session/session.h"
#include "store/paper/sentences.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QStackedWidget;

namespace ibuki {

class AskedPage;
class BoardPage;
class ChancesPage;
class ProtocolPage;
class RehearsalPanel;
class SentenceBar;
class Tip;

/// The study as a sentence with editable parts; below it the number of mounts with what it settles and costs,
/// live; then the pages: what is asked, the chances, the board of evenings, the protocol.
class QuestionView : public QWidget {
    Q_OBJECT

public:
    enum class Page { asked, chances, board, protocol, rehearsal };

    explicit QuestionView(Session& session, QWidget* parent = nullptr);
    void refresh();
    void showPage(Page page);
    BoardPage& board();

signals:
    void studyWanted();
    void benchWanted();
    void benchSheetWanted();

private:
    /// A page is made when it is first shown: all five at once were a third of the time to the first picture.
    template <class Widget> Widget& made(Widget*& page, Page place);
    ChancesPage& chances();
    QWidget* makeHead();
    QWidget* makeQuestionRow();
    QWidget* makeEmpty();
    void refreshPage(const PlanFigures& figures);
    void showFigures(const PlanFigures& figures);
    void fillQuestions();
    void previewMounts(int mounts);
    void takeMounts();
    void meanPart(AskedPart part);
    void askAnother();
    void dropQuestion();

    Session& session_;
    SentenceBar* sentence_ = nullptr;
    QLabel* hint_ = nullptr; ///< what comes first while nothing is asked
    Tip* tip_ = nullptr;
    QLabel* live_ = nullptr;
    QLabel* count_ = nullptr;
    QSlider* mounts_ = nullptr;
    QWidget* body_ = nullptr;
    QWidget* empty_ = nullptr;
    QPushButton* emptyButton_ = nullptr;
    QLabel* emptyText_ = nullptr;
    QComboBox* question_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    AskedPage* asked_ = nullptr; ///< these five: nullptr until they are shown
    ChancesPage* chances_ = nullptr;
    BoardPage* board_ = nullptr;
    ProtocolPage* protocol_ = nullptr;
    RehearsalPanel* rehearsal_ = nullptr;
    std::optional<PlanFigures> figures_;
    std::pair<int, Id<Question>> figuresOf_; ///< revision and question that they are of
};

} // namespace ibuki
