// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>
#include <optional>

namespace ibuki {

/// A number that belongs to a page rather than to the project: typed with point or comma, marked as wrong
/// while it is none or out of range.
class NumberField : public QLineEdit {
    Q_OBJECT

public:
    struct Range {
        double least = 0;
        bool above = true; ///< least itself is not allowed
        double most = 1e300;
    };
    explicit NumberField(const QString& label, Range range, QWidget* parent = nullptr);

    std::optional<double> value() const; ///< nothing: not acceptable
    void show(double value);             ///< without a signal
    /// "Bore, mm must be above 0." when the value is not acceptable.
    QString complaint() const;

signals:
    void valueEdited(); ///< by the user, acceptable or not

private:
    QString label_;
    Range range_;
};

} // namespace ibuki
