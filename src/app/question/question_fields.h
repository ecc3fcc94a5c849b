// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/forms/entity_form.h"

#include <functional>
#include <vector>

namespace ibuki {

/// The fields of a question, one by one: each sheet of the sentence takes those that it is about.
class QuestionFields {
public:
    QuestionFields(Session& session, QFormLayout* form);

    void addFactor();
    void addSecondFactor();
    void addGoal();
    void addSite();
    void addMetric();
    void addReference();
    void addTaken();
    void addNominalPower();
    void addMargin();
    void addConfidence();
    void addHeldAgainst();
    void addComparedLoad();
    void addTakenOut(); ///< evenings or people, the order of mounts, a line over room or power
    void addSpread();
    void refresh(); ///< of the session's question

private:
    using Choices = std::vector<std::pair<QString, qlonglong>>;
    struct Choice {
        QString label;
        std::function<Choices(const Question&)> all;
        std::function<qlonglong(const Question&)> now;
        std::function<void(Question&, qlonglong)> take;
        std::function<Message(qlonglong)> title;
    };
    void addChoice(Choice choice);
    /// A word of a list, or nothing, which is told as `none`.
    template <class Word>
    void addOptional(const QString& label, const QString& none, std::optional<Word> Question::*member,
                     const char* title);
    void change(const Message& title, const std::function<void(Question&)>& change);

    Session& session_;
    QFormLayout* form_;
    EntityForm<Question> plain_;
    std::vector<std::function<void(const Question&)>> loaders_;
};

} // namespace ibuki
