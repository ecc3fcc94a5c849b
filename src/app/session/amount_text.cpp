// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/amount_text.h"

#include "app/say.h"

#include "app/session/qtext.h"
#include "core/domain/words.h"
#include <QStringList>

#include <QStringList>
#include <cmath>

namespace ibuki {

QString spanText(double days) {
    const auto whole = [](double count) {
        return std::max(qint64{0}, static_cast<qint64>(std::floor(count)));
    };
    if (days < 14) return sayMany("{count} day", "{count} days", whole(days));
    if (days < 60) return sayMany("{count} week", "{count} weeks", whole(days / 7));
    if (days < 730) return sayMany("{count} month", "{count} months", whole(days / 30.44));
    return sayMany("{count} year", "{count} years", whole(days / 365.25));
}

QString durationText(double minutes) {
    constexpr double hour = 60;
    if (minutes < 2.5 * hour) return say("%1 min").arg(minutes, 0, 'f', 0);
    if (minutes < 200 * hour) return say("%1 h").arg(minutes / hour, 0, 'f', minutes < 10 * hour ? 1 : 0);
    return spanText(minutes / (24 * hour));
}

QString dayText(Instant instant) { return sayTerm(weekdayText(instant)) + " " + qtext(dateText(instant)); }

QString dayTimeText(Instant instant) {
    return sayTerm(weekdayText(instant)) + " " + qtext(dateTimeText(instant));
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
    return number + " " + sayTerm(word(unit));
}

QString shortageText(const Document& document, const Shortage& shortage) {
    const Material* material = document.find(shortage.material);
    return sayMany("%1 is short: {count} planned mount needs %2, %3 is left.",
                   "%1 is short: {count} planned mounts need %2, %3 is left.", shortage.mounts)
        .arg(material ? qtext(material->name) : QString(), contentText(shortage.needed, shortage.unit),
             contentText(shortage.left, shortage.unit));
}

QString wantedText(const DueCount& count) {
    QStringList reported;
    if (count.thisWeek > 0)
        reported << sayMany("{count} mount wants a look this week", "{count} mounts want a look this week",
                            count.thisWeek);
    if (count.overdue > 0) reported << sayMany("{count} is overdue", "{count} are overdue", count.overdue);
    return reported.join(", ");
}

} // namespace ibuki
