// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/maker.h"

#include "bench/numbers/figure.h"
#include "core/base/tables.h"
#include "core/judge/agenda.h"
#include "core/judge/doubts.h"
#include "core/judge/gate_case.h"
#include "core/judge/judged.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

constexpr std::array grades{"1084", "1095", "52100", "80CrV2", "115CrV3", "O1", "90MnCrV8", "A2", "D2", "X50CrMoV15"};
constexpr std::array wrongBars{"1045", "S235", "4140", "304", "430"};
constexpr double outside = 0.5; // HRC beyond the window: no longer what was promised

const Tables& tables() {
    static const Tables loaded = Tables::load(ROLLCALL_DATA_DIR "/tables").value();
    return loaded;
}

// What a blade really is.
struct BladeTruth {
    double quenched = 0;  // HRC as quenched
    double own = 0;       // off its grade's curve
    double parameter = 0; // M19, of all its tempers; 0: none
    double skin = 0;      // HRC that its surface reads softer, until it is ground
    bool cracked = false;
    bool visible = false;            // the crack, to who has the blade in hand
    bool crack_seen = false;         // and nobody has marked it yet
    std::vector<TemperHeat> tempers; // as they were
};

class World {
public:
    World(std::uint64_t seed, const WorldFaults& faults, int blades) : m_random(seed), m_faults(faults) {
        m_grade = tables().grade(grades[below(grades.size())]);
        m_curve = TemperCurve::of(*m_grade);
        // A window of 2 HRC about what the grade gives after a usual low temper.
        constexpr std::array usual{180.0, 200.0, 215.0};
        const double middle = std::round(m_curve->at(parameterOf({{usual[below(3)], 2}, {usual[0], 0.1}})) * 2) / 2;
        m_record.id = m_record.name = "W";
        m_record.grade = m_record.claimed = m_grade->name;
        m_record.window = {middle - 1, middle + 1};
        m_record.rule = DecisionRule::chance;
        m_offset = 0.7 * m_curve->spreadAt(m_curve->lowest()) * normal() + 0.5 * normal();
        // A good batch behaves as the library says, but for what runs differ by.
        if (!faults.oven && !faults.blades) m_offset *= 0.3;
        if (faults.oven) m_oven_off = uniform(-25, 25);
        if (faults.steel && below(12) == 0) m_wrong = wrongBars[below(wrongBars.size())];
        m_analyser = below(3) == 0;
        setUpTester();
        m_record.plan[indexOf(Gate::steel)] = {m_analyser, 1};
        m_record.plan[indexOf(Gate::quench)] = {true, 3, m_files_only};
        m_record.plan[indexOf(Gate::temper)] = {true, 3, m_files_only};
        m_record.plan[indexOf(Gate::release)] = {true, 1};
        for (int i = 0; i < blades; ++i) {
            Blade blade;
            blade.id = blade.mark = fmt::format("B{}", i + 1);
            blade.shape.thickness_mm = 3;
            m_record.blades.push_back(blade);
            m_truth.push_back(quenchedTruth());
        }
        if (!faults.oven && !faults.blades) rememberHeats();
        m_shadow = m_record;
        m_end.blades = blades;
        m_stood.assign(m_record.blades.size(), true);
        m_steps.assign(m_record.blades.size(), 0);
    }

