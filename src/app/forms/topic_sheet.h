// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/paper/methods.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QTextBrowser;

namespace ibuki {

/// What a figure is: one sentence, then formula and source. All figures can be leafed through.
class TopicSheet : public QDialog {
    Q_OBJECT

public:
    explicit TopicSheet(Topic topic, QWidget* parent = nullptr);
    void tell(Topic topic);
    Topic topic() const;

private:
    QComboBox* topics_;
    QLabel* what_;
    QTextBrowser* text_;
};

} // namespace ibuki
