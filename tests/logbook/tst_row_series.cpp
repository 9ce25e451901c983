// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/rows.h"
#include "logbook/actions/undo.h"
#include "logbook/change_log.h"
#include "logbook/kinds.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/merge.h"
#include "logbook/transfer/package.h"
#include "logbook/transfer/readings_csv.h"
#include "logbook/transfer/salvage.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <QCryptographicHash>
#include <QJsonDocument>

using namespace rollcall;
using fixtures::tables;
using fixtures::TempLogbook;

// The rows of an import are told of by digests: they must prove as much as rows that are told of one by one.
class tst_RowSeries : public QObject {
    Q_OBJECT

    // Ten blades in two batches, tempered twice, on a tester and a block that are new.
    static QByteArray file(int readings, const char* batch = "Hedge") {
        QByteArray csv = "batch,blade,gate,value,time,tester,cycle,temperature_c,hours,grade,certified\n"
                         ",62.6,block,62.7,2026-11-24T08:00:00Z,Bench 7,,,,,62.6\n";
        for (int i = 0; i < readings; ++i)
            csv += QStringLiteral("%1 %2,B%3,%4,%5,2026-11-24T%6:%7:%8Z,Bench 7,%9\n")
                       .arg(QLatin1String(batch))
                       .arg(i % 2)
                       .arg(i % 10)
                       .arg(QLatin1String(i % 4 == 0 ? "quench" : "temper"))
                       .arg(58 + i % 70 / 10.0)
                       .arg(9 + i / 3600, 2, 10, QLatin1Char('0'))
                       .arg(i / 60 % 60, 2, 10, QLatin1Char('0'))
                       .arg(i % 60, 2, 10, QLatin1Char('0'))
                       .arg(QLatin1String(i % 4 == 0 ? ",,,115CrV3," : "2,205,2,115CrV3,"))
                       .toUtf8();
        return csv;
    }
    static ImportReport import(Logbook& logbook, const QByteArray& csv) {
        return importReadings(logbook, tables(), "readings.csv", csv).value();
    }
    static QJsonArray lastPayload(Logbook& logbook) {
        const auto entries = changesOf(logbook.database()).value();
        return QJsonDocument::fromJson(entries.back().payload.toUtf8()).array();
    }
    static std::string all(const std::vector<std::string>& sentences) {
        std::string text;
        for (const std::string& one : sentences) text += one + "\n";
        return text;
    }
    static std::string checked(TempLogbook& log, const QString& sql) {
        log.close();
        const QString error = TempLogbook::meddle(log.path(), sql);
        if (!error.isEmpty()) return "meddling failed: " + error.toStdString();
        if (!log.reopen(Logbook::Access::read).ok()) return "not opened";
        return all(log->check().value());
    }
    static Blade bladeOf(Logbook& logbook, const char* mark, std::size_t batch = 0) {
        const Batch whole = logbook.batch(logbook.batches().value().at(batch).id).value();
        for (const Blade& blade : whole.blades) {
            if (blade.mark == mark) return blade;
        }
        return {};
    }

private slots:
    // Worked out by hand: the writing of a row is "t" and its length before a text, "i" before a whole number, in
    // whichever column it stands, "d" before another, "n" for nothing.
    void theDigestIsOverTheseBytes() {
        TempLogbook log;
        Database& database = log->database();
        {
            Database::Series series(database, "p");
            QVERIFY(database.insert("oven", {{"id", series.nextId()}, {"name", "Kiln"}, {"step_c", 5.0}}).ok());
            QVERIFY(database.insert("oven", {{"id", series.nextId()}, {"name", "Töpfer"}, {"step_c", 2.5}}).ok());
            QVERIFY(series.end().ok());
        }
        const QJsonObject note = database.takeNotes().at(0).toObject();
        QCOMPARE(note["rows"].toInt(), 2);
        QStringList columns;
        for (const QJsonValue column : note["columns"].toArray()) columns << column.toString();
        QCOMPARE(columns.mid(0, 3), QStringList({"id", "name", "step_c"}));
        const QByteArray rest(columns.size() - 3, 'n');
        const QByteArray bytes = "t8;p-000001t4;Kilni5;" + rest + "\nt8;p-000002t7;T\xC3\xB6pferd2.5;" + rest + "\n";
        QCOMPARE(note["digests"].toArray().at(0).toString(),
                 QString::fromLatin1(QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex()));
        QCOMPARE(note["digests"].toArray().size(), qsizetype(1));
    }

