// SPDX-License-Identifier: GPL-3.0-or-later
// Draws the main views of the demo project: ibuki-pictures FOLDER [--dark] [--text-scale F] [--suffix TEXT]

#include "app/drawn/theme.h"
#include "app/frame/main_window.h"
#include "pictures.h"
#include "words/words.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QTemporaryDir>

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    ibuki::words::useLanguage();
    QApplication::setApplicationName("ibuki-pictures"); // settings of its own
    QCommandLineParser parser;
    parser.addHelpOption();
    parser.addPositionalArgument("folder", "Where the pictures go");
    parser.addOption({"dark", "The dark variant"});
    parser.addOption({"text-scale", "Text size, 1.0 is usual", "factor", "1.0"});
    parser.addOption({"suffix", "Ending of the pictures' names", "text"});
    parser.process(application);
    if (parser.positionalArguments().size() != 1) parser.showHelp(2);
    ibuki::applyTheme(application, parser.isSet("dark") ? ibuki::Shade::dark : ibuki::Shade::light,
                      parser.value("text-scale").toDouble());
    ibuki::MainWindow window(IBUKI_BUILT_SAMPLE);
    const QTemporaryDir copy;
    if (!window.openDemo(copy.filePath("kittiwake.ibuki"))) return 1;
    return ibuki::pictureViews(window, parser.positionalArguments().front(), parser.value("suffix"));
}
