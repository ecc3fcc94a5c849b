// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/topic_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/qtext.h"

#include <QComboBox>
#include <QTextBrowser>
#include <QVBoxLayout>

namespace ibuki {

TopicSheet::TopicSheet(Topic topic, QWidget* parent)
    : QDialog(parent), topics_(new QComboBox), what_(new QLabel), text_(new QTextBrowser) {
    setWindowTitle(say("What is this?"));
    resize(620, 480);
    auto* layout = new QVBoxLayout(this);
    for (const TopicInfo& info : ibuki::topics())
        topics_->addItem(sayText({info.code, {}}), static_cast<int>(info.topic));
    topics_->setAccessibleName(say("Figure"));
    topics_->setObjectName("Figure");
    layout->addWidget(topics_);
    what_->setWordWrap(true);
    what_->setObjectName("What it is");
    setTextFont(what_, 1.2, QFont::Medium);
    layout->addWidget(what_);
    layout->addWidget(quietLabel(say("How it is worked out, and by whom it was shown:")));
    text_->setObjectName("How it is worked out");
    text_->setAccessibleName(say("How it is worked out"));
    text_->setOpenLinks(false);
    layout->addWidget(text_, 1);
    layout->addWidget(closeButton(this));
    connect(topics_, &QComboBox::currentIndexChanged, this,
            [this] { tell(static_cast<Topic>(topics_->currentData().toInt())); });
    tell(topic);
    text_->setFocus(); // to be read on with the arrow keys
}

void TopicSheet::tell(Topic topic) {
    const QSignalBlocker quiet(topics_);
    topics_->setCurrentIndex(topics_->findData(static_cast<int>(topic)));
    what_->setText(sayText({std::string(topicInfo(topic).code) + ".what", {}}));
    text_->setMarkdown(qtext(topicText(topic)));
}

Topic TopicSheet::topic() const { return static_cast<Topic>(topics_->currentData().toInt()); }

} // namespace ibuki
