// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/next_temper.h"
#include "core/judge/gates.h"
#include "core/judge/standing.h"

#include <algorithm>
#include <map>
#include <optional>
#include <vector>

/// What the judging of a gate starts from: each blade's readings measured, and what its siblings show.
namespace rollcall {

// One blade at one gate while it is being judged.
struct Case {
    const Blade* blade = nullptr;
    Gate gate = Gate::temper;
    ReadingSet set;
    std::optional<MeasurementInput> input;
    std::optional<Measurement> measurement;
};

/// Unstruck readings of the blade's present round at a gate; at Temper those after this temper. E51: of one state of
/// the metal, the latest that was read: what was read before a cold treatment, or ground off since, is of another.
std::vector<const Reading*> candidatesAt(const Blade& blade, Gate gate, int temper, Zone zone = Zone::edge);

/// E51. What has changed the metal between its readings at a gate and now, or between two sets of them.
struct MetalState {
    std::vector<const Reading*> before; ///< of the state before that of candidatesAt; empty: none
    bool before_cold = false;           ///< a cold treatment lies between them, else it was ground off
    bool outdated = false;              ///< what candidatesAt gives is not of the present state
    bool outdated_by_cold = false;
};
MetalState metalState(const Blade& blade, Gate gate, int temper);

/// Sorts the readings, finds the verification, and measures them against the gate's window.
Case caseOf(const Batch& batch, const Blade& blade, Gate gate, const VerificationBook& book, const Tables& tables);

/// The same for the readings after an earlier temper, or of another part of the blade, against the edge's window.
Case caseAfter(const Batch& batch, const Blade& blade, Gate gate, int temper, const VerificationBook& book,
               const Tables& tables, Zone zone = Zone::edge);

/// E47. What a mark of damage means for the blade.
enum class DamageClass { stops, repair, none };
DamageClass classOf(const DamageMark& mark);

/// E12, E47. A crack or break that nobody has cleared.
struct OpenCrack {
    std::string kind; ///< "crack", "break", as it was marked
    std::optional<double> place_mm;
    std::string damage; ///< id of its mark; empty: it was seen on the rod
};
/// The first one, marked or seen on the rod in this hardening round; none when there is none.
std::optional<OpenCrack> openCrack(const Blade& blade);

/// E47. The first damage that is to be repaired and looked at again (chip, tip, bend, burn); null when there is none.
const DamageMark* openDamage(const Blade& blade);

/// Glass-hard: it is of ours, was hardened or read as quenched, and was never tempered since. Not where it came
/// finished, and not where nothing of a heat is known.
bool isUntempered(const Batch& batch, const Blade& blade);

/// What a blade was expected to read after its latest temper, and how its siblings compare with theirs.
struct Outlook {
    std::optional<TemperExpectation> expected;
    double by = 0;  ///< mean read minus expected
    double low = 0; ///< 95 % interval of a mean read like this one
    double high = 0;
    bool surprise = false;
    double in_u = 0;      ///< by, in standard uncertainties of what was expected and what was read
    bool far = false;     ///< E27: beyond three of them, or all its siblings beyond two to the same side
    int siblings = 0;     ///< others of the same temper that can be compared
    int shifted = 0;      ///< of them, surprises to the same side
    double median_by = 0; ///< of the others
    /// Where a next temper is to be advised; of blades that go into the oven together its best is the load's (E22).
    std::optional<TemperAdvice> advice;
    std::vector<std::string> load;         ///< marks of the blades that go in with it, itself among them; empty: alone
    std::optional<double> alone_c;         ///< what its own best would be, where the load's is another
    bool split = false;                    ///< the batch goes in as two loads
    double scatter = 1;                    ///< of what the curve was learned from, times what is usual (E19)
    int not_believed = 0;                  ///< readings above what the grade can give
    std::vector<std::string> doubted;      ///< marks of the batch whose readings hardly count for the curve
    std::vector<std::string> doubted_runs; ///< batches of runs that teach nothing until somebody has looked (E42)
    double furthest_c = 0;                 ///< the hottest that was read, as one temper of the next one's hours (E43)
    const SurpriseLook* look = nullptr;    ///< somebody looked into it, or into a sibling's that is off like it
};

class HeatBook;
class SteelBook;

/// All blades of a batch at a gate, in their order.
std::vector<Case> casesAt(const Batch& batch, Gate gate, const VerificationBook& book, const Tables& tables);

/// The verdicts of all blades at Quench or Temper, in their order; an outlook for each case, and what the Heat gate
/// says of the blades where it is asked, by their places.
std::vector<Verdict> judgeReadings(const Batch& batch, const Tables& tables, const std::vector<Case>& cases,
                                   const std::vector<Outlook>& outlooks, const SteelBook& steel, const HeatBook& heats,
                                   const VerificationBook& runs, const std::map<std::size_t, Verdict>& heat,
                                   const std::optional<Instant>& now);

/// Order in which reasons speak: what is wrong, what is open, notes, what is good, what nobody saw.
int rankOf(Tone tone);

/// A verdict that says nothing yet.
Verdict emptyVerdict(const Blade& blade, Gate gate);

/// The verdict of a blade that is excused at a gate, or out before it; none when it is neither.
std::optional<Verdict> excusedVerdict(const Blade& blade, Gate gate);

// What the other blades of the batch show at the same gate.
struct Siblings {
    std::optional<double> median; ///< of their decided means
    int judged = 0;
    int soft = 0;
    int hard = 0;
};

// The judged means of all blades at a gate, kept sorted by hardening round, so that each blade's siblings are known
// without walking through all of them again.
class Family {
public:
    Family(const Batch& batch, const std::vector<Case>& cases) : m_batch(batch) {
        for (const Case& c : cases) {
            if (!counts(c)) continue;
            Round& round = m_rounds[c.blade->round];
            round.means.push_back(c.measurement->decided_mean);
            if (c.measurement->side == Side::soft) ++round.soft;
            if (c.measurement->side == Side::hard) ++round.hard;
        }
        for (auto& [number, round] : m_rounds) std::sort(round.means.begin(), round.means.end());
    }

    Siblings siblingsOf(const Case& self) const {
        const auto round = m_rounds.find(self.blade->round);
        if (round == m_rounds.end()) return {};
        const std::vector<double>& means = round->second.means;
        Siblings siblings{std::nullopt, static_cast<int>(means.size()), round->second.soft, round->second.hard};
        std::size_t own = means.size(); // place of its own mean among them; past the end when it has none
        if (counts(self)) {
            own = static_cast<std::size_t>(
                std::lower_bound(means.begin(), means.end(), self.measurement->decided_mean) - means.begin());
            --siblings.judged;
            if (self.measurement->side == Side::soft) --siblings.soft;
            if (self.measurement->side == Side::hard) --siblings.hard;
        }
        if (siblings.judged == 0) return siblings;
        const auto other = [&](std::size_t i) { return means[i < own ? i : i + 1]; };
        const auto count = static_cast<std::size_t>(siblings.judged);
        siblings.median = count % 2 == 1 ? other(count / 2) : (other(count / 2 - 1) + other(count / 2)) / 2.0;
        return siblings;
    }

private:
    // One that is out is no sibling (E13), nor is a changed piece (E18).
    bool counts(const Case& c) const { return c.measurement && !c.blade->fate && m_batch.changedBy(*c.blade).empty(); }

    struct Round {
        std::vector<double> means;
        int soft = 0;
        int hard = 0;
    };
    const Batch& m_batch;
    std::map<int, Round> m_rounds;
};

} // namespace rollcall
