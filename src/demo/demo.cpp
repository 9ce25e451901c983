// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numbers>
#include <random>

namespace rollcall {

namespace {

constexpr std::int64_t minute_ms = 60000;
constexpr std::int64_t day_ms = 1440 * minute_ms;

// The distributions of the standard library differ between implementations; these do not.
class Chance {
public:
    explicit Chance(std::uint64_t seed) : m_random(seed) {}
    double uniform() { return static_cast<double>(m_random() >> 11) * 0x1.0p-53; }
    double normal() {
        return std::sqrt(-2.0 * std::log(1.0 - uniform())) * std::cos(2.0 * std::numbers::pi * uniform());
    }
    std::string identity() {
        const std::uint64_t a = m_random();
        const std::uint64_t b = m_random();
        return fmt::format("{:08x}-{:04x}-4{:03x}-a{:03x}-{:012x}", a >> 32, (a >> 16) & 0xFFFF, a & 0xFFF, b >> 52,
                           b & 0xFFFFFFFFFFFF);
    }

private:
    std::mt19937_64 m_random;
};

// Thrown inside this file only: a demo that cannot be written is given up at once.
struct Failed {
    Error error;
};

template<class T>
T must(Result<T> result) {
    if (!result) throw Failed{result.error()};
    return std::move(result).value();
}

std::array<GatePlan, gateCount> hardnessPlan(int quench, int temper) {
    std::array<GatePlan, gateCount> plan;
    plan[indexOf(Gate::quench)] = {true, quench};
    plan[indexOf(Gate::temper)] = {true, temper};
    return plan;
}

class DemoShop {
public:
    DemoShop(const QString& path, const DemoOptions& options)
        : m_chance(options.seed), m_now(options.today),
          m_logbook(must(Logbook::create(path, {[this] { return m_now; }, [this] { return m_chance.identity(); }}))),
          m_options(options) {}

    void write() {
        m_logbook->setPerson("HB");
        must(m_logbook->addPerson("HB", "at the tester"));
        must(m_logbook->addPerson("WS", "at the oven"));
        m_bench = must(m_logbook->addTester({"", "Bench 1", TesterKind::bench, 0.1, "cone D-1", "flat 60", {}, {}}));
        m_dial = must(m_logbook->addTester({"", "Bench 2", TesterKind::bench, 0.5, "cone D-2", "flat 50", {}, {}}));
        m_block62 = must(m_logbook->addBlock({"", "62.6", "HRC", 62.6, 0.3, 60, 3, 0, 0}));
        m_block55 = must(m_logbook->addBlock({"", "55.2", "HRC", 55.2, 0.4, 60, 3, 0, 0}));
        m_rebound = must(m_logbook->addTester({"", "Rebound 1", TesterKind::rebound, 0.1, "probe D", "", {}, {}}));
        m_oven = must(m_logbook->addOven({"", "Oven 1", 5, m_now}));
        m_smallOven = must(m_logbook->addOven({"", "Oven 2", 1, std::nullopt}));
        m_files = must(m_logbook->addTester({"", "Files", TesterKind::files, 5, "", "", {40, 45, 50, 55, 60, 65}, {}}));
        finishedYears();
        trialBars();
        orchard12();
        hedge5();
        galley8();
    }

    Logbook& logbook() { return *m_logbook; }

private:
    // Moves the clock to this many minutes before the end of the story; never into the day before on its last day.
    void at(double daysAgo, double minutesBefore) {
        const std::int64_t end =
            m_options.today.utc_ms - static_cast<std::int64_t>(daysAgo * static_cast<double>(day_ms));
        const std::int64_t intoDay =
            ((m_options.today.utc_ms + m_options.today.offset_minutes * minute_ms) % day_ms + day_ms) % day_ms;
        // Early in the morning there are few minutes of today yet: the day's story is squeezed into them.
        const double squeeze = daysAgo > 0 ? 1.0 : std::min(1.0, static_cast<double>(intoDay) / (240.0 * minute_ms));
        m_now = {end - static_cast<std::int64_t>(minutesBefore * squeeze * minute_ms), m_options.today.offset_minutes};
    }
    void pass(double seconds) { m_now.utc_ms += static_cast<std::int64_t>(seconds * 1000); }

