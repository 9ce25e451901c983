// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/transfer/column_map.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/readings_csv.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <random>
#include <set>

using namespace rollcall;
using fixtures::tables;
using fixtures::TempLogbook;

class tst_ColumnMap : public QObject {
    Q_OBJECT

    static CsvText table(const QByteArray& text) { return tableOfFile(text).value(); }
    // What each column is guessed to be, with its unit: "blade|value:quench|".
    static QString guessed(const QByteArray& text) {
        QStringList words;
        for (const ColumnMap::Column& column : guessColumns(table(text), "pile").columns)
            words << QString::fromStdString(column.is + (column.unit.empty() ? "" : ":" + column.unit));
        return words.join('|');
    }
    static ReadingsCsv read(const QByteArray& text) {
        const CsvText csv = table(text);
        return readReadingsCsv(tables(), arranged(csv, guessColumns(csv, "pile"))).value();
    }

private slots:
    void whatHeadersMean_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("columns");
        QTest::newRow("german") << QByteArray("Klinge;Härte [HRC];Datum;Uhrzeit;Prüfgerät;Dicke [mm];Bemerkung;Charge\n"
                                              "K1;62,1;24.11.2026;08:12;Bank 1;2,4;;Hecke\n")
                                << "blade|value|date:d.m.y|time:y-m-d|tester|thickness_mm:mm|note|batch";
        QTest::newRow("french") << QByteArray("Lame,Dureté,Jour\nL1,62.1,11/24/2026\n") << "blade|value|date:m/d/y";
        QTest::newRow("readings side by side")
            << QByteArray("Knife,HRC 1,HRC 2,HRC 3\nA,61,62,61.5\n") << "blade|value|value|value";
        QTest::newRow("bare numbers over numbers") << QByteArray("mark,1,2\nA,61,62\n") << "blade|value|value";
        QTest::newRow("two gates side by side") << QByteArray("piece,as quenched,tempered 1,tempered 2,temper temp F\n"
                                                              "A,65,61,62,400\n")
                                                << "blade|value:quench|value:temper|value:temper|temperature_c:F";
        QTest::newRow("seconds that look like a hardness")
            << QByteArray("piece,quench time,HRC after quench\nA,25,65\n") << "blade||value:quench";
        QTest::newRow("no header that tells")
            << QByteArray("what,x1,colour\nA,61.5,red\nB,62,blue\n") << "blade|value|";
        QTest::newRow("numbers that are no hardness") << QByteArray("knife,price\nA,120\n") << "blade|";
        QTest::newRow("the same twice") << QByteArray("blade,blade,hrc\nA,B,61\n") << "blade||value";
        QTest::newRow("its own names") << QByteArray("value,gate,batch,blade,x_mm,y_mm,time\n61,temper,B,A,1,2,\n")
                                       << "value|gate|batch|blade|x_mm:mm|y_mm:mm|time:y-m-d";
    }
    void whatHeadersMean() {
        QFETCH(QByteArray, text);
        QFETCH(QString, columns);
        QCOMPARE(guessed(text), columns);
    }
    // Units behind bare numbers, dates as the column has them, gates in words, several readings of a line.
    void isReadAsReadings() {
        const ReadingsCsv read =
            tst_ColumnMap::read("Klinge;Zustand;HRC 1;HRC 2;Datum;Uhrzeit;Temp F;Dicke in;Farbe\r\n"
                                "K1;gehärtet;65,1;65,3;24.11.2026;08:12;;0,1;gelb\r\n"
                                "K1;angelassen;62,1;;25.11.26;2:05 pm;404,6;;\r\n"
                                "K2;angelassen;;;24.11.2026;08:12;;;\r\n"
                                "K3;geschliffen;61;;;;;;\r\n");
        QCOMPARE(read.lines.size(), std::size_t(3));
        QCOMPARE(read.lines[0].gate, Gate::quench);
        QCOMPARE(read.lines[1].value, 65.3);
        QCOMPARE(read.lines[1].line, 2); // both of one line of the file
        QCOMPARE(*read.lines[0].thickness_mm, 2.54);
        QCOMPARE(read.lines[0].note, std::string("Farbe: gelb"));
        QCOMPARE(read.lines[0].batch, std::string("pile"));
        QCOMPARE(read.lines[2].gate, Gate::temper);
        QVERIFY(std::abs(*read.lines[2].temperature_c - 207) < 1e-9);
        const QDateTime at(QDate(2026, 11, 25), QTime(14, 5));
        QCOMPARE(read.lines[2].time->utc_ms, at.toMSecsSinceEpoch());
        QCOMPARE(read.rejected.size(), std::size_t(2));
        QCOMPARE(read.rejected[0].line, 4);
        QCOMPARE(read.rejected[0].reason, std::string("value is empty"));
        QVERIFY(read.rejected[1].reason.find("gate 'geschliffen'") == 0);
    }
    void whatIsFixedHoldsWhereNoColumnSays() {
        const CsvText csv = table("knife,hrc,value\nA,61,note text\n");
        ColumnMap map;
        map.columns = {{"blade", ""}, {"value", ""}, {"", ""}};
        map.fixed = {{"batch", "Hedge 5"}, {"gate", "quench"}, {"scale", "HRC"}, {"blade", "ignored"}};
        const ReadingsCsv read = readReadingsCsv(tables(), arranged(csv, map)).value();
        QCOMPARE(read.lines.size(), std::size_t(1));
        QCOMPARE(read.lines[0].blade, std::string("A"));
        QCOMPARE(read.lines[0].batch, std::string("Hedge 5"));
        QCOMPARE(read.lines[0].gate, Gate::quench);
        QCOMPARE(read.lines[0].value, 61.0); // the column called "value" was said to be a note
        QCOMPARE(read.lines[0].note, std::string("value (as given): note text"));
        map.columns[2].is = leaveOut;
        QCOMPARE(readReadingsCsv(tables(), arranged(csv, map))->lines[0].note, std::string());
    }
    // Spreadsheets write these: UTF-16 with a mark, and Latin 1, which is no UTF-8.
    void otherEncodings() {
        const QString text = QStringLiteral("Härte;Stück\n62,1;K1\n");
        QByteArray utf16("\xFF\xFE");
        for (const QChar c : text) utf16.append(char(c.unicode() & 0xFF)).append(char(c.unicode() >> 8));
        for (const QByteArray& bytes : {text.toUtf8(), text.toLatin1(), utf16}) {
            const CsvText csv = table(bytes);
            QCOMPARE(csv.header, (std::vector<std::string>{"Härte", "Stück"}));
            QCOMPARE(csv.rows[0].fields[0], std::string("62,1"));
        }
    }
    // Whatever a table holds, each of its lines is a reading or is told of by its number; seeded.
    void noLineIsPassedOverInSilence() {
        const QList<QByteArray> words{"Klinge",   "HRC 1",   "HRC 2",      "Datum",   "Uhrzeit", "gate",
                                      "Charge",   "Temp F",  "62,1",       "61.8",    "naß",     "",
                                      "K1",       "\"a;b\"", "12.13.2026", "7:70 pm", "T",       "99999999",
                                      "gehärtet", "\"",      "-",          "x mm"};
        std::mt19937 random(8);
        const auto below = [&](qsizetype n) { return static_cast<qsizetype>(random() % static_cast<unsigned>(n)); };
        int judged = 0;
        for (int i = 0; i < 400; ++i) {
            QByteArray text;
            const qsizetype rows = 1 + below(8);
            const qsizetype columns = 1 + below(6);
            for (qsizetype r = 0; r <= rows; ++r) {
                for (qsizetype c = 0; c < columns + (below(9) == 0 ? 1 : 0); ++c)
                    text += (c > 0 ? ";" : "") + words[below(words.size())];
                text += below(2) == 0 ? "\n" : "\r\n";
            }
            const auto csv = tableOfFile(text);
            if (!csv) continue; // a quote that is never closed, or nothing at all
            const ColumnMap map = guessColumns(*csv, "pile");
            QCOMPARE(map.columns.size(), csv->header.size());
            const auto answer = readReadingsCsv(tables(), arranged(*csv, map));
            if (!answer) continue; // no blade or no reading among its columns: said as such
            const ReadingsCsv& read = *answer;
            std::set<int> told;
            for (const ReadingLine& line : read.lines) told.insert(line.line);
            for (const auto& bad : read.rejected) told.insert(bad.line);
            const bool all = std::all_of(csv->rows.begin(), csv->rows.end(),
                                         [&](const CsvRow& row) { return told.count(row.line) > 0; });
            QVERIFY2(all, text.constData());
            ++judged;
        }
        QVERIFY2(judged > 50, qPrintable(QString::number(judged)));
    }
    // A trial tells what would happen and leaves no trace; taking back strikes out, frees names, and can be followed by
    // the same import again.
    void triedTakenAndTakenBack() {
        TempLogbook log;
        const Batch old = log.withBatch();
        const auto before = log->counts().value();
        const QByteArray file("Charge;Klinge;HRC\nHecke;K1;62,1\nHecke;K2;61,9\nOrchard;A-1;62,4\nHecke;K3;nass\n");
        const ColumnMap map = guessColumns(table(file), "");
        const ImportReport trial = importReadings(*log, tables(), "pile.csv", file, map, true).value();
        QCOMPARE(trial.readings, 3);
        QCOMPARE(trial.blades, 2);
        QCOMPARE(trial.batches, 1);
        QCOMPARE(trial.rejected.at(0).line, 5);
        QVERIFY(trial.id.empty());
        QVERIFY(log->counts().value() == before);
        QVERIFY(log->check().value().empty());

        const ImportReport taken = importReadings(*log, tables(), "pile.csv", file, map).value();
        QCOMPARE(taken.readings, 3);
        QCOMPARE(lastImport(*log).value()->id, taken.id);
        QCOMPARE(lastImport(*log).value()->file, std::string("pile.csv"));
        QVERIFY(takeBackImport(*log, taken.id).ok());
        QVERIFY(log->check().value().empty());
        QVERIFY(!lastImport(*log).value());
        const Batch kept = log->batch(old.id).value();
        QCOMPARE(kept.blades[0].readings.size(), std::size_t(1)); // visible still
        QVERIFY(kept.blades[0].readings[0].struck.has_value());
        QVERIFY(!kept.blades[0].fate); // it was there before
        const auto batches = log->batches().value();
        QCOMPARE(batches.back().name, std::string("Hecke (taken back)"));
        QVERIFY(log->batch(batches.back().id)->blades[0].fate.has_value());
        QCOMPARE(takeBackImport(*log, taken.id).error().text, std::string("this import was taken back already"));

        const ImportReport again = importReadings(*log, tables(), "pile.csv", file, map).value();
        QCOMPARE(again.readings, 3);
        QCOMPARE(again.batches, 1);
        QVERIFY(takeBackImport(*log, again.id).ok());
        QCOMPARE(log->batches()->back().name, std::string("Hecke (taken back 2)"));
        QVERIFY(log->check().value().empty());
    }
    void notWhenMoreWasDoneWithIt() {
        TempLogbook log;
        log.withBatch();
        const QByteArray file("Klinge;HRC\nK1;62,1\n");
        const ImportReport taken =
            importReadings(*log, tables(), "pile.csv", file, guessColumns(table(file), "Hecke")).value();
        const Batch made = log->batch(log->batches()->back().id).value();
        QVERIFY(excuse(*log, made.blades[0].id, Gate::edge, "no edge yet").ok());
        const auto refused = takeBackImport(*log, taken.id);
        QVERIFY2(refused.error().text.find("blade excused") != std::string::npos, refused.error().text.c_str());
        QVERIFY(!log->batch(made.id)->blades[0].readings[0].struck);
        QVERIFY(!takeBackImport(*log, "no such import").ok());
    }
};

QTEST_GUILESS_MAIN(tst_ColumnMap)
#include "tst_column_map.moc"
