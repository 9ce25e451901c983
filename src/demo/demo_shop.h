// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <numbers>
#include <random>

namespace rollcall {

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

// Thrown inside this folder only: a demo that cannot be written is given up at once.
struct Failed {
    Error error;
};

template<class T>
T must(Result<T> result) {
    if (!result) throw Failed{result.error()};
    return std::move(result).value();
}

inline std::array<GatePlan, gateCount> hardnessPlan(int quench, int temper) {
    std::array<GatePlan, gateCount> plan;
    plan[indexOf(Gate::quench)] = {true, quench};
    plan[indexOf(Gate::temper)] = {true, temper};
    return plan;
}

/// The story of the made-up shop, entry by entry. Each file of this folder tells a part of it.
class DemoShop {
public:
    DemoShop(const QString& path, const Tables& tables, const DemoOptions& options)
        : m_chance(options.seed), m_now(options.today), m_tables(tables),
          m_logbook(must(Logbook::open(path, Logbook::Access::write,
                                       {[this] { return m_now; }, [this] { return m_chance.identity(); }}))),
          m_options(options) {}

    void write() {
        m_logbook->setPerson("HB");
        must(addPerson(*m_logbook, "HB", "at the tester"));
        must(addPerson(*m_logbook, "WS", "at the oven"));
        m_bench = must(addTester(*m_logbook, {"", "Bench 1", TesterKind::bench, 0.1, "cone D-1", "flat 60", {}, {}}));
        m_dial = must(addTester(*m_logbook, {"", "Bench 2", TesterKind::bench, 0.5, "cone D-2", "flat 50", {}, {}}));
        m_block62 = must(addBlock(*m_logbook, {"", "62.6", "HRC", 62.6, 0.3, 60, 3, 0, 0}));
        m_block55 = must(addBlock(*m_logbook, {"", "55.2", "HRC", 55.2, 0.4, 60, 3, 0, 0}));
        m_rebound = must(addTester(*m_logbook, {"", "Rebound 1", TesterKind::rebound, 0.1, "probe D", "", {}, {}}));
        m_oven = must(addOven(*m_logbook, {"", "Oven 1", 5, m_now}));
        m_smallOven = must(addOven(*m_logbook, {"", "Oven 2", 1, std::nullopt}));
        m_files =
            must(addTester(*m_logbook, {"", "Files", TesterKind::files, 5, "", "", {40, 45, 50, 55, 60, 65}, {}}));
        finishedYears();
        trialBars();
        orchard12();
        hedge5();
        galley8();
        sickle4();
        // Told last, so that what stands above stays as it was; they happened before.
        market3();
        croft2();
        // Whoever opens it finds what is derived of a million readings, two seconds' work.
        at(0, 0);
        m_logbook->forgetLearned();
        must(m_logbook->shop());
    }

    Logbook& logbook() { return *m_logbook; }

private:
    // Moves the clock to this many minutes before the end of the story; never into the day before on its last day.
    void at(double daysAgo, double minutesBefore);
    void pass(double seconds) { m_now.utc_ms += static_cast<std::int64_t>(seconds * 1000); }

    double read(double truth, double scatter = 0.22);

    void verify(const std::string& tester, const std::string& block, std::vector<double> values);

    struct Piece {
        std::string id;
        std::string mark;
        BladeShape shape;
        int taken = 0;
    };

    std::vector<Piece> addBatch(BatchDraft draft, const std::string& prefix, int count, const BladeShape& shape,
                                const std::string& thickness);

    // One reading at the blade's next free place along its reading line.
    std::string log(Piece& piece, Gate gate, int temper, double value, const std::string& tester = {});

    void readThree(Piece& piece, Gate gate, int temper, double truth, int count = 3);

    void temper(const std::vector<Piece>& pieces, double temperature_c, double hours);

    // The error of Bench 1: steady for long, then 0.02 HRC a week harder as its indenter wears in.
    static double errorWeeksAgo(int weeks);

    // Every week the tester is verified; about once a month that day ends with a finished batch.
    void finishedYears();

    void finishedBatch(int number);

    // Shots at the bar in hand, a little apart from each other.
    void shoot(const char* elements, int shots);

    // Two bars on trial: one sold as a high-vanadium high speed steel that has next to no vanadium, and a powder steel
    // that no gun can part from its ingot version.
    void trialBars();

    // Nine grafting knives in tempering: Pass, soft, not yet, excused, may be hard, tempers missing, uneven.
    void orchard12();

    // A decision about a piece of the batch in hand, resting on what its record says at that moment.
    void sign(const Piece& piece, Disposition disposition, const char* reason);

    // An oven that falls when nine cold blades go in and comes back within some minutes.
    Trace ovenTrace(double set_c, double in_s, double end_s, double fall_c);

    // In together, pulled one by one: the last two soak longer than the plan, one goes slowly into the oil.
    void orchardHeat(const std::vector<Piece>& gk);

    void plan(const std::string& oven, const char* what, double temperature_c, double hours, double minutesFromNow,
              bool started);

    // Five billhooks: hard after the first temper, one spot struck out, one too near another.
    void hedge5();

    // One oven for all five; BH-3 stayed in while the phone rang, BH-4 was slow into the oil.
    void hedgeHeat(const std::vector<Piece>& bh);

    void rung(const Piece& piece, double force_n, double raise_deg, double place_mm, EdgeOutcome outcome,
              std::optional<double> size_mm = std::nullopt);

    // A stout edge that holds what is asked, a thin one whose chip its geometry explains, a stout one whose chip it
    // does not.
    void hedgeEdges(const std::vector<Piece>& bh);

    std::string begin(const Piece& piece, const char* protocol);
    void event(const std::string& trial, TrialAct act, double value = 0, const char* text = "", double second = 0,
               double third = 0, int times = 1);

    // BH-5 goes through the whole performance trial and is bent at its end; BH-2 chips on a nail; two cut rope until
    // they are dull; BH-1 is in the middle of a rehearsal.
    void hedgeTrials(const std::vector<Piece>& bh);

    // Eight filleting knives whose bar does not answer to its name: all far too soft from the quench.
    void galley8();

    // Four sickles and five coupons of one heat, broken in order of their soak: the grain coarsens with it.
    void sickle4();

    // Eight finished knives of a market stall, each sold as its own steel.
    void market3();

    // Four hedge knives asked by files alone, as in a shop without a tester.
    void croft2();

    Chance m_chance;
    Instant m_now;
    const Tables& m_tables;
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

} // namespace rollcall
