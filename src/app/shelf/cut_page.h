// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/shelf/cut_job.h"

#include <QTimer>
#include <QWidget>

class QCheckBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace ibuki {

class NumberField;
class SheetPreview;

/// Cutting: pieces and sheets in two tables, taken from the bench's sites and the shelf or typed; the plan is
/// worked out beside the window and drawn as it will be printed. Keeping it takes the sheets off the shelf
/// and puts the off-cuts on.
class CutPage : public QWidget {
    Q_OBJECT

public:
    explicit CutPage(Session& session, QWidget* parent = nullptr);
    void refresh();

    bool saveDrawing(const QString& path); ///< .svg or .pdf; false with a notice
    const std::optional<CutPlan>& plan() const { return plan_; }
    bool isWorking() const;

private:
    QWidget* makeTables();
    QWidget* makeResult();
    QLayout* makeTurning();
    QWidget* makeSettings();
    QTableWidget* makeTable(const QString& name, const QStringList& columns);
    void fillFromBench();
    void fillFromShelf();
    void putRow(QTableWidget& table, const QStringList& cells, bool checked);
    void removeRow(QTableWidget& table);
    std::optional<double> number(QTableWidget& table, int row, int column, const QString& what);
    std::optional<CutJob> job(); ///< nothing, with complaint_, when a cell is no number
    void replanSoon();
    void replan();
    void showPlan();
    void refuse(const QString& why);
    void printPlan();
    void keep();

    Session& session_;
    QTimer soon_;
    CutJob planned_;
    std::optional<CutPlan> plan_;
    std::vector<std::string> pages_;
    int page_ = 0;
    QString complaint_;
    std::vector<std::optional<ShelfSheet>> origins_; ///< of the sheet rows; nothing: typed
    bool filling_ = false;
    bool started_ = false;
    QTableWidget* pieces_ = nullptr;
    QTableWidget* sheets_ = nullptr;
    NumberField* kerf_ = nullptr;
    NumberField* margin_ = nullptr;
    QCheckBox* offcutsFirst_ = nullptr;
    SheetPreview* preview_ = nullptr;
    QLabel* summary_ = nullptr;
    QLabel* pageLabel_ = nullptr;
    QPushButton* previous_ = nullptr;
    QPushButton* next_ = nullptr;
    QPushButton* save_ = nullptr;
    QPushButton* print_ = nullptr;
    QPushButton* keep_ = nullptr;
};

} // namespace ibuki