    // The entry names the file's hash and what was taken, has no reading in it, and is small.
    // A row made elsewhere is one of a series, or the change log would not tell of it.
    void aRowOutsideASeriesIsRefused() {
        TempLogbook log;
        const Fields fields{{"id", ""}, {"initials", "QX"}, {"name", "nobody"}};
        const ReadyRow row = ReadyRow::of(shapeOf("person", fields), fields).value();
        QVERIFY(!log->database().insertInSeries(row));
        QCOMPARE(log->database().single("SELECT COUNT(*) FROM person WHERE initials='QX'").value().toInt(), 0);
        // What its column does not take is refused before there is a row.
        const Fields far{{"id", ""}, {"value", 63000000.0}};
        QVERIFY(!ReadyRow::of(shapeOf("reading", far), far));
    }

    void anImportIsOneEntry() {
        TempLogbook log;
        const QByteArray csv = file(2500);
        const ImportReport report = import(*log, csv);
        QCOMPARE(report.readings, 2501);
        QCOMPARE(log->counts().value()["change"], 1);
        const QJsonArray payload = lastPayload(*log);
        const QByteArray text = QJsonDocument(payload).toJson(QJsonDocument::Compact);
        QVERIFY(text.contains(QCryptographicHash::hash(csv, QCryptographicHash::Sha256).toHex()));
        QVERIFY(text.contains("\"taken\":2501"));
        QVERIFY2(text.size() < 10000, qPrintable(QString::number(text.size())));
        int digests = 0;
        for (const QJsonValue note : payload) {
            QVERIFY(!note["row"].toObject().contains("value"));
            if (note["table"].toString() == "reading") digests = static_cast<int>(note["digests"].toArray().size());
        }
        QCOMPARE(digests, 3); // each thousand
        QVERIFY(log->check().value().empty());
        QVERIFY(log.reopen().ok());
        QVERIFY(!log->readOnly());
    }

    // Every table that an import fills, a field altered, a row taken away, one put in: the check names the table.
    void whatWasDoneToItsRowsIsFound_data() {
        QTest::addColumn<QString>("sql");
        QTest::addColumn<QString>("told");
        const auto altered = [](const char* table, const char* column, const char* value) {
            QTest::newRow(qPrintable(QStringLiteral("%1.%2").arg(table, column)))
                << QStringLiteral(
                       "DROP TRIGGER IF EXISTS %1_no_update;;UPDATE %1 SET %2=%3 WHERE rowid=(SELECT MAX(rowid) "
                       "FROM %1)")
                       .arg(table, column, value)
                << QStringLiteral("%1 ").arg(table);
        };
        altered("reading", "value", "value+1");
        altered("reading", "as_entered", "'70'");
        altered("reading", "at_ms", "at_ms+1");
        altered("reading", "note", "'by lamp'");
        altered("blade", "mark", "'other'");
        altered("batch", "name", "'other'");
        altered("purpose", "window_low", "58");
        altered("gate_plan", "planned", "planned+1");
        altered("cycle", "temperature_c", "180");
        altered("cycle_blade", "number", "7");
        altered("hardening_round", "number", "2");
        altered("tester", "resolution", "1");
        altered("block", "certified", "60");
        altered("verification", "person", "'XY'");
        QTest::newRow("a reading is gone") << "DROP TRIGGER reading_no_delete;;DELETE FROM reading WHERE rowid=1200"
                                           << "reading ";
        QTest::newRow("the last reading is gone")
            << "DROP TRIGGER reading_no_delete;;DELETE FROM reading WHERE rowid=(SELECT MAX(rowid) FROM reading)"
            << "reading ";
        QTest::newRow("a reading more")
            << "INSERT INTO reading SELECT import || '-zzzzzz', blade, verification, gate, round, "
               "after_cycle, scale, value, as_entered, resolution, at_ms, at_offset, tester, "
               "indenter, anvil, x_mm, y_mm, convex_radius_mm, series, import, identity, note, "
               "person FROM reading LIMIT 1"
            << "reading ";
        QTest::newRow("a reading of no import")
            << "INSERT INTO reading SELECT 'forged', blade, verification, gate, round, "
               "after_cycle, scale, value, as_entered, resolution, at_ms, at_offset, "
               "tester, indenter, anvil, x_mm, y_mm, convex_radius_mm, series, import, "
               "identity, note, person FROM reading LIMIT 1"
            << "reading forged is not in the change log";
        QTest::newRow("nothing was done") << "SELECT 1"
                                          << "";
    }
    void whatWasDoneToItsRowsIsFound() {
        QFETCH(QString, sql);
        QFETCH(QString, told);
        TempLogbook log;
        import(*log, file(1500));
        const std::string problems = checked(log, sql);
        QCOMPARE(problems.empty(), told.isEmpty());
        QVERIFY2(QString::fromStdString(problems).contains(told), problems.c_str());
    }

