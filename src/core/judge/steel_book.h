// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/heat_book.h"
#include "core/judge/record.h"
#include "core/judge/standing.h"
#include "core/judge/verdict.h"

#include <optional>
#include <vector>

namespace rollcall {

/// What grades are ranked by.
struct GradeEvidence {
    std::vector<Analysis> known;  ///< shots' means, then the mill's values
    std::vector<double> hardened; ///< HRC: coupons, and the hardest blade that was surely soaked
    std::optional<SparkSeen> spark;

    bool operator==(const GradeEvidence&) const = default;
};

/// What a piece's shots say, worked out.
struct SteelAnswer {
    std::vector<ElementReading> measured; ///< averaged; empty when there is nothing to compare
    AnalysisMethod method = AnalysisMethod::xrf;
    int shots = 0;
    bool by_certificate = false; ///< nobody has measured: the mill's own values
    std::vector<ShotWarning> warnings;
    std::optional<CompositionMatch> match;  ///< against the batch's grade; none when it is not in the library
    const Grade* matched = nullptr;         ///< the grade that it was held against
    std::vector<GradeCandidate> candidates; ///< best first
    GradeEvidence ranked_by;                ///< what the candidates rest on
    /// Elements that certificate and analyser know, further apart than three of their uncertainties.
    struct Differs {
        std::string element;
        double shot = 0;
        double certificate = 0;
    };
    std::vector<Differs> differs;
    std::vector<ShotsApart> apart;    ///< E48: elements in which its shots cannot be of one steel
    bool odd_left_out = false;        ///< one shot stood apart from all others, and is left out
    std::vector<std::string> foreign; ///< E49: elements of any shot that belong to no tool steel
    bool carbon_known = false;        ///< a shot or the mill has measured it

    /// Share of grades that are not in the library; 0 where nothing is ranked.
    double otherShare() const;
    /// The blade steel that all evidence allows and that is likeliest, apart from this one; null when none is.
    const GradeCandidate* bestBeside(const std::string& grade) const;
    /// E49. The likeliest of all, where that is no blade steel; null otherwise.
    const GradeCandidate* notForBlades() const;
    /// E49. What a plated surface would look like: of what was measured only chromium, nickel or copper speak against
    /// the claim, by too much, and no blade steel fits that was told by all that makes it.
    bool perhapsPlated() const;
};

/// M26. The shots of a batch worked out once: a blade's own where it has some, else those of the bar.
/// A steel against the grade it is taken for; unclear: shots that cannot be one steel, or are of a plated or dirty
/// skin.
enum class SteelStands { unknown, asClaimed, other, unclear };

class SteelBook {
public:
    /// Of a book made before from the same tables the rankings are taken that rest on the same evidence: most acts
    /// change none of it, and ranking all grades is a third of judging.
    SteelBook(const Batch& batch, const Tables& tables, const HeatBook& heats, const VerificationBook& runs,
              const SteelBook* before = nullptr);
    const SteelAnswer& of(std::size_t blade) const;
    /// The bar itself.
    const SteelAnswer& bar() const { return m_bar; }
    /// What is known of the steel against its grade.
    SteelStands standsTo(std::size_t blade) const;

    /// What was ranked by just this; null when nothing was.
    const SteelAnswer* rankedBy(const GradeEvidence& evidence) const;

private:
    SteelAnswer m_bar;
    std::vector<std::optional<SteelAnswer>> m_blades;
};

/// The Steel gate: is the bar what it is taken for? Not consistent does not stop the batch by itself.
Verdict judgeSteel(const Batch& batch, std::size_t blade, const SteelBook& book, const Tables& tables);
/// The same of every blade; what the bar says is found out once for all that have no shots of their own.
std::vector<Verdict> judgeSteel(const Batch& batch, const SteelBook& book, const Tables& tables);

} // namespace rollcall
