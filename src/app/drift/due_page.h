// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/drift/drift_desk.h"
#include "app/forms/page_export.h"

class QLabel;
class QTableWidget;

namespace ibuki {

/// What wants to be looked at and until when; when each machine's joint is to be made anew; what ten years
/// cost.
class DuePage : public ExportedPage {
    Q_OBJECT

public:
    explicit DuePage(DriftDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;

signals:
    void checkWanted(ibuki::Id<ibuki::FollowUp> check); ///< to be recorded

private:
    void saveCalendar();

    DriftDesk& desk_;
    QLabel* wanted_;
    QTableWidget* checks_;
    QLabel* seasons_;
    QTableWidget* machines_;
    QTableWidget* costs_;
};

} // namespace ibuki