    WorldEnd live() {
        const std::size_t most = 40 * m_record.blades.size();
        std::size_t done = 0;
        for (; done < most; ++done) {
            const Judged judged(m_record, tables(), now());
            const std::vector<Task> tasks = agenda(m_record, judged.verdicts());
            const auto next = std::find_if(tasks.begin(), tasks.end(), [&](const Task& task) {
                return m_stood[task.blade] && !m_record.blades[task.blade].fate;
            });
            if (next == tasks.end()) break;
            act(*next, judged);
        }
        m_end.ended = done < most;
        const Judged judged(m_record, tables(), now());
        for (std::size_t i = 0; i < m_truth.size(); ++i) {
            // What nobody could see no paper can hold back.
            const bool hidden = m_truth[i].cracked && !m_truth[i].visible;
            const bool sound = (!m_truth[i].cracked || hidden) && m_wrong.empty();
            if (sound && m_truth[i].quenched >= m_grade->as_quenched_min - 1) ++m_end.good;
            m_end.most_for_one = std::max(m_end.most_for_one, m_steps[i]);
            if (!judged.release(i).released()) continue;
            ++m_end.released;
            const double hrc = hardness(i);
            const bool off = hrc < *m_record.window.low - outside || hrc > *m_record.window.high + outside;
            if (!sound || off) {
                ++m_end.bad_released;
                ++m_end.by_what[m_truth[i].cracked ? "released: a crack nobody saw"
                                : !m_wrong.empty() ? "released: " + m_wrong + ", nobody had an analyser"
                                                   : "released: outside its window"];
            }
        }
        return m_end;
    }

private:
    double normal() { return m_normal(m_random); }
    double uniform(double from, double to) { return std::uniform_real_distribution<double>(from, to)(m_random); }
    std::size_t below(std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(m_random); }
    bool slips() { return m_faults.wrong_rows && below(30) == 0; }
    Instant now() const { return {m_clock_ms, 0}; }
    void later(double minutes) { m_clock_ms += static_cast<std::int64_t>(minutes * 60000); }
    std::string newId() { return fmt::format("r{}", ++m_ids); }

    double parameterOf(const std::vector<TemperHeat>& heats) const {
        const auto parameter = temperParameter(m_grade->hj_c, heats);
        return parameter ? std::clamp(*parameter, m_curve->lowest(), m_curve->highest()) : m_curve->lowest();
    }

    void setUpTester() {
        m_record.testers.push_back({"t1", "Bench 1", TesterKind::bench, 0.1, "", "", {}, {}});
        m_record.testers.push_back({"f1", "Files", TesterKind::files, 0, "", "", {40, 45, 50, 55, 60, 65}, {}});
        m_bias = 0.15 * normal();
        if (!m_faults.tester) return;
        if (below(4) == 0) m_bias = uniform(-1.5, 1.5);
        m_mends = below(2) == 0;
        m_files_only = below(10) == 0;
    }

    // What a settled shop has read of this grade before: five heats of four blades.
    void rememberHeats() {
        for (int heat = 0; heat < 5; ++heat) {
            const double run = 0.5 * normal();
            const double parameter = parameterOf({{heat % 2 == 0 ? 180.0 : 205.0, 2}});
            for (int k = 0; k < 4; ++k) {
                TemperObservation seen{fmt::format("h{}", heat), fmt::format("h{}-{}", heat, k), parameter};
                seen.hrc = m_curve->at(parameter) + m_offset + run + 0.35 * normal() + 0.2 * normal();
                seen.u = 0.2;
                seen.day = 100 + heat;
                m_record.temper_history.push_back(seen);
            }
        }
    }

    BladeTruth quenchedTruth() {
        BladeTruth truth;
        truth.own = 0.35 * normal();
        truth.quenched = m_grade->as_quenched_typical + 0.4 * normal();
        if (!m_wrong.empty()) {
            for (const Grade& steel : tables().otherSteels()) {
                if (steel.name == m_wrong) truth.quenched = uniform(steel.as_quenched_min, steel.as_quenched_max);
            }
        }
        if (!m_faults.blades) return truth;
        if (below(20) == 0) truth.skin = uniform(2, 8);
        if (below(25) == 0) truth.quenched -= uniform(2, 12); // late into the oil
        if (below(30) == 0) {
            truth.cracked = true;
            truth.visible = truth.crack_seen = below(3) > 0;
        }
        return truth;
    }

    double hardness(std::size_t i) const {
        const BladeTruth& truth = m_truth[i];
        if (truth.tempers.empty()) return truth.quenched;
        const double curve = m_curve->at(parameterOf(truth.tempers)) + m_offset + truth.own;
        // What the quench left soft stays soft: it cannot read more than it did then.
        const double lost = std::max(0.0, m_grade->as_quenched_typical - 1 - truth.quenched);
        return std::min(curve - lost, truth.quenched);
    }

