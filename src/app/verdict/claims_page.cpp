// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/claims_page.h"

#include "app/drawn/theme.h"
#include "app/forms/copying.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/say.h"
#include "words/words.h"

#include <QApplication>
#include <QClipboard>
#include <QListWidget>
#include <QVBoxLayout>
#include <array>

namespace ibuki {
namespace {

/// A mark of its own for each kind; never colour alone.
QString markOf(ClaimKind kind) {
    switch (kind) {
    case ClaimKind::may:
        return QStringLiteral("✓  ");
    case ClaimKind::with:
        return QStringLiteral("+  ");
    case ClaimKind::mayNot:
        return QStringLiteral("✕  ");
    }
    return {};
}

QString textOf(const Claim& claim) {
    QString text = markOf(claim.kind) + qtext(claim.text);
    if (!claim.because.empty()) text += " " + say("Because %1.").arg(qtext(claim.because));
    return text;
}

} // namespace

ClaimsPage::ClaimsPage(QWidget* parent) : VerdictPage(say("Plain words"), parent), list_(new QListWidget) {
    explain(this, Topic::verdict);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    list_->setAccessibleName(say("What you may say, and what not"));
    wrapItems(*list_);
    copyItemOnKey(*list_);
    list_->setSpacing(3);
    layout->addWidget(list_, 1);
    auto* take = button(say("Copy what you may say"), say("With what has to be said with it"));
    layout->addWidget(take, 0, Qt::AlignLeft);
    connect(take, &QPushButton::clicked, this, &ClaimsPage::copy);
}

void ClaimsPage::addHeading(const QString& text) {
    auto* item = new QListWidgetItem(text, list_);
    item->setFlags(Qt::ItemIsEnabled);
    item->setFont(textFont(1.05, QFont::DemiBold));
}

void ClaimsPage::fill(const VerdictMatter& matter) {
    claims_ = claimsOf(matter.document, matter.question, matter.evidence);
    list_->clear();
    if (claims_.empty()) {
        list_->addItem(say("Nothing is compared yet. What the mounts let you say appears here."));
        return;
    }
    const std::array headings{say("You may say"), say("Say with it"), say("You may not say")};
    std::optional<ClaimKind> last;
    for (const Claim& claim : claims_) {
        if (last != claim.kind) addHeading(headings.at(static_cast<std::size_t>(claim.kind)));
        last = claim.kind;
        list_->addItem(textOf(claim));
    }
}

std::string ClaimsPage::csv() const { return claims_.empty() ? std::string() : claimsCsv(claims_); }

QWidget* ClaimsPage::picture() { return list_; }

void ClaimsPage::copy() const { QApplication::clipboard()->setText(qtext(publishable(claims_))); }

} // namespace ibuki