    double read(double truth, double scatter = 0.22) {
        return roundToTenth(truth + m_testerError + scatter * m_chance.normal());
    }

    void verify(const std::string& tester, const std::string& block, std::vector<double> values) {
        const std::string run = must(m_logbook->startVerification(tester, block));
        for (const double value : values) {
            must(m_logbook->logBlockReading(run, value, tenthText(value)));
            pass(1);
        }
    }

    struct Piece {
        std::string id;
        std::string mark;
        BladeShape shape;
        int taken = 0;
    };

    std::vector<Piece> addBatch(BatchDraft draft, const std::string& prefix, int count, const BladeShape& shape,
                                const std::string& thickness) {
        for (int i = 1; i <= count; ++i) draft.blades.push_back({fmt::format("{}-{}", prefix, i), shape, thickness});
        m_batch = must(m_logbook->addBatch(draft));
        std::vector<Piece> pieces;
        for (const Blade& blade : must(m_logbook->batch(m_batch)).blades)
            pieces.push_back({blade.id, blade.mark, blade.shape});
        return pieces;
    }

    // One reading at the blade's next free place along its reading line.
    std::string log(Piece& piece, Gate gate, int cycle, double value, const std::string& tester = {}) {
        ReadingDraft draft;
        draft.blade = piece.id;
        draft.gate = gate;
        draft.after_cycle = cycle;
        draft.value = value;
        draft.as_entered = tenthText(value);
        draft.tester = tester.empty() ? m_bench : tester;
        const double step = gate == Gate::quench ? 0.0 : 3.2 * cycle;
        const double pitch = (piece.shape.length() - 16.0) / 3.0;
        const int row = piece.taken / 3;
        draft.spot = Spot{6.0 + step + pitch * (piece.taken % 3), piece.shape.reading_line_mm + 3.0 * row};
        ++piece.taken;
        pass(1);
        return must(m_logbook->logReading(draft));
    }

    void readThree(Piece& piece, Gate gate, int cycle, double truth, int count = 3) {
        piece.taken = 0;
        for (int i = 0; i < count; ++i) log(piece, gate, cycle, read(truth));
    }

    void temper(const std::vector<Piece>& pieces, double temperature_c, double hours) {
        CycleDraft cycle;
        cycle.batch = m_batch;
        for (const Piece& piece : pieces) cycle.blades.push_back(piece.id);
        cycle.temperature_c = temperature_c;
        cycle.hours = hours;
        cycle.as_entered = fmt::format("{:g} °C {:g} h", temperature_c, hours);
        cycle.time = m_now;
        must(m_logbook->logCycle(cycle));
    }

    // The error of Bench 1: steady for long, then 0.02 HRC a week harder as its indenter wears in.
    static double errorWeeksAgo(int weeks) {
        constexpr int began = 20;
        return weeks >= began ? -0.2 : -0.2 + 0.02 * (began - weeks);
    }

    // Every week the tester is verified; about once a month that day ends with a finished batch.
    void finishedYears() {
        const int weeks = 52 * m_options.scale;
        int number = 0;
        for (int week = weeks; week >= 1; --week) {
            m_testerError = errorWeeksAgo(week);
            at(7.0 * week, 300);
            verify(m_bench, m_block62, {read(62.6), read(62.6), read(62.6), read(62.6)});
            if (week % 4 == 0 && number < 12 * m_options.scale) finishedBatch(++number);
        }
    }

    void finishedBatch(int number) {
        BatchDraft draft;
        draft.name = fmt::format("Grove {}", number);
        draft.grade = "115CrV3";
        draft.lot = "bar A";
        draft.purpose = "grafting knife";
        draft.window = {61.0, 63.0};
        draft.window_text = "61:63";
        draft.plan = hardnessPlan(2, 3);
        BladeShape shape = BladeShape::knife(58, 16, 2.4);
        shape.reading_line_mm = 2.6;
        std::vector<Piece> pieces = addBatch(draft, "GK", 6, shape, "2.4");
        const double heat = 0.25 * m_chance.normal();
        for (Piece& piece : pieces) readThree(piece, Gate::quench, 0, 65.3 + heat + 0.2 * m_chance.normal(), 2);
        temper(pieces, 190, 2);
        pass(60);
        temper(pieces, 207, 2);
        for (Piece& piece : pieces) readThree(piece, Gate::temper, 2, 62.0 + 0.5 * heat + 0.15 * m_chance.normal());
    }