    // A small import is looked at when the logbook is opened: it is not written to then.
    void aSmallOneIsLookedAtAtOpening() {
        TempLogbook log;
        import(*log, file(40));
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(),
                                     "DROP TRIGGER reading_no_update;;UPDATE reading SET value=70 WHERE value=58.5;;"
                                     "CREATE TRIGGER reading_no_update BEFORE UPDATE ON reading BEGIN SELECT "
                                     "RAISE(ABORT, 'reading is append-only'); END"),
                 QString());
        QVERIFY(log.reopen().ok());
        QVERIFY(log->readOnly());
        QVERIFY2(log->readOnlyReason().find("reading ") != std::string::npos, log->readOnlyReason().c_str());
    }

    // What is changed later by acts is proved by their entries: as it was before for the digest, as it is now for them.
    void whatIsChangedLaterIsProvedToo() {
        TempLogbook log;
        import(*log, file(60));
        const Blade blade = bladeOf(*log, "B1", 1);
        QVERIFY(renameBlade(*log, blade.id, "HB-1").ok());
        QVERIFY(renameBlade(*log, blade.id, "HB-2").ok());
        QVERIFY(changeLimits(*log, log->batches()->at(0).id, {60, 62}, "60:62", 64.0).ok());
        QCOMPARE(all(log->check().value()), std::string());
        const std::string problems = checked(log, "UPDATE blade SET mark='HB-3' WHERE mark='HB-2'");
        QVERIFY2(problems.find("mark is not what the change log says") != std::string::npos, problems.c_str());
    }
    // And taken back by it: the entry itself says what stood there.
    void aChangeOfOneIsUndone() {
        TempLogbook log;
        import(*log, file(60));
        const Blade blade = bladeOf(*log, "B1", 1);
        QVERIFY(renameBlade(*log, blade.id, "HB-1").ok());
        const auto last = lastAct(*log).value();
        QVERIFY(last.has_value());
        QVERIFY(undo(*log, last->entry).ok());
        QCOMPARE(bladeOf(*log, "B1", 1).id, blade.id);
        QCOMPARE(all(log->check().value()), std::string());
    }

    // Two benches share an import; what one of them changed comes over, what both changed is told.
    void theyAreMergedAsWhatWasChangedSince() {
        TempLogbook log;
        import(*log, file(60));
        const Blade one = bladeOf(*log, "B1", 1);
        const Blade two = bladeOf(*log, "B3", 1);
        log.close();
        const QString other = log.path() + "-north.rollcall";
        QVERIFY(QFile::copy(log.path(), other));
        {
            const auto north = Logbook::open(other, Logbook::Access::write).value();
            QVERIFY(renameBlade(*north, one.id, "north").ok());
            QVERIFY(renameBlade(*north, two.id, "north too").ok());
            import(*north, file(30, "Coppice"));
        }
        QVERIFY(log.reopen().ok());
        QVERIFY(renameBlade(*log, two.id, "here").ok());
        const MergeReport report = mergeLogbook(*log, other, false).value();
        QCOMPARE(report.changed, 1);
        QCOMPARE(report.conflicts.size(), std::size_t(1));
        QVERIFY2(report.conflicts[0].find("here here, there north too") != std::string::npos,
                 report.conflicts[0].c_str());
        QCOMPARE(bladeOf(*log, "north", 1).id, one.id);
        QCOMPARE(bladeOf(*log, "here", 1).id, two.id);
        QCOMPARE(log->batches()->size(), std::size_t(4));
        QCOMPARE(all(log->check().value()), std::string());
    }

    // A package of it makes a logbook that passes its check, and is refused where a row of it was altered.
    void aPackageProvesThemToo() {
        TempLogbook log;
        import(*log, file(1200));
        const QString folder = log.path() + "-package";
        log.close();
        QVERIFY(exportPackage(log.path(), folder).ok());
        QVERIFY(importPackage(log.path() + "-back.rollcall", folder).ok());
        auto back = Logbook::open(log.path() + "-back.rollcall", Logbook::Access::read).value();
        QCOMPARE(all(back->check().value()), std::string());
        QCOMPARE(back->counts().value()["reading"], 1201);
    }

    // One that is there is not taken again, also where an earlier Rollcall kept what it is known by in full.
    void whatAnEarlierRollcallTookIsKnown() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const QByteArray csv = "batch,blade,gate,value\nOrchard,A-1,quench,62.5\nOrchard,A-1,quench,62.5\n";
        const auto lines = readReadingsCsv(tables(), tableOfFile(csv).value()).value();
        const auto put = log->transact("readings imported", [&]() -> Result<Done> {
            Tester tester;
            tester.id = log.tester();
            for (const ReadingLine& line : lines.lines) {
                ReadingDraft draft = log.reading(batch, 0, line.value, 0);
                draft.gate = Gate::quench;
                auto done = insertReading(*log, log->newId(), draft, tester, {}, {}, {}, line.identity());
                if (!done) return done;
            }
            return Done{};
        });
        QVERIFY(put.ok());
        const auto again = importReadings(*log, tables(), "r.csv", csv + "Orchard,A-1,quench,62.5\n");
        QVERIFY(again.ok());
        QCOMPARE(again->already_there, 2);
        QCOMPARE(again->readings, 1);
    }

    // Taken back whole; refused once another import added to a blade that it brought.
    void anImportIsTakenBack() {
        TempLogbook log;
        const std::string first = import(*log, file(60)).id;
        const std::string more = import(*log, "batch,blade,gate,value\nHedge 1,B1,temper,61.0\n").id;
        const auto refused = takeBackImport(*log, first);
        QVERIFY(!refused.ok());
        QVERIFY2(refused.error().text.find("more was done with what it brought") != std::string::npos,
                 refused.error().text.c_str());
        QVERIFY(takeBackImport(*log, more).ok());
        QCOMPARE(lastImport(*log)->value().file, std::string("readings.csv"));
        QCOMPARE(all(log->check().value()), std::string());
        QCOMPARE(import(*log, "batch,blade,gate,value\nHedge 1,B1,temper,61.0\n").readings, 1);
    }

    // Of a damaged logbook what its digests prove is saved as proved; where they do not, it is said.
    void whatIsSavedOfThemIsProved() {
        for (const bool damaged : {false, true}) {
            TempLogbook log;
            import(*log, file(1500));
            log.close();
            if (damaged)
                QCOMPARE(TempLogbook::meddle(log.path(),
                                             "DROP TRIGGER reading_no_update;;UPDATE reading SET value=70 WHERE "
                                             "rowid=1400"),
                         QString());
            const auto report = salvage(log.path(), log.path() + "-saved.rollcall", log.seams());
            QVERIFY(report.ok());
            QCOMPARE(report->unproved, 0);
            QCOMPARE(report->rows.at("reading"), 1501);
            QCOMPARE(all(report->left)
                             .find("of the rows 1001 to 1501 of this import one at least is not what the change "
                                   "log says") != std::string::npos,
                     damaged);
        }
    }
};

QTEST_GUILESS_MAIN(tst_RowSeries)
#include "tst_row_series.moc"
