// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "logbook/database.h"
#include "logbook/transfer/merge.h"
#include "logbook/transfer/package.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <random>

using namespace rollcall;
using fixtures::tables;
using fixtures::TempLogbook;

class tst_Merge : public QObject {
    Q_OBJECT

    // Another bench, with a clock and identities of its own.
    static std::unique_ptr<Logbook> open(const QString& path, const char* prefix, std::int64_t clock) {
        auto ids = std::make_shared<int>(0);
        auto now = std::make_shared<std::int64_t>(clock);
        const LogbookSeams seams{[now] {
                                     return Instant{*now += 1000, 60};
                                 },
                                 [ids, prefix] { return prefix + std::to_string(++*ids); }};
        return QFile::exists(path) ? Logbook::open(path, Logbook::Access::write, seams).value()
                                   : Logbook::create(path, seams).value();
    }
    static std::string all(const std::vector<std::string>& sentences) {
        std::string text;
        for (const std::string& one : sentences) text += one + "\n";
        return text;
    }
    static QString q(const std::string& text) { return QString::fromStdString(text); }
    static QByteArray bytes(const QString& path) {
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
    }

private slots:
    // One logbook was copied to a second bench; both went on. What one alone did comes in, what both changed is told,
    // and a second time there is nothing left to take.
    void twoBenchesOfOneLogbook() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log->setPerson("HB");
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
        log.close();
        const QString other = log.path() + "-north.rollcall";
        QVERIFY(QFile::copy(log.path(), other));
        {
            const auto north = open(other, "north-", 1795600000000);
            north->setPerson("MK");
            QVERIFY(logReading(*north, log.reading(batch, 1, 61.4)).ok());
            QVERIFY(renameBlade(*north, batch.blades[1].id, "A-2b").ok());
            QVERIFY(changeLimits(*north, batch.id, {60, 62}, "60:62", std::nullopt).ok());
            QVERIFY(logTemper(*north, {batch.id, {batch.blades[0].id}, 205, 2, "205 2", fixtures::at(9)}).ok());
            QVERIFY(takeOut(*north, batch.blades[0].id, Fate::cracked, Gate::quench, "it rang").ok());
        }
        QVERIFY(log.reopen().ok());
        log->setPerson("HB");
        QVERIFY(changeLimits(*log, batch.id, {61, 64}, "61:64", std::nullopt).ok());
        QVERIFY(renameBlade(*log, batch.blades[0].id, "A-1x").ok());
        QVERIFY(logTemper(*log, {batch.id, {batch.blades[0].id}, 207, 2, "207 2", fixtures::at(9)}).ok());
        QVERIFY(takeOut(*log, batch.blades[0].id, Fate::scrapped, Gate::temper, "bent").ok());