    // Shots at the bar in hand, a little apart from each other.
    void shoot(const char* elements, int shots) {
        for (int i = 1; i <= shots; ++i) {
            ShotDraft draft;
            draft.batch = m_batch;
            draft.piece = fmt::format("shot {}", i);
            draft.composition = must(typedShot(elements));
            for (ElementReading& reading : draft.composition.elements) {
                if (reading.percent)
                    *reading.percent =
                        std::max(0.001, *reading.percent + 0.5 * reading.sigma.value_or(0.01) * m_chance.normal());
            }
            must(m_logbook->addShot(draft));
        }
    }

    // Two bars on trial: one sold as a high-vanadium high speed steel that has next to no vanadium, and a powder steel
    // that no gun can part from its ingot version.
    void trialBars() {
        at(9, 120);
        BatchDraft draft;
        draft.name = "Pruning 3";
        draft.grade = "M4";
        draft.lot = "bar P";
        draft.purpose = "pruning blade";
        draft.window = {62.0, 65.0};
        draft.window_text = "62:65";
        draft.plan[indexOf(Gate::steel)] = {true, 1};
        draft.plan[indexOf(Gate::quench)] = {true, 3};
        addBatch(draft, "PB", 3, BladeShape::knife(90, 20, 2.8), "2.8");
        shoot("V 0.11 0.02; Cr 4.1 0.05; Mo 4.9 0.04; W 5.9 0.12; Mn 0.3 0.04; Co 0.1 0.08", 2);
        at(9, 100);
        draft.name = "Layering 2"; // chromium a little short: this method cannot decide it
        draft.grade = "A2";
        draft.lot = "bar R";
        draft.purpose = "layering knife";
        draft.window = {60.0, 62.0};
        draft.window_text = "60:62";
        addBatch(draft, "LK", 2, BladeShape::knife(70, 16, 2.2), "2.2");
        shoot("Cr 4.42 0.05; Mo 1.05 0.01; V 0.2 0.03; Mn 0.7 0.05", 2);
        at(9, 90);
        draft.name = "Budding 2";
        draft.grade = "440B";
        draft.lot = "bar Q, powder";
        draft.purpose = "budding knife";
        draft.window = {56.0, 59.0};
        draft.window_text = "56:59";
        addBatch(draft, "BK", 2, BladeShape::knife(60, 14, 2.0), "2");
        shoot("Cr 17.1 0.09; Mo 0.52 0.008; Mn 0.5 0.05; Ni 0.2 0.03; V 0.03 0.02", 2);
    }

