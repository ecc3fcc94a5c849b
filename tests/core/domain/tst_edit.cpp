// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/edit.h"
#include "core/domain/mount.h"
#include "support/entities.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QtTest>
#include <chrono>
#include <future>
#include <thread>

using namespace ibuki;

class TestEdit : public QObject {
    Q_OBJECT

    static Document withMaterial(Id<Material>& id) {
        Document document;
        Edit edit(document, "add");
        id = edit.add(story::materialNamed("Tern 11"));
        apply(document, edit.finish());
        return document;
    }

private slots:
    void aSlowResultOfASnapshotHoldsNobodyUp() {
        struct First {
            int value = 0;
        };
        struct Slow {
            int value = 0;
        };
        struct Other {
            int value = 0;
        };
        const Document document;
        (void)document.once<First>([] { return First{1}; });
        std::promise<void> begun;
        std::promise<void> mayEnd;
        std::thread worker([&] {
            (void)document.once<Slow>([&] {
                begun.set_value();
                mayEnd.get_future().wait();
                return Slow{2};
            });
        });
        begun.get_future().wait();
        auto asked = std::async(std::launch::async,
                                [&] { return document.once<Other>([] { return Other{3}; }).value; });
        const bool answered = asked.wait_for(std::chrono::seconds(20)) == std::future_status::ready;
        mayEnd.set_value();
        worker.join();
        QVERIFY(answered);
        QCOMPARE(asked.get(), 3);
        QCOMPARE(document.once<Slow>([] { return Slow{4}; }).value, 2); // made once
    }
    void severalPutsOfOneEntityAreOneChange() {
        Id<Material> id;
        const Document document = withMaterial(id);
        Edit edit(document, "rename");
        Material material = *document.find(id);
        material.name = "Plover 4";
        edit.put(material);
        material.name = "Heron HV";
        edit.put(material);
        const ChangeSet set = edit.finish();
        QCOMPARE(set.changes.size(), std::size_t{1});
        QCOMPARE(set.changes.front().after->as<Material>()->name, std::string("Heron HV"));
    }
    void whatAnEditReplacesStaysAsLongAsTheEdit() { // a second put frees nothing that is still pointed to
        const Document document;
        Edit edit(document, "add and rename");
        const Id<Material> id = edit.add(story::materialNamed("Tern 11"));
        const Material* first = edit.document().find(id);
        Material material = *first;
        material.name = "Heron HV";
        edit.put(material);
        QCOMPARE(first->name, std::string("Tern 11"));
        edit.remove(id);
        QCOMPARE(first->name, std::string("Tern 11"));
        QVERIFY(edit.finish().empty());
    }
    void anEditThatChangesNothingIsEmpty() {
        Id<Material> id;
        const Document document = withMaterial(id);
        Edit edit(document, "nothing");
        edit.put(*document.find(id));
        QVERIFY(edit.finish().empty());
    }
    void undoRestoresEveryEntity() {
        Id<Material> id;
        Document document = withMaterial(id);
        Edit edit(document, "work");
        Material material = *document.find(id);
        material.name = "changed";
        edit.put(material);
        const Id<Lot> lot = edit.add(story::lotOf(id, "tube"));
        const ChangeSet set = edit.finish();
        apply(document, set);
        QVERIFY(document.find(lot));
        apply(document, inverse(set));
        QVERIFY(!document.find(lot));
        QCOMPARE(document.find(id)->name, std::string("Tern 11"));
        apply(document, set); // redo
        QCOMPARE(document.find(lot)->material, id);
    }
    void idsAreNotUsedAgainAfterUndo() {
        Document document;
        Edit first(document, "add");
        const Id<Material> gone = first.add(Material{});
        const ChangeSet set = first.finish();
        apply(document, set);
        apply(document, inverse(set));
        Edit second(document, "add");
        QVERIFY(second.add(Material{}).value != gone.value);
    }
    void undoOfAnImportKeepsTheRecordingWithdrawn() {
        Document document;
        Edit edit(document, "import");
        const Id<Bench> bench = edit.add(story::benchNamed("node-2"));
        Recording recording;
        recording.bench = bench;
        const Id<Recording> id = edit.add(recording);
        const ChangeSet set = edit.finish();
        apply(document, set);
        apply(document, inverse(set));
        QVERIFY(document.find(id));
        QVERIFY(document.find(id)->withdrawn);
        apply(document, set);
        QVERIFY(!document.find(id)->withdrawn);
    }
    void errorsAreOneSentenceWithTheirPlace() {
        const InputError error("table-not-a-number", {"log.csv", 7, 3}, {{"field", "abc"}, {"column", "b"}});
        QCOMPARE(QString::fromStdString(words::sentence(error)),
                 QString("log.csv, line 7, column 3: \"abc\" in \"b\" is not a number. Write a number there "
                         "or exclude the "
                         "row."));
        QCOMPARE(QString::fromStdString(words::sentence(InputError({}, said("nothing\nthere")))),
                 QString("nothing there."));
    }
};

IBUKI_TEST(TestEdit)
#include "tst_edit.moc"
