// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/notes.h"
#include "logbook/actions/release.h"
#include "logbook/actions/undo.h"
#include "tests/support/temp_logbook.h"

#include <functional>
#include <QtTest>

using namespace rollcall;
using fixtures::TempLogbook;

// Taking back what was only written: rows stay, nobody counts them, and what was changed is as it was.
class tst_Undo : public QObject {
    Q_OBJECT

    static qint64 lastEntry(Logbook& log) {
        const auto last = lastAct(log);
        return last.ok() && *last ? (*last)->entry : 0;
    }
    static Result<Done> undoLast(Logbook& log) { return undo(log, lastEntry(log)); }
    static Result<Done> redoLast(Logbook& log) {
        const auto last = lastUndone(log);
        return last.ok() && *last ? redo(log, (*last)->entry) : Result<Done>(Error{ErrorKind::refused, "", "none"});
    }
    // What a maker sees of a batch, as far as these acts change it.
    static QString seen(Logbook& log, const std::string& id) {
        const Batch batch = log.batch(id).value();
        QStringList all{QString::fromStdString(batch.name),
                        QString::number(batch.window.low.value_or(0)),
                        QString::number(batch.plan[indexOf(Gate::temper)].planned_readings),
                        QString::fromStdString(nameOf(batch.rule)),
                        QString::fromStdString(batch.grade),
                        QString::number(batch.notes.size()),
                        QString::number(batch.sample_asked.value_or(0)),
                        QString::number(batch.zone_windows.size())};
        for (const Blade& blade : batch.blades) {
            all << QString::fromStdString(blade.mark) << QString::number(blade.tempers.size())
                << QString::number(blade.excuses.size()) << QString::number(blade.signatures.size())
                << (blade.fate ? "out" : "in") << (blade.own ? "own" : "usual");
            for (const Reading& reading : blade.readings)
                all << QString::number(reading.value) << (reading.struck ? "struck" : "stands")
                    << QString::fromStdString(reading.accepted_because);
        }
        return all.join('|');
    }

private slots:
    // Each of them, taken back and done again, leaves the batch as it was and as it became.
    void thereAndBack_data() {
        using Act = std::function<Result<Done>(Logbook&, const Batch&)>;
        QTest::addColumn<Act>("act");
        const auto row = [](const char* name, Act act) { QTest::newRow(name) << act; };
        row("excused", [](Logbook& l, const Batch& b) { return excuse(l, b.blades[0].id, Gate::temper, "sibling"); });
        row("out", [](Logbook& l, const Batch& b) {
            return takeOut(l, b.blades[0].id, Fate::scrapped, Gate::quench, "by mistake");
        });
        row("renamed", [](Logbook& l, const Batch& b) { return renameBlade(l, b.blades[1].id, "A-9"); });
        row("limits", [](Logbook& l, const Batch& b) { return changeLimits(l, b.id, {58, 60}, "58:60", 62.0); });
        row("zone", [](Logbook& l, const Batch& b) { return changeZoneWindow(l, b.id, Zone::spine, {45, 50}); });
        row("plan", [](Logbook& l, const Batch& b) { return changePlan(l, b.id, Gate::temper, {true, 5}); });
        row("rules", [](Logbook& l, const Batch& b) {
            BatchRules rules;
            rules.rule = DecisionRule::plain;
            return changeRules(l, b.id, rules, false);
        });
        row("claim", [](Logbook& l, const Batch& b) {
            return changeClaim(l, b.blades[0].id, {"1095", "1095", "", Window{60, 62}, {}, {}});
        });
        row("note", [](Logbook& l, const Batch& b) {
            Note note;
            note.text = "smelt burnt";
            const auto id = addNote(l, b.id, note);
            return id ? Result<Done>(Done{}) : Result<Done>(id.error());
        });
        row("temper", [](Logbook& l, const Batch& b) {
            TemperDraft draft;
            draft.batch = b.id;
            draft.blades = {b.blades[0].id, b.blades[1].id};
            draft.temperature_c = 205;
            draft.hours = 2;
            const auto id = logTemper(l, draft);
            return id ? Result<Done>(Done{}) : Result<Done>(id.error());
        });
        row("signed", [](Logbook& l, const Batch& b) {
            Decision decision;
            decision.blade = b.blades[0].id;
            decision.signature.disposition = Disposition::release;
            return sign(l, {decision});
        });
        row("sample", [](Logbook& l, const Batch& b) { return askSample(l, b.id, 0.95); });
        row("struck", [](Logbook& l, const Batch& b) {
            return strikeReading(l, b.blades[0].readings[0].id, StrikeReason::typingSlip, "621 for 612");
        });
        row("accepted", [](Logbook& l, const Batch& b) {
            return acceptReading(l, b.blades[0].readings[0].id, "far from the other");
        });
        row("a blade more", [](Logbook& l, const Batch& b) {
            BladeDraft draft;
            draft.mark = "A-3";
            const auto id = addBlade(l, b.id, draft);
            return id ? Result<Done>(Done{}) : Result<Done>(id.error());
        });
    }
    void thereAndBack() {
        QFETCH(std::function<Result<Done>(Logbook&, const Batch&)>, act);
        TempLogbook log;
        log.withBatch();
        const std::string id = log->batches()->front().id;
        log->setPerson("HB");
        QVERIFY(logReading(*log, log.reading(log->batch(id).value(), 0, 62.1, 0)).ok());
        const Batch batch = log->batch(id).value();
        const QString before = seen(*log, id);
        QVERIFY(act(*log, batch).ok());
        const QString after = seen(*log, id);
        QVERIFY2(after != before, qPrintable(after));
        (void)log->takeTouched();
        const Result<Done> undone = undoLast(*log);
        QVERIFY2(undone.ok(), undone.ok() ? "" : undone.error().text.c_str());
        QVERIFY(log->takeTouched().batches.contains(id)); // the window reads this batch again
        QCOMPARE(seen(*log, id), before);
        QVERIFY(redoLast(*log).ok());
        QCOMPARE(seen(*log, id), after);
        // And so on, as often as somebody likes; the record proves it all, on disk too.
        QVERIFY(undoLast(*log).ok());
        QVERIFY(log->check()->empty());
        QVERIFY(log.reopen().ok());
        log->setPerson("HB");
        QCOMPARE(seen(*log, id), before);
        // What was taken back can be done anew.
        const Result<Done> again = act(*log, log->batch(id).value());
        QVERIFY2(again.ok(), again.ok() ? "" : again.error().text.c_str());
        QCOMPARE(seen(*log, id), after);
    }

