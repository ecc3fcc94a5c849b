// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_desk.h"
#include "app/forms/page_export.h"

class QLabel;
class QTableWidget;

namespace ibuki {

/// When each machine's joint is to be made anew, and what ten years of that cost.
class MachinesPage : public ExportedPage {
    Q_OBJECT

public:
    explicit MachinesPage(AgeingDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;

private:
    AgeingDesk& desk_;
    QLabel* seasons_;
    QTableWidget* machines_;
    QLabel* sheetOrPaste_;
    QTableWidget* costs_;
};

} // namespace ibuki
