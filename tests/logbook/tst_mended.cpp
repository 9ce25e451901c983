// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

// What is put right afterwards: a name, a mark, a shape, a reading that was typed for another blade. What cannot be is
// refused in words and leaves no entry.
class tst_Mended : public QObject {
    Q_OBJECT

    static const Blade& bladeOf(const Batch& batch, const std::string& mark) {
        return *std::find_if(batch.blades.begin(), batch.blades.end(),
                             [&](const Blade& blade) { return blade.mark == mark; });
    }

private slots:
    void aBatchAndABladeGetOtherNames() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(renameBatch(*log, batch.id, "Orchard 2").ok());
        QVERIFY(renameBatch(*log, batch.id, "Orchard 2").ok()); // its own name is in nobody's way
        QVERIFY(renameBlade(*log, batch.blades[0].id, "A-7").ok());
        const Batch after = log->batch(batch.id).value();
        QCOMPARE(after.name, std::string("Orchard 2"));
        QCOMPARE(after.blades[0].mark, std::string("A-7"));
        QVERIFY(log->check()->empty());
    }
    void aBladeIsMeasuredAnew() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        BladeShape shape = batch.blades[0].shape;
        shape.thickness_mm = 3.1;
        shape.reading_line_mm = 4;
        QVERIFY(changeShape(*log, batch.blades[0].id, shape, "3.1").ok());
        const Batch after = log->batch(batch.id).value();
        QCOMPARE(after.blades[0].shape.thickness_mm, 3.1);
        QCOMPARE(after.blades[0].shape.reading_line_mm, 4.0);
        QCOMPARE(after.blades[1].shape.thickness_mm, batch.blades[1].shape.thickness_mm);
        shape.thickness_mm = 0; // not known
        QVERIFY(changeShape(*log, batch.blades[0].id, shape, "").ok());
        QCOMPARE(log->batch(batch.id)->blades[0].shape.thickness_mm, 0.0);
    }
    // It is struck out where it was typed and stands on the other blade, with its own time, tester and note, after that
    // blade's last temper.
    void aReadingStandsOnTheBladeItWasMadeOn() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        TemperDraft temper;
        temper.batch = batch.id;
        temper.blades = {batch.blades[0].id, batch.blades[1].id};
        temper.temperature_c = 205;
        temper.hours = 2;
        QVERIFY(logTemper(*log, temper).ok());
        temper.blades = {batch.blades[1].id};
        QVERIFY(logTemper(*log, temper).ok());
        ReadingDraft draft = log.reading(batch, 0, 61.7);
        draft.note = "by the plunge";
        draft.spot = Spot{20, 3};
        const std::string typed = logReading(*log, draft).value();
        ReadingDraft quench = log.reading(batch, 0, 65.1, 0);
        quench.gate = Gate::quench;
        const std::string quenched = logReading(*log, quench).value();
        const Batch before = log->batch(batch.id).value();
        QVERIFY(moveReading(*log, before, typed, batch.blades[1].id).ok());
        QVERIFY(moveReading(*log, before, quenched, batch.blades[1].id).ok());
        const Batch after = log->batch(batch.id).value();
        const Blade& from = bladeOf(after, "A-1");
        const Blade& to = bladeOf(after, "A-2");
        QCOMPARE(from.readings.size(), std::size_t(2));
        for (const Reading& reading : from.readings) {
            QVERIFY(reading.struck.has_value());
            QCOMPARE(reading.struck->note, std::string("made on A-2"));
        }
        QCOMPARE(to.readings.size(), std::size_t(2));
        const Reading& moved = to.readings[0];
        QCOMPARE(moved.value, 61.7);
        QCOMPARE(moved.note, draft.note);
        QCOMPARE(moved.tester, log.tester());
        QCOMPARE(moved.after_temper.value(), 2);
        QVERIFY(!moved.spot); // where on that blade, nobody said
        QCOMPARE(moved.time->utc_ms, bladeOf(before, "A-1").readings[0].time->utc_ms);
        QCOMPARE(to.readings[1].after_temper.value(), 0);
        // Struck out there, it can not be moved again.
        const auto again = moveReading(*log, after, typed, batch.blades[1].id);
        QCOMPARE(again.error().text, std::string("only a reading that stands can be moved"));
    }

    void whatCannotBeIsRefused_data() {
        using Act = std::function<Result<Done>(Logbook&, const Batch&)>;
        QTest::addColumn<Act>("act");
        const auto row = [](const char* says, Act act) { QTest::newRow(says) << act; };
        const auto doneOr = [](const Result<std::string>& id) {
            return id ? Result<Done>(Done{}) : Result<Done>(id.error());
        };
        row("a batch needs a name", [](Logbook& l, const Batch& b) { return renameBatch(l, b.id, " "); });
        row("there is a batch Hedge already", [](Logbook& l, const Batch& b) { return renameBatch(l, b.id, "Hedge"); });
        row("a blade needs a mark", [](Logbook& l, const Batch& b) { return renameBlade(l, b.blades[0].id, " "); });
        row("another blade of this batch is marked A-2",
            [](Logbook& l, const Batch& b) { return renameBlade(l, b.blades[0].id, "A-2"); });
        const auto thick = [](double mm) {
            return [mm](Logbook& l, const Batch& b) {
                BladeShape shape = b.blades[0].shape;
                shape.thickness_mm = mm;
                return changeShape(l, b.blades[0].id, shape, "typed");
            };
        };
        row("a thickness lies between 0 and 50 mm", thick(51));
        row("a thickness lies between 0 and 50 mm (below)", thick(-0.1));
        row("there is no such blade in this batch",
            [](Logbook& l, const Batch& b) { return moveReading(l, b, b.blades[0].readings[0].id, "nowhere"); });
        row("only a reading that stands can be moved",
            [](Logbook& l, const Batch& b) { return moveReading(l, b, "none", b.blades[1].id); });
        row("a reason is needed",
            [](Logbook& l, const Batch& b) { return supersedeReadings(l, {b.blades[0].readings[0].id}, " "); });
        row("a reason is needed (accepted)",
            [](Logbook& l, const Batch& b) { return acceptReading(l, b.blades[0].readings[0].id, ""); });
        row("say which grade it is taken for",
            [](Logbook& l, const Batch& b) { return takeFor(l, b, b.blades[0], " "); });
        row("initials are needed", [=](Logbook& l, const Batch&) { return doneOr(addPerson(l, " ", "nobody")); });
        row("the lower limit is above the upper one", [](Logbook& l, const Batch& b) {
            return changeLimits(l, b.id, {63, 61}, "63:61", std::nullopt);
        });
        const auto claim = [](const BladeClaim& one) {
            return [one](Logbook& l, const Batch& b) { return changeClaim(l, b.blades[0].id, one); };
        };
        BladeClaim swapped;
        swapped.window = Window{62, 60};
        row("the lower limit is above the upper one (claim)", claim(swapped));
        BladeClaim hard;
        hard.quench_minimum = 71;
        row("a limit lies between 20 and 70 HRC", claim(hard));
        BladeClaim soft;
        soft.window = Window{19, std::nullopt};
        row("a limit lies between 20 and 70 HRC (window)", claim(soft));
        BladeClaim none;
        none.minimum_tempers = -1;
        row("tempers are 0 or more", claim(none));
        row("a blade needs a mark (another)",
            [=](Logbook& l, const Batch& b) { return doneOr(addBlade(l, b.id, {})); });
        row("a limit lies between 20 and 70 HRC (another blade)", [=](Logbook& l, const Batch& b) {
            return doneOr(addBlade(l, b.id, {"A-9", b.blades[0].shape, "2.4", hard}));
        });
        const auto rules = [](const std::function<void(BatchRules&)>& change) {
            return [change](Logbook& l, const Batch& b) {
                BatchRules wished;
                change(wished);
                return changeRules(l, b.id, wished, true);
            };
        };
        row("an allowance lies between 0 and 3 HRC", rules([](BatchRules& r) { r.allowance = 3.1; }));
        row("a distance lies between 0 and 50 mm", rules([](BatchRules& r) { r.spacing.min_edge_mm = 51; }));
        row("the limit is 0 or more", rules([](BatchRules& r) { r.rehardening_limit = -1; }));
        row("only Quench and Temper can be asked by files",
            [](Logbook& l, const Batch& b) { return changeMeans(l, b.id, Gate::heat, true); });
        const auto cold = [](std::vector<std::size_t> blades, double c, double h) {
            return [=](Logbook& l, const Batch& b) {
                std::vector<std::string> ids;
                for (const std::size_t i : blades) ids.push_back(b.blades[i].id);
                return logCold(l, b, ids, c, h, l.now());
            };
        };
        row("say which blades", cold({}, -70, 1));
        row("cold lies between -200 and 0 °C", cold({0}, 5, 1));
        row("cold lies between -200 and 0 °C (below)", cold({0}, -201, 1));
        row("the time lies within 72 hours", cold({0}, -70, 73));
        row("the time lies within 72 hours (none)", cold({0}, -70, 0));
    }
    void whatCannotBeIsRefused() {
        QFETCH(std::function<Result<Done>(Logbook&, const Batch&)>, act);
        TempLogbook log;
        const std::string id = log.withBatch().id;
        QVERIFY(renameBatch(*log, id, "Hedge").ok());
        BatchDraft other;
        other.name = "Orchard";
        other.window = {60, 62};
        other.blades = {{"A-1", BladeShape::knife(58, 16, 2.4), "2.4"}, {"A-2", BladeShape::knife(58, 16, 2.4), "2.4"}};
        Batch batch = log->batch(addBatch(*log, other).value()).value();
        QVERIFY(logReading(*log, log.reading(batch, 0, 61.0, 0)).ok());
        batch = log->batch(batch.id).value();
        const int before = log->counts()->at("change");
        const auto tried = act(*log, batch);
        QVERIFY(!tried.ok());
        const QString says = QString::fromUtf8(QTest::currentDataTag()).section(QStringLiteral(" ("), 0, 0);
        QCOMPARE(QString::fromStdString(tried.error().text), says);
        QCOMPARE(log->counts()->at("change"), before);
    }
};

QTEST_GUILESS_MAIN(tst_Mended)
#include "tst_mended.moc"
