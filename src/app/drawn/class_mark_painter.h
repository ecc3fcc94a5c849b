// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The marks of material classes (store/paper has the same for reports), drawn.

#include "core/domain/material.h"

#include <QColor>
#include <QIcon>
#include <QPointF>

class QPainter;

namespace ibuki {

/// Shape and letter of a material class; the shape is centred on `centre`, the letter stands behind it.
void paintClassMark(QPainter& painter, MaterialClass kind, const QPointF& centre, double radius,
                    const QColor& colour);

/// The same as an icon for lists.
QIcon classIcon(MaterialClass kind);

} // namespace ibuki
