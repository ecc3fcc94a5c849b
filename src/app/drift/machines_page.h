// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drift/drift_desk.h"
#include "app/forms/page_export.h"

class QLabel;
class QTableWidget;

namespace ibuki {

/// When each machine's joint is to be made anew, and what ten years of that cost.
class MachinesPage : public ExportedPage {
    Q_OBJECT

public:
    explicit MachinesPage(DriftDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;

private:
    DriftDesk& desk_;
    QLabel* seasons_;
    QTableWidget* machines_;
    QLabel* sheetOrPaste_;
    QTableWidget* costs_;
};

} // namespace ibuki