    void aBatchMadeByMistake() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto names = [&] {
            QStringList all;
            for (const BatchSummary& one : *log->batches()) all << QString::fromStdString(one.name);
            return all;
        };
        QVERIFY(undoLast(*log).ok());
        QCOMPARE(names(), QStringList());
        // Its name is free for the one that was meant; then the first cannot come back under it.
        BatchDraft meant;
        meant.name = batch.name;
        meant.blades = {{"B-1", {}, ""}};
        QVERIFY(addBatch(*log, meant).ok());
        QCOMPARE(names(), QStringList{"Orchard"});
        QVERIFY(!redoLast(*log).ok());
        QVERIFY(log->check()->empty());
    }

    // Metal remembers: a reading is struck out, a batch that was read stays.
    void whatHappenedStays() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const qint64 made = lastEntry(*log);
        const auto reading = logReading(*log, log.reading(batch, 0, 62.1));
        const auto last = lastAct(*log);
        QVERIFY((*last)->kind == LastAct::Kind::reading);
        QCOMPARE((*last)->reading, *reading);
        QVERIFY(!undoLast(*log).ok());
        const Result<Done> hangs = undo(*log, made);
        QVERIFY(!hangs.ok());
        QVERIFY(hangs.error().text.find("A-1") != std::string::npos);
        QCOMPARE(log->batches()->size(), std::size_t(1));
    }

    // A temper on the wrong blades is taken back until somebody has read after it.
    void aTemperThatWasReadAfter() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        TemperDraft draft;
        draft.batch = batch.id;
        draft.blades = {batch.blades[0].id};
        draft.temperature_c = 205;
        QVERIFY(logTemper(*log, draft).ok());
        const qint64 temper = lastEntry(*log);
        const auto reading = logReading(*log, log.reading(batch, 0, 62.1));
        QVERIFY(!undo(*log, temper).ok());
        QVERIFY(strikeReading(*log, *reading, StrikeReason::typingSlip, {}).ok());
        QVERIFY(undo(*log, temper).ok());
        // The next one is the first again.
        QVERIFY(logTemper(*log, draft).ok());
        QCOMPARE(log->batch(batch.id)->blades[0].tempers.front().number, 1);
    }

    // Another change since: what stands there now is nobody's to take away silently.
    void whatWasChangedSinceIsLeft() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(changeLimits(*log, batch.id, {58, 60}, "58:60", {}).ok());
        const qint64 first = lastEntry(*log);
        QVERIFY(changeLimits(*log, batch.id, {59, 61}, "59:61", {}).ok());
        const Result<Done> undone = undo(*log, first);
        QVERIFY(!undone.ok());
        QVERIFY(undone.error().text.find("changed again") != std::string::npos);
        QVERIFY(undoLast(*log).ok());
        QCOMPARE(log->batch(batch.id)->window.low.value(), 58.0);
        QVERIFY(undoLast(*log).ok());
        QCOMPARE(log->batch(batch.id)->window.low.value(), 61.0);
    }

    void doneAgainOnlyWhileNothingElseWasDone() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(excuse(*log, batch.blades[0].id, Gate::temper, "one").ok());
        QVERIFY(excuse(*log, batch.blades[1].id, Gate::temper, "two").ok());
        QVERIFY(undoLast(*log).ok() && undoLast(*log).ok());
        QVERIFY(log->batch(batch.id)->blades[0].excuses.empty());
        QVERIFY(redoLast(*log).ok()); // in the order in which they were done
        QCOMPARE(log->batch(batch.id)->blades[0].excuses.size(), std::size_t(1));
        QVERIFY(log->batch(batch.id)->blades[1].excuses.empty());
        QVERIFY(renameBlade(*log, batch.blades[0].id, "A-7").ok());
        QVERIFY(!redoLast(*log).ok());
    }
};

Q_DECLARE_METATYPE(std::function<Result<Done>(Logbook&, const Batch&)>)

QTEST_GUILESS_MAIN(tst_Undo)
#include "tst_undo.moc"
