// SPDX-License-Identifier: GPL-3.0-or-later
// What a person reads in the window goes through say(): a literal that bypasses the catalogue is found here.

#include "support/places.h"
#include "support/test_class.h"

#include <QDirIterator>
#include <QRegularExpression>
#include <QSet>
#include <QtTest>

namespace {

/// Calls whose text is no sentence: names of objects, settings, styles, files, keys, and what already says
/// it.
const QSet<QString> technical{"say",
                              "sayMany",
                              "titled",
                              "mark",
                              "sayText",
                              "Message",
                              "InputError",
                              "QStringLiteral",
                              "QLatin1String",
                              "setObjectName",
                              "setProperty",
                              "property",
                              "findChild",
                              "findChildren",
                              "value",
                              "setValue",
                              "QKeySequence",
                              "replace",
                              "remove",
                              "contains",
                              "startsWith",
                              "endsWith",
                              "starts_with",
                              "indexOf",
                              "toString",

                              "save",
                              "cautionRule",
                              "setStyleSheet",
                              "QRegularExpression",
                              "QUrl",
                              "asprintf",
                              "QSettings",
                              "addApplicationFont",
                              "setDefaultSuffix",
                              "horizontalAdvance",
                              "EntityForm",
                              "sheetForm",
                              "fromString",
                              "make_unique",
                              "make_shared",
                              "invokeMethod"};

struct Literal {
    QString text;
    int line = 0;
    QStringList calls; ///< around it, innermost first
    QString before;    ///< what stands in front of it
};

/// The literals of a source, adjacent ones as one, without comments and includes.
QList<Literal> literalsIn(const QString& source) {
    static const QRegularExpression token("//"
                                          "[^\\n]*|#include[^\\n]*|R\"\\w*\\(.*?\\)\\w*\"|'(?:[^'\\\\\\n]|"
                                          "\\\\.)+'|\"((?:[^\"\\\\]|\\\\.)*)\"|[()\\[\\]{};]",
                                          QRegularExpression::DotMatchesEverythingOption);
    static const QRegularExpression caller("([A-Za-z_]\\w*)(?:<[\\w:<> ,*]*>)?(?:\\s+([A-Za-z_]\\w*))?\\s*$");
    QList<Literal> found;
    QStringList open;
    qsizetype joinedUpTo = -1;
    auto matches = token.globalMatch(source);
    while (matches.hasNext()) {
        const auto match = matches.next();
        const QString text = match.captured();
        if (text.startsWith('"')) {
            const QString between =
                joinedUpTo < 0 ? "x" : source.mid(joinedUpTo, match.capturedStart() - joinedUpTo);
            if (between.trimmed().isEmpty())
                found.last().text += match.captured(1);
            else
                found.append(
                    {match.captured(1), static_cast<int>(source.left(match.capturedStart()).count('\n')) + 1,
                     open, source.mid(qMax(0, match.capturedStart() - 8), qMin(8, match.capturedStart()))});
            joinedUpTo = match.capturedEnd();
        } else if (QString("([{").contains(text)) {
            const QString before =
                source.mid(qMax(0, match.capturedStart() - 90), qMin(90, match.capturedStart()));
            const auto name = caller.match(before);
            open.prepend(text == "[" ? QString() : name.captured(1) + " " + name.captured(2));
        } else if (QString(")]}").contains(text) && !open.isEmpty()) {
            open.removeFirst();
        }
    }
    return found;
}

/// Whether a person would read it as words: units, numbers, tags and keys of files are none.
bool isRead(QString text) {
    static const QRegularExpression tag("<[^>]*>|&\\w+;|%L?\\d|\\\\[nt]");
    static const QRegularExpression style("[\\w-]+\\s*:\\s*[^;]*;|='");
    static const QRegularExpression key(
        "^[a-z]+([-_.][a-z0-9]+)+$|^\\*?\\.\\w+$|^:?/|^#[0-9a-fA-F]+$|^%\\+|^(Alt|Ctrl|Shift)\\+|^Esc$");
    static const QRegularExpression letters("[A-Za-z]{3,}|[A-Za-z]+ [A-Za-z]+");
    static const QSet<QString> units{"K/W", "mm",   "µm",      "min",  "NOK",   "EUR", "rpm",
                                     "MPa", "GPa",  "W/(m·K)", "Pa·s", "K/min", "PNG", "JPG",
                                     "csv", "html", "pdf",     "json", "svg",   "UTC"};
    if (text.contains(key) || text.contains(style)) return false;
    text.remove(tag);
    text = text.trimmed();
    return text.contains(letters) && !units.contains(text);
}

QStringList bypassing(const QString& source) {
    QStringList found;
    for (const Literal& literal : literalsIn(source)) {
        const bool compared = literal.before.contains(QRegularExpression("[=!]=\\s*$"));
        const bool meant = std::any_of(literal.calls.begin(), literal.calls.end(), [](const QString& call) {
            const QStringList names = call.split(' ');
            return technical.contains(names.front()) || technical.contains(names.back());
        });
        if (isRead(literal.text) && !compared && !meant)
            found << QString("%1: \"%2\"").arg(literal.line).arg(literal.text);
    }
    return found;
}

} // namespace

