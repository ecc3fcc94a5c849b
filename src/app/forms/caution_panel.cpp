// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/caution_panel.h"

#include "app/forms/topic.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/bench_dialogs.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/mount.h"
#include "store/paper/sentences.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <QSettings>
#include <QVBoxLayout>

namespace ibuki {
namespace {

template <class E> std::optional<Id<E>> idOf(const E* entity) {
    return entity ? std::optional(entity->id) : std::nullopt;
}

QString headOf(const Caution& caution) {
    QString name = sayTerm(severityName(caution.rule->severity));
    name[0] = name[0].toUpper();
    return caution.state == CautionState::asks ? say("Not known yet (") + name.toLower() + ")" : name;
}

} // namespace

CautionPanel::CautionPanel(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), layout_(new QVBoxLayout(this)) {
    layout_->setContentsMargins(2, 2, 2, 2);
    layout_->setSpacing(10);
    explain(this, Topic::cautions);
}

CautionSubject CautionPanel::subject() const {
    const Document& document = session_.document();
    return {document.find(subject_.material), document.find(subject_.lot), document.find(subject_.site),
            document.find(subject_.configuration), document.find(subject_.mount)};
}

void CautionPanel::show(const CautionSubject& subject) {
    subject_ = {idOf(subject.material), idOf(subject.lot), idOf(subject.site), idOf(subject.configuration),
                idOf(subject.mount)};
    while (QLayoutItem* item = layout_->takeAt(0)) {
        if (QWidget* old = item->widget()) {
            old->hide();
            old->deleteLater(); // one of them may have been clicked just now
        }
        delete item;
    }
    count_ = 0;
    layout_->addWidget(quietLabel(sayText({"caution-preamble", {}})));
    for (const Caution& caution : cautionsFor(cautionFacts(session_.document(), subject, session_.now()))) {
        layout_->addWidget(line(caution));
        if (caution.rule->severity > CautionSeverity::info && !caution.rule->handling) ++count_;
    }
    layout_->addStretch(1);
}

void CautionPanel::showAgain() { show(subject()); }

QWidget* CautionPanel::line(const Caution& caution) {
    auto* widget = new QWidget;
    auto* box = new QVBoxLayout(widget);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(2);
    auto* head = new QLabel(headOf(caution));
    setTextFont(head, 1.0, QFont::DemiBold);
    if (caution.rule->severity >= CautionSeverity::danger) {
        QPalette palette = head->palette();
        palette.setColor(QPalette::WindowText, colours().hot);
        head->setPalette(palette);
    }
    box->addWidget(head);
    QString text = qtext(reasonAndAdvice(*caution.rule));
    for (const std::string& fact : caution.asks) text += " " + sayText(questionFor(fact));
    if (!caution.rule->source.empty()) text += " (" + qtext(caution.rule->source) + ")";
    auto* words = new QLabel(text);
    words->setWordWrap(true);
    box->addWidget(words);
    box->addLayout(answers(caution));
    return widget;
}

/// What can be said to it: the fact that it asks for, that it was read, or that this is taken back.
QLayout* CautionPanel::answers(const Caution& caution) {
    auto* row = new QHBoxLayout;
    const std::string rule(caution.rule->id);
    const Acknowledgement* read = acknowledgementOf(session_.document(), rule, subject());
    if (caution.state == CautionState::asks && subject_.site) {
        auto* answer = button(say("Answer…"), say("State what is not known on the site"));
        connect(answer, &QPushButton::clicked, this,
                [this] { openDialog(new SiteSheet(session_, *subject_.site, this)); });
        row->addWidget(answer);
    } else if (read) {
        row->addWidget(quietLabel(say("Read by %1 on %2%3")
                                      .arg(qtext(read->role), qtext(dateText(read->at)),
                                           read->reason.empty() ? QString() : ": " + qtext(read->reason))),
                       1);
        auto* back = button(say("Take back"));
        back->setObjectName("Take back " + qtext(rule));
        connect(back, &QPushButton::clicked, this, [this, id = read->id] { withdraw(id); });
        row->addWidget(back);
    } else if (caution.rule->mayOverride) {
        const bool stop = caution.rule->severity == CautionSeverity::stop;
        auto* accept = button(stop ? say("Go on all the same…") : say("Read"));
        accept->setObjectName("Read " + qtext(rule));
        accept->setAccessibleName(say("Acknowledge: ") + headOf(caution));
        connect(accept, &QPushButton::clicked, this, [this, rule] { acknowledge(rule); });
        row->addWidget(accept);
    } else {
        auto* read_ = button(say("Seen"), say("This stop stays: nothing lifts it"));
        read_->setObjectName("Read " + qtext(rule));
        connect(read_, &QPushButton::clicked, this, [this, rule] { acknowledge(rule); });
        row->addWidget(read_);
        row->addWidget(quietLabel(say("This stop stays; seeing it is recorded.")), 1);
    }
    row->addStretch(1);
    return row;
}

void CautionPanel::acknowledge(const std::string& rule) {
    const CautionRule* known = cautionRule(rule);
    if (!known) return;
    const QString before = QSettings().value("role", say("first technician")).toString();
    askText(this, {say("Who has read it?"), say("Role, such as first technician"), before},
            [this, known](const QString& answer) {
                const QString role = answer.trimmed();
                if (role.isEmpty())
                    return say(
                        "A caution is acknowledged by someone: write a role, such as first technician.");
                QSettings().setValue("role", role);
                if (known->severity == CautionSeverity::stop && known->mayOverride)
                    askReason(*known, role.toStdString());
                else
                    keepRead(*known, role.toStdString(), {});
                return QString();
            });
}

void CautionPanel::askReason(const CautionRule& rule, const std::string& role) {
    askText(this, {say("Why go on?"), say("Reason, kept with the record"), {}},
            [this, &rule, role](const QString& answer) {
                const std::string reason = answer.trimmed().toStdString();
                if (reason.empty()) return say("A stop is lifted with a reason only.");
                keepRead(rule, role, reason);
                return QString();
            });
}

void CautionPanel::keepRead(const CautionRule& rule, const std::string& role, const std::string& reason) {
    Acknowledgement given;
    given.rule = rule.id;
    given.material = subject_.material;
    given.lot = isAboutLot(rule) ? subject_.lot : std::nullopt;
    given.site = subject_.site;
    given.mount = subject_.mount; // read for a mount counts for that mount
    given.role = role;
    given.reason = reason;
    given.at = session_.now();
    Edit edit(session_.document(), titled("Acknowledge a caution"));
    edit.add(given);
    session_.perform(edit.finish());
}

void CautionPanel::withdraw(Id<Acknowledgement> id) {
    Edit edit(session_.document(), titled("Take back an acknowledgement"));
    edit.remove(id);
    session_.perform(edit.finish());
}

CautionSheet::CautionSheet(Session& session, const CautionSubject& subject, QWidget* parent)
    : QDialog(parent) {
    setWindowTitle(say("Cautions"));
    resize(560, 620);
    auto* layout = new QVBoxLayout(this);
    if (subject.mount) layout->addWidget(cardTitle(qtext(subject.mount->name)));
    auto* panel = new CautionPanel(session);
    panel->show(subject);
    layout->addWidget(scrolledWidget(panel), 1);
    auto* close = button(say("Close"), {}, true);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    layout->addWidget(close, 0, Qt::AlignRight);
    const auto mount = subject.mount ? std::optional(subject.mount->id) : std::nullopt;
    connect(&session, &Session::documentChanged, this, [this, &session, panel, mount] {
        if (!mount || session.document().find(mount))
            panel->showAgain();
        else
            reject(); // undone while open
    });
}

QStringList graveCautions(const Document& document, const CautionSubject& subject, Instant now) {
    QStringList words;
    if (!subject.material) return words;
    for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now)))
        if (!caution.rule->handling && caution.rule->severity >= CautionSeverity::danger)
            words << "▸ " + QString::fromStdString(cautionText(caution));
    return words;
}

} // namespace ibuki
