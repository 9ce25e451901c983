// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/database.h"
#include "logbook/transfer/salvage.h"
#include "tests/support/demo.h"
#include "tests/support/files.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <random>

using namespace rollcall;
using fixtures::TempLogbook;

// What is sound in a damaged logbook is saved, and the rest is named.
class tst_Salvage : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    QString at(const char* name) const { return m_dir.filePath(QString::fromLatin1(name)); }
    static QString all(const SalvageReport& report) {
        QStringList lines;
        for (const std::string& line : report.left) lines << QString::fromStdString(line);
        return lines.join('\n');
    }
    // A closed logbook with a batch and some readings on its first blade.
    static void readings(TempLogbook& log, int count) {
        const Batch batch = log.withBatch();
        for (int i = 0; i < count; ++i) QVERIFY(logReading(*log, log.reading(batch, 0, 61.0 + 0.1 * i)).ok());
    }
    static std::vector<double> valuesIn(const QString& path) {
        auto opened = Logbook::open(path, Logbook::Access::read);
        if (!opened) return {};
        const Batch batch = (*opened)->batch((*opened)->batches()->front().id).value();
        std::vector<double> values;
        for (const Reading& reading : batch.blades.front().readings) values.push_back(reading.value);
        std::sort(values.begin(), values.end());
        return values;
    }
    // Alters rows behind the back of the guards, as a tool for databases may.
    static void meddle(const QString& path, const QString& sql) {
        QString guards;
        for (const char* table : {"reading", "change", "blade"}) {
            for (const char* what : {"update", "delete"})
                guards +=
                    QStringLiteral("DROP TRIGGER IF EXISTS %1_no_%2;;").arg(QLatin1String(table), QLatin1String(what));
        }
        QCOMPARE(TempLogbook::meddle(path, "PRAGMA foreign_keys=OFF;;" + guards + sql), QString());
    }

