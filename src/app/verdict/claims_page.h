// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/verdict/verdict_page.h"
#include "store/paper/claims.h"

class QListWidget;

namespace ibuki {

/// For who publishes: what may be said, what has to be said with it, what may not be said and why not.
class ClaimsPage : public VerdictPage {
    Q_OBJECT

public:
    explicit ClaimsPage(QWidget* parent = nullptr);

    void fill(const VerdictMatter& matter) override;
    std::string csv() const override;
    QWidget* picture() override;

private:
    void addHeading(const QString& text);
    void copy() const; ///< what may be published

    std::vector<Claim> claims_;
    QListWidget* list_;
};

} // namespace ibuki
