// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <QCryptographicHash>

using namespace rollcall;
using fixtures::TempLogbook;

// The change log must show what someone did to the file with another tool.
class tst_ChangeLog : public QObject {
    Q_OBJECT

    // A logbook with a reading, meddled with while closed; what check() then says.
    static std::vector<std::string> problemsAfter(const QString& sql) {
        TempLogbook log;
        const Batch batch = log.withBatch();
        for (const double value : {62.1, 61.8}) {
            if (!logReading(*log, log.reading(batch, 0, value)).ok()) return {"setup failed"};
        }
        log.close();
        const QString error = TempLogbook::meddle(log.path(), sql);
        if (!error.isEmpty()) return {"meddling failed: " + error.toStdString()};
        if (!log.reopen(Logbook::Access::read).ok()) return {"not opened"};
        return log->check().value();
    }
    static bool names(const std::vector<std::string>& problems, const char* what) {
        return std::any_of(problems.begin(), problems.end(),
                           [&](const std::string& p) { return p.find(what) != std::string::npos; });
    }

private slots:
    void anUntouchedLogbookIsSound() { QVERIFY(problemsAfter("SELECT 1").empty()); }

    void anAlteredReadingIsFound() {
        const auto problems =
            problemsAfter("DROP TRIGGER reading_no_update;;UPDATE reading SET value=65 WHERE value=62.1");
        QCOMPARE(problems.size(), std::size_t(1));
        QVERIFY(names(problems, "value is not what the change log says"));
    }
    void aRemovedReadingIsFound() {
        QVERIFY(names(problemsAfter("DROP TRIGGER reading_no_delete;;DELETE FROM reading WHERE value=62.1"),
                      "in the change log but missing"));
    }
    void anInventedReadingIsFound() {
        QVERIFY(names(problemsAfter("INSERT INTO reading (id, blade, verification, gate, round, after_cycle, scale, "
                                    "value, as_entered, resolution, "
                                    "at_ms, at_offset, tester, indenter, anvil, identity, note, person) SELECT "
                                    "'forged', blade, verification, gate, "
                                    "round, after_cycle, scale, 62, '62', resolution, at_ms, at_offset, tester, "
                                    "indenter, anvil, identity, note, "
                                    "person FROM reading LIMIT 1"),
                      "forged is not in the change log"));
    }
    void anAlteredWindowIsFound() {
        QVERIFY(names(problemsAfter("UPDATE purpose SET window_low=58"), "window_low is not what"));
    }
    void anAlteredEntryIsFound() {
        const auto problems = problemsAfter("DROP TRIGGER change_no_update;;UPDATE change SET payload=replace(payload, "
                                            "'62.1', '62.9') WHERE action='reading logged'");
        QVERIFY(names(problems, "was altered"));
    }
    void aRemovedEntryIsFound() {
        const auto problems = problemsAfter("DROP TRIGGER change_no_delete;;DELETE FROM change WHERE seq=3");
        QVERIFY(names(problems, "entry 3 is missing"));
        QVERIFY(names(problems, "does not follow the one before"));
    }

    // The chain, computed here by hand from the stored columns.
    void theHashCoversTheEntryAndTheOneBefore() {
        TempLogbook log;
        log.withBatch();
        log.close();
        QSqlDatabase db = QSqlDatabase::addDatabase("QSQLITE", "reader");
        db.setDatabaseName(log.path());
        QVERIFY(db.open());
        {
            QSqlQuery query(
                "SELECT previous, seq, at_ms, at_offset, person, action, payload, hash FROM change ORDER BY seq", db);
            QString previous(64, '0');
            int rows = 0;
            while (query.next()) {
                QByteArray text;
                for (int i = 0; i < 7; ++i) text += query.value(i).toString().toUtf8() + '\n';
                QCOMPARE(query.value(0).toString(), previous);
                previous = QString::fromLatin1(QCryptographicHash::hash(text, QCryptographicHash::Sha256).toHex());
                QCOMPARE(query.value(7).toString(), previous);
                ++rows;
            }
            QCOMPARE(rows, 3);
        }
        db.close();
        db = QSqlDatabase();
        QSqlDatabase::removeDatabase("reader");
    }
};

QTEST_GUILESS_MAIN(tst_ChangeLog)
#include "tst_change_log.moc"
