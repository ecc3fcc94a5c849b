// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ageing/ageing_desk.h"
#include "app/forms/page_export.h"

class QLabel;
class QTableWidget;

namespace ibuki {

/// Which mounts want to be looked at, when, and until when the answer is still to be had.
class DuePage : public ExportedPage {
    Q_OBJECT

public:
    explicit DuePage(AgeingDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;

signals:
    void checkWanted(ibuki::Id<ibuki::FollowUp> check); ///< to be recorded

private:
    void want(int row);
    void saveCalendar();

    AgeingDesk& desk_;
    QLabel* wanted_;
    QTableWidget* checks_;
};

} // namespace ibuki
