// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/notes.h"
#include "logbook/database.h"
#include "logbook/logbook_check.h"
#include "logbook/logbook_file.h"
#include "logbook/ranges.h"
#include "logbook/schema.h"
#include "logbook/transfer/merge.h"
#include "tests/support/files.h"
#include "tests/support/fixtures.h"
#include "tests/support/old_logbook.h"
#include "tests/support/temp_logbook.h"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <QScopeGuard>
#include <QtTest>
#include <unistd.h>

using namespace rollcall;
using fixtures::content;
using fixtures::put;
using fixtures::TempLogbook;

// The file of a logbook: looked at before it is touched, whole or not there, kept before it changes.
class tst_LogbookFile : public QObject {
    Q_OBJECT

    // A heat of a batch in an oven of its own.
    static std::string aHeat(TempLogbook& log, const Batch& batch) {
        HeatDraft heat;
        heat.batch = batch.id;
        heat.oven = addOven(*log, {"", "Oven 1", 5, {}}).value();
        heat.set_c = 810;
        heat.as_entered = "810";
        heat.zero = log->now();
        return startHeat(*log, heat).value();
    }
    static QStringList names(const QString& folder) {
        return QDir(folder).entryList(QDir::Files | QDir::Hidden, QDir::Name);
    }
    // What is left when the program is killed: the file and its write-ahead log as they are on disk now.
    static void killedCopy(const TempLogbook& log, const QString& to) {
        QVERIFY(QFile::copy(log.path(), to));
        QVERIFY(QFile::copy(log.path() + "-wal", to + "-wal"));
    }

private slots:
    // 8. Nothing under its name until it is whole; what a kill left is no hindrance.
    void madeWholeOrNotAtAll() {
        QTemporaryDir dir;
        const QString path = dir.filePath("new.rollcall");
        const auto failed = Logbook::make(path, LogbookSeams::real(), [&](const QString& part) -> Result<Done> {
            if (!QFile::exists(part) || QFile::exists(path)) qFatal("made under the wrong name");
            return Error{ErrorKind::input, "", "the package is torn"};
        });
        QCOMPARE(failed.error().text, std::string("the package is torn"));
        QCOMPARE(names(dir.path()), QStringList());
        put(path + ".part-1234abcd", "left by a kill");
        QVERIFY(Logbook::create(path).ok());
        QCOMPARE(names(dir.path()), QStringList{"new.rollcall"});
        QCOMPARE(Logbook::create(path).error().kind, ErrorKind::exists);
    }

    // 15. Names that are none.
    void namesThatAreNone() {
        for (const char* name : {"", " ", ":memory:", "file:x.rollcall?mode=memory"}) {
            QCOMPARE(Logbook::create(QString::fromLatin1(name)).error().kind, ErrorKind::refused);
            QCOMPARE(Logbook::open(QString::fromLatin1(name), Logbook::Access::write).error().kind, ErrorKind::refused);
        }
        QVERIFY(!QFile::exists(":memory:") && !QFile::exists(".lock"));
    }

    // 12. Another program's database, an empty file, a text: told, and not a byte of them or beside them changed.
    void whatIsNotOursIsNotTouched() {
        QTemporaryDir dir;
        const QString other = dir.filePath("other.db");
        QCOMPARE(TempLogbook::meddle(other, "CREATE TABLE t (x);;INSERT INTO t VALUES (1)"), QString());
        put(dir.filePath("empty.rollcall"), "");
        put(dir.filePath("notes.txt"), "only notes");
        const QStringList before = names(dir.path());
        for (const QString& name : before) {
            const QByteArray was = content(dir.filePath(name));
            for (const auto access : {Logbook::Access::write, Logbook::Access::read}) {
                const auto opened = Logbook::open(dir.filePath(name), access);
                QVERIFY2(!opened.ok() && opened.error().kind == ErrorKind::damaged, qPrintable(name));
            }
            QCOMPARE(content(dir.filePath(name)), was);
        }
        QCOMPARE(names(dir.path()), before);
    }

