// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"
#include "app/store/document.h"
#include "app/tour.h"
#include "demo/demo.h"
#include "files/disk.h"
#include "words/data_folder.h"

#include <cstdio>
#include <exception>
#include <functional>
#include <QApplication>
#include <QCommandLineParser>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QScreen>
#include <QSettings>
#include <QStandardPaths>
#include <QTimer>

namespace {

int fail(const QString& message) {
    std::fprintf(stderr, "rollcall: %s\n", qPrintable(message));
    return 1;
}

// An exception that a key or a click leads to is told, and the window goes on: nothing of the record hangs on it, which
// is stored on a thread of its own.
class Application : public QApplication {
public:
    using QApplication::QApplication;
    std::function<void(const QString&)> tell;

    bool notify(QObject* receiver, QEvent* event) override {
        try {
            return QApplication::notify(receiver, event);
        } catch (const std::exception& trouble) {
            const QString what = QString::fromLocal8Bit(trouble.what());
            std::fprintf(stderr, "rollcall: %s\n", qPrintable(what));
            if (tell) tell(what);
            return true;
        }
    }
};

// The demo is played with on a private copy, made anew on every start.
QString freshDemo() {
    const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
    QDir().mkpath(folder);
    QString path = folder + QStringLiteral("/demo-%1.rollcall").arg(QCoreApplication::applicationPid());
    QFile::remove(path);
    return path;
}

} // namespace

int main(int argc, char** argv) {
    QApplication::setOrganizationName(QStringLiteral("rollcall"));
    QApplication::setApplicationName(QStringLiteral("rollcall"));
    Application application(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral("Hardness quality control for a knifemaker's batches"));
    parser.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("logbook to open; made when it does not exist"),
                                 QStringLiteral("[FILE]"));
    const QCommandLineOption demo(QStringLiteral("demo"),
                                  QStringLiteral("Play with a private copy of the demo logbook."));
    const QCommandLineOption tour(QStringLiteral("tour"),
                                  QStringLiteral("Write pictures of the main views into a folder and leave."),
                                  QStringLiteral("DIR"));
    const QCommandLineOption once(QStringLiteral("first-paint"),
                                  QStringLiteral("Leave after the first paint; for measuring the start."));
    const QCommandLineOption today(QStringLiteral("today"),
                                   QStringLiteral("Moment of the demo, for pictures that do not change."),
                                   QStringLiteral("DATE"));
    parser.addOptions({demo, tour, once, today});
    parser.addHelpOption();
    parser.process(application);

    const QString data = rollcall::dataFolder();
    if (!rollcall::loadFonts(data + QStringLiteral("/fonts")))
        return fail(QStringLiteral("the typefaces in %1/fonts are missing").arg(data));
    auto tables = rollcall::Tables::load((data + QStringLiteral("/tables")).toStdString());
    if (!tables) return fail(QString::fromStdString(tables.error().message()));

    rollcall::LogbookSeams seams = rollcall::LogbookSeams::real();
    const bool play = parser.isSet(demo) || parser.isSet(tour);
    QString path = parser.positionalArguments().value(0);
    if (play) {
        path = freshDemo();
        const QDateTime now = parser.isSet(today) ? QDateTime::fromString(parser.value(today), Qt::ISODate)
                                                  : QDateTime::currentDateTime();
        if (!now.isValid()) return fail(QStringLiteral("--today takes a moment like 2026-11-25T15:40"));
        rollcall::DemoOptions options;
        options.today = {now.toMSecsSinceEpoch(), now.offsetFromUtc() / 60};
        // The window stands at the demo's moment and goes on from there.
        seams.now = [real = seams.now, began = seams.now(), today = options.today] {
            return rollcall::Instant{today.utc_ms + real().utc_ms - began.utc_ms, today.offset_minutes};
        };
        if (const auto written = rollcall::writeDemo(path, *tables, options); !written)
            return fail(QString::fromStdString(written.error().message()));
    } else if (path.isEmpty()) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
        QDir().mkpath(folder);
        path = QSettings().value(QStringLiteral("logbook"), folder + QStringLiteral("/shop.rollcall")).toString();
    }

    int result = 0;
    {
        rollcall::Document document(std::move(tables).value(), std::move(seams));
        rollcall::Look look;
        look.factor = qBound(0.8, QSettings().value(QStringLiteral("text-size"), 1.0).toDouble(), 2.0);
        const auto wished = [](const char* setting) {
            return QSettings().value(QLatin1String(setting), false).toBool();
        };
        if (!parser.isSet(tour)) look.palette = rollcall::Palette::wished(wished("dark"), wished("contrast"));
        // It is read while the window is built.
        document.open(path, !QFile::exists(path));
        rollcall::MainWindow window(document, look, rollcall::Seams::real());
        window.fitScreen();
        application.tell = [&window](const QString& what) {
            window.say(
                QApplication::translate("main", "Something went wrong here (%1). What is logged is stored.").arg(what),
                true);
        };
        if (parser.isSet(tour)) {
            QTimer::singleShot(0, &window, [&] {
                while (!document.isOpen()) QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
                QCoreApplication::exit(rollcall::writeTour(window, document, parser.value(tour)) ? 0 : 1);
            });
        } else {
            if (!play) {
                QSettings().setValue(QStringLiteral("logbook"), QFileInfo(path).absoluteFilePath());
                if (!parser.isSet(once))
                    window.keeper().begin(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) +
                                          QStringLiteral("/copies"));
            }
            window.show();
            // Once the window stands: what runs that were killed have left, a week old and more.
            QTimer::singleShot(10000, &window, [] {
                const QDateTime before = QDateTime::currentDateTime().addDays(-7);
                rollcall::clearLeftovers(QDir::tempPath(), {QStringLiteral("rollcall-??????")}, before);
                rollcall::clearLeftovers(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation),
                                         {QStringLiteral("demo-*.rollcall*")}, before);
            });
        }
        if (parser.isSet(once)) {
            QObject::connect(&document, &rollcall::Document::changed, &window, [&] {
                QTimer::singleShot(0, &window, [&] {
                    window.repaint();
                    QCoreApplication::quit();
                });
            });
        }
        result = QApplication::exec();
        // The window is gone by now: what goes wrong is told where it was started from.
        QObject::connect(&window.keeper(), &rollcall::CopyKeeper::failed,
                         [](const QString& message) { std::fprintf(stderr, "rollcall: %s\n", qPrintable(message)); });
        window.keeper().keepLast();
        application.tell = {};
    }
    if (play) QFile::remove(path);
    return result;
}
