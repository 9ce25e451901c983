// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "tests/support/demo.h"
#include "tests/support/window_driver.h"

#include <cerrno>
#include <dlfcn.h>
#include <QClipboard>
#include <QSettings>
#include <spawn.h>
#include <sys/socket.h>
#include <sys/wait.h>

using namespace rollcall;
using fixtures::WindowDriver;

namespace {
QStringList& calls() {
    static QStringList all;
    return all;
}
int refusedCall(const char* name) {
    calls() << QString::fromLatin1(name);
    errno = EACCES;
    return -1;
}
} // namespace

// These stand before the library's: whatever the window, Qt or SQLite asks of the network or of another program comes
// here first.
extern "C" {
int socket(int domain, int type, int protocol) noexcept {
    if (domain != AF_UNIX) return refusedCall("socket");
    static const auto real = reinterpret_cast<int (*)(int, int, int)>(dlsym(RTLD_NEXT, "socket"));
    return real(domain, type, protocol); // the desktop's own, on this computer
}
int execve(const char*, char* const*, char* const*) noexcept {
    return refusedCall("execve");
}
int execv(const char*, char* const*) noexcept {
    return refusedCall("execv");
}
int execvp(const char*, char* const*) noexcept {
    return refusedCall("execvp");
}
int posix_spawn(pid_t*, const char*, const posix_spawn_file_actions_t*, const posix_spawnattr_t*, char* const*,
                char* const*) noexcept {
    return refusedCall("posix_spawn") == 0 ? 0 : EACCES;
}
pid_t fork() noexcept {
    return refusedCall("fork");
}
pid_t vfork() noexcept {
    return refusedCall("vfork");
}
int system(const char*) {
    return refusedCall("system");
}
}

// No line to a network is opened and no other program is run, whatever is done in the window or on the command line.
class tst_NoWayOut : public QObject {
    Q_OBJECT

    static void closeDialogs(WindowDriver& d) {
        for (int i = 0; i < 5 && QApplication::activeModalWidget() != nullptr; ++i) d.press(Qt::Key_Escape);
    }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test")); // as WindowDriver does
        QSettings().clear();
        calls().clear();
    }

    // What stands in between is asked at all.
    void theNetIsWatched() {
        QVERIFY(::socket(AF_INET, SOCK_STREAM, 0) < 0);
        QVERIFY(::system("true") != 0);
        QCOMPARE(calls(), QStringList({"socket", "system"}));
    }

    // Every command there is, at every place, with whatever it asks given up.
    void everyCommandOfTheWindow() {
        const QTemporaryDir dir;
        fixtures::putDemo(dir.filePath("demo.rollcall"));
        WindowDriver d(dir.filePath("demo.rollcall"));
        int run = 0;
        for (const auto& [place, commands] : d.window().everyCommand()) {
            if (!place.isEmpty()) d.window().open(place);
            d.settle();
            for (const Command& command : commands) {
                if (command.id == "quit") continue;
                ++run;
                d.window().run(command.id);
                d.settle();
                closeDialogs(d);
            }
        }
        QVERIFY2(run > 90, "nothing was run");
        QCOMPARE(calls(), QStringList());
    }

    // What leaves and what comes in.
    void filesComeAndGo() {
        const QTemporaryDir dir;
        WindowDriver d;
        d.makeBatch();
        d.type("612\n");
        d.drop(d.writeFile("r.csv", "batch,blade,gate,value,note\nHedge,1,temper,61.0,http://127.0.0.1/x\n"));
        closeDialogs(d);
        for (const char* name : {"package.zip", "copy.rollcall", "backup.rollcall"}) {
            d.chooseFile(dir.filePath(name));
            d.type(name == QLatin1String("package.zip") ? "i8" : name == QLatin1String("copy.rollcall") ? "i9" : "ib");
            closeDialogs(d);
            QVERIFY2(QFile::exists(dir.filePath(name)), name);
        }
        QGuiApplication::clipboard()->setText("batch,blade,gate,value\nHedge,2,temper,61.0\n");
        d.press(Qt::Key_V, Qt::ControlModifier);
        closeDialogs(d);
        QCOMPARE(calls(), QStringList());
    }

    void theCommandLine() {
        const QTemporaryDir dir;
        const auto run = [&](const std::vector<std::string>& arguments) {
            QStringList list;
            for (const std::string& one : arguments) list << QString::fromStdString(one);
            return cli::run(list, QStringLiteral(ROLLCALL_DATA_DIR "/tables")).exit_code;
        };
        const std::string book = dir.filePath("b.rollcall").toStdString();
        QCOMPARE(run({"demo", book}), 0);
        QCOMPARE(run({"check", book}), 0);
        QCOMPARE(run({"export", book, dir.filePath("p.zip").toStdString()}), 0);
        QCOMPARE(run({"backup", book, dir.filePath("c.rollcall").toStdString()}), 0);
        QCOMPARE(calls(), QStringList());
    }
};

QTEST_MAIN(tst_NoWayOut)
#include "tst_no_way_out.moc"
