// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a widget's figures are: said once where it is made, asked by F1 and by a long press.

#include "store/paper/methods.h"

#include <QWidget>
#include <optional>

namespace ibuki {

/// The widget and what stands in it.
inline void explain(QWidget* widget, Topic topic) { widget->setProperty("topic", static_cast<int>(topic)); }

inline std::optional<Topic> ownTopic(const QWidget* widget) {
    const QVariant topic = widget->property("topic");
    return topic.isValid() ? std::optional(static_cast<Topic>(topic.toInt())) : std::nullopt;
}

/// The widget's own, else that of the nearest one around it.
inline std::optional<Topic> topicOf(const QWidget* widget) {
    for (; widget; widget = widget->parentWidget())
        if (const auto topic = ownTopic(widget)) return topic;
    return std::nullopt;
}

} // namespace ibuki
