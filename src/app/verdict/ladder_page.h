// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"
#include "core/comparison/shown_groups.h"
#include "store/paper/ladder_svg.h"

class QCheckBox;
class QLabel;

namespace ibuki {

class Ladder;

/// The ladder with its legend; what conducts electricity can be put aside for those who will not use it.
class LadderPage : public VerdictPage {
    Q_OBJECT

public:
    explicit LadderPage(QWidget* parent = nullptr);

    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

    void clear();
    void highlight(std::optional<std::size_t> pair); ///< index into the whole comparison's pairs

private:
    void show();

    std::optional<Comparison> whole_;
    ShownGroups shown_;
    GroupClasses classes_;
    std::set<std::int64_t> conducting_; ///< ids of groups
    std::optional<Id<Mount>> selected_;
    std::string unit_;
    bool compared_ = false;
    Ladder* ladder_;
    QCheckBox* aside_;
    QLabel* legend_;
};

} // namespace ibuki
