// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The main window at its usual size, on a copy of the demo project or on a new one that is filled as its user
// would: a bench described, materials and lots put on the shelf, a study begun, logs brought in.

#include "app/bench/bench_view.h"
#include "app/drawn/theme.h"
#include "app/forms/bench_dialogs.h"
#include "app/forms/new_study_dialog.h"
#include "app/import/import_dialog.h"
#include "app/shelf/shelf_view.h"
#include "core/domain/study.h"
#include "store/log/log_writer.h"
#include "support/places.h"
#include "support/story.h"
#include "support/widget_story.h"

#include <QApplication>
#include <QComboBox>
#include <fstream>
#include <memory>
#include <optional>

namespace ibuki::story {

/// Channels of a recording, as the views read them; none when they cannot be read.
inline Trace traceOf(Session& session, Id<Recording> recording) {
    const auto read = std::make_shared<std::optional<Trace>>();
    session.readTrace(recording, &session, [read](Trace trace) { *read = std::move(trace); });
    return QTest::qWaitFor([&] { return read->has_value(); }, 5'000) ? **read : Trace{};
}

/// Which project a story runs on.
enum class Where { demo, fresh };

/// On no project yet. `settings` keeps the tests' settings apart.
inline std::unique_ptr<MainWindow> emptyWindow(const QString& settings) {
    QCoreApplication::setOrganizationName("ibuki-tests");
    QCoreApplication::setApplicationName(settings);
    applyTheme(*qApp, Shade::light);
    auto window = std::make_unique<MainWindow>(places::sampleProject);
    window->resize(1280, 800);
    window->show();
    return window;
}

/// nullptr when the demo project cannot be opened.
inline std::unique_ptr<MainWindow> demoWindow(const QString& settings, const QString& copyTo) {
    auto window = emptyWindow(settings);
    return window->openDemo(copyTo) ? std::move(window) : nullptr;
}

/// On a new project with one bench of a chip under a lid; nullptr when that fails.
inline std::unique_ptr<MainWindow> freshWindow(const QString& settings, const QString& path) {
    auto window = emptyWindow(settings);
    if (!window->session().createProject(path)) return nullptr;
    window->showStage(Stage::question);
    if (!trigger(*window, "Describe a bench…")) return nullptr;
    auto* sheet = story::sheet<NewBenchDialog>();
    if (!sheet) return nullptr;
    auto* name = sheet->findChild<QLineEdit*>("Name of the bench");
    type(name, "node-2");
    QTest::keyClick(name, Qt::Key_Return);
    return QTest::qWaitFor([&] { return window->session().bench() != nullptr; }) ? std::move(window)
                                                                                 : nullptr;
}

/// nullptr when it cannot be opened.
inline std::unique_ptr<MainWindow> windowOn(Where where, const QString& settings, const QString& path) {
    return where == Where::demo ? demoWindow(settings, path) : freshWindow(settings + "-fresh", path);
}

/// By the sheet for a new study, with materials typed in there.
inline bool beginStudy(MainWindow& window, const QString& kind, const QString& name,
                       const QStringList& newMaterials) {
    if (!trigger(window, "New study…")) return false;
    auto* sheet = story::sheet<NewStudyDialog>();
    if (!sheet) return false;
    sheet->findChild<QComboBox*>("Kind of study")->setCurrentText(kind);
    type(sheet->findChild<QLineEdit*>("Name of the study"), name);
    for (const QString& material : newMaterials) {
        auto* field = sheet->findChild<QLineEdit*>("Name of a new material");
        type(field, material);
        QTest::keyClick(field, Qt::Key_Return); // adds it, and asks nothing yet
    }
    press(*sheet, "accept");
    return QTest::qWaitFor([&] {
        const Study* study = window.session().study();
        return study && study->name == name.toStdString();
    });
}

/// A material with one lot, by the shelf's own fields.
inline bool putOnShelf(MainWindow& window, const QString& material, const QString& lot) {
    window.showStage(Stage::shelf);
    window.shelfView().showPage(ShelfView::Page::shelf);
    for (const auto& [button, field, text] :
         {std::tuple{"Add material to the shelf", "Material", material}, {"Add lot", "Lot", lot}}) {
        if (!QTest::qWaitFor([&] { return visible<QPushButton>(window, button) != nullptr; })) return false;
        press(window, button);
        if (!QTest::qWaitFor([&] { return visible<QLineEdit>(window, field) != nullptr; })) return false;
        QTest::qWait(30); // views follow once the event is over
        auto* line = visible<QLineEdit>(window, field);
        line->setText(text);
        emit line->editingFinished();
        QTest::qWait(30);
    }
    return window.session().document().where(&Lot::name, lot.toStdString()).size() == 1;
}

/// Three simulated logs of each of the story's materials, in a folder.
inline QStringList nineLogFiles(const QString& folder) {
    QStringList files;
    for (int mount = 1; mount <= 3; ++mount)
        for (const auto& [name, resistance] : materials) {
            const QString file = folder + "/" + QString::fromStdString(fileName(name, mount));
            std::ofstream(file.toStdString()) << logText(trace(name, mount));
            files << file;
        }
    return files;
}

/// Brought in as they are proposed.
inline bool bringIn(MainWindow& window, const QStringList& files) {
    const auto before = window.session().document().all<Recording>().size();
    window.showStage(Stage::bench);
    window.benchView().bringIn(files);
    auto* table = story::sheet<ImportDialog>();
    return table && press(*table, "accept") && QTest::qWaitFor([&] {
               return window.session().document().all<Recording>().size()
                      == before + static_cast<std::size_t>(files.size());
           });
}

} // namespace ibuki::story
