// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include <QDirIterator>
#include <QRegularExpression>
#include <QtTest>

// Link lists alone leak: Qt's include folder is on every Qt target's path, static libraries resolve late. So the
// includes are read, and every room of the house may know only whom docs/architecture.md allows.
class tst_Layers : public QObject {
    Q_OBJECT

    static QStringList allowed(const QString& room) {
        static const QHash<QString, QStringList> rooms{
            {"core", {"core"}},
            {"files", {"core", "files"}},
            {"logbook", {"core", "files", "logbook"}},
            {"words", {"core", "words"}},
            {"plot", {"core", "plot"}},
            {"devices", {"core", "devices"}},
            {"sim", {"core", "sim"}},
            {"demo", {"core", "logbook", "demo"}},
            {"report", {"core", "files", "words", "plot", "report"}},
            {"cli", {"core", "files", "logbook", "words", "demo", "plot", "report", "cli"}},
            {"app/store", {"core", "logbook", "app/store"}},
            {"app/links", {"core", "logbook", "devices", "app/store", "app/links"}},
            {"app/shared", {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/links"}},
            {"app/batch", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/batch"}},
            {"app/roll", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/roll"}},
            {"app/exchange",
             {"core", "files", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/exchange"}},
            {"app/acts", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/batch", "app/acts"}},
            {"app/overview",
             {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/acts", "app/exchange",
              "app/overview"}},
            {"app/pile",
             {"core", "files", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/acts",
              "app/pile"}},
            {"app/testers",
             {"core", "files", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/links",
              "app/acts", "app/testers"}},
            {"app/heat",
             {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/links",
              "app/acts", "app/heat"}},
            {"app/steel",
             {"core", "files", "logbook", "plot", "words", "app/store", "app/shared", "app/links", "app/steel"}},
            {"app/edge",
             {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/links",
              "app/edge"}},
            {"app/release",
             {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/acts", "app/release"}},
            {"app/ledger", {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/ledger"}},
            {"app/grain",
             {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/links", "app/grain"}},
            {"app/proof", {"core", "files", "logbook", "plot", "words", "app/store", "app/shared", "app/proof"}},
            {"app/call",
             {"core", "logbook", "devices", "plot", "words", "app/store", "app/shared", "app/links", "app/acts",
              "app/call"}},
            // The window knows its places as benches; who makes them stands beside main().
            {"app/frame",
             {"core", "files", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/links", "app/acts",
              "app/exchange", "app/roll", "app/frame", "app"}},
            {"app", {"core", "files", "logbook", "plot", "words", "report", "demo", "app"}}};
        return rooms.value(room);
    }
    static QString roomOf(const QString& path) {
        const QStringList parts = path.split('/');
        return parts[0] == "app" && parts.size() > 2 ? parts[0] + '/' + parts[1] : parts[0];
    }

    static void forEachSource(const QStringList& names,
                              const std::function<void(const QString&, const QString&)>& look) {
        const QString src = QStringLiteral(ROLLCALL_SOURCE_DIR "/src/");
        QDirIterator walk(src, names, QDir::Files, QDirIterator::Subdirectories);
        while (walk.hasNext()) {
            QFile file(walk.next());
            if (!file.open(QIODevice::ReadOnly)) qFatal("%s", qPrintable(file.fileName()));
            look(file.fileName().mid(src.size()), QString::fromUtf8(file.readAll()));
        }
    }
    // Declarations in the public parts of a class, signals apart.
    static int publicMethods(const QString& body) {
        int methods = 0;
        int depth = 0;
        bool open = false;
        for (const QString& line : body.split('\n')) {
            const QString trimmed = line.trimmed();
            if (depth == 0 && trimmed.endsWith(':') && !trimmed.startsWith("//"))
                open = trimmed.startsWith("public");
            else if (open && depth == 0 && line.startsWith("    ") && !line.startsWith("     ") &&
                     !trimmed.startsWith("//") && !trimmed.startsWith("using ") && trimmed.contains('('))
                ++methods;
            depth += static_cast<int>(line.count('{') - line.count('}'));
        }
        return methods;
    }

private slots:
    void everyoneKnowsOnlyWhomTheyMay() {
        static const QRegularExpression include("^#include [<\"]([^>\"]+)[>\"]", QRegularExpression::MultilineOption);
        const QString src = QStringLiteral(ROLLCALL_SOURCE_DIR "/src/");
        int files = 0;
        int own = 0;
        QDirIterator walk(src, {"*.h", "*.cpp"}, QDir::Files, QDirIterator::Subdirectories);
        while (walk.hasNext()) {
            QFile file(walk.next());
            QVERIFY(file.open(QIODevice::ReadOnly));
            const QString text = QString::fromUtf8(file.readAll());
            const QString path = file.fileName().mid(src.size());
            const QString room = roomOf(path);
            ++files;
            QVERIFY2(!allowed(room).isEmpty(), qPrintable(path + ": this room is in no list"));
            QVERIFY2(text.startsWith("// SPDX-FileCopyrightText:"), qPrintable(path + ": licence head missing"));
            QVERIFY2(text.count('\n') <= 620, qPrintable(path + ": two rooms in one"));
            for (auto found = include.globalMatch(text); found.hasNext();) {
                const QString header = found.next().captured(1);
                if (header.startsWith('Q')) {
                    QVERIFY2(room != "core", qPrintable(path + " knows Qt: " + header));
                    const bool widgets =
                        header.contains("Widget") || header.contains("Dialog") || header.contains("Layout");
                    QVERIFY2(!widgets || room.startsWith("app"), qPrintable(path + " knows widgets: " + header));
                    QVERIFY2(!header.startsWith("QSql"),
                             qPrintable(path + " knows another way to the database: " + header));
                }
                if (!header.contains('/') || !QFile::exists(src + header)) continue;
                ++own;
                const QString target = roomOf(header);
                const QStringList may = allowed(room);
                const bool ok = may.contains(target) || (room == "app" && target.startsWith("app/"));
                QVERIFY2(ok, qPrintable(path + " must not know " + header));
            }
        }
        QVERIFY2(files > 60 && own > 150, "nothing found to check");
    }

    // A class that everyone may ask forty things is several classes.
    void noClassHasTooManyPublicMethods() {
        int classes = 0;
        QString widest;
        int most = 0;
        forEachSource({"*.h"}, [&](const QString& path, const QString& text) {
            static const QRegularExpression head("^class (\\w+)[^;{]*\\{$", QRegularExpression::MultilineOption);
            for (auto found = head.globalMatch(text); found.hasNext();) {
                const auto match = found.next();
                const qsizetype end = text.indexOf("\n};", match.capturedEnd());
                const QString body = text.mid(match.capturedEnd(), end - match.capturedEnd());
                const int methods = publicMethods(body);
                ++classes;
                if (methods > most) {
                    most = methods;
                    widest = match.captured(1);
                }
                QVERIFY2(methods <= 40, qPrintable(QString("%1: %2 has %3 public methods")
                                                       .arg(path, match.captured(1), QString::number(methods))));
            }
        });
        QVERIFY2(classes > 80, "nothing found to check");
        QVERIFY2(most > 20, qPrintable("the counting has stopped counting: " + widest));
    }

    // What is judged is judged once, on the storage thread; the window reads. One what-if is listed: it shows what
    // another error of a tester would change, and stores nothing.
    void theWindowDoesNotJudge() {
        static const QRegularExpression judging(
            "judge(Batch|Steel|Heat|Edge|Proof|Release|Readings)\\(|"
            "\\b(Steel|Heat|Proof|Temper|Verification)Book\\b|\\bconst Judged \\w+\\(");
        int files = 0;
        forEachSource({"*.h", "*.cpp"}, [&](const QString& path, const QString& text) {
            if (!path.startsWith("app/")) return;
            ++files;
            if (path == "app/testers/tester_actions.cpp") return; // the what-if
            const auto found = judging.match(text);
            QVERIFY2(!found.hasMatch(), qPrintable(path + " judges: " + found.captured(0)));
        });
        QVERIFY2(files > 100, "nothing found to check");
    }

    // Text in the interface language is shown, never compared: the first translation would split the record.
    void shownTextIsNoKey() {
        static const QRegularExpression key("(==|!=|startsWith\\(|endsWith\\(|contains\\(|indexOf\\() *tr\\(");
        forEachSource({"*.h", "*.cpp"}, [&](const QString& path, const QString& text) {
            QVERIFY2(!key.match(text).hasMatch(), qPrintable(path + " compares shown text"));
        });
    }

    // Everything in the window goes by the clock that was passed in.
    void theWindowHasOneClock() {
        static const QRegularExpression clock("LogbookSeams::real\\(\\)|currentDateTime|currentMSecsSinceEpoch|"
                                              "QDate::currentDate|QTime::currentTime|system_clock::now");
        int named = 0;
        forEachSource({"*.h", "*.cpp"}, [&](const QString& path, const QString& text) {
            if (!path.startsWith("app/")) return;
            const bool found = clock.match(text).hasMatch();
            named += found ? 1 : 0;
            const bool door = path == "app/main.cpp";
            QVERIFY2(door || !found, qPrintable(path + " looks at a clock of its own"));
        });
        QVERIFY2(named >= 1, "nothing found to check");
    }

    // Text of a file is never drawn as a page of the web, which could name a file or a device to be read.
    void textIsShownAsItStands() {
        int looked = 0;
        forEachSource({"*.cpp", "*.h"}, [&](const QString& path, const QString& text) {
            if (!path.startsWith("app/") || path == "app/shared/plain_text.h") return;
            static const QRegularExpression forbidden(
                "new QLabel|QTextBrowser|QTextEdit|QTextDocument|QMessageBox|setHtml|QToolTip::|Qt::RichText|"
                "setToolTip\\((?!plainTip\\(|QString\\(\\))|setWhatsThis\\(");
            const auto found = forbidden.match(text);
            QVERIFY2(!found.hasMatch(), qPrintable(path + ": " + found.captured()));
            looked += static_cast<int>(text.count("plainTip(") + text.count("PlainLabel"));
        });
        QVERIFY2(looked > 10, "there is nothing to look at");
    }
};

QTEST_APPLESS_MAIN(tst_Layers)
#include "tst_layers.moc"
