// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"

#include <QWidget>

class QComboBox;
class QStackedWidget;

namespace ibuki {

class CutPage;
class DosePage;
class GapPage;
class ShelfPage;

/// The stage Shelf: the shelf itself and three helpers (dose, cut, gap), all for the material, lot and site
/// that are chosen.
class ShelfView : public QWidget {
    Q_OBJECT

public:
    explicit ShelfView(Session& session, QWidget* parent = nullptr);
    void refresh();

    enum class Page { shelf, dose, cut, gap };
    void showPage(Page page);
    ShelfPage& shelfPage() { return *shelf_; }
    CutPage& cutPage() { return *cut_; }

private:
    void fillSites();

    Session& session_;
    QStackedWidget* pages_;
    QComboBox* site_;
    ShelfPage* shelf_;
    DosePage* dose_;
    CutPage* cut_;
    GapPage* gap_;
};

} // namespace ibuki
