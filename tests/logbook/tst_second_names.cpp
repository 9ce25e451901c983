// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/temp_logbook.h"

#include <unistd.h>

using namespace rollcall;
using fixtures::TempLogbook;

// One logbook under two names. What a stopped program leaves lies beside the name it had been opened by: opened by the
// other, readings would be missing, and come back over newer ones later.
class tst_SecondNames : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    int m_count = 0;

    static bool hardLink(const QString& from, const QString& to) {
        return ::link(QFile::encodeName(from).constData(), QFile::encodeName(to).constData()) == 0;
    }
    // The file of an open logbook and what lies beside it, as they are when its program is killed.
    QString killed(TempLogbook& logbook) {
        const QString at = m_dir.filePath(QStringLiteral("%1.rollcall").arg(++m_count));
        for (const char* ending : {"", "-wal"}) {
            if (!QFile::copy(logbook.path() + QLatin1String(ending), at + QLatin1String(ending))) qFatal("no copy");
        }
        return at;
    }

private slots:
    // A symbolic link leads to the file: what lies beside that is taken in, and one lock keeps all its names.
    void aSymbolicLink() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        const QString real = killed(logbook);
        QVERIFY(QFileInfo(real + "-wal").size() > 0);
        QVERIFY(QDir(m_dir.path()).mkpath("desk"));
        const QString link = m_dir.filePath("desk/shop.rollcall");
        QVERIFY(QFile::link(real, link));
        {
            const auto opened = Logbook::open(link, Logbook::Access::write, logbook.seams());
            QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().text.c_str());
            QVERIFY(!(*opened)->readOnly());
            QCOMPARE((*opened)->batch(batch.id)->blades[0].readings.size(), std::size_t(1));
            for (const QString& name : {link, real}) {
                const auto second = Logbook::open(name, Logbook::Access::write, logbook.seams());
                QVERIFY(!second.ok());
                QCOMPARE(second.error().kind, ErrorKind::locked);
                QVERIFY2(second.error().text.find("process") != std::string::npos, second.error().text.c_str());
            }
            const auto refused = Logbook::open(m_dir.filePath("desk/none.rollcall"), Logbook::Access::read);
            QCOMPARE(refused.error().kind, ErrorKind::input);
        }
        QVERIFY(QFileInfo(link).isSymLink());
        QCOMPARE(QDir(m_dir.filePath("desk")).entryList(QDir::Files | QDir::Hidden | QDir::System).size(), 1);
        const auto again = Logbook::open(real, Logbook::Access::read, logbook.seams());
        QCOMPARE((*again)->batch(batch.id)->blades[0].readings.size(), std::size_t(1));
    }

    // A hard link: nothing tells which of the two names a stopped program had. It is read and not written to.
    void aHardLink() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        logbook.close();
        const QString other = m_dir.filePath("other.rollcall");
        QVERIFY(hardLink(logbook.path(), other));
        for (const Logbook::Access access : {Logbook::Access::write, Logbook::Access::read}) {
            QVERIFY(logbook.reopen(access).ok());
            QVERIFY(logbook->readOnly());
            QVERIFY2(logbook->readOnlyReason().find("hard link") != std::string::npos,
                     logbook->readOnlyReason().c_str());
            QCOMPARE(logbook->batch(batch.id)->blades.size(), std::size_t(2));
            QVERIFY(!logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        }
        // A copy is a file of its own.
        const QString copy = m_dir.filePath("copy.rollcall");
        QVERIFY(logbook->backup(copy).ok());
        const auto opened = Logbook::open(copy, Logbook::Access::write, logbook.seams());
        QVERIFY(opened.ok() && !(*opened)->readOnly());
        logbook.close();
        QVERIFY(QFile::remove(other));
        QVERIFY(logbook.reopen().ok());
        QVERIFY(!logbook->readOnly());
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
    }

    // What lies beside one of the two names is seen, and comes into neither.
    void aHardLinkWithSomethingBeside() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        const QString left = killed(logbook);
        QVERIFY(hardLink(left, left + "-too"));
        const qint64 size = QFileInfo(left + "-wal").size();
        {
            const auto opened = Logbook::open(left, Logbook::Access::write, logbook.seams());
            QVERIFY(opened.ok() && (*opened)->readOnly());
            QCOMPARE((*opened)->batch(batch.id)->blades[0].readings.size(), std::size_t(1));
        }
        QCOMPARE(QFileInfo(left + "-wal").size(), size);
    }

    // What is killed between the two steps of giving a logbook its name leaves it both: the first is taken away.
    void aNameThatAKillLeft() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        logbook.close();
        const QString part = logbook.path() + ".part-1a2b3c4d";
        QVERIFY(hardLink(logbook.path(), part));
        QVERIFY(logbook.reopen().ok());
        QVERIFY(!logbook->readOnly());
        QVERIFY(!QFileInfo::exists(part));
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
    }
};

QTEST_APPLESS_MAIN(tst_SecondNames)
#include "tst_second_names.moc"
