// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/responses_page.h"

#include "app/forms/copying.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/response_grid.h"
#include "store/paper/joint_sentences.h"
#include "store/paper/ladder_layout.h"
#include "store/paper/verdict_csv.h"

#include <QHeaderView>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

namespace ibuki {
namespace {

constexpr int marginColumn = 1;

/// How many pairs the response tells apart.
QString distinguished(const SideComparison& side) {
    if (!side.comparison) return say("one mount each: no scatter is known");
    const auto& pairs = side.comparison->pairs;
    const auto apart = std::count_if(pairs.begin(), pairs.end(), [](const PairComparison& pair) {
        return pair.verdict == Verdict::different;
    });
    return say("%1 of %2 pairs told apart").arg(apart).arg(pairs.size());
}

} // namespace

ResponsesPage::ResponsesPage(Session& session, QWidget* parent)
    : VerdictPage(say("Responses"), parent),
      session_(session),
      reported_(new QLabel),
      grid_(new ResponseGrid),
      table_(new QTableWidget) {
    explain(this, Topic::responses);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    reported_->setWordWrap(true);
    reported_->setObjectName("Responses told");
    table_->setAccessibleName(say("Responses and what matters in them"));
    table_->setTabKeyNavigation(false);
    copyRowOnKey(*table_);
    table_->verticalHeader()->hide();
    table_->setColumnCount(3);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(scrolledWidget(grid_), 3);
    layout->addWidget(reported_);
    layout->addWidget(table_, 2);
    connect(table_, &QTableWidget::cellChanged, this, [this](int row, int column) {
        // Later: the edit makes the table anew, which is still taking the text.
        if (column == marginColumn) QTimer::singleShot(0, this, [this, row] { stateMargin(row); });
    });
}

void ResponsesPage::fill(const VerdictMatter& matter) {
    sides_ = matter.sides;
    std::vector<Named> groups;
    if (const Comparison* shown = matter.evidence.shown())
        for (std::size_t g : bestFirst(*shown))
            groups.push_back({shown->groups[g].id, shown->groups[g].name});
    grid_->show(sides_, groups);
    table_->setVisible(!sides_.empty());
    QStringList reported;
    for (const VerdictSentence& sentence : jointSentences(matter.evidence, sides_, matter.question))
        reported << qtext(sentence.text);
    if (sides_.empty())
        reported << say(
            "No power, clock, fan or reading is known of two of the levels. Readings, such as a score or "
            "the noise, are typed after a run or come as columns of its log.");
    else if (reported.isEmpty())
        reported << say(
            "Beside temperature and what follows from it, none of these tells the coolest apart from "
            "the others.");
    reported_->setText(reported.join("\n"));
    fillTable();
}

void ResponsesPage::fillTable() {
    const QSignalBlocker quiet(table_);
    table_->clear();
    table_->setHorizontalHeaderLabels({say("Response"), say("Difference that matters"), say("Found")});
    table_->setRowCount(static_cast<int>(sides_.size()));
    for (std::size_t i = 0; i < sides_.size(); ++i) {
        const SideComparison& side = sides_[i];
        const int row = static_cast<int>(i);
        table_->setItem(row, 0, fixedItem(qtext(sideName(side)) + ", " + qtext(side.unit)));
        auto* margin = new QTableWidgetItem(QString::number(side.margin, 'g', side.marginStated ? 6 : 2));
        margin->setToolTip(side.marginStated ? say("Stated in the question")
                                             : say("The usual one; type another"));
        table_->setItem(row, marginColumn, margin);
        table_->setItem(row, 2, fixedItem(distinguished(side)));
    }
}

void ResponsesPage::stateMargin(int row) {
    const Question* question = session_.question();
    if (!question) return;
    const SideComparison& side = sides_[static_cast<std::size_t>(row)];
    bool isNumber = false;
    const double value = table_->item(row, marginColumn)->text().replace(',', '.').toDouble(&isNumber);
    if (!isNumber || !(value > 0)) {
        session_.post(say("A difference that matters is a number above 0."));
        return fillTable();
    }
    Edit edit(session_.document(),
              titled("State what matters in {response}", {{"response", sideName(side)}}));
    SideMargin stated;
    for (const SideMargin* one : session_.document().where(&SideMargin::question, question->id))
        if (one->response == side.response && one->name == side.name) stated = *one;
    stated.question = question->id;
    stated.response = side.response;
    stated.name = side.name;
    stated.margin = value;
    if (stated.id)
        edit.put(stated);
    else
        edit.add(stated);
    session_.perform(edit.finish());
}

std::string ResponsesPage::csv() const { return sides_.empty() ? std::string() : responsesCsv(sides_); }

QWidget* ResponsesPage::picture() { return grid_; }

} // namespace ibuki
