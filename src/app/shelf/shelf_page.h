// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "app/shelf/shelf_items.h"

#include <QWidget>

class QComboBox;
class QLineEdit;
class QScrollArea;
class QStackedWidget;

namespace ibuki {

class CautionPanel;
class FiguresPanel;
class LotPanel;
class MaterialPanel;
class ShelfBoard;

/// The shelf itself: the drawn lots with search, class filter and order on the left; on the right what the
/// chosen one says, holds, costs and warns of.
class ShelfPage : public QWidget {
    Q_OBJECT

public:
    explicit ShelfPage(Session& session, QWidget* parent = nullptr);
    void refresh();

    bool importFrom(const QString& path); ///< CSV or JSON; one undo; false with a notice
    bool exportTo(const QString& path);   ///< by the ending; false with a notice

private:
    QWidget* makeBoard();
    QWidget* makeDetail();
    QWidget* makeButtons();
    void arrange(); ///< search, class and order on the items
    void markChosen();
    void choose(const ShelfItem& item);
    void showDetail();
    void addMaterial();
    void addLot();
    void removeChosen();
    void askRates();
    QString worth() const;

    Session& session_;
    std::vector<ShelfItem> items_;
    std::vector<std::size_t> shown_; ///< indices into items_, in the board's order
    std::optional<Id<Material>> besideMaterial_;
    std::optional<Id<Lot>> besideLot_;
    QLineEdit* search_ = nullptr;
    QComboBox* kind_ = nullptr;
    QComboBox* order_ = nullptr;
    QScrollArea* scroll_ = nullptr;
    ShelfBoard* board_ = nullptr;
    QLabel* worth_ = nullptr;
    QLabel* empty_ = nullptr;
    QLabel* title_ = nullptr;
    QWidget* detail_ = nullptr;
    QStackedWidget* tabs_ = nullptr;
    FiguresPanel* figures_ = nullptr;
    LotPanel* lot_ = nullptr;
    MaterialPanel* material_ = nullptr;
    CautionPanel* cautions_ = nullptr;
};

} // namespace ibuki