    // What both the record and the record of a maker who never slips are given.
    template<class Change>
    void both(Change change) {
        change(m_record);
        change(m_shadow);
    }

    void verify() {
        later(3);
        Verification run;
        run.id = newId();
        run.tester = "t1";
        run.block = "62.6";
        run.certified = 62.6;
        for (int i = 0; i < 3; ++i) run.readings.push_back(std::round((62.6 + m_bias + 0.2 * normal()) * 10) / 10);
        run.time = now();
        both([&](Batch& batch) { batch.verifications.push_back(run); });
        double mean = 0;
        for (const double r : run.readings) mean += r / 3;
        if (std::abs(mean - 62.6) > 0.5 && m_mends) m_bias = 0.15 * normal(); // cleaned and seated
        later(2);
    }

    void read(std::size_t i, Gate gate, int count) {
        for (int k = 0; k < count; ++k) {
            later(1);
            const double truth = hardness(i) - m_truth[i].skin + m_bias;
            Reading reading;
            reading.id = newId();
            reading.gate = gate;
            reading.round = m_record.blades[i].round;
            reading.after_temper = gate == Gate::quench ? 0 : lastTemper(m_record.blades[i]);
            reading.surface = m_record.blades[i].surface;
            reading.value = std::round((truth + 0.25 * normal()) * 10) / 10;
            reading.time = now();
            reading.tester = "t1";
            m_shadow.blades[i].readings.push_back(reading);
            std::size_t to = i;
            if (slips()) {
                if (below(2) == 0) {
                    to = below(m_record.blades.size()); // on another blade's card
                    reading.surface = m_record.blades[to].surface;
                    reading.round = m_record.blades[to].round;
                    reading.after_temper = gate == Gate::quench ? 0 : lastTemper(m_record.blades[to]);
                } else {
                    const int tens = static_cast<int>(reading.value / 10);
                    const int ones = static_cast<int>(reading.value) % 10;
                    reading.value = ones * 10 + tens + (reading.value - std::floor(reading.value));
                    if (std::abs(reading.value - truth) > 8) reading.value = truth; // asked about, and typed again
                }
            }
            m_record.blades[to].readings.push_back(reading);
        }
    }

    void tryFiles(std::size_t i, Gate gate) {
        later(4);
        FileTest test;
        test.id = newId();
        test.gate = gate;
        test.round = m_record.blades[i].round;
        test.after_temper = lastTemper(m_record.blades[i]);
        test.at = now();
        const double felt = hardness(i) - m_truth[i].skin + 0.5 * normal();
        for (const double file : {40.0, 45.0, 50.0, 55.0, 60.0, 65.0})
            test.trials.push_back({file, file < felt ? FileTouch::skates : FileTouch::bites});
        m_truth[i].skin = 0; // a spot is cleaned for the next try
        both([&](Batch& batch) { batch.blades[i].file_tests.push_back(test); });
    }

    void temper(const std::vector<std::size_t>& blades, double set_c, double hours) {
        later(hours * 60 + 20);
        const std::string id = newId();
        double logged = set_c;
        if (slips()) {
            const double fahrenheit = std::round(set_c * 1.8 + 32);
            logged = below(2) == 0 && fahrenheit <= 750 ? fahrenheit : set_c + (below(2) == 0 ? 50 : -50);
            // Far from what was advised it is asked about, and nine of ten look again.
            if (farFromAdvised(logged, set_c, m_grade, m_record.window) && below(10) > 0) logged = set_c;
        }
        for (const std::size_t i : blades) {
            m_truth[i].tempers.push_back({std::clamp(set_c + m_oven_off, 80.0, 740.0), hours});
            for (auto& [batch, celsius] : {std::pair<Batch*, double>{&m_record, logged}, {&m_shadow, set_c}}) {
                Temper one;
                one.id = id;
                one.round = batch->blades[i].round;
                one.number = lastTemper(batch->blades[i]) + 1;
                one.temperature_c = celsius;
                one.hours = hours;
                one.time = now();
                batch->blades[i].tempers.push_back(one);
            }
        }
        if (logged != set_c) m_wrong_tempers.push_back({id, set_c});
        later(10);
    }