    // Nine grafting knives in tempering: Pass, soft, not yet, excused, may be hard, tempers missing, uneven.
    void orchard12() {
        at(2, 240);
        BatchDraft draft;
        draft.name = "Orchard 12";
        draft.grade = "115CrV3";
        draft.lot = "bar C";
        draft.purpose = "grafting knife";
        draft.window = {61.0, 63.0};
        draft.window_text = "61:63";
        draft.minimum_tempers = 2;
        draft.plan = hardnessPlan(2, 3);
        BladeShape shape = BladeShape::knife(58, 16, 2.4);
        shape.reading_line_mm = 2.6;
        draft.plan[indexOf(Gate::cycle)] = {true, 1};
        std::vector<Piece> gk = addBatch(draft, "GK", 9, shape, "2.4");
        orchardHeat(gk);
        m_testerError = 0.2;
        verify(m_bench, m_block62, {62.7, 62.9, 62.8, 62.8, 62.9});
        const std::array<double, 9> quenched{65.4, 63.1, 65.3, 65.2, 65.1, 65.4, 65.7, 65.4, 65.2};
        for (std::size_t i = 0; i < gk.size(); ++i) readThree(gk[i], Gate::quench, 0, quenched[i], 2);
        must(m_logbook->takeOut(gk[5].id, Fate::cracked, Gate::quench, "cracked in the oil"));

        std::vector<Piece> whole(gk);
        whole.erase(whole.begin() + 5);
        at(1, 300);
        temper(whole, 185, 2);
        verify(m_bench, m_block62, {62.9, 62.7, 62.8, 62.9, 62.8});
        for (const std::size_t i : {0U, 1U, 2U, 3U, 4U, 6U, 7U, 8U})
            readThree(gk[i], Gate::temper, 1, quenched[i] - 1.8, 1);

        at(0, 230);
        std::vector<Piece> second(whole);
        second.pop_back(); // GK-9 waits for its second temper
        temper(second, 207, 2);
        at(0, 60);
        verify(m_bench, m_block62, {62.8, 62.9, 62.7, 62.8, 62.8});
        const auto three = [&](std::size_t i, double a, double b, double c) {
            gk[i].taken = 0;
            for (const double value : {a, b, c}) log(gk[i], Gate::temper, 2, value);
        };
        three(0, 62.3, 62.1, 62.2);
        three(1, 59.2, 59.0, 59.1);
        three(2, 61.9, 62.2, 62.0);
        three(6, 63.0, 62.6, 62.8); // may be hard: more readings would settle it
        three(7, 62.2, 60.4, 63.6); // uneven
        ColourNote straw;
        straw.after_cycle = 2;
        straw.zone = "flat";
        straw.colour = "straw";
        must(m_logbook->logColour(gk[0].id, straw));
        straw.zone = "spine";
        straw.colour = "dark blue";
        straw.torch = true;
        must(m_logbook->logColour(gk[0].id, straw));
        for (const auto& [i, mm] : {std::pair(0U, 0.3), std::pair(2U, 0.2), std::pair(3U, 0.7)})
            must(m_logbook->logWarp(gk[i].id, 1, 2, {"", mm, i % 2 == 0 ? WarpSide::left : WarpSide::right}, ""));
        plan(m_smallOven, "temper 2 of GK-9", 205, 2, 40, false);
        gk[8].taken = 0;
        for (const double value : {62.4, 62.2, 62.3})
            log(gk[8], Gate::temper, 1, value); // in its window, a temper missing
        gk[3].taken = 0;
        log(gk[3], Gate::temper, 2, 62.1);
        log(gk[3], Gate::temper, 2, 62.2);
    }

    // An oven that falls when nine cold blades go in and comes back within some minutes.
    Trace ovenTrace(double set_c, double in_s, double end_s, double fall_c) {
        std::vector<TraceSample> samples;
        for (double s = 0; s <= end_s; s += 5) {
            const double since = s - in_s;
            const double fall = since < 0    ? 0
                                : since < 60 ? fall_c * since / 60
                                             : fall_c * std::exp(-(since - 60) / 200);
            samples.push_back({s, set_c - fall + 1.2 * std::sin(s / 37) + 0.15 * m_chance.normal()});
        }
        return must(Trace::of(std::move(samples)));
    }

