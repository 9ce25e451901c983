// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/disk.h"
#include "tests/support/files.h"

#include <csignal>
#include <fcntl.h>
#include <QScopeGuard>
#include <QTemporaryDir>
#include <QtTest>
#include <sys/resource.h>
#include <sys/stat.h>

using namespace rollcall;
using fixtures::content;
using fixtures::put;

// What leaves is whole or not there, and what was there before stays until then.
class tst_Disk : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    QString at(const char* name) const { return m_dir.filePath(QString::fromLatin1(name)); }
    // No file may grow beyond so many bytes: what a full disk does to a writer.
    static auto fullDisk(rlim_t bytes) {
        std::signal(SIGXFSZ, SIG_IGN);
        rlimit before{};
        getrlimit(RLIMIT_FSIZE, &before);
        const rlimit little{bytes, before.rlim_max};
        setrlimit(RLIMIT_FSIZE, &little);
        return qScopeGuard([before] { setrlimit(RLIMIT_FSIZE, &before); });
    }
    QStringList names() const { return QDir(m_dir.path()).entryList(QDir::Files | QDir::Hidden); }

private slots:
    void cleanup() {
        for (const QString& name : names()) QFile::remove(m_dir.filePath(name));
    }

    void aFileIsReplacedWhole() {
        put(at("a.pdf"), "old");
        QFile::setPermissions(at("a.pdf"), QFile::ReadOwner | QFile::WriteOwner | QFile::ReadGroup);
        QVERIFY(writeFile(at("a.pdf"), "new and longer").ok());
        QCOMPARE(content(at("a.pdf")), QByteArray("new and longer"));
        QVERIFY(QFile::permissions(at("a.pdf")) & QFile::ReadGroup);
        QVERIFY(!(QFile::permissions(at("a.pdf")) & QFile::ReadOther));
        QCOMPARE(names(), QStringList{"a.pdf"}); // nothing beside it
    }

    void onAFullDiskTheOldOneStays() {
        put(at("a.pdf"), "the signed one");
        const auto full = fullDisk(64 * 1024);
        const auto written = writeFile(at("a.pdf"), QByteArray(1 << 20, 'x'));
        QVERIFY(!written.ok());
        QCOMPARE(written.error().kind, ErrorKind::disk);
        QVERIFY2(written.error().text.find("cannot be written") != std::string::npos, written.error().text.c_str());
        QCOMPARE(content(at("a.pdf")), QByteArray("the signed one"));
        QCOMPARE(names(), QStringList{"a.pdf"});
    }

    void aWriterThatFailsLeavesTheOldOne() {
        put(at("a.xlsx"), "the old one");
        const auto written = writeFileBy(at("a.xlsx"), [&](const QString& part) -> Result<Done> {
            put(part, "half of");
            return Error{ErrorKind::disk, "", "the pen broke"};
        });
        QCOMPARE(written.error().text, std::string("the pen broke"));
        QCOMPARE(content(at("a.xlsx")), QByteArray("the old one"));
        QCOMPARE(names(), QStringList{"a.xlsx"});
    }

    void aFullDeviceIsTold() {
        const auto written = writeFile("/dev/full", "anything");
        QVERIFY(!written.ok());
        QVERIFY2(written.error().text.find("No space left") != std::string::npos, written.error().text.c_str());
        QVERIFY(!QFileInfo("/dev/full").isFile()); // still the device
        QVERIFY(writeFile("/dev/null", "anything").ok());
    }

    void aLogbookIsNotWrittenOver() {
        const QByteArray head("SQLite format 3\0", 16);
        const QByteArray book = head + QByteArray(200, 'x');
        put(at("shop.rollcall"), book);
        for (const char* name : {"shop.rollcall", "shop.rollcall-wal", "shop.rollcall-journal", "shop.rollcall-shm",
                                 "shop.rollcall.lock"}) {
            const auto written = writeFile(at(name), "a certificate");
            QVERIFY2(!written.ok() && written.error().kind == ErrorKind::refused, name);
        }
        QFile::link(at("shop.rollcall"), at("link.pdf"));
        QVERIFY(!writeFile(at("link.pdf"), "a certificate").ok());
        QCOMPARE(content(at("shop.rollcall")), book);
        QVERIFY(writeFile(at("other.lock"), "no logbook has this beside it").ok());
        QVERIFY(!writeFile(m_dir.path(), "a folder").ok());
        QVERIFY(!writeFile("", "no name").ok());
        QVERIFY(!writeFile(at("no/such/folder.csv"), "x").ok());
    }

    void aLinkIsWrittenThrough() {
        put(at("real.csv"), "old");
        QFile::link(at("real.csv"), at("link.csv"));
        QVERIFY(writeFile(at("link.csv"), "new").ok());
        QVERIFY(QFileInfo(at("link.csv")).isSymLink());
        QCOMPARE(content(at("real.csv")), QByteArray("new"));
    }

    void ofAPrivateLogbookWhatLeavesIsPrivate() {
        QVERIFY(writeFile(at("open.csv"), "x").ok());
        keepWhatLeavesPrivate(true);
        const auto leave = qScopeGuard([] { keepWhatLeavesPrivate(false); });
        QVERIFY(writeFile(at("own.csv"), "x").ok());
        QVERIFY(QFile::permissions(at("open.csv")) & QFile::ReadOther);
        QCOMPARE(QFile::permissions(at("own.csv")) & (QFile::ReadGroup | QFile::ReadOther), QFile::Permissions());
    }

    void aNameIsGivenOnce() {
        put(at("part"), "new");
        put(at("taken"), "old");
        QCOMPARE(giveName(at("part"), at("taken")).error().kind, ErrorKind::exists);
        QCOMPARE(content(at("taken")), QByteArray("old"));
        QVERIFY(giveName(at("part"), at("free")).ok());
        QCOMPARE(content(at("free")), QByteArray("new"));
        QVERIFY(!QFile::exists(at("part")));
    }

    // A week's leftovers go, with what is in them; what is younger, of another name or only linked to stays.
    void leftoversAreTakenAway() {
        QTemporaryDir folder;
        const auto in = [&](const char* name) { return folder.filePath(QLatin1String(name)); };
        const QDateTime before = QDateTime::currentDateTime().addDays(-7);
        const auto age = [&](const QString& path) {
            const timespec old[2] = {{0, UTIME_OMIT}, {before.addDays(-1).toSecsSinceEpoch(), 0}};
            QVERIFY(::utimensat(AT_FDCWD, QFile::encodeName(path).constData(), old, AT_SYMLINK_NOFOLLOW) == 0);
        };
        for (const char* name : {"rollcall-aB3dEf", "rollcall-young1", "rollcall-toolong", "other-aB3dEf"}) {
            QVERIFY(QDir().mkpath(in(name)));
            put(in(name) + "/page.png", "x");
        }
        put(in("kept"), "not ours to touch");
        QVERIFY(QFile::link(in("kept"), in("rollcall-linked")));
        for (const char* name : {"rollcall-aB3dEf", "rollcall-toolong", "other-aB3dEf", "kept", "rollcall-linked"})
            age(in(name));
        clearLeftovers(folder.path(), {"rollcall-??????"}, before);
        QVERIFY(!QFile::exists(in("rollcall-aB3dEf")));
        for (const char* name : {"rollcall-young1", "rollcall-toolong", "other-aB3dEf", "kept", "rollcall-linked"})
            QVERIFY2(QFile::exists(in(name)), name);
    }

    void databasesAreKnownByTheirHead() {
        put(at("text"), "these are only notes");
        put(at("empty"), "");
        QByteArray head("SQLite format 3\0", 16);
        head.resize(100, '\0');
        head.replace(68, 4, "Roll");
        put(at("book"), head);
        QVERIFY(!isDatabase(at("text")) && !isDatabase(at("empty")) && !isDatabase(at("missing")));
        QVERIFY(isDatabase(at("book")));
        QCOMPARE(applicationOf(at("book")), 0x526F6C6C);
        QCOMPARE(applicationOf(at("text")), 0);
    }
};

QTEST_GUILESS_MAIN(tst_Disk)
#include "tst_disk.moc"
