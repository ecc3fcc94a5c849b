// SPDX-License-Identifier: GPL-3.0-or-later
// A mount is rejected, by hand or by a look, and taken back, in one way.
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/evidence/look_rejections.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestRejection : public QObject {
    Q_OBJECT

    Document document_;
    Id<Mount> mount_;
    Id<JointInspection> first_;
    Id<JointInspection> second_;

    void reject(const std::string& reason, std::optional<Id<JointInspection>> look = std::nullopt) {
        Edit edit(document_, "reject");
        rejectMount(edit, mount_, reason, look);
        apply(document_, edit.finish());
    }
    const Mount& mount() const { return *document_.find(mount_); }
    const JointInspection& look(Id<JointInspection> id) const { return *document_.find(id); }

private slots:
    void init() {
        const auto asked = story::measured();
        document_ = asked.document;
        mount_ = mountsOf(document_, asked.bench).front()->id;
        Edit edit(document_, "looks");
        JointInspection made;
        made.mount = mount_;
        made.site = firstQuestion(document_, asked.study)->site;
        first_ = edit.add(made);
        second_ = edit.add(made);
        apply(document_, edit.finish());
    }
    void byHandNoLookRejects() {
        reject("slipped");
        QVERIFY(mount().rejected && mount().reason == "slipped");
        QVERIFY(!look(first_).rejects && !look(second_).rejects);
    }
    void byALookItIsKeptWithIt() {
        reject("half bare", second_);
        QVERIFY(mount().rejected && look(second_).rejects && !look(first_).rejects);
        QVERIFY(look(second_).figureKnown); // its log was in before
    }
    void whatIsDecidedAnewByHandIsNoMoreByLook() {
        reject("half bare", second_);
        reject("slipped");
        QVERIFY(mount().rejected && mount().reason == "slipped");
        QVERIFY(!look(second_).rejects && !look(second_).figureKnown);
    }
    void takenBackItKeepsItsReason() {
        reject("half bare", first_);
        reject("");
        QVERIFY(!mount().rejected && mount().reason == "half bare");
        QVERIFY(!look(first_).rejects && !look(first_).figureKnown);
        reject("", first_); // and nothing is rejected by taking back
        QVERIFY(!look(first_).rejects);
    }
    void withoutALogNoFigureWasKnown() {
        Edit edit(document_, "another mount");
        Mount other = mount();
        other.id = {};
        other.id = edit.add(other);
        JointInspection made = look(first_);
        made.id = {};
        made.mount = other.id;
        made.id = edit.add(made);
        rejectMount(edit, other.id, "bent", made.id);
        apply(document_, edit.finish());
        QVERIFY(document_.find(made.id)->rejects && !document_.find(made.id)->figureKnown);
    }
};
IBUKI_TEST(TestRejection)
#include "tst_rejection.moc"
