// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/heat/heat_page.h"
#include "core/physics/conduction_field.h"

class QComboBox;
class QLabel;
class QSlider;

namespace ibuki {

class FieldPictureView;
class Session;

/// Where the joint is bare, and what that costs.
enum class BareWhere { nowhere, corner, edge, middle, frame, byDot, byLine, byCross, byFiveDots };
/// That share of a face covered, the rest bare there; of a pattern: so much of what would fill the face,
/// spread by the plate from the middle lines that hands usually draw.
CoverageMask bareMask(BareWhere where, double covered, const Extent& face = {30, 30});

/// The conduction field of the path as it is turned over on the Stack page: a coarse picture at once, then
/// finer.
class FieldPage : public HeatPage {
    Q_OBJECT

public:
    explicit FieldPage(Session& session, QWidget* parent = nullptr);

    void fill(const HeatMatter& matter) override;
    void show(const ChangedPath& path); ///< works it out when the page is looked at
    void bareAt(BareWhere where, double covered);
    std::string csv() const override;
    QWidget* picture() override;
    double hottestC() const { return worked_ ? worked_->field.powered.maxC : 0; } ///< of the powered face
    bool isFine() const { return isFine_; } ///< the last and finest has come

protected:
    void showEvent(QShowEvent* event) override;

private:
    struct Worked {
        ConductionField field;
        double wholeMaxC = 0, wholeMeanC = 0; ///< with all of the joint covered
    };
    void start();
    void startAt(std::size_t fineness);
    void take(Worked worked, std::size_t fineness);
    void tell();
    const FieldFace* face() const;
    double coveredShare() const; ///< of the joint under study

    Session& session_;
    FieldPictureView* view_;
    QComboBox* bare_;
    QComboBox* power_;
    QSlider* inCores_;
    QLabel* inCoresReported_;
    QLabel* coveredName_;
    QComboBox* faces_;
    QSlider* covered_;
    QLabel* coveredReported_;
    QLabel* reported_;
    std::optional<ChangedPath> path_;
    std::optional<Worked> worked_;
    bool isStale_ = false;
    bool isFine_ = false;
};

} // namespace ibuki
