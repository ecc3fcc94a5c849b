// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/qtext.h"
#include "core/domain/document.h"
#include "core/evidence/side_responses.h"

#include <QWidget>

namespace ibuki {

/// What the pages of the verdict show: what a question's mounts can bear.
struct VerdictMatter {
    const Document& document;
    const Question& question;
    const Evidence& evidence;
    const std::vector<SideComparison>& sides;
    std::string unit; ///< of the question's response
    Instant now;
    std::optional<Id<Mount>> selected;
};

/// One page of the verdict. It is filled when it is looked at.
class VerdictPage : public QWidget {
    Q_OBJECT

public:
    explicit VerdictPage(const QString& name, QWidget* parent = nullptr) : QWidget(parent), name_(name) {}

    const QString& name() const { return name_; }
    virtual void fill(const VerdictMatter& matter) = 0;
    /// What is drawn, as data with its units in the head; empty where nothing is.
    virtual std::string csv() const = 0;
    /// What is exported as a picture.
    virtual QWidget* picture() { return this; }

signals:
    void mountMeant(ibuki::Id<ibuki::Mount> mount);
    void pairMeant(std::optional<std::size_t> pair); ///< index into Comparison::pairs; none: not on a pair

private:
    QString name_;
};

} // namespace ibuki