    // In together, pulled one by one: the last two soak longer than the plan, one goes slowly into the oil.
    void orchardHeat(const std::vector<Piece>& gk) {
        Recipe recipe;
        recipe.name = "Grafting knives";
        recipe.grade = "115CrV3";
        recipe.stages = {{StageKind::austenitise, 810, 6, 12, 10, "", "810 6 min"},
                         {StageKind::quench, 55, 0, std::nullopt, 15, "fast oil", "55"},
                         {StageKind::temper, 185, 120, std::nullopt, 5, "still air", "185 2 h"},
                         {StageKind::temper, 205, 120, std::nullopt, 5, "still air", "205 2 h"}};
        must(m_logbook->useRecipe(m_batch, must(m_logbook->addRecipe(recipe))));
        HeatDraft heat;
        heat.batch = m_batch;
        heat.oven = m_oven;
        heat.set_c = 810;
        heat.min_minutes = 6;
        heat.max_minutes = 12;
        heat.medium = "fast oil";
        heat.medium_c = 55;
        heat.edge_mm = 0.75;
        heat.as_entered = "810";
        const std::string run = must(m_logbook->startHeat(heat));
        constexpr double in_s = 180;
        TraceDraft trace;
        trace.run = run;
        trace.name = QStringLiteral("orchard-12-oven.csv");
        trace.trace = ovenTrace(810, in_s, 2100, 62);
        trace.file = "seconds,celsius\n";
        for (const TraceSample& sample : trace.trace.samples())
            trace.file += QByteArray::number(sample.s) + ',' + QByteArray::number(sample.c, 'f', 1) + '\n';
        must(m_logbook->addTrace(trace));
        for (std::size_t i = 0; i < gk.size(); ++i) {
            const double out = in_s + 810 + 62 * static_cast<double>(i);
            must(m_logbook->markHeat(run, gk[i].id, 1, HeatMoment::in, in_s));
            must(m_logbook->markHeat(run, gk[i].id, 1, HeatMoment::out, out));
            must(m_logbook->markHeat(run, gk[i].id, 1, HeatMoment::quenched, out + (i == 1 ? 3.4 : 1.1)));
            HeatNoteDraft note;
            note.run = run;
            note.blade = gk[i].id;
            note.quenchant_c = 54 + static_cast<double>(i);
            if (i == 4) note.noted_minutes = 6; // the card says one soak for all
            note.as_entered = "oil";
            must(m_logbook->noteHeat(note));
        }
        const std::array<double, 5> bows{1.2, 0.4, 0.9, 2.0, 0.6};
        for (std::size_t i = 0; i < bows.size(); ++i)
            must(m_logbook->logWarp(gk[i].id, 1, 0, {"", bows[i], i % 2 == 0 ? WarpSide::left : WarpSide::right}, ""));
    }

    void plan(const std::string& oven, const char* what, double temperature_c, double hours, double minutesFromNow,
              bool started) {
        PlannedCycle cycle;
        cycle.batch = m_batch;
        cycle.oven = oven;
        cycle.what = what;
        cycle.temperature_c = temperature_c;
        cycle.hours = hours;
        cycle.cool_minutes = 30;
        cycle.start_ms = m_options.today.utc_ms + static_cast<std::int64_t>(minutesFromNow * minute_ms);
        const std::string id = must(m_logbook->planCycle(cycle, ""));
        if (!started) return;
        m_now = {cycle.start_ms, m_options.today.offset_minutes};
        must(m_logbook->markPlanned(id, "started"));
    }

    // Five billhooks: hard after the first temper, one spot struck out, one too near another.
    void hedge5() {
        at(1, 200);
        BatchDraft draft;
        draft.name = "Hedge 5";
        draft.grade = "51CrV4";
        draft.lot = "leaf stock";
        draft.purpose = "billhook";
        draft.window = {53.0, 56.0};
        draft.window_text = "53:56";
        draft.plan = hardnessPlan(3, 3);
        BladeShape shape = BladeShape::knife(236, 68, 5.0);
        shape.reading_line_mm = 5;
        std::vector<Piece> bh = addBatch(draft, "BH", 5, shape, "5");
        verify(m_bench, m_block55, {55.4, 55.3, 55.5, 55.4, 55.4});
        const std::array<double, 5> quenched{60.6, 60.2, 60.4, 56.1, 60.5};
        for (std::size_t i = 0; i < bh.size(); ++i) readThree(bh[i], Gate::quench, 0, quenched[i]);
        at(0, 200);
        temper({bh[0], bh[1], bh[2], bh[4]}, 225, 2);
        at(0, 45);
        // Bench 2 has not seen a block today.
        bh[0].taken = 0;
        for (const double value : {55.0, 54.5, 55.0}) log(bh[0], Gate::temper, 1, value, m_dial);
        at(0, 40);
        verify(m_bench, m_block55, {55.4, 55.4, 55.3, 55.5, 55.4});
        bh[1].taken = 0;
        for (const double value : {57.6, 57.8, 57.7}) log(bh[1], Gate::temper, 1, value); // hard: temper again
        bh[2].taken = 0;
        const std::string slip = log(bh[2], Gate::temper, 1, 51.2);
        must(m_logbook->strikeReading(slip, StrikeReason::seating, "swarf under the blade"));
        for (const double value : {55.0, 54.8, 55.1}) log(bh[2], Gate::temper, 1, value);
        // Files on two blades: one answer that agrees, one that contradicts itself.
        const auto files = [&](const Piece& piece, std::vector<FileTrial> trials) {
            FileTest test;
            test.gate = Gate::temper;
            test.after_cycle = 1;
            test.trials = std::move(trials);
            must(m_logbook->logFileTest(piece.id, m_files, test));
        };
        files(bh[2], {{50, FileTouch::skates}, {55, FileTouch::touches}, {60, FileTouch::bites}});
        files(bh[1], {{55, FileTouch::bites}, {60, FileTouch::skates}});
        must(m_logbook->excuse(bh[4].id, Gate::temper, "goes to the bend test as it is"));
        plan(m_oven, "temper 2", 240, 2, -70, true);
        at(0, 38);
    }