    // What a record without slips would have asked of the oven; none where it asks for something else first.
    std::optional<double> rightTemper(std::size_t i) const {
        const Judged judged(m_shadow, tables(), now());
        const auto* step = judged.verdict(i, Gate::temper).next.as<TemperStep>();
        return step != nullptr && step->advised ? std::optional(step->advised->temperature_c) : std::nullopt;
    }

    void shoot(std::size_t) {
        later(5);
        SteelShot shot;
        shot.id = newId();
        shot.at = now();
        const Grade* steel = m_grade;
        for (const Grade& other : tables().otherSteels()) {
            if (other.name == m_wrong) steel = &other;
        }
        for (const char* element : {"Si", "Mn", "Cr", "Mo", "W", "V", "Co", "Ni", "Cu"}) {
            double percent = 0.02;
            for (const ElementLimits& limits : steel->composition) {
                if (limits.element == element)
                    percent = (limits.low.value_or(0.0) + limits.high.value_or(limits.low.value_or(0.0) * 1.3)) / 2;
            }
            const DetectionLimit* seen = tables().detection(AnalysisMethod::xrf, element, percent);
            const double sigma = seen != nullptr ? seen->sigma : 0.02;
            shot.composition.elements.push_back(
                {element, std::max(0.0, percent + sigma * normal()), std::nullopt, sigma});
        }
        both([&](Batch& batch) { batch.shots.push_back(shot); });
    }

    // Looks into what nobody expected: the maker goes through the rows, and finds three of four that are wrong.
    void look(std::size_t i) {
        later(10);
        for (auto wrong = m_wrong_tempers.begin(); wrong != m_wrong_tempers.end(); ++wrong) {
            const bool his = std::any_of(m_record.blades[i].tempers.begin(), m_record.blades[i].tempers.end(),
                                         [&](const Temper& t) { return t.id == wrong->first; });
            if (!his || below(4) == 0) continue;
            for (Blade& blade : m_record.blades) {
                for (Temper& t : blade.tempers) {
                    if (t.id == wrong->first) t.temperature_c = wrong->second;
                }
            }
            m_wrong_tempers.erase(wrong);
            return;
        }
        both([&](Batch& batch) {
            batch.blades[i].looks.push_back(
                {batch.blades[i].round, lastTemper(batch.blades[i]), "looked, it stands", "KM", now()});
        });
    }

    void out(std::size_t i, Fate fate) {
        both([&](Batch& batch) { batch.blades[i].fate = BladeFate{fate, Gate::temper, "as asked", "KM", now()}; });
    }

    void ruin(std::size_t i, const std::string& how) {
        if (m_truth[i].cracked || !m_wrong.empty()) return;
        ++m_end.ruined;
        ++m_end.by_what["ruined: " + how];
        m_stood[i] = false;
    }

