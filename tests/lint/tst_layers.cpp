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
            {"logbook", {"core", "logbook"}},
            {"words", {"core", "words"}},
            {"plot", {"core", "plot"}},
            {"devices", {"core", "devices"}},
            {"sim", {"core", "sim"}},
            {"demo", {"core", "logbook", "demo"}},
            {"report", {"core", "words", "plot", "report"}},
            {"cli", {"core", "logbook", "words", "demo", "plot", "report", "cli"}},
            {"app/store", {"core", "logbook", "app/store"}},
            {"app/shared", {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared"}},
            {"app/batch", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/batch"}},
            {"app/roll", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/roll"}},
            {"app/overview",
             {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/frame", "app/overview"}},
            {"app/testers",
             {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/frame",
              "app/testers"}},
            {"app/heat",
             {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/frame",
              "app/heat"}},
            {"app/steel", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/frame", "app/steel"}},
            {"app/edge",
             {"core", "logbook", "devices", "plot", "words", "report", "app/store", "app/shared", "app/edge"}},
            {"app/release", {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/release"}},
            {"app/exchange", {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/exchange"}},
            {"app/grain", {"core", "logbook", "plot", "words", "report", "app/store", "app/shared", "app/grain"}},
            {"app/proof", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/proof"}},
            {"app/call", {"core", "logbook", "plot", "words", "app/store", "app/shared", "app/frame", "app/call"}},
            {"app/frame", {"core", "logbook", "plot", "words", "report", "app"}},
            {"app", {"core", "logbook", "plot", "words", "report", "demo", "app"}}};
        return rooms.value(room);
    }
    static QString roomOf(const QString& path) {
        const QStringList parts = path.split('/');
        return parts[0] == "app" && parts.size() > 2 ? parts[0] + '/' + parts[1] : parts[0];
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
                    QVERIFY2(!header.startsWith("QSql") || room == "logbook",
                             qPrintable(path + " knows the database: " + header));
                }
                if (!header.contains('/') || !QFile::exists(src + header)) continue;
                ++own;
                const QString target = roomOf(header);
                const QStringList may = allowed(room);
                const bool ok = may.contains(target) || (may.contains("app") && target.startsWith("app/"));
                QVERIFY2(ok, qPrintable(path + " must not know " + header));
            }
        }
        QVERIFY2(files > 60 && own > 150, "nothing found to check");
    }
};

QTEST_APPLESS_MAIN(tst_Layers)
#include "tst_layers.moc"
