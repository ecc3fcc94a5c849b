// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/evidence/check_mounts.h"

#include "app/verdict/verdict_page.h"

class QCustomPlot;
class QLabel;
class QTableWidget;

namespace ibuki {

/// Did the bench move: check mounts in their order with the chart that tells, which mounts that touches, and
/// figures corrected for it beside those that are not.
class ChecksPage : public VerdictPage {
    Q_OBJECT

public:
    explicit ChecksPage(QWidget* parent = nullptr);

    void show(const Document& document, const CheckEvidence& checks, const Comparison* comparison,
              const std::string& unit);
    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void changeEvent(QEvent* event) override;

private:
    void draw();
    void fillFigures(const Comparison* comparison, const std::string& unit);

    CheckEvidence checks_;
    QStringList names_; ///< of the check mounts
    std::string unit_;
    QCustomPlot* plot_;
    QLabel* reported_;
    QTableWidget* figures_;
};

} // namespace ibuki
