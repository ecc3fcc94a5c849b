// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/amount_text.h"

#include "app/session/qtext.h"
#include "core/domain/words.h"

#include <cmath>

namespace ibuki {

QString spanText(double days) {
    const auto plural = [](double n, const char* unit) {
        const auto whole = std::max(0L, std::lround(n));
        return QString("%1 %2%3").arg(whole).arg(unit, whole == 1 ? "" : "s");
    };
    if (days < 14) return plural(std::floor(days), "day");
    if (days < 60) return plural(std::floor(days / 7), "week");
    if (days < 730) return plural(std::floor(days / 30.44), "month");
    return plural(std::floor(days / 365.25), "year");
}

QString moneyText(const Money& money) {
    const int decimals = std::abs(money.amount) < 0.095 ? 4 : 2;
    return QString("%1 %2").arg(money.amount, 0, 'f', decimals).arg(qtext(money.currency));
}

QString contentText(double amount, ContentUnit unit) {
    const int decimals = amount >= 100 ? 0 : amount >= 10 ? 1 : 2;
    QString number = QString::number(amount, 'f', decimals);
    while (number.contains('.') && (number.endsWith('0') || number.endsWith('.'))) {
        const bool point = number.endsWith('.');
        number.chop(1);
        if (point) break;
    }
    return number + " " + qtext(word(unit));
}

QString shortageText(const Document& document, const Shortage& shortage) {
    const Material* material = document.find(shortage.material);
    return QString("%1 is short: %2 planned %3 %4, %5 is left.")
        .arg(material ? qtext(material->name) : QString())
        .arg(shortage.mounts)
        .arg(shortage.mounts == 1 ? "mount needs" : "mounts need",
             contentText(shortage.needed, shortage.unit), contentText(shortage.left, shortage.unit));
}

} // namespace ibuki