    void act(const Task& task, const Judged& judged) {
        const std::size_t i = task.blade;
        NextStep step = task.next;
        if (step.act == Act::backToSteel) {
            const Verdict& steel = judged.verdict(i, Gate::steel);
            step = steel.state == State::fail ? steel.next : NextStep{m_analyser ? Act::takeShot : Act::tellApart};
        }
        // What was planned is no step more: the readings of each gate, and the shot where Steel is asked.
        const bool planned = step.act == Act::takeReadings || step.act == Act::readThicker ||
                             (step.act == Act::takeShot && m_record.shots.empty());
        if (!planned) {
            ++m_end.extra_steps;
            ++m_steps[i];
        }
        // A crack that can be seen is seen when the blade is in hand.
        if (m_truth[i].crack_seen && !openCrack(m_record.blades[i]) && !m_record.blades[i].fate) {
            m_truth[i].crack_seen = false;
            both([&](Batch& batch) {
                DamageMark mark;
                mark.id = newId();
                mark.kind = "crack";
                mark.at = now();
                batch.blades[i].damage.push_back(mark);
            });
            return;
        }
        const Verdict& temperVerdict = judged.verdict(i, Gate::temper);
        switch (step.act) {
        case Act::verifyTester:
        case Act::verifyOnHarderBlock:
            return verify();
        case Act::takeReadings:
        case Act::readThicker:
        case Act::readAgain: {
            if (needsRun()) verify();
            const auto* asked = step.as<ReadStep>();
            return read(i, task.gate, asked != nullptr ? asked->readings : 1);
        }
        case Act::mapReadings:
            if (needsRun()) verify();
            return read(i, task.gate, 3);
        case Act::tryFiles:
        case Act::clearConflict:
        case Act::backUpRebound:
            return tryFiles(i, task.gate);
        case Act::logTemper:
        case Act::temperAgain: {
            const auto* advised = step.as<TemperStep>();
            if (advised == nullptr) advised = temperVerdict.next.as<TemperStep>();
            std::vector<std::size_t> load{i};
            double set_c = 175;
            double hours = 2;
            if (advised != nullptr && advised->advised) {
                set_c = advised->advised->temperature_c;
                hours = advised->advised->hours;
                for (std::size_t k = 0; k < m_record.blades.size(); ++k) {
                    const bool in = std::count(advised->load.begin(), advised->load.end(), m_record.blades[k].mark) > 0;
                    if (k != i && in && m_stood[k]) load.push_back(k);
                }
            }
            std::vector<std::pair<double, std::optional<double>>> before;
            for (const std::size_t k : load) before.emplace_back(hardness(k), rightTemper(k));
            temper(load, set_c, hours);
            for (std::size_t n = 0; n < load.size(); ++n) {
                const bool soft = hardness(load[n]) < *m_record.window.low - outside;
                const bool saved = before[n].first >= *m_record.window.low &&
                                   m_truth[load[n]].quenched >= m_grade->as_quenched_min &&
                                   (!before[n].second || set_c > *before[n].second + 10);
                if (soft && saved && !m_record.blades[load[n]].fate)
                    ruin(load[n], "tempered hotter than the evidence bears");
            }
            return;
        }
        case Act::falseSoftness:
            later(10);
            m_truth[i].skin = 0;
            return both([&](Batch& batch) { ++batch.blades[i].surface; });
        case Act::coldTreat:
            return both([&](Batch& batch) {
                batch.blades[i].colds.push_back({batch.blades[i].round, 0, -80, 2, now()});
            });
        case Act::lookIntoSurprise:
        case Act::lookAtHeat:
            return look(i);
        case Act::reharden: {
            const bool needed = hardness(i) < *m_record.window.low || m_truth[i].quenched < m_grade->as_quenched_min;
            if (!needed) ruin(i, "hardened again without need");
            later(60);
            BladeTruth again = quenchedTruth();
            again.crack_seen = again.cracked = m_truth[i].cracked;
            m_truth[i] = again;
            return both([&](Batch& batch) { ++batch.blades[i].round; });
        }
        case Act::otherUse:
        case Act::scrap: {
            const double hrc = hardness(i);
            if (hrc >= *m_record.window.low && m_truth[i].quenched >= m_grade->as_quenched_min)
                ruin(i, "scrapped, and good");
            return out(i, Fate::scrapped);
        }
        case Act::clearCrack:
            if (m_truth[i].cracked) return out(i, Fate::cracked);
            return both([&](Batch& batch) {
                for (DamageMark& mark : batch.blades[i].damage) mark.cleared = "inspected";
            });
        case Act::takeShot:
            return shoot(i);
        case Act::tellApart: {
            later(30);
            SteelNote note;
            note.kind = SteelNoteKind::coupon;
            note.hrc = m_wrong.empty() ? m_grade->as_quenched_typical + 0.4 * normal() : m_truth[i].quenched;
            note.at = now();
            return both([&](Batch& batch) { batch.steel_notes.push_back(note); });
        }
        case Act::returnBar:
        case Act::addGrade:
        case Act::reassign:
        case Act::acceptOrReturn:
            if (m_wrong.empty()) ruin(i, "sent back, and what it was sold as");
            for (std::size_t k = 0; k < m_stood.size(); ++k) out(k, Fate::removed);
            return;
        case Act::sign: {
            Signature signature;
            signature.disposition = Disposition::release;
            signature.round = m_record.blades[i].round;
            signature.basis = releaseBasis(judged.verdicts().blades[i]);
            signature.at = now();
            // Everything that may go is signed for at once.
            for (std::size_t k = 0; k < m_record.blades.size(); ++k) {
                if (!judged.release(k).maySign()) continue;
                signature.round = m_record.blades[k].round;
                signature.basis = releaseBasis(judged.verdicts().blades[k]);
                m_record.blades[k].signatures.push_back(signature);
            }
            return;
        }
        default: // what is left to a person is left there, and is no step of the way to release
            m_stood[i] = false;
            --m_end.extra_steps;
            return;
        }
    }

