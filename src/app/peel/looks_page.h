// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/page_export.h"
#include "app/peel/look_desk.h"
#include "store/paper/look_csv.h"

#include <map>
#include <set>

class QComboBox;
class QCustomPlot;
class QLabel;
class QListWidget;
class QStackedWidget;

namespace ibuki {

class CoverageMapView;

/// All looks of the bench together: where it is covered again and again, every mask at one scale with its ΔT,
/// and coverage against ΔT.
class LooksPage : public ExportedPage {
    Q_OBJECT

public:
    LooksPage(Session& session, LookDesk& desk, QWidget* parent = nullptr);

    void refresh();
    std::string csv() const override;
    QWidget* picture() override;

protected:
    void showEvent(QShowEvent* event) override;
    void changeEvent(QEvent* event) override;

private:
    void fillChoice(const std::map<std::int64_t, std::string>& materials,
                    const std::set<ApplicationPattern>& patterns);
    void fillSheet();
    void fillMap();
    void plot();

    Session& session_;
    LookDesk& desk_;
    QComboBox* of_;
    QLabel* reported_;
    CoverageMapView* map_;
    QListWidget* sheet_;
    QCustomPlot* plot_;
    std::vector<MountCoverage> looks_; ///< those that are shown
    std::vector<LookRow> rows_;
    bool isStale_ = true;
};

} // namespace ibuki
