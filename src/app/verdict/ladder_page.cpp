// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder_page.h"

#include "app/forms/copying.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/ladder.h"
#include "core/domain/lookup.h"
#include "core/shelf/class_defaults.h"
#include "store/paper/report.h"
#include "store/paper/sentences.h"
#include "store/paper/verdict_csv.h"

#include <QCheckBox>
#include <QVBoxLayout>

namespace ibuki {
namespace {

/// What the marks are, and what chance alone would make of such a ranking.
QString legendOf(const Comparison& comparison, std::string_view unit) {
    QString text = isProvisional(comparison)
                       ? say("○ one mount   ┅ its interval by an assumed scatter, provisional   bracket: not "
                             "told apart, which "
                             "does not mean equal   shaded: the margin from the best")
                       : say("○ one mount   ▬ mean and its interval   bracket: not told apart, which does "
                             "not mean equal   "
                             "●–● the same within the margin   shaded: the margin from the best");
    if (const auto spread = spreadSentence(comparison, unit); !spread.empty()) text += "\n" + qtext(spread);
    return text;
}

std::set<std::int64_t> conductingGroups(const VerdictMatter& matter, const Comparison& shown) {
    std::set<std::int64_t> groups;
    for (const GroupSummary& group : shown.groups) {
        const Level* level = matter.document.find(levelOfGroup(matter.evidence, group));
        const Material* material = level ? matter.document.find(level->material) : nullptr;
        if (material && factsOf(*material).conducts.value) groups.insert(group.id);
    }
    return groups;
}

} // namespace

LadderPage::LadderPage(QWidget* parent)
    : VerdictPage(say("Ladder"), parent),
      ladder_(new Ladder),
      aside_(new QCheckBox(say("Put aside what conducts electricity"))),
      legend_(quietLabel()) {
    explain(ladder_, Topic::ladder);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* tip = new Tip(QStringLiteral("ladder"),
                        say("Click a circle, or walk with the arrow keys and Enter: the mount behind it."));
    layout->addWidget(tip);
    layout->addWidget(ladder_, 1);
    layout->addWidget(aside_);
    layout->addWidget(legend_);
    copyOnKey(*ladder_, [this] { return ladder_->figureUnderFocus(); });
    connect(ladder_, &Ladder::mountMeant, tip, &Tip::done);
    connect(ladder_, &Ladder::mountMeant, this, &VerdictPage::mountMeant);
    connect(aside_, &QCheckBox::toggled, this, &LadderPage::show);
}

void LadderPage::fill(const VerdictMatter& matter) {
    const Comparison* shown = matter.evidence.shown();
    if (!shown) return clear();
    whole_ = *shown;
    unit_ = matter.unit;
    selected_ = matter.selected;
    compared_ = matter.evidence.comparison.has_value();
    classes_ = groupClasses(matter.document, matter.evidence);
    conducting_ = conductingGroups(matter, *shown);
    show();
}

void LadderPage::clear() {
    whole_.reset();
    ladder_->clear();
    aside_->hide();
    legend_->hide();
}

/// Nothing is left to compare where fewer than two do not conduct.
void LadderPage::show() {
    if (!whole_) return;
    aside_->setVisible(!conducting_.empty() && conducting_.size() + 1 < whole_->groups.size());
    const bool hides = aside_->isVisibleTo(this) && aside_->isChecked();
    shown_ = without(*whole_, hides ? conducting_ : std::set<std::int64_t>{});
    ladder_->show(shown_.comparison, classes_, unit_);
    ladder_->markMount(selected_);
    legend_->setVisible(compared_);
    if (compared_) legend_->setText(legendOf(*whole_, unit_));
}

void LadderPage::highlight(std::optional<std::size_t> pair) {
    const bool known = pair && *pair < shown_.pairs.size();
    ladder_->highlight(known ? shown_.pairs[*pair] : std::nullopt);
}

std::string LadderPage::csv() const { return whole_ ? mountsCsv(shown_.comparison, unit_) : std::string(); }

QWidget* LadderPage::picture() { return ladder_; }

} // namespace ibuki
