// SPDX-License-Identifier: GPL-3.0-or-later
#include "pictures.h"

#include "live_pictures.h"

#include "app/ageing/ageing_view.h"
#include "app/drawn/theme.h"
#include "app/forms/rehearsal_panel.h"
#include "app/forms/tip.h"
#include "app/frame/main_window.h"
#include "app/frame/start_page.h"
#include "app/heat/field_page.h"
#include "app/heat/heat_view.h"
#include "app/heat/joints_page.h"
#include "app/heat/transient_page.h"
#include "app/import/import_dialog.h"
#include "app/peel/peel_view.h"
#include "app/question/question_view.h"
#include "app/recording/card_sheet.h"
#include "app/run/budget_sheet.h"
#include "app/run/rules_sheet.h"
#include "app/shelf/cut_page.h"
#include "app/shelf/shelf_view.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"
#include "core/simulate/simulated_bench.h"
#include "store/log/log_writer.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QImage>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QTemporaryDir>
#include <QThread>
#include <cstdio>
#include <fstream>

namespace ibuki {
namespace {

/// `usual` with another material, and with another bench where that is not the usual one.
Selection selectionOf(const Document& document, const Selection& typical, const std::string& bench,
                      const std::string& material) {
    Selection selection = typical;
    for (const auto& [id, one] : document.all<Material>())
        if (one.name == material) selection.material = id;
    for (const auto& [id, one] : document.all<Bench>()) {
        if (one.name != bench || id == typical.bench) continue;
        selection.bench = id;
        selection.study.reset();
        selection.mount.reset();
    }
    return selection;
}

/// Logs as three loggers would have written them: one without a room, the probe that read it by another
/// clock, one with a header that nobody named for us.
QStringList sampleLogs(const QString& folder) {
    SimulatedBench bench;
    bench.ambientSwingK = 0.6;
    bench.ambientSwingPeriodS = 900;
    SimulatedProtocol protocol;
    protocol.start = *makeInstant(2031, 3, 11, 18 * 3'600'000LL + 12 * 60'000LL);
    Trace log = simulate(bench, protocol, 81).trace;
    Trace probe;
    probe.start = Instant{protocol.start->ms - 45'000}; // its clock is slow
    for (std::size_t i = 0; i < log.samples(); i += 10) probe.timeS.push_back(log.timeS[i]);
    std::vector<Channel> others;
    for (const Channel& channel : log.channels) {
        if (channel.role != Role::ambient) {
            others.push_back(channel);
            continue;
        }
        Channel room = channel;
        room.column = "Probe T1 [°C]";
        room.values.clear();
        for (std::size_t i = 0; i < log.samples(); i += 10) room.values.push_back(channel.values[i]);
        probe.channels.push_back(std::move(room));
    }
    log.channels = std::move(others);
    protocol.start = *makeInstant(2031, 3, 12, 19 * 3'600'000LL);
    std::string other = logText(simulate(bench, protocol, 82).trace);
    const std::pair<const char*, const char*> words[] = {{"Package Power", "Leistung Gehäuse"},
                                                         {"Package", "Gehäuse"},
                                                         {"Room", "Fühler 3"},
                                                         {"Timestamp", "Uhrzeit"}};
    for (const auto& [from, to] : words)
        if (const auto at = other.find(from); at != std::string::npos)
            other.replace(at, std::string(from).size(), to);
    other += "Average,61.2\n";
    const std::pair<const char*, std::string> files[] = {
        {"tern-11_8.csv", logText(log)}, {"room.csv", logText(probe)}, {"evening-7.csv", other}};
    QStringList paths;
    for (const auto& [name, text] : files) {
        paths << folder + "/" + name;
        std::ofstream(paths.back().toStdString()) << text;
    }
    return paths;
}

/// A sheet as it opens, then gone again.
void pictureSheet(QDialog& sheet, const QString& file) {
    sheet.show();
    for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    sheet.grab().save(file);
    sheet.reject();
}

/// Several pictures as one, beside or under each other; the parts are gone then.
void join(const QString& folder, const QString& suffix, const QStringList& parts, const QString& name,
          Qt::Orientation along) {
    std::vector<QImage> images;
    QSize size;
    for (const QString& part : parts) {
        images.emplace_back(folder + "/" + part + suffix + ".png");
        const QSize one = images.back().size();
        size = along == Qt::Horizontal
                   ? QSize(size.width() + one.width(), std::max(size.height(), one.height()))
                   : QSize(std::max(size.width(), one.width()), size.height() + one.height());
        QFile::remove(folder + "/" + part + suffix + ".png");
    }
    QImage whole(size, QImage::Format_RGB32);
    whole.fill(colours().ground);
    QPainter painter(&whole);
    QPoint at;
    for (const QImage& image : images) {
        painter.drawImage(at, image);
        at += along == Qt::Horizontal ? QPoint(image.width(), 0) : QPoint(0, image.height());
    }
    painter.end();
    whole.save(folder + "/" + name + suffix + ".png");
}

void pictureImport(Session& session, const QString& file) {
    const QTemporaryDir folder;
    std::vector<std::string> paths;
    for (const QString& path : sampleLogs(folder.path())) paths.push_back(path.toStdString());
    const BatchRules rules = batchRules(session.document(), session.configuration(), {});
    ImportDialog dialog(session, readLogBatch(paths, rules, {}, [](double) {}), rules);
    dialog.resize(1240, 780);
    pictureSheet(dialog, file);
}

/// Pages of the verdict, each on the study that shows it best, as one picture.
void pictureVerdictPages(MainWindow& window, const QString& folder, const QString& suffix) {
    struct Shown {
        const char* study;
        const char* page;
        const char* name;
    };
    const Shown all[] = {{"Is the mess desktop worth repasting", "Ladder", "provisional"},
                         {"Paste or sheet, and under which cooler", "Factors", "factors"},
                         {"Does the film hold up at full power", "Sweep", "sweep"},
                         {"Is the bridge laptop worth repasting", "Responses", "responses"},
                         {"Two pastes beside the engine", "Checks", "checks"},
                         {"Node coolers before the next voyage", "Value", "value"}};
    window.showStage(Stage::verdict);
    QStringList names;
    for (const Shown& one : all) {
        for (const auto& [id, study] : window.session().document().all<Study>())
            if (study.name == one.study) {
                Selection selection;
                selection.bench = study.bench;
                selection.study = id;
                window.session().select(selection);
            }
        if (auto* page = window.findChild<QPushButton*>(QString("Page ") + one.page)) page->click();
        for (int i = 0; i < 10; ++i) {
            QCoreApplication::processEvents();
            QThread::msleep(20);
        }
        window.grab().save(folder + "/" + one.name + suffix + ".png");
        names << one.name;
    }
    for (int row = 0; row < 3; ++row)
        join(folder, suffix, names.mid(2 * row, 2), QString("verdict-row-%1").arg(row), Qt::Horizontal);
    join(folder, suffix, {"verdict-row-0", "verdict-row-1", "verdict-row-2"}, "verdict-pages", Qt::Vertical);
    if (auto* ladder = window.findChild<QPushButton*>("Page Ladder")) ladder->click();
}

/// Pages of the heat path as one picture, two mounts on the strip of the last.
void pictureHeatPath(MainWindow& window, const QString& folder, const QString& suffix) {
    window.showStage(Stage::heatPath);
    auto& field = *window.findChild<FieldPage*>();
    field.bareAt(BareWhere::corner, 0.8);
    const auto isReady = [&](const QString& page) {
        if (page == "Field") return field.isFine();
        if (page == "Joints") return window.findChild<JointsPage*>()->isDrawn();
        if (page == "Load steps") return !window.findChild<TransientPage*>()->csv().empty();
        bool working = false;
        for (RehearsalPanel* panel : window.findChildren<RehearsalPanel*>())
            working = working || (panel->isVisible() && panel->isWorking());
        return !working;
    };
    QStringList names;
    for (const char* page : {"Stack", "Joints", "Load steps", "Elsewhere", "Field", "Rehearsal"}) {
        if (auto* button = window.heatView().findChild<QPushButton*>(QString("Page ") + page))
            button->click();
        if (QString(page) == "Rehearsal") {
            Selection selection = window.session().selection();
            for (const auto& [id, mount] : window.session().document().all<Mount>())
                if (mount.name == "Slate 25 1") selection.beside = id;
            window.session().select(selection);
        }
        for (int i = 0; i < 25 || (i < 2'000 && !isReady(page)); ++i) {
            QCoreApplication::processEvents();
            QThread::msleep(20);
        }
        for (int i = 0; i < 10; ++i) QCoreApplication::processEvents(); // what came last is laid out
        names << QString("heat-%1").arg(page).toLower().replace(' ', '-');
        window.grab().save(folder + "/" + names.back() + suffix + ".png");
    }
    join(folder, suffix, names.mid(0, 2), "heat-row-0", Qt::Horizontal);
    join(folder, suffix, names.mid(2, 2), "heat-row-1", Qt::Horizontal);
    join(folder, suffix, names.mid(4, 2), "heat-row-2", Qt::Horizontal);
    join(folder, suffix, {"heat-row-0", "heat-row-1", "heat-row-2"}, "heat-path", Qt::Vertical);
}

/// Peel as one picture: corners, mask, what was seen, all looks.
void picturePeel(MainWindow& window, const QString& folder, const QString& suffix) {
    window.showStage(Stage::peel);
    const auto wait = [&] {
        for (int i = 0; i < 20 || (i < 1'000 && !window.session().jobs().running().isEmpty()); ++i) {
            QCoreApplication::processEvents();
            QThread::msleep(20);
        }
        for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    };
    QStringList names;
    for (const char* page : {"Corners", "Mask", "Seen", "All looks"}) {
        wait();
        if (auto* button = window.peelView().findChild<QPushButton*>(QString("Page ") + page))
            button->click();
        wait();
        names << QString("peel-%1").arg(page).toLower().replace(' ', '-');
        window.grab().save(folder + "/" + names.back() + suffix + ".png");
    }
    join(folder, suffix, names.mid(0, 2), "peel-row-0", Qt::Horizontal);
    join(folder, suffix, names.mid(2, 2), "peel-row-1", Qt::Horizontal);
    join(folder, suffix, {"peel-row-0", "peel-row-1"}, "peel", Qt::Vertical);
}

/// Drift as one picture: a break-in that is none, a film that needs its cycles, a paste that is pumped out, a
/// sheet that stays, what is due, tubes by age.
void pictureAgeing(MainWindow& window, const QString& folder, const QString& suffix) {
    const auto wait = [&] {
        for (int i = 0; i < 20 || (i < 1'000 && !window.session().jobs().running().isEmpty()); ++i) {
            QCoreApplication::processEvents();
            QThread::msleep(20);
        }
        for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    };
    const auto choose = [&](const std::string& study) {
        for (const auto& [id, one] : window.session().document().all<Study>())
            if (one.name == study) {
                Selection selection;
                selection.bench = one.bench;
                selection.study = id;
                window.session().select(selection);
            }
        wait();
    };
    QStringList names;
    const auto take = [&](const QString& name) {
        wait();
        names << "drift-" + name;
        window.grab().save(folder + "/" + names.back() + suffix + ".png");
    };
    const auto page = [&](const char* name) {
        window.ageingView().findChild<QPushButton*>(QString("Page ") + name)->click();
    };
    choose("What stays put on a bare die");
    window.showStage(Stage::ageing);
    wait();
    auto* materials = window.ageingView().findChild<QListWidget*>("Materials followed");
    for (int row = 0; row < materials->count(); ++row) {
        materials->setCurrentRow(row);
        take(QString::number(row));
    }
    page("Machines");
    take("machines");
    choose("Is the old tub still good");
    page("Tubes and events");
    take("tubes");
    page("Course");
    for (int row = 0; row < 3; ++row)
        join(folder, suffix, names.mid(2 * row, 2), QString("drift-row-%1").arg(row), Qt::Horizontal);
    join(folder, suffix, {"drift-row-0", "drift-row-1", "drift-row-2"}, "drift", Qt::Vertical);
}

} // namespace

int pictureViews(MainWindow& window, const QString& folder, const QString& suffix) {
    QDir().mkpath(folder);
    using Page = ShelfView::Page;
    using Asked = QuestionView::Page;
    struct View {
        const char* name;
        Stage stage;
        Page page = Page::shelf; ///< of Shelf
        const char* bench = "node-2";
        const char* material = "Tern 11";
        Asked asked = Asked::asked; ///< of Question
        bool next = false;          ///< with what to do next chosen
    };
    const View views[] = {{"question", Stage::question},
                          {"chances", Stage::question, Page::shelf, "node-2", "Tern 11", Asked::chances},
                          {"evenings", Stage::question, Page::shelf, "node-2", "Tern 11", Asked::board},
                          {"protocol", Stage::question, Page::shelf, "node-2", "Tern 11", Asked::protocol},
                          {"shelf", Stage::shelf},
                          {"dose", Stage::shelf, Page::dose},
                          {"cut", Stage::shelf, Page::cut, "render-1", "Basalt 2.0"},
                          {"gap", Stage::shelf, Page::gap, "render-1", "Basalt 2.0"},
                          {"bench", Stage::bench},
                          {"next", Stage::bench, Page::shelf, "node-2", "Tern 11", Asked::asked, true},
                          {"verdict", Stage::verdict},
                          {"paper", Stage::paper}};
    Tip::hideAll(); // as for somebody who knows the program
    window.resize(1280, 800);
    window.show();
    const auto& mounts = window.session().document().all<Mount>();
    for (const auto& [id, mount] : mounts)
        if (mount.name == "Tern 11 2") window.session().selectMount(id);
    const Selection typical = window.session().selection();
    for (const View& view : views) {
        Selection selection = selectionOf(window.session().document(), typical, view.bench, view.material);
        if (view.next && selection.study)
            for (const Slot* slot : plannedSlots(window.session().document(), *selection.study)) {
                selection.slot = slot->id;
                selection.mount.reset();
                break;
            }
        window.session().select(selection);
        window.showStage(view.stage);
        window.questionView().showPage(view.asked);
        window.shelfView().showPage(view.page);
        for (int i = 0; i < 10 || (i < 500 && window.shelfView().cutPage().isWorking()); ++i) {
            QCoreApplication::processEvents(); // before exec(): there is no other loop to nest in
            QThread::msleep(20);
        }
        const QString file = folder + "/" + view.name + suffix + ".png";
        if (!window.grab().save(file)) {
            std::fprintf(stderr,
                         "%s: the picture cannot be written. Choose a folder that you may write to.\n",
                         qPrintable(file));
            return 1;
        }
        std::printf("%s\n", qPrintable(file));
        if (view.next && selection.slot) {
            CardSheet card(window.session(), *selection.slot);
            card.resize(760, 800);
            card.show();
            QCoreApplication::processEvents();
            card.grab().save(folder + "/card" + suffix + ".png");
        }
    }
    window.session().select(typical);
    if (const Mount* mount = window.session().mount()) {
        BudgetSheet budget(window.session(), runsOf(window.session().document(), mount->id).front()->id);
        pictureSheet(budget, folder + "/uncertainty" + suffix + ".png");
        RulesSheet rules(window.session());
        pictureSheet(rules, folder + "/rules" + suffix + ".png");
    }
    pictureVerdictPages(window, folder, suffix);
    window.session().select(typical);
    pictureHeatPath(window, folder, suffix);
    window.session().select(typical);
    picturePeel(window, folder, suffix);
    pictureAgeing(window, folder, suffix);
    window.session().select(typical);
    pictureLive(window, folder, suffix);
    pictureCheckUp(window, folder, suffix);
    join(folder, suffix, {"limit", "check-up"}, "check-up", Qt::Horizontal);
    pictureImport(window.session(), folder + "/import" + suffix + ".png");
    const QString demo = window.session().path();
    picturePractice(window, folder, suffix);
    QSettings().remove("recentProjects");
    StartPage::remember(demo);
    window.session().closeProject();
    for (int i = 0; i < 250 && window.session().jobs().running().isEmpty(); ++i)
        QCoreApplication::processEvents();
    for (int i = 0; i < 250; ++i) {
        QCoreApplication::processEvents();
        if (window.session().jobs().running().isEmpty()) break;
        QThread::msleep(20);
    }
    for (int i = 0; i < 10; ++i) QCoreApplication::processEvents();
    window.grab().save(folder + "/start" + suffix + ".png");
    join(folder, suffix, {"chances", "protocol"}, "chances", Qt::Horizontal);
    join(folder, suffix, {"next", "card"}, "next", Qt::Horizontal);
    join(folder, suffix, {"uncertainty", "rules"}, "reduction", Qt::Horizontal);
    join(folder, suffix, {"dose", "cut", "gap"}, "helpers", Qt::Vertical);
    join(folder, suffix, {"check-up", "compact"}, "check-up", Qt::Horizontal);
    join(folder, suffix, {"import", "practice"}, "import", Qt::Horizontal);
    return 0;
}

} // namespace ibuki
