// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/judged.h"
#include "core/judge/study.h"

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

/// What a shop's batches have to say together: a few numbers of each blade, taken from its verdicts once.
namespace rollcall {

/// A blade's hardness after one of its tempers, as the shop's curve takes it (M20): corrected, by a verified tester.
struct LedgerReading {
    int temper = 1;       ///< number of the last temper before it
    double hrc = 0;       ///< mean
    double u = 0;         ///< standard uncertainty of the mean
    double parameter = 0; ///< M19 of its tempers up to there
};

/// What a gate's rule compared on a blade: enough to ask how another window, rule or tester's error had decided.
struct LedgerMeasurement {
    double mean = 0;  ///< corrected mean
    double u = 0;     ///< expanded uncertainty of it
    double error = 0; ///< of the tester as it was found on its block; 0 where none was
    int n = 0;
    int planned = 3; ///< readings, E65
    Window window;
    DecisionRule rule = DecisionRule::guarded;
    double allowance = 0;
    bool uncorrected = false;
    bool finished = false; ///< a finished knife: no temper of ours brings it down
};

/// One blade.
struct LedgerBlade {
    std::string id;
    std::string mark;
    std::string grade;
    std::string purpose;
    int round = 1;            ///< hardening round it is in
    int tempers = 0;          ///< of this round
    int spare_tempers = 0;    ///< made after it had been read with all that its steel or recipe asks for: rework
    double spare_hours = 0;   ///< how long those took
    double last_temper_c = 0; ///< 0 without one
    std::array<std::optional<State>, gateCount> states; ///< at the gates that are asked
    /// What speaks first where the state is Borderline or Fail, in the order of the gates; most blades have none.
    std::vector<std::pair<Gate, Reason>> causes;
    std::optional<LedgerMeasurement> tempered; ///< at Temper
    std::optional<double> quenched_hrc;        ///< corrected mean as quenched
    std::vector<LedgerReading> readings;       ///< by temper, of this round
    std::shared_ptr<const StudyPiece> piece;   ///< null where nothing was tried on it
    std::optional<double> grain;               ///< ASTM number of its fracture, counted or rated

    std::optional<State> at(Gate gate) const { return states[indexOf(gate)]; }
    /// Null where nothing holds it up at this gate.
    const Reason* causeAt(Gate gate) const {
        for (const auto& [at, reason] : causes) {
            if (at == gate) return &reason;
        }
        return nullptr;
    }
};

/// One batch.
struct LedgerBatch {
    std::string id;
    std::string name;
    std::string grade;
    std::string lot;
    std::string recipe; ///< name and version; empty for none
    std::string oven;   ///< that its blades were hardened in; empty where no heat is logged
    std::string medium; ///< that they were quenched in
    std::string person; ///< who read them after their tempers, most of them
    std::string tester; ///< on which, most of them
    std::int64_t made_ms = 0;
    std::int64_t read_ms = 0; ///< of its last reading, temper or heat; made_ms where there is none
    int read_offset = 0;      ///< minutes that local time was ahead of UTC then
    std::optional<double> soak_c;
    double soak_minutes = 0; ///< shortest planned soak, or what the recipe says; 0 where not known
    int readings = 0;        ///< all that were ever logged on its blades
    std::vector<LedgerBlade> blades;

    std::int64_t day() const { return (read_ms / 1000 + read_offset * 60) / 86400; } ///< local, since 1970
};

/// What the ledger keeps of a batch.
LedgerBatch ledgerBatchOf(const Batch& batch, const Judged& judged, const Tables& tables);

/// All batches that have been gone through, by id.
class Ledger {
public:
    void put(LedgerBatch batch);
    void drop(const std::string& id);
    /// The oldest first, by their last reading. Valid until the next is put or dropped.
    const std::vector<const LedgerBatch*>& batches() const { return m_ordered; }
    const LedgerBatch* batch(const std::string& id) const;
    std::size_t size() const { return m_batches.size(); }
    /// Grades that blades are taken for, those with most blades first.
    std::vector<std::string> grades() const;

private:
    std::map<std::string, std::shared_ptr<const LedgerBatch>> m_batches;
    std::vector<const LedgerBatch*> m_ordered; ///< of a copy too: it shares the batches
};

} // namespace rollcall
