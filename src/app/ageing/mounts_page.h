// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_lines.h"
#include "app/forms/page_export.h"

class QCustomPlot;
class QLabel;
class QTableWidget;

namespace ibuki {

/// The clocks of each mount, how it is used and when it was opened; its thermal cycles by their range.
class MountsPage : public ExportedPage {
    Q_OBJECT

public:
    explicit MountsPage(AgeingDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    std::optional<Id<Mount>> chosen() const;
    const MountHistory* chosenHistory() const;
    void draw();

    AgeingDesk& desk_;
    QTableWidget* table_;
    QLabel* reported_;
    QCustomPlot* plot_;
    std::vector<MountRow> rows_;
};

} // namespace ibuki