        const auto before = log->counts().value();
        const MergeReport trial = mergeLogbook(*log, other, true).value();
        QVERIFY(log->counts().value() == before);
        const MergeReport report = mergeLogbook(*log, other, false).value();
        QVERIFY(trial.added == report.added && trial.conflicts == report.conflicts);
        QCOMPARE(report.added.at("reading"), 1);
        QCOMPARE(report.added.at("cycle"), 1);
        QCOMPARE(report.added.count("blade_fate"), std::size_t(0));
        QCOMPARE(report.changed, 1); // the mark that only the other bench changed
        const std::string told = all(report.conflicts);
        QVERIFY2(told.find("window low: here 61, there 60; what stands here stays") != std::string::npos, told.c_str());
        QVERIFY2(told.find("window high: here 64, there 62; what stands here stays") != std::string::npos,
                 told.c_str());
        QVERIFY2(told.find("blade fate of A-1x: both logbooks say something") != std::string::npos, told.c_str());
        QVERIFY2(told.find("A-1x: temper 1 is logged in both") != std::string::npos, told.c_str());
        const Batch merged = log->batch(batch.id).value();
        QCOMPARE(merged.blades[0].mark, std::string("A-1x"));
        QCOMPARE(merged.blades[1].mark, std::string("A-2b"));
        QCOMPARE(merged.blades[1].readings.at(0).person, std::string("MK"));
        QCOMPARE(merged.blades[0].fate->fate, Fate::scrapped);
        QCOMPARE(*merged.window.high, 64.0);
        QVERIFY2(log->check().value().empty(), all(log->check().value()).c_str());
        QVERIFY(mergeLogbook(*log, other, false)->nothing());
        // What the other bench's own log says, hash by hash, came with it.
        QCOMPARE(log->counts()->at("merge"), 1);
    }
    // Whatever two benches only add, it is the same record whichever of them takes the other in; seeded.
    void theSameBothWays() {
        for (unsigned seed = 1; seed <= 6; ++seed) {
            std::mt19937 random(seed);
            const auto below = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
            TempLogbook log;
            const Batch batch = log.withBatch();
            log.close();
            const std::vector<QString> paths{log.path() + "-a.rollcall", log.path() + "-b.rollcall"};
            for (std::size_t bench = 0; bench < 2; ++bench) {
                QVERIFY(QFile::copy(log.path(), paths[bench]));
                const auto book = open(paths[bench], bench == 0 ? "a-" : "b-", 1795600000000 + below(5000));
                for (int i = 0; i < 12; ++i) {
                    const auto blade = static_cast<std::size_t>(below(2));
                    switch (below(4)) {
                    case 0:
                        QVERIFY(
                            logTemper(*book, {batch.id, {batch.blades[blade].id}, 200.0 + below(20), 2, "", {}}).ok());
                        break;
                    case 1:
                        QVERIFY(
                            excuse(*book, batch.blades[blade].id, Gate::edge, "bench " + std::to_string(bench)).ok());
                        break;
                    default: {
                        const auto id = logReading(*book, log.reading(batch, blade, 60.0 + 0.1 * below(30)));
                        QVERIFY(id.ok());
                        if (below(4) == 0) QVERIFY(strikeReading(*book, *id, StrikeReason::seating, "").ok());
                    }
                    }
                }
            }
            // a takes b in; a copy of b takes a in.
            const QString other = paths[1] + "-too.rollcall";
            QVERIFY(QFile::copy(paths[1], other));
            const auto read = [&](const QString& into, const QString& from) {
                const auto book = open(into, "m-", 1795700000000);
                if (const auto merged = mergeLogbook(*book, from, false); !merged)
                    qFatal("%s", merged.error().text.c_str());
                if (!book->check()->empty()) qFatal("%s", book->check()->front().c_str());
                QStringList record;
                const Batch all = book->batch(batch.id).value();
                for (const Blade& blade : all.blades) {
                    for (const Reading& r : blade.readings)
                        record << QStringLiteral("%1 %2 %3").arg(q(r.id)).arg(r.value).arg(r.struck.has_value());
                    for (const Temper& c : blade.tempers) record << q(c.id) + QString::number(c.number);
                    for (const Excuse& e : blade.excuses) record << q(e.reason);
                }
                record.sort();
                return record;
            };
            const QStringList one = read(other, paths[0]);
            const QStringList two = read(paths[0], paths[1]);
            QVERIFY(one.size() > 20);
            QCOMPARE(one, two);
        }
    }
    // Two logbooks that never were one: testers of one name are two machines, grades and people are the same.
    void twoShops() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(addPerson(*log, "HB", "at the bench").ok());
        const QString path = log.path() + "-south.rollcall";
        {
            const auto south = open(path, "south-", 1795400000000);
            Tester tester;
            tester.name = "Bench 1";
            const std::string id = addTester(*south, tester).value();
            QVERIFY(addPerson(*south, "HB", "someone else").ok());
            BatchDraft draft;
            draft.name = "Orchard";
            draft.grade = "115CrV3";
            draft.plan[indexOf(Gate::temper)] = {true, 3};
            draft.blades = {{"A-1", {}, ""}};
            const Batch made = south->batch(addBatch(*south, draft).value()).value();
            ReadingDraft reading;
            reading.blade = made.blades[0].id;
            reading.after_temper = 1;
            reading.value = 60.2;
            reading.tester = id;
            QVERIFY(logReading(*south, reading).ok());
        }
        const MergeReport report = mergeLogbook(*log, path, false).value();
        const std::string renamed = all(report.renamed);
        QVERIFY2(renamed.find("tester Bench 1 of the other logbook is here as Bench 1 (shop.rollcall-south)") == 0,
                 renamed.c_str());
        QCOMPARE(report.renamed.size(), std::size_t(2)); // and the batch
        QCOMPARE(report.added.count("grade"), std::size_t(0));
        const auto batches = log->batches().value();
        QCOMPARE(batches.size(), std::size_t(2));
        QCOMPARE(batches[0].grade, batches[1].grade);
        const auto& theirs = batches[0].name == "Orchard" ? batches[1] : batches[0];
        QCOMPARE(theirs.name, std::string("Orchard (shop.rollcall-south)"));
        const Batch in = log->batch(theirs.id).value();
        QCOMPARE(in.tester(in.blades[0].readings[0].tester)->name, std::string("Bench 1 (shop.rollcall-south)"));
        QVERIFY2(log->check().value().empty(), all(log->check().value()).c_str());
        QVERIFY(mergeLogbook(*log, path, false)->nothing());
        QCOMPARE(log->batch(batch.id)->blades.size(), std::size_t(2));
    }
    void whatIsRefused() {
        TempLogbook log;
        log.withBatch();
        QCOMPARE(mergeLogbook(*log, log.path() + "-none", false).error().kind, ErrorKind::input);
        const QString path = log.path() + "-copy.rollcall";
        log.close();
        QVERIFY(QFile::copy(log.path(), path));
        QVERIFY(log.reopen().ok());
        QVERIFY(mergeLogbook(*log, path, false)->nothing()); // the same
        QCOMPARE(TempLogbook::meddle(path, "UPDATE tester SET name='Bench 9'"), QString());
        const auto refused = mergeLogbook(*log, path, false);
        QVERIFY2(refused.error().text.find("does not pass its own check") != std::string::npos,
                 refused.error().text.c_str());
        QVERIFY(log->check().value().empty());
    }
    // The demo without names: judged the same, sound, and nothing of what makers wrote is anywhere in the file.
    // What comes in with many rows is told of in several entries, two hundred rows each, so that no size of it has to
    // be in memory at once; it is in whole or not at all as before.
    void muchIsToldOfInSeveralEntries() {
        QTemporaryDir dir;
        const QString other = dir.filePath("demo.rollcall");
        QVERIFY(writeDemo(other, tables(), {1, fixtures::at(15), 1}).ok());
        const auto logbook = Logbook::create(dir.filePath("shop.rollcall")).value();
        QVERIFY(mergeLogbook(*logbook, other, true).ok()); // a trial leaves nothing
        QCOMPARE(logbook->counts()->at("reading"), 0);
        const auto report = mergeLogbook(*logbook, other, false);
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().text.c_str());
        int rows = 0;
        for (const auto& [table, count] : report->added) rows += count;
        const auto entries = logbook->database().select("SELECT action, payload FROM change").value();
        QCOMPARE(entries.size(), static_cast<std::size_t>(rows / 200 + 1));
        for (const Row& entry : entries) {
            QCOMPARE(entry[0].toString(), QStringLiteral("logbook taken in"));
            QVERIFY(entry[1].toString().count("\"table\":") <= 200);
        }
        QVERIFY2(logbook->check()->empty(), all(*logbook->check()).c_str());
        QVERIFY(mergeLogbook(*logbook, other, false)->nothing()); // all of it is here
    }

    void theDemoWithoutNames() {
        QTemporaryDir dir;
        const QString path = dir.filePath("demo.rollcall");
        const QString copy = dir.filePath("copy.rollcall");
        QVERIFY(writeDemo(path, tables(), {1, fixtures::at(15), 1}).ok());
        const auto demo = Logbook::open(path, Logbook::Access::read).value();
        const auto copied = copyWithoutNames(*demo, copy);
        QVERIFY2(copied.ok(), copied.ok() ? "" : copied.error().text.c_str());
        QCOMPARE(copyWithoutNames(*demo, copy).error().kind, ErrorKind::exists);
        const auto shared = Logbook::open(copy, Logbook::Access::read).value();
        QVERIFY2(shared->check()->empty(), all(*shared->check()).c_str());
        const auto ours = demo->batches().value();
        const auto theirs = shared->batches().value();
        const QByteArray whole = bytes(copy);
        QCOMPARE(theirs.size(), ours.size());
        for (std::size_t i = 0; i < ours.size(); ++i) {
            const Batch a = demo->batch(ours[i].id).value();
            const Batch b = shared->batch(theirs[i].id).value();
            QVERIFY(b.name.rfind("Batch ", 0) == 0);
            // No identity leads back: a copy is not to be laid beside the logbook, or beside another copy.
            QVERIFY(!whole.contains(a.id.c_str()));
            for (const Blade& blade : a.blades) {
                QVERIFY(!whole.contains(blade.id.c_str()));
                for (const Reading& reading : blade.readings) QVERIFY(!whole.contains(reading.id.c_str()));
            }
            const BatchVerdicts before = judgeBatch(a, tables(), fixtures::at(15));
            const BatchVerdicts after = judgeBatch(b, tables(), fixtures::at(15));
            for (std::size_t k = 0; k < a.blades.size(); ++k) {
                for (const Gate gate : allGates) {
                    const auto& was = before.at(k, gate);
                    const auto& is = after.at(k, gate);
                    QCOMPARE(is.has_value(), was.has_value());
                    if (was)
                        QVERIFY2(is->state == was->state,
                                 qPrintable(
                                     QString::fromStdString(a.name + " " + a.blades[k].mark + " " + storedName(gate))));
                }
            }
        }
        for (const char* word : {"Orchard 12", "Hedge 5", "GK-4", "Bench 1", "grafting", ".png", ".csv"})
            QVERIFY2(bytes(path).contains(word) && !whole.contains(word), word);
        const auto people = demo->shop()->people;
        QVERIFY(!people.empty() && shared->shop()->people.size() == people.size());
        QCOMPARE(shared->shop()->people[0].initials, std::string("P 1"));
        QVERIFY(shared->shop()->people[0].name.empty());
        for (const Batch& batch : {demo->batch(ours.back().id).value()}) {
            for (const Blade& blade : batch.blades) {
                for (const Signature& signature : blade.signatures)
                    QVERIFY(signature.reason.empty() || !whole.contains(signature.reason.c_str()));
            }
        }
        QVERIFY(bytes(path).contains("\x89PNG") && !whole.contains("\x89PNG"));
    }
};

QTEST_GUILESS_MAIN(tst_Merge)
#include "tst_merge.moc"