    // Before the first reading of a day the tester is read on its block.
    bool needsRun() const {
        const auto& runs = m_record.verifications;
        return !m_files_only && (runs.empty() || runs.back().time->localDay() != now().localDay());
    }

    std::mt19937_64 m_random;
    std::normal_distribution<double> m_normal;
    WorldFaults m_faults;
    const Grade* m_grade = nullptr;
    Result<TemperCurve> m_curve = Error{};
    Batch m_record;
    Batch m_shadow; ///< as a maker who never slips would have written it
    std::vector<BladeTruth> m_truth;
    std::vector<bool> m_stood; ///< still in the maker's hands
    std::vector<int> m_steps;
    std::vector<std::pair<std::string, double>> m_wrong_tempers; ///< rows, and what they were to say
    std::string m_wrong;                                         ///< what the bar really is; empty: as claimed
    double m_offset = 0;
    double m_oven_off = 0;
    double m_bias = 0;
    bool m_mends = true;
    bool m_files_only = false;
    bool m_analyser = false;
    int m_ids = 0;
    std::int64_t m_clock_ms = 1793520000000; // a morning in November 2026
    WorldEnd m_end;
};

} // namespace

WorldEnd liveIn(std::uint64_t seed, const WorldFaults& faults, int blades) {
    return World(seed, faults, blades).live();
}