private slots:
    void cleanup() {
        for (const QString& name : QDir(m_dir.path()).entryList(QDir::Files | QDir::Hidden))
            QFile::remove(m_dir.filePath(name));
    }

    // Of a sound one all is saved, nothing is left, and the new one passes its check.
    void aSoundOne() {
        const QString demo = at("demo.rollcall");
        fixtures::putDemo(demo);
        const QByteArray before = fixtures::content(demo);
        const auto report = salvage(demo, at("saved.rollcall"), LogbookSeams::real());
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        QVERIFY2(report->left.empty(), qPrintable(all(*report)));
        QCOMPARE(report->from_log, 0);
        QCOMPARE(report->unproved, 0);
        QCOMPARE(fixtures::content(demo), before);
        auto was = Logbook::open(demo, Logbook::Access::read);
        auto is = Logbook::open(at("saved.rollcall"), Logbook::Access::read);
        QVERIFY(was.ok() && is.ok());
        QCOMPARE(report->last_entry, (*was)->head().value());
        QVERIFY((*is)->check()->empty());
        auto rows = (*was)->counts().value();
        for (const auto& [table, count] : (*is)->counts().value()) {
            if (table != "change") QCOMPARE(count, rows.at(table));
        }
        // A photo comes along, byte by byte.
        const auto photos = (*was)->database().select("SELECT sha256 FROM attachment_blob");
        QVERIFY(!photos->empty());
        for (const Row& row : *photos) QCOMPARE((*is)->fileOf(s(row[0])).value(), (*was)->fileOf(s(row[0])).value());
    }

    // A row that was altered or is gone is saved as it was logged, and both are told.
    void whatWasLoggedCounts() {
        TempLogbook log;
        readings(log, 4);
        log.close();
        meddle(log.path(), "UPDATE reading SET value=70 WHERE value=61.0;;DELETE FROM reading WHERE value=61.2");
        const auto report = salvage(log.path(), at("saved.rollcall"), log.seams());
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        QCOMPARE(report->from_log, 2);
        QVERIFY2(all(*report).contains("saved as it was logged, not as it stands"), qPrintable(all(*report)));
        QVERIFY2(all(*report).contains("gone from its table"), qPrintable(all(*report)));
        QCOMPARE(valuesIn(at("saved.rollcall")), (std::vector<double>{61.0, 61.1, 61.2, 61.3}));
    }

    // Where the entry is altered it is not believed, and the row stands for itself.
    void anAlteredEntry() {
        TempLogbook log;
        readings(log, 3);
        const std::string head = log->head().value();
        log.close();
        meddle(log.path(), "UPDATE change SET payload=replace(payload, '61.1', '66.6') WHERE payload LIKE '%61.1%'");
        const auto report = salvage(log.path(), at("saved.rollcall"), log.seams());
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        QCOMPARE(report->unproved, 1);
        QVERIFY2(all(*report).contains("was altered and is not believed"), qPrintable(all(*report)));
        QCOMPARE(valuesIn(at("saved.rollcall")), (std::vector<double>{61.0, 61.1, 61.2}));
        QVERIFY(report->last_entry != head); // the chain holds up to the entry before
    }

    // What belongs to a blade of which nothing is left has no place.
    void whatBelongsToNothing() {
        TempLogbook log;
        readings(log, 2);
        log.close();
        meddle(log.path(),
               "DELETE FROM blade WHERE mark='A-1';;UPDATE change SET payload=replace(payload, 'A-1', 'X')");
        const auto report = salvage(log.path(), at("saved.rollcall"), log.seams());
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        QVERIFY2(all(*report).contains("what it belongs to is not there"), qPrintable(all(*report)));
        auto saved = Logbook::open(at("saved.rollcall"), Logbook::Access::read);
        QVERIFY((*saved)->check()->empty());
        QCOMPARE((*saved)->batch((*saved)->batches()->front().id)->blades.size(), std::size_t(1));
    }

    // A page of readings that cannot be read any more: they are in the change log as well.
    void aLostPage() {
        TempLogbook log;
        readings(log, 120);
        log.close();
        const int before = static_cast<int>(valuesIn(log.path()).size());
        QCOMPARE(before, 120);
        QByteArray bytes = fixtures::content(log.path());
        constexpr qsizetype page = 4096;
        // The pages on which readings lie, but for the root, are found by what a reading has and nothing else.
        int lost = 0;
        std::mt19937 chance(3);
        for (qsizetype at = page; at + page <= bytes.size() && lost < 3; at += page) {
            const QByteArray one = bytes.mid(at, page);
            const bool leaf = one[0] == 13;
            if (!leaf || one.contains("\"row\"") || one.count("cone") < 10) continue;
            std::fill_n(bytes.begin() + at, page, static_cast<char>(chance() % 256));
            ++lost;
        }
        QVERIFY(lost > 0);
        fixtures::put(at("damaged.rollcall"), bytes);
        const auto report = salvage(at("damaged.rollcall"), at("saved.rollcall"), log.seams());
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        QVERIFY2(all(*report).contains("reading: part of it cannot be read"), qPrintable(all(*report)));
        QCOMPARE(valuesIn(at("saved.rollcall")).size(), std::size_t(120));
        auto saved = Logbook::open(at("saved.rollcall"), Logbook::Access::read);
        QVERIFY((*saved)->check()->empty());
    }

    // What is none, or of which nothing is left, is told; a name that is taken stays as it is.
    void whatCannotBeSaved() {
        QCOMPARE(salvage(at("none"), at("saved"), LogbookSeams::real()).error().kind, ErrorKind::input);
        fixtures::put(at("text"), "no logbook");
        const auto text = salvage(at("text"), at("saved"), LogbookSeams::real());
        QCOMPARE(text.error().kind, ErrorKind::damaged);
        QVERIFY(!QFile::exists(at("saved")));
        TempLogbook log;
        readings(log, 1);
        log.close();
        fixtures::put(at("taken"), "mine");
        QCOMPARE(salvage(log.path(), at("taken"), log.seams()).error().kind, ErrorKind::exists);
        QCOMPARE(fixtures::content(at("taken")), QByteArray("mine"));
    }
};

QTEST_GUILESS_MAIN(tst_Salvage)
#include "tst_salvage.moc"
