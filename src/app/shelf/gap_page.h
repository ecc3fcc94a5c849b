// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/session.h"
#include "core/domain/bench.h"
#include "core/domain/material.h"

#include <QWidget>
#include <map>

class QComboBox;
class QGridLayout;
class QLabel;

namespace ibuki {

class GapDrawing;
class NumberField;
struct GapLine;

/// Pads under one plate: how far each is pressed, whether the die still touches, which thicknesses fit, how
/// the backplate bows. Gap and size are stated on the site; the thickness tried here changes nothing.
class GapPage : public QWidget {
    Q_OBJECT

public:
    explicit GapPage(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    QComboBox* makePads();
    void fillPads();
    void showReport();
    NumberField* addGapField(int row, Id<Site> site, const std::string& name);
    void addLine(int row, const GapLine& line);
    void addMissing(int row, Id<Site> site);
    void stateGap(Id<Site> site, double gapMm);

    Session& session_;
    std::optional<Id<Material>> pad_;
    std::map<Id<Site>, double> thickness_; ///< tried per site, mm
    QComboBox* pads_ = nullptr;
    QGridLayout* grid_ = nullptr;
    QWidget* table_ = nullptr;
    QLabel* die_ = nullptr;
    QLabel* words_ = nullptr;
    QLabel* caveat_ = nullptr;
    GapDrawing* drawing_ = nullptr;
};

} // namespace ibuki
