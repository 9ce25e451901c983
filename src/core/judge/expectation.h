// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/next_temper.h"
#include "core/judge/gate_case.h"
#include "core/judge/standing.h"

#include <cmath>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

/// M20 and M21 on a batch: what its blades were expected to read, and which temper comes next.
namespace rollcall {

/// What the blades of a batch have shown after their tempers, for the shop's curve: one observation for each blade and
/// temper of its present round that was read on the bench by a verified tester, corrected for its error; a reading that
/// stands apart is left out, a set that contradicts itself counts for less. Changed pieces teach nothing (E18, E19).
std::vector<TemperObservation> temperObservations(const Batch& batch, const Tables& tables);

/// An observation and the temper after which it was read.
struct ReadTemper {
    int temper = 0;
    TemperObservation observation;
};

/// The same, each with the temper that it was read after.
std::vector<ReadTemper> readTempers(const Batch& batch, const Tables& tables);

/// A blade's tempers of its present round up to a temper; none when one of them has no temperature or time.
std::optional<std::vector<TemperHeat>> tempersUpTo(const Blade& blade, int temper);

/// E37. What files tell of a blade that no tester has read after a temper, with what the rod did.
struct ReadByFiles {
    double low = 0;  ///< HRC: the hardest file that skated less 1.5, or the middle where the edge chipped
    double high = 0; ///< HRC: the softest that bit and 1.5, or the middle where the edge rolled
    std::optional<EdgeOutcome> rod; ///< of a press no heavier than its use asks

    double hrc() const { return (low + high) / 2; }
    /// All of it is harder than the window, or the rod chipped the edge and its middle is.
    bool asksForTemper(double window_high) const {
        const bool chipped = rod && (*rod == EdgeOutcome::chip || *rod == EdgeOutcome::crack);
        return low > window_high || (chipped && hrc() > window_high);
    }
    double u() const { return (high - low) / 2 / std::sqrt(3.0); } ///< standard uncertainty: even between low and high
};

/// None where a side is open, the files contradict, or the Temper gate is not asked by files.
std::optional<ReadByFiles> readByFiles(const Batch& batch, const Blade& blade, int temper);

/// E37. One temper of a blade, by its colour where the oven's temperature is not noted.
struct TemperColour {
    double low_c = 0;
    double high_c = 0;
    double hours = 0;
    std::string seen; ///< the colour; empty: the temperature is noted
};

/// The tempers of its present round, in order; empty where one has neither temperature nor colour, or the Temper gate
/// is not asked by files.
std::vector<TemperColour> temperColours(const Batch& batch, const Blade& blade, int temper, const Grade& grade,
                                        const Tables& tables);

/// E60. How a blade was hardened in its present round, as far as it moves what is expected of it: its batch's soak and
/// cold, and what it read from the quench by a verified tester.
HardeningState hardeningOf(const Batch& batch, const Blade& blade, const VerificationBook& runs, const Tables& tables);

/// The next temper a recipe or the last temper suggests: its hours, in steps of the shop's oven.
TemperAim temperAim(const Batch& batch, const Blade& blade);

/// The shop's curve for a batch, learned once from its history and its own readings. A batch of an unknown grade, or
/// one whose blades are below the grade's as-quenched minimum, has none.
class TemperBook {
public:
    /// cases are those of its blades at Temper, in their order, where they were made already; else null.
    TemperBook(const Batch& batch, const Tables& tables, const std::vector<Case>* cases = nullptr);

    /// The curve with everything read so far; null when nothing can be foretold.
    const TemperModel* now() { return before(allTempers); }
    /// The curve as it was known before the readings after this temper.
    const TemperModel* before(int temper);
    TemperCandidate candidate(const Blade& blade, int upToTemper) const;
    std::optional<TemperExpectation> expected(const Blade& blade);
    std::optional<TemperAdvice> advice(const Blade& blade);
    /// E22. Sets the advice of the blades that await a temper to that of the load they go in with.
    void together(std::vector<Outlook>& outlooks, const std::vector<std::size_t>& awaiting);
    /// One temper worth what a blade's tempers did, by what was read after the last of them; none where nothing was.
    std::optional<TemperHeat> asRead(const Blade& blade) const;
    /// Marks of the blades hardened with this one whose readings hardly count (E19).
    std::vector<std::string> doubted(const Blade& blade);
    /// Blades that came soft from the quench follow no curve.
    bool quenchedTooSoft(const Blade& blade) const;
    /// E53. The way up for a blade that is soft below the hump of secondary hardening: to its top, where that reaches
    /// the window; none beyond the hump, or without one.
    std::optional<TemperAdvice> overHump(const Blade& blade);

private:
    std::optional<TemperModel> readWithoutTempers(const Blade& blade) const;

    std::optional<TemperAdvice> advised(const Blade& blade, TemperAim aim);
    /// Worked out when it is first asked for: most batches wait for their first temper.
    const HardeningState& hardened(const Blade& blade) const;

    static constexpr int allTempers = 1000;
    const Batch& m_batch;
    const Tables& m_tables;
    const Grade* m_grade;
    std::vector<ReadTemper> m_seen;
    std::map<int, std::optional<TemperModel>> m_models; ///< by the temper before whose readings it was known
    HardeningState m_hardening;
    mutable std::optional<VerificationBook> m_runs;
    mutable std::map<std::string, HardeningState> m_hardened; ///< by blade
};

/// Each blade's expectation beside what it read, in the order of the cases, and how many siblings of the same temper
/// are off the same way; for a blade that is hard or has tempers missing, the next one. Those that are held at another
/// gate go into no oven with the others; empty: none is.
std::vector<Outlook> outlooksOf(const Batch& batch, const std::vector<Case>& cases, TemperBook& book,
                                const Tables& tables, const std::vector<bool>& held = {});

} // namespace rollcall
