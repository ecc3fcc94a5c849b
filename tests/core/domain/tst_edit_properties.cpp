// SPDX-License-Identifier: GPL-3.0-or-later
// What holds of any row of edits: random ones, undone and redone, against a plain map kept beside them.

#include "core/base/random.h"
#include "core/domain/edit.h"
#include "core/domain/mount.h"
#include "core/domain/study.h"
#include "support/entities.h"
#include "support/test_class.h"

#include <map>

using namespace ibuki;

namespace {

/// The same by a second road: values by id, nothing shared.
struct Plain {
    std::map<std::int64_t, Material> materials;
    std::map<std::int64_t, Lot> lots;
    bool operator==(const Plain&) const = default;
};

Plain plainOf(const Document& document) {
    Plain plain;
    for (const auto& [id, material] : document.all<Material>()) plain.materials.emplace(id.value, material);
    for (const auto& [id, lot] : document.all<Lot>()) plain.lots.emplace(id.value, lot);
    return plain;
}

template <class Map> const auto& anyOf(Random& random, const Map& map) {
    return *std::next(map.begin(),
                      static_cast<std::ptrdiff_t>(random.uniform() * static_cast<double>(map.size())));
}

/// One to five random steps, made in the edit and in the map.
ChangeSet randomEdit(Random& random, const Document& document, Plain& plain) {
    Edit edit(document, "random");
    const int steps = 1 + static_cast<int>(5 * random.uniform());
    for (int step = 0; step < steps; ++step) {
        const double what = random.uniform();
        if (what < 0.35 || plain.materials.empty()) {
            Material material = story::materialNamed("m" + std::to_string(random.uniform()));
            material.id = edit.add(material);
            plain.materials[material.id.value] = material;
        } else if (what < 0.55) {
            Lot lot = story::lotOf(Id<Material>{anyOf(random, plain.materials).first}, "lot");
            lot.id = edit.add(lot);
            plain.lots[lot.id.value] = lot;
        } else if (what < 0.75) {
            Material changed = anyOf(random, plain.materials).second;
            changed.name += "'";
            edit.put(changed);
            plain.materials[changed.id.value] = changed;
        } else if (what < 0.9 && !plain.lots.empty()) {
            const std::int64_t gone = anyOf(random, plain.lots).first;
            edit.remove(Id<Lot>{gone});
            plain.lots.erase(gone);
        } else { // there and back: no change
            Material changed = anyOf(random, plain.materials).second;
            const Material before = changed;
            changed.name = "for a moment";
            edit.put(changed);
            edit.put(before);
        }
    }
    return edit.finish();
}

} // namespace

class TestEditProperties : public QObject {
    Q_OBJECT
private slots:
    void editsUndosAndRedosFollowTheMap() {
        Random random(21);
        for (int story = 0; story < 40; ++story) {
            Document document;
            Plain plain;
            std::vector<ChangeSet> done;
            std::vector<Plain> states{plain};
            for (int step = 0; step < 25; ++step) {
                const ChangeSet set = randomEdit(random, document, plain);
                apply(document, set);
                done.push_back(set);
                states.push_back(plain);
                QVERIFY(plainOf(document) == plain);
            }
            for (std::size_t i = done.size(); i-- > 0;) { // all the way back
                apply(document, inverse(done[i]));
                QVERIFY(plainOf(document) == states[i]);
            }
            for (std::size_t i = 0; i < done.size(); ++i) { // and forth again
                apply(document, done[i]);
                QVERIFY(plainOf(document) == states[i + 1]);
            }
        }
    }
    void twoSetsJoinedAreBothAfterEachOther() {
        Random random(22);
        for (int story = 0; story < 200; ++story) {
            Document before;
            Plain plain;
            for (int i = 0; i < 3; ++i) apply(before, randomEdit(random, before, plain));
            Document after = before;
            const ChangeSet first = randomEdit(random, after, plain);
            apply(after, first);
            const ChangeSet second = randomEdit(random, after, plain);
            apply(after, second);
            const ChangeSet both = joined(first, second);
            Document joinedOnce = before;
            apply(joinedOnce, both);
            QVERIFY(plainOf(joinedOnce) == plainOf(after));
            apply(joinedOnce, inverse(both));
            QVERIFY(plainOf(joinedOnce) == plainOf(before));
        }
    }
    void anEntityChangesAtMostOnceInASet() {
        Random random(23);
        Document document;
        Plain plain;
        for (int step = 0; step < 300; ++step) {
            const ChangeSet set = randomEdit(random, document, plain);
            std::set<std::pair<EntityKind, std::int64_t>> seen;
            for (const Change& change : set.changes) {
                QVERIFY(change.before != change.after); // what was put back is no change
                QVERIFY(seen.emplace(change.known().kind(), change.known().id()).second);
            }
            apply(document, set);
        }
    }
    void referencesFollowEveryEdit() { // the indexes of a snapshot against a walk over all rows
        Random random(24);
        Document document;
        Plain plain;
        for (int step = 0; step < 120; ++step) {
            apply(document, randomEdit(random, document, plain));
            for (const auto& [id, material] : plain.materials) {
                std::vector<std::int64_t> wanted;
                for (const auto& [lotId, lot] : plain.lots)
                    if (lot.material.value == id) wanted.push_back(lotId);
                std::vector<std::int64_t> found;
                for (const Lot* lot : document.where(&Lot::material, Id<Material>{id}))
                    found.push_back(lot->id.value);
                QCOMPARE(found, wanted);
            }
        }
    }
    void aCopyOfADocumentKeepsItsState() {
        Random random(25);
        Document document;
        Plain plain;
        std::vector<std::pair<Document, Plain>> kept;
        for (int step = 0; step < 60; ++step) {
            apply(document, randomEdit(random, document, plain));
            kept.emplace_back(document, plain);
        }
        for (const auto& [copy, state] : kept) QVERIFY(plainOf(copy) == state);
    }
    void idsAreGivenOnceWhateverIsUndone() {
        Random random(26);
        Document document;
        Plain plain;
        std::set<std::int64_t> given;
        for (int step = 0; step < 200; ++step) {
            const Plain before = plain;
            const ChangeSet set = randomEdit(random, document, plain);
            apply(document, set);
            for (const Change& change : set.changes)
                if (!change.before) QVERIFY(given.insert(change.after->id()).second);
            if (random.uniform() < 0.4) { // thought better of
                apply(document, inverse(set));
                plain = before;
            }
        }
    }
};

IBUKI_TEST(TestEditProperties)
#include "tst_edit_properties.moc"