    // 7. What a killed writer left is taken in by whoever opens next, to read as to write.
    void leftoversAreTakenIn() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QTemporaryDir dir;
        const QString copy = dir.filePath("killed.rollcall");
        killedCopy(log, copy);
        const auto opened = Logbook::open(copy, Logbook::Access::read);
        QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
        QCOMPARE((*opened)->batches()->size(), std::size_t(1));
    }
    void aStaleJournalIsTakenIn() {
        TempLogbook log;
        log.withBatch();
        log.close();
        put(log.path() + "-journal", "a journal that was never finished");
        for (const auto access : {Logbook::Access::read, Logbook::Access::write}) {
            const auto opened = log.reopen(access);
            QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
            QCOMPARE(log->batches()->size(), std::size_t(1));
        }
    }
    void leftoversInAFolderThatCannotBeWritten() {
        TempLogbook log;
        log.withBatch();
        QTemporaryDir dir;
        killedCopy(log, dir.filePath("killed.rollcall"));
        const auto everyone = QFile::ReadOwner | QFile::ReadGroup | QFile::ReadOther;
        QVERIFY(QFile::setPermissions(dir.filePath("killed.rollcall"), everyone));
        QVERIFY(QFile::setPermissions(dir.filePath("killed.rollcall-wal"), everyone));
        QVERIFY(QFile::setPermissions(dir.path(), everyone | QFile::ExeOwner | QFile::ExeGroup | QFile::ExeOther));
        // Root writes everywhere: the file is opened as somebody who does not.
        constexpr uid_t nobody = 65534;
        const uid_t own = ::geteuid();
        const auto back = qScopeGuard([&] {
            if (own == 0) (void)::setresuid(0, 0, 0);
            QFile::setPermissions(dir.path(), QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
        });
        if (own == 0) QCOMPARE(::setresuid(nobody, nobody, 0), 0);
        const auto opened = Logbook::open(dir.filePath("killed.rollcall"), Logbook::Access::write);
        QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
        QVERIFY((*opened)->readOnly());
        QCOMPARE((*opened)->batches()->size(), std::size_t(1));
    }
    void leftoversAreReadFromACopy() {
        TempLogbook log;
        log.withBatch();
        QTemporaryDir dir;
        const QString killed = dir.filePath("killed.rollcall");
        killedCopy(log, killed);
        QVERIFY(hasLeftovers(killed));
        const auto copy = copyElsewhere(killed);
        QVERIFY(copy.ok());
        const auto opened = Logbook::open((*copy)->filePath("killed.rollcall"), Logbook::Access::read);
        QVERIFY(opened.ok());
        QCOMPARE((*opened)->batches()->size(), std::size_t(1));
        QVERIFY(hasLeftovers(killed)); // and the original was left alone
    }

    // 9. The copy before an upgrade is the logbook as it was, as private as it was, and not left out because something
    // else has its name.
    void theCopyBeforeAnUpgrade() {
        QTemporaryDir dir;
        const QString path = dir.filePath("old.rollcall");
        fixtures::putOldLogbook(path);
        QVERIFY(QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner));
        const QString copy = path + QStringLiteral(".before-schema-%1").arg(schema::version);
        put(copy, "something broken of long ago");
        QVERIFY(Logbook::open(path, Logbook::Access::read).ok());
        QCOMPARE(content(copy), QByteArray("something broken of long ago"));
        const QString second = copy + ".2";
        QVERIFY(QFile::exists(second));
        QCOMPARE(QFile::permissions(second) & (QFile::ReadGroup | QFile::ReadOther), QFile::Permissions());
        Database kept;
        QVERIFY(kept.open(second, Database::Mode::readOnly).ok());
        QCOMPARE(kept.single("PRAGMA user_version")->toInt(), 1);
        QCOMPARE(kept.single("SELECT initials FROM person")->toString(), QStringLiteral("HB"));
    }

    // 13. Planted triggers and views, guards taken away: opened to read, never to write.
    void whatWasPlanted_data() {
        QTest::addColumn<QString>("sql");
        QTest::addColumn<QString>("says");
        QTest::newRow("a trigger that changes a value")
            << "CREATE TRIGGER t AFTER INSERT ON reading BEGIN UPDATE person SET name='x'; END"
            << "a trigger that Rollcall does not make (t)";
        QTest::newRow("a trigger that drops the row")
            << "CREATE TRIGGER t BEFORE INSERT ON reading BEGIN SELECT RAISE(IGNORE); END"
            << "a trigger";
        QTest::newRow("a view in a table's place")
            << "ALTER TABLE note RENAME TO note2;;CREATE VIEW note AS SELECT * FROM note2"
            << "a view that Rollcall does not make (note)";
        QTest::newRow("a guard under its own name that guards nothing")
            << "DROP TRIGGER reading_no_update;;CREATE TRIGGER reading_no_update BEFORE UPDATE ON reading BEGIN SELECT "
               "1; END"
            << "a trigger that Rollcall does not make (reading_no_update)";
        QTest::newRow("a guard gone") << "DROP TRIGGER reading_no_update"
                                      << "is missing (reading_no_update)";
    }
    void whatWasPlanted() {
        QFETCH(QString, sql);
        QFETCH(QString, says);
        TempLogbook log;
        const Batch batch = log.withBatch();
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(), sql), QString());
        QVERIFY(log.reopen().ok());
        QVERIFY(log->readOnly());
        QVERIFY2(QString::fromStdString(log->readOnlyReason()).contains(says), log->readOnlyReason().c_str());
        QCOMPARE(logReading(*log, log.reading(batch, 0, 62.1)).error().kind, ErrorKind::refused);
    }

    // 11. Before anything is written the last entries and the rows they tell of are looked at.
    void damageIsSeenAtOpening() {
        const auto unguarded = [](const char* table, const QString& sql) {
            QStringList all;
            for (const char* verb : {"update", "delete"})
                all << QStringLiteral("DROP TRIGGER %1_no_%2").arg(QLatin1String(table), QLatin1String(verb));
            all << sql;
            for (const char* verb : {"UPDATE", "DELETE"})
                all << QStringLiteral("CREATE TRIGGER %1_no_%2 BEFORE %3 ON %1 BEGIN SELECT RAISE(ABORT, '%1 is "
                                      "append-only'); END")
                           .arg(QLatin1String(table), QString::fromLatin1(verb).toLower(), QLatin1String(verb));
            return all.join(";;");
        };
        struct Case {
            QString sql;
            const char* says;
        };
        for (const Case& one :
             {Case{unguarded("reading", "UPDATE reading SET value=58.0"), "is not what its change log says"},
              Case{unguarded("change", "DELETE FROM change WHERE seq=2"), "entries of its change log are missing"},
              Case{unguarded("change", "UPDATE change SET person='XX' WHERE seq=3"), "entry 3 of its change log"},
              Case{unguarded("change", "DELETE FROM change WHERE seq=(SELECT MAX(seq) FROM change)"), ""},
              Case{"UPDATE tester SET name='another'", "is not what its change log says"}}) {
            TempLogbook log;
            const Batch batch = log.withBatch();
            QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
            log.close();
            QCOMPARE(TempLogbook::meddle(log.path(), one.sql), QString());
            const QByteArray before = content(log.path());
            QVERIFY(log.reopen().ok());
            if (*one.says == 0) { // an entry that is gone without a trace: the whole check finds its row
                QVERIFY(!log->readOnly());
                QVERIFY(!log->check()->empty());
                continue;
            }
            QVERIFY2(log->readOnly(), one.says);
            QVERIFY2(QString::fromStdString(log->readOnlyReason()).contains(one.says), log->readOnlyReason().c_str());
            log.close();
            QCOMPARE(content(log.path()), before); // not a byte was changed
        }
    }

    // 14. Moved, deleted or replaced while it is open: nothing more is acknowledged, and it is said.
    void aFileThatIsNoLongerThere() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto log1 = [&] { return logReading(*log, log.reading(batch, 0, 62.1)); };
        QVERIFY(log1().ok());
        QVERIFY(QFile::rename(log.path(), log.path() + "-moved"));
        auto told = log1();
        QVERIFY(!told.ok());
        QVERIFY2(told.error().text.find("moved or deleted") != std::string::npos, told.error().text.c_str());
        put(log.path(), "another file");
        told = log1();
        QVERIFY2(!told.ok() && told.error().text.find("taken the place") != std::string::npos, "replaced");
        QFile::remove(log.path());
        QVERIFY(QFile::rename(log.path() + "-moved", log.path())); // put back
        QVERIFY(log1().ok());
        QCOMPARE(log->batch(batch.id)->blades[0].readings.size(), std::size_t(2));
    }
    // A plain copy of the open file holds what was stored once it has settled.
    void aPlainCopyAfterSettling() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log->settle();
        QTemporaryDir dir;
        const QString copy = dir.filePath("copy.rollcall");
        QVERIFY(QFile::copy(log.path(), copy));
        const auto opened = Logbook::open(copy, Logbook::Access::read);
        QVERIFY(opened.ok());
        QCOMPARE((*opened)->batches()->size(), std::size_t(1));
    }
    void aBackupIsLookedThrough() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QTemporaryDir dir;
        const QString to = dir.filePath("backup.rollcall");
        QVERIFY(log->backup(to).ok());
        QCOMPARE(log->backup(to).error().kind, ErrorKind::exists);
        QCOMPARE(names(dir.path()), QStringList{"backup.rollcall"});
        const auto opened = Logbook::open(to, Logbook::Access::write);
        QVERIFY(opened.ok());
        QVERIFY((*opened)->check()->empty());
        QCOMPARE((*opened)->batch(batch.id)->blades.size(), std::size_t(2));
    }

    // 3. One table says what a number may be, whatever way it comes.
    void numbersHaveTheirRange() {
        for (const StoredRange& range : storedRanges()) QVERIFY(range.least < range.most);
        TempLogbook log;
        const Batch batch = log.withBatch();
        QCOMPARE(changeLimits(*log, batch.id, {60, 63000000}, "60:63000000", {}).error().kind, ErrorKind::range);
        ReadingDraft far = log.reading(batch, 0, 62.1);
        far.spot = Spot{1e9, 3};
        QCOMPARE(logReading(*log, far).error().kind, ErrorKind::range);
        const auto longMark = renameBlade(*log, batch.blades[0].id, std::string(40000, 'A'));
        QCOMPARE(longMark.error().kind, ErrorKind::range);
        QVERIFY2(longMark.error().text.find("200 at most") != std::string::npos, longMark.error().text.c_str());
        Tester files;
        files.name = "Files";
        files.kind = TesterKind::files;
        files.files = {40, 50, 1e16};
        QVERIFY2(addTester(*log, files).error().text.find("holds what is not a file of 0 to 110 HRC") !=
                     std::string::npos,
                 addTester(*log, files).error().text.c_str());
        files.files = {40, 50, 60};
        QVERIFY(addTester(*log, files).ok());
        QVERIFY(log->check()->empty());
        // What comes by another way is told by the check: too large, and no number. The rest of it is read.
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(),
                                     "PRAGMA ignore_check_constraints=ON;;UPDATE blade SET thickness_mm=24000 "
                                     "WHERE mark='A-1';;UPDATE purpose SET window_low='soft';;"
                                     "UPDATE tester SET files='40 1.0e+300' WHERE kind='files'"),
                 QString());
        QVERIFY(log.reopen().ok());
        const std::vector<Tester> testers = log->shop()->testers;
        QCOMPARE(testers.size(), std::size_t(2));
        QVERIFY(testers.back().files.empty());
        const QString said = QString::fromStdString(fmt::format("{}", fmt::join(log->check().value(), "\n")));
        QVERIFY2(said.contains("of blade: a thickness of 24000 mm lies outside"), qPrintable(said));
        QVERIFY2(said.contains("of purpose: window_low is 'soft', no number"), qPrintable(said));
        QVERIFY2(said.contains("of tester: '40 1.0e+300' holds what is not a file"), qPrintable(said));
    }

    // 2. Rows that join what belongs to different batches, texts where a number belongs, counts without end: the check
    // names them, and the batch is read with what is sound of it.
    void rowsThatBelongNowhere() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string run = aHeat(log, batch);
        QVERIFY(markHeat(*log, run, batch.blades[0].id, 1, HeatMoment::in, 0).ok());
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
        BatchDraft draft;
        draft.name = "Another";
        draft.window = {60, 62};
        draft.blades = {{"Z-1", {}, ""}};
        const std::string other = addBatch(*log, draft).value();
        log.close();
        QCOMPARE(TempLogbook::meddle(
                     log.path(),
                     "DROP TRIGGER hardening_round_no_update;;DROP TRIGGER heat_mark_no_update;;DROP TRIGGER "
                     "reading_no_update;;UPDATE heat_mark SET blade=(SELECT "
                     "id FROM blade WHERE mark='Z-1');;PRAGMA ignore_check_constraints=ON;;UPDATE hardening_round SET "
                     "number=2000000000 WHERE blade=(SELECT id FROM blade WHERE mark='A-2');;UPDATE reading SET "
                     "value='hard', round='x'"),
                 QString());
        QVERIFY(log.reopen(Logbook::Access::read).ok());
        const QString said = QString::fromStdString(fmt::format("{}", fmt::join(log->check().value(), "\n")));
        QVERIFY2(said.contains("joins blade Z-1 with another batch"), qPrintable(said));
        QVERIFY2(said.contains("value is 'hard', no number"), qPrintable(said));
        QVERIFY2(said.contains("of hardening_round: a round of 2e+09"), qPrintable(said));
        for (const std::string& id : {batch.id, other}) {
            const auto read = log->batch(id);
            QVERIFY(read.ok());
            (void)judgeBatch(*read, fixtures::tables(), log->now());
        }
        QCOMPARE(log->batch(batch.id)->blades.size(), std::size_t(2));
    }
    // A blade made by mistake takes what is said of it out of sight, whatever that is; the batch can still be read.
    void aBladeMadeByMistakeWithMarksOfItsHeat() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string blade = batch.blades[1].id;
        QVERIFY(logWarp(*log, blade, 1, 0, {"A-2", 1.2, WarpSide::left}, "1.2L").ok());
        QVERIFY(logColour(*log, blade, {1, 0, "edge", "straw", OxideSurface::bare, false, {}}).ok());
        log.close();
        // As another tool, or a merge with another view of it, may leave it.
        QCOMPARE(TempLogbook::meddle(log.path(),
                                     QStringLiteral("INSERT INTO undone SELECT id, 'blade', 1, 1, 'HB', 1, 0 FROM "
                                                    "blade WHERE mark='A-2'")),
                 QString());
        QVERIFY(log.reopen(Logbook::Access::read).ok());
        const auto read = log->batch(batch.id);
        QVERIFY(read.ok());
        QCOMPARE(read->blades.size(), std::size_t(1));
    }

    // 5. A file in the record that is not what was put in is told by the check, and a trace of it is not judged.
    void aTraceThatWasAltered() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        TraceDraft trace;
        trace.run = aHeat(log, batch);
        trace.name = "oven.csv";
        trace.file = "time,temperature";
        trace.trace = Trace::of({{0, 800}, {60, 810}, {120, 812}}).value();
        QVERIFY(addTrace(*log, trace).ok());
        QVERIFY(log->check()->empty());
        QVERIFY(!log->batch(batch.id)->heat_runs.at(0).trace_damaged);
        QVERIFY(log->batch(batch.id)->heat_runs.at(0).trace != nullptr);
        log.close();
        // Raised: the last byte of each number's high end is what 40 degrees change; here all of it is put anew.
        QCOMPARE(TempLogbook::meddle(log.path(),
                                     "DROP TRIGGER attachment_blob_no_update;;UPDATE attachment_blob SET "
                                     "bytes=substr(bytes, 1, length(bytes) - 2) || x'8A40' WHERE sha256 IN (SELECT "
                                     "samples FROM trace_part);;CREATE TRIGGER attachment_blob_no_update BEFORE UPDATE "
                                     "ON attachment_blob BEGIN SELECT RAISE(ABORT, 'attachment_blob is append-only'); "
                                     "END"),
                 QString());
        QVERIFY(log.reopen().ok());
        QVERIFY(!log->readOnly());
        const auto problems = log->check().value();
        QCOMPARE(problems.size(), std::size_t(1));
        QVERIFY2(problems[0].find("oven.csv is not what was put in") != std::string::npos, problems[0].c_str());
        const HeatRun run = log->batch(batch.id)->heat_runs.at(0);
        QVERIFY(run.trace_damaged && run.trace == nullptr);
    }

    // 2. Before another logbook is taken in the file is kept as it was.
    void aMergeKeepsTheFileBeforeIt() {
        TempLogbook log;
        log.withBatch();
        TempLogbook other;
        other.passTime(5000);
        QVERIFY(addPerson(*other, "WS", "").ok());
        other.close();
        QVERIFY(mergeLogbook(*log, other.path(), true).ok());
        const auto copies = [&] { return QFileInfo(log.path()).dir().entryList({"*.before-merge-*"}, QDir::Files); };
        QVERIFY(copies().isEmpty());
        QVERIFY(mergeLogbook(*log, other.path(), false).ok());
        QCOMPARE(copies().size(), 1);
        const auto before =
            Logbook::open(QFileInfo(log.path()).dir().filePath(copies().front()), Logbook::Access::read);
        QVERIFY(before.ok());
        QVERIFY((*before)->shop()->people.empty());
        QCOMPARE(log->shop()->people.size(), std::size_t(1));
    }

    // 10. What a text can hold and the chain cannot: taken in as U+FFFD, and the chain holds.
    void textsThatCannotBeProved() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const QString half(QChar(0xD83D));
        const QString whole = QString::fromUtf8("\xF0\x9F\x94\xA5");
        const QString null(QChar(0));
        for (const QString& odd : {half, QString(QChar(0xFFFE)), QString(QChar(0xFFFF)), null, whole}) {
            QCOMPARE(storable("a" + odd + "b").toString(), "a" + (odd == whole ? odd : QString(QChar(0xFFFD))) + "b");
            const auto stored = log->transact("odd text", [&] {
                return log->database().insert("note", {{"id", q(log->newId())},
                                                       {"batch", q(batch.id)},
                                                       {"text", "x" + odd + "y"},
                                                       {"on_card", 0},
                                                       {"person", "HB"},
                                                       {"at_ms", 1},
                                                       {"at_offset", 0}});
            });
            QVERIFY2(stored.ok(), stored.ok() ? "" : stored.error().text.c_str());
        }
        QVERIFY(log.reopen().ok());
        QCOMPARE(log->check().value(), std::vector<std::string>());
    }

    // A check behind the window gives way to whoever waits, and finds the same.
    void theCheckGivesWay() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto many = log->inOneTransaction([&]() -> Result<Done> {
            for (int i = 0; i < 4000; ++i) {
                if (auto logged = logReading(*log, log.reading(batch, 0, 61 + i % 20 * 0.1)); !logged)
                    return logged.error();
            }
            return Done{};
        });
        QVERIFY(many.ok());
        log.close();
        QCOMPARE(TempLogbook::meddle(
                     log.path(), QStringLiteral("DROP TRIGGER reading_no_update;;UPDATE reading SET value=900 WHERE "
                                                "rowid=17;;UPDATE reading SET tester='nobody' WHERE rowid=3000")),
                 QString());
        QVERIFY(log.reopen(Logbook::Access::read).ok());
        const std::vector<std::string> problems = log->check().value();
        QVERIFY(problems.size() >= 3);
        int asked = 0;
        int left = 0;
        LogbookCheck check(*log, [&] {
            const bool wait = ++asked % 3 == 0 && left < 20; // somebody comes, twenty times
            left += wait ? 1 : 0;
            return wait;
        });
        for (;;) {
            const auto more = check.step();
            QVERIFY2(more.ok(), more.ok() ? "" : more.error().text.c_str());
            if (!*more) break;
        }
        QVERIFY2(left > 3, qPrintable(QString::number(left)));
        QCOMPARE(check.problems(), problems);
    }
};

QTEST_GUILESS_MAIN(tst_LogbookFile)
#include "tst_logbook_file.moc"