namespace {

struct TenBlades {
    double released = 0; ///< of ten, when each was read three times
    double bad = 0;      ///< of them outside the window
};

// E59. Ten blades of a window of 2 HRC, all of them good, under a rule; each read three times by a tester of 0.25.
TenBlades tenGoodBlades(DecisionRule rule, int batches) {
    std::mt19937_64 random(20261202);
    std::normal_distribution<double> normal;
    std::uniform_real_distribution<double> about(-0.3, 0.3);
    TenBlades ten;
    for (int i = 0; i < batches; ++i) {
        Batch batch;
        batch.id = batch.name = "T";
        batch.grade = "1084";
        batch.window = {59, 61};
        batch.rule = rule;
        batch.plan[indexOf(Gate::temper)] = {true, 3};
        batch.testers.push_back({"t1", "Bench 1", TesterKind::bench, 0.1, "", "", {}, {}});
        const double bias = 0.15 * normal(random);
        Instant at{1793520000000, 0};
        const auto soon = [&] { return at.utc_ms += 60000, at; };
        Verification run;
        run.id = "v";
        run.tester = "t1";
        run.block = "62.6";
        run.certified = 62.6;
        for (int k = 0; k < 5; ++k) run.readings.push_back(std::round((62.6 + bias + 0.2 * normal(random)) * 10) / 10);
        run.time = soon();
        batch.verifications.push_back(run);
        const double middle = 60 + about(random);
        std::vector<double> truth;
        for (int k = 0; k < 10; ++k) {
            double hrc = 0;
            do hrc = middle + 0.3 * normal(random);
            while (hrc < 59 || hrc > 61);
            truth.push_back(hrc);
            Blade blade;
            blade.id = blade.mark = std::to_string(k);
            blade.tempers.push_back({"c", 1, 1, 205, 2, {}, run.time});
            for (int n = 0; n < 3; ++n) {
                Reading reading;
                reading.id = fmt::format("{}-{}", k, n);
                reading.after_temper = 1;
                reading.value = std::round((hrc + bias + 0.25 * normal(random)) * 10) / 10;
                reading.time = soon();
                reading.tester = "t1";
                blade.readings.push_back(reading);
            }
            batch.blades.push_back(blade);
        }
        const BatchVerdicts verdicts = judgeBatch(batch, tables(), std::nullopt);
        for (std::size_t k = 0; k < truth.size(); ++k) {
            if (verdicts.at(k, Gate::temper)->state == State::pass) ten.released += 1.0 / batches;
        }
        // The same batch a little off, so that its blades lie across the limit.
        Batch off = batch;
        off.window = {59.6, 61.6};
        const BatchVerdicts across = judgeBatch(off, tables(), std::nullopt);
        for (std::size_t k = 0; k < truth.size(); ++k) {
            if (across.at(k, Gate::temper)->state == State::pass && truth[k] < 59.6) ten.bad += 1.0 / batches;
        }
    }
    return ten;
}

} // namespace

Figures makerFigures(int draws) {
    draws = std::max(60, draws / 10);
    const int batches = std::max(100, draws);
    const TenBlades ten = tenGoodBlades(DecisionRule::chance, batches);
    int blades = 0;
    int ruined = 0;
    int bad = 0;
    int endless = 0;
    int longest = 0;
    int long_ones = 0; // E52: worlds in which a blade took more than twelve steps
    std::map<std::string, int> by_what;
    for (int i = 0; i < draws; ++i) {
        const WorldEnd end = liveIn(20261201 + static_cast<std::uint64_t>(i), {}, 6);
        blades += end.blades;
        ruined += end.ruined;
        bad += end.bad_released;
        endless += end.ended ? 0 : 1;
        longest = std::max(longest, end.most_for_one);
        long_ones += end.most_for_one > 12 ? 1 : 0;
        for (const auto& [what, count] : end.by_what) by_what[what] += count;
    }
    const WorldFaults none{false, false, false, false, false};
    std::vector<int> extra;
    const int goodBatches = std::max(20, draws / 5);
    for (int i = 0; i < goodBatches; ++i)
        extra.push_back(liveIn(77000 + static_cast<std::uint64_t>(i), none, 10).extra_steps);
    std::nth_element(extra.begin(), extra.begin() + goodBatches / 2, extra.end());
    Figures figures{
        {"by chance: of ten good blades released when read three times each", ten.released, 8.5, 10, batches, false},
        {"the same across a limit: bad blades released of ten", ten.bad, 0, 0.3, batches, false},
        {"a maker who does what the button says: blades ruined", double(ruined) / blades, 0, 0.005, blades},
        {"the same: bad blades released", double(bad) / blades, 0, 0.005, blades},
        {"the same: worlds without an end", double(endless) / draws, 0, 0, draws},
        {"the same: worlds in which a blade took more than 12 steps", double(long_ones) / draws, 0, 0.005, draws},
        {"the same: steps for the blade that took most", double(longest), -1e9, 1e9, draws, false},
        {"a good batch of ten: steps beyond its planned readings, median", double(extra[goodBatches / 2]), 0, 4,
         goodBatches, false}};
    for (const auto& [what, count] : by_what) figures.push_back({"  " + what, double(count), 0, 1e9, draws, false});
    return figures;
}

} // namespace rollcall::numbers