class TestSaid : public QObject {
    Q_OBJECT

private slots:
    void aBypassingLiteralIsFound() { // the test must be able to fail
        QCOMPARE(bypassing("void f() { label->setText(\"Nothing yet.\"); }"),
                 QStringList{"1: \"Nothing yet.\""});
        QCOMPARE(bypassing("box(QString(\"%1 mounts\").arg(n));\n"), QStringList{"1: \"%1 mounts\""});
        QCOMPARE(bypassing("x = a ? \"one \"\n \"thing\" : b;"), QStringList{"1: \"one thing\""});
        QVERIFY(bypassing("label->setText(say(\"Nothing yet.\")); w->setObjectName(\"Order of mounts\");")
                    .isEmpty());
        QVERIFY(bypassing("// \"a comment\"\nif (name == \"load\") t << \"<td>%1 mm</td>\";").isEmpty());
    }
    void keysAreNotTranslated() { // a shortcut that a translation changed would be dead
        static const QRegularExpression saidKey("say\\(\"(Alt|Ctrl|Shift)\\+\\S*\"\\)|say\\(\"Esc\"\\)");
        QVERIFY(QString("button(say(\"Later\"), say(\"Alt+Down\"))").contains(saidKey));
        QDirIterator walk(QString(ibuki::places::source) + "/src/app", {"*.cpp"}, QDir::Files,
                          QDirIterator::Subdirectories);
        while (walk.hasNext()) {
            QFile file(walk.next());
            QVERIFY(file.open(QIODevice::ReadOnly));
            QVERIFY2(!QString::fromUtf8(file.readAll()).contains(saidKey), qPrintable(file.fileName()));
        }
    }
    void theWindowSaysEverythingThroughTheCatalogue() {
        QDirIterator walk(QString(ibuki::places::source) + "/src/app", {"*.h", "*.cpp"}, QDir::Files,
                          QDirIterator::Subdirectories);
        static const QRegularExpression apart("/(main|theme)\\.(cpp|h)$"); // options, made-up data, styles
        QStringList found;
        int files = 0;
        while (walk.hasNext()) {
            QFile file(walk.next());
            if (file.fileName().contains(apart)) continue;
            QVERIFY(file.open(QIODevice::ReadOnly));
            ++files;
            for (const QString& literal : bypassing(QString::fromUtf8(file.readAll())))
                found << QFileInfo(file).fileName() + ":" + literal;
        }
        QVERIFY(files > 120);
        QVERIFY2(found.isEmpty(), qPrintable("not through say():\n" + found.join('\n')));
    }
};

IBUKI_TEST(TestSaid)
#include "tst_said.moc"