    // Eight filleting knives whose bar does not answer to its name: all far too soft from the quench.
    void galley8() {
        at(0, 180);
        BatchDraft draft;
        draft.name = "Galley 8";
        draft.grade = "X50CrMoV15";
        draft.lot = "bar G, no certificate";
        draft.purpose = "filleting knife";
        draft.window = {55.0, 58.0};
        draft.window_text = "55:58";
        draft.plan = hardnessPlan(3, 3);
        draft.plan[indexOf(Gate::steel)] = {true, 1};
        BladeShape shape = BladeShape::knife(178, 26, 1.6);
        shape.reading_line_mm = 3;
        std::vector<Piece> fk = addBatch(draft, "FK", 8, shape, "1.6");
        // Sold as a molybdenum-vanadium cutlery steel: neither is there, and chromium is a little short.
        must(m_logbook->changeLot(m_batch, "bar G", "river market", ""));
        shoot("Cr 13.55 0.08; Mn 0.47 0.04; Ni 0.14 0.03; Mo 0.046 0.006; V <0.05; Si 0.42 0.1; Cu 0.09 0.02", 3);
        SteelNote coupon;
        coupon.kind = SteelNoteKind::coupon;
        coupon.hrc = 53.2;
        coupon.text = "1030 °C, 15 min, oil";
        must(m_logbook->addSteelNote(m_batch, coupon));
        at(0, 30);
        verify(m_bench, m_block55, {55.4, 55.3, 55.4, 55.5, 55.4});
        for (std::size_t i = 0; i < 6; ++i) readThree(fk[i], Gate::quench, 0, 50.4 + 0.3 * m_chance.normal());
        fk[6].taken = 0;
        log(fk[6], Gate::quench, 0, 50.6);
        // The last one by rebound: the fourth strike went where the third had been, and the instrument averages it in.
        SeriesDraft series;
        series.instrument_mean = 51.4;
        series.support = "coupled to a heavy block";
        const std::array<double, 6> strikes{50.6, 50.9, 50.4, 55.0, 50.7, 50.8};
        for (std::size_t i = 0; i < strikes.size(); ++i) {
            ReadingDraft strike;
            strike.blade = fk[7].id;
            strike.gate = Gate::quench;
            strike.after_cycle = 0;
            strike.value = strikes[i];
            strike.as_entered = tenthText(strikes[i]);
            strike.tester = m_rebound;
            strike.spot = Spot{20.0 + 22.0 * static_cast<double>(i == 3 ? 2 : i), 5.0};
            series.strikes.push_back(std::move(strike));
        }
        must(m_logbook->logSeries(series));
    }

    Chance m_chance;
    Instant m_now;
    std::unique_ptr<Logbook> m_logbook;
    DemoOptions m_options;
    std::string m_bench;
    std::string m_dial;
    std::string m_block62;
    std::string m_block55;
    std::string m_files;
    std::string m_rebound;
    std::string m_oven;
    std::string m_smallOven;
    std::string m_batch;
    double m_testerError = 0.2;
};

} // namespace

Result<Done> writeDemo(const QString& path, const DemoOptions& options) {
    try {
        DemoShop shop(path, options);
        return shop.logbook().inOneTransaction([&]() -> Result<Done> {
            try {
                shop.write();
            } catch (const Failed& failed) {
                return failed.error;
            }
            return Done{};
        });
    } catch (const Failed& failed) {
        return failed.error;
    }
}

} // namespace rollcall
