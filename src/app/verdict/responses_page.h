// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "app/verdict/verdict_page.h"

class QTableWidget;

namespace ibuki {

class ResponseGrid;

/// What else the same mounts were compared by, drawn beside each other; the difference that matters of each
/// can be stated; and what all of it says together.
class ResponsesPage : public VerdictPage {
    Q_OBJECT

public:
    explicit ResponsesPage(Session& session, QWidget* parent = nullptr);

    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

private:
    void fillTable();
    void stateMargin(int row);

    Session& session_;
    std::vector<SideComparison> sides_;
    QLabel* reported_;
    ResponseGrid* grid_;
    QTableWidget* table_;
};

} // namespace ibuki
