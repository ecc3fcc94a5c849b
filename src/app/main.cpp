// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/failure.h"
#include "app/frame/main_window.h"
#include "app/paper/printer.h"
#include "app/say.h"
#include "core/base/input_error.h"
#include "store/atomic_file.h"
#include "store/paper/report.h"
#include "store/project/project.h"
#include "words/words.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QFileInfo>
#include <QIcon>
#include <QSettings>
#include <cstdio>
#include <ctime>
#include <fstream>
#include <sstream>
#include <unistd.h>

namespace {

/// Milliseconds since this process was started by the kernel (to its clock tick, usually 10 ms).
double msSinceProcessStart() {
    std::ifstream stat("/proc/self/stat");
    std::string text((std::istreambuf_iterator<char>(stat)), {});
    std::istringstream fields(text.substr(text.rfind(')') + 2));
    std::string field;
    for (int i = 3; i <= 22; ++i) fields >> field;
    const double startedS = std::stod(field) / static_cast<double>(::sysconf(_SC_CLK_TCK));
    timespec now{};
    ::clock_gettime(CLOCK_BOOTTIME, &now);
    return 1000 * (static_cast<double>(now.tv_sec) + 1e-9 * static_cast<double>(now.tv_nsec) - startedS);
}

QString samplePath() {
    const QString installed = QCoreApplication::applicationDirPath() + "/../share/ibuki/kittiwake.ibuki";
    return QFileInfo::exists(installed) ? installed : QString(IBUKI_BUILT_SAMPLE);
}

int printToPdf(const QString& project, const QString& output) {
    try {
        const ibuki::Project opened = ibuki::Project::open(project.toStdString(), ibuki::Access::readOnly);
        const ibuki::Question* question = ibuki::findStudyQuestion(opened.document(), "");
        if (!question) throw ibuki::InputError("report-no-study", {project.toStdString(), {}, {}});
        ibuki::refuseInputAsTarget(output.toStdString(), {project.toStdString()});
        ibuki::printReport(ibuki::htmlReport(opened.document(), *question, {},
                                             [&](const ibuki::JointPicture& picture) {
                                                 return ibuki::lookThumbnail(
                                                     picture, [&](const std::string& sha256) {
                                                         return opened.loadFile(sha256);
                                                     });
                                             }),
                           output);
        return 0;
    } catch (const ibuki::InputError& error) {
        std::fprintf(stderr, "%s\n", ibuki::words::sentence(error).c_str());
        return 1;
    }
}

void addOptions(QCommandLineParser& parser) {
    parser.setApplicationDescription("Compares thermal interface materials by repeated mounts.");
    parser.addHelpOption();
    parser.addPositionalArgument("project", "Project file to open", "[PROJECT.ibuki]");
    parser.addOption({"demo", "Open the demo project"});
    parser.addOption({"dark", "Start in the dark variant"});
    parser.addOption({"text-scale", "Text size, 1.0 is usual", "factor"});
    parser.addOption({"time-start", "Print how long the first picture took"});
    parser.addOption({"report", "Print the report of a project to PDF and leave", "project"});
    parser.addOption({"o", "The PDF to write", "file"});
}

void nameApplication() {
    QApplication::setApplicationName("ibuki");
    QApplication::setOrganizationName("ibuki");
    QApplication::setApplicationDisplayName("Ibuki");
    QApplication::setWindowIcon(QIcon(":/ibuki.svg"));
    QApplication::setDesktopFileName("ibuki");
}

int run(int argc, char** argv) {
    // Printing needs no display.
    const bool display = qEnvironmentVariableIsSet("DISPLAY") || qEnvironmentVariableIsSet("WAYLAND_DISPLAY");
    for (int i = 1; i < argc && !display && !qEnvironmentVariableIsSet("QT_QPA_PLATFORM"); ++i)
        if (std::string_view(argv[i]) == "--report") qputenv("QT_QPA_PLATFORM", "offscreen");
    ibuki::GuardedApplication application(argc, argv);
    ibuki::words::useLanguage();
    nameApplication();
    QCommandLineParser parser;
    addOptions(parser);
    parser.process(application);

    const QSettings settings;
    const bool dark = parser.isSet("dark") || settings.value("dark", false).toBool();
    const double scale = parser.isSet("text-scale") ? parser.value("text-scale").toDouble()
                                                    : settings.value("textScale", 1.0).toDouble();
    ibuki::applyTheme(application, dark ? ibuki::Shade::dark : ibuki::Shade::light,
                      std::clamp(scale, 0.8, 2.0));
    if (parser.isSet("report")) {
        if (!parser.isSet("o")) {
            std::fprintf(stderr, "ibuki: --report needs -o FILE.pdf\n");
            return 2;
        }
        return printToPdf(parser.value("report"), parser.value("o"));
    }

    ibuki::MainWindow window(samplePath());
    QObject::connect(&application, &ibuki::GuardedApplication::failed, &window, &ibuki::MainWindow::giveUp);
    window.restoreGeometry(settings.value("geometry").toByteArray());
    if (parser.isSet("demo"))
        window.openDemo();
    else if (!parser.positionalArguments().isEmpty())
        window.session().openProject(parser.positionalArguments().front());
    else
        window.openLast();
    if (parser.isSet("time-start"))
        QObject::connect(&window, &ibuki::MainWindow::firstPainted, &window, [] {
            std::printf("first picture after %.0f ms\n", msSinceProcessStart());
            std::fflush(stdout);
        });
    window.show();
    return QApplication::exec();
}

} // namespace

int main(int argc, char** argv) {
    int status = 1;
    ibuki::guarded([&] { status = run(argc, argv); },
                   [](const QString& what) { std::fprintf(stderr, "ibuki: %s\n", qPrintable(what)); });
    return status;
}
