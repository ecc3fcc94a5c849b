// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/heat/seen_path.h"

#include <QWidget>
#include <optional>
#include <vector>

class QLabel;
class QPushButton;
class QStackedWidget;

namespace ibuki {

class BurstsPage;
class ExportedPage;
class FieldPage;
class HeatPage;
class RehearsalPanel;
class StackPage;
class TransientPage;

/// Why it is so hot and what would change it: the bench's own heat path, calibrated by what its mounts
/// measured.
class HeatView : public QWidget {
    Q_OBJECT

public:
    explicit HeatView(Session& session, QWidget* parent = nullptr);

    void refresh();

signals:
    /// The path as the sliders have it, while they stand elsewhere than measured and it can be seen.
    void turnedOver(const std::optional<ibuki::SeenPath>& path);

protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    StudyHeat heatOf(const Document& document, const Question& question, const Mount* mount) const;
    void showStack();
    void tellTurnedOver();
    ExportedPage* currentPage() const;

    Session& session_;
    QLabel* title_;
    QLabel* empty_;
    QWidget* switch_ = nullptr;
    QPushButton* export_;
    QStackedWidget* pages_;
    StackPage* stack_;
    FieldPage* field_;
    BurstsPage* bursts_;
    TransientPage* steps_;
    RehearsalPanel* rehearsal_;
    std::vector<HeatPage*> filled_;
    std::optional<std::size_t> anchor_; ///< group that the user chose
    BenchPath bench_;
};

} // namespace ibuki
