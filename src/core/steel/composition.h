// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/tables.h"

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// One element of a shot or of several averaged.
struct ElementReading {
    std::string element;           ///< chemical symbol
    std::optional<double> percent; ///< mass per cent; none below the limit of detection
    std::optional<double> lod;     ///< limit of detection, where it was not found
    std::optional<double> sigma;   ///< standard uncertainty, per cent; none: by the table of the method

    bool operator==(const ElementReading&) const = default;
};

/// One shot of an analyser, with what was not understood.
struct CompositionShot {
    std::vector<ElementReading> elements;
    struct Skipped {
        int line = 0;
        std::string reason;
    };
    std::vector<Skipped> skipped;
};

/// What a number beside a bare "<LOD" is: the error, of as many sigma as beside a value; the limit of detection; or
/// nothing that says how little was there.
enum class BesideLod { error, limit, nothing };
template<>
inline constexpr std::array namesOf<BesideLod>{"error", "limit", "nothing"};

/// What an analyser prints beside a value; its files do not say.
struct PrintedError {
    double sigmas = 1; ///< 1, 2 or 3
    BesideLod beside_lod = BesideLod::error;

    PrintedError(double n = 1, BesideLod lod = BesideLod::error) : sigmas(n), beside_lod(lod) {}
};

/// Reads a steel.csv: element, percent, error; "<LOD", "< 0.05" and "ND" stand for not found. Errors (input): not a
/// table of elements; (range): not 1, 2 or 3 sigma.
Result<CompositionShot> readShot(std::string_view text, const PrintedError& printed = {});

/// A shot as typed: "Cr 13.6 0.1; Mo 0.05; V <0.05", the error after the percentage where there is one. Errors
/// (argument): the part that is not understood.
Result<CompositionShot> typedShot(const std::string& text, double printed_sigmas = 1);

/// Several shots of one piece: means, and the larger of the stated uncertainty of the mean and that by their scatter.
/// An element found in some shots only counts with half its limit where it was not. Errors (range): no shots.
Result<std::vector<ElementReading>> averageShots(const std::vector<CompositionShot>& shots, const Tables& tables,
                                                 AnalysisMethod method);

/// E48. An element in which shots of one piece differ by more than their own errors.
struct ShotsApart {
    std::string element;
    double lowest = 0; ///< per cent
    double highest = 0;
};
/// E48. By chi squared over the shots' own errors and 3 % of the content, at one in a thousand for each element; what
/// the method sees badly is left out. Empty: they can be of one steel.
std::vector<ShotsApart> shotsApart(const std::vector<CompositionShot>& shots, const Tables& tables,
                                   AnalysisMethod method);
/// E48. The one shot without which all the others agree, of three at least; none where there is no such one.
std::optional<std::size_t> oddShot(const std::vector<CompositionShot>& shots, const Tables& tables,
                                   AnalysisMethod method);

/// E49. Elements of a shot that belong to no tool steel: zinc, tin, lead, cadmium, gold, silver. What is plated or
/// dirty says nothing of the steel below.
std::vector<std::string> foreignElements(const std::vector<ElementReading>& shot);

/// What is odd about a shot before anything is compared.
enum class ShotWarning {
    coating,  ///< zinc, or much nickel or titanium on top of steel: plated, painted or coated
    scale,    ///< much silicon, calcium or aluminium: scale, grit or dirt
    smallSpot ///< iron and all others add up to far from 100 per cent
};
std::vector<ShotWarning> shotWarnings(const std::vector<ElementReading>& shot);

/// M26. How a claim stands.
enum class Claim { consistent, undecidable, notConsistent };

/// M26. One element against one grade.
struct ElementMatch {
    std::string element;
    ElementReading reading;
    double sigma = 0;
    double low = 0;             ///< allowed from
    std::optional<double> high; ///< to; none: no upper limit
    bool residual = false;      ///< the grade names no limit: what may be there as a residual
    double z = 0;               ///< distance outside in standard uncertainties; 0 inside
    /// E15: an element that XRF sees badly; it never rejects alone, unless it is off by a whole per cent (E49).
    bool doubtful = false;
};

struct CompositionMatch {
    Claim claim = Claim::consistent;
    std::vector<ElementMatch> elements;    ///< worst first
    std::vector<std::string> unseen;       ///< elements of the grade that the method cannot see
    std::vector<std::string> not_measured; ///< elements of the grade it could see but did not measure
    std::vector<std::string> wanted;       ///< E15: of those, the ones that make the grade; without them undecidable
};

/// Values that were found in one way: an analyser's, or the mill's.
struct Analysis {
    std::vector<ElementReading> elements;
    AnalysisMethod method = AnalysisMethod::xrf;

    bool operator==(const Analysis&) const = default;
};

/// M26. A measured composition against a grade. Not consistent: any element 3 standard uncertainties outside.
/// Undecidable: one from 2 to 3, or all together beyond the 95 % point of chi squared. Elements the method cannot see
/// are left out and listed. Errors (range): no element to compare.
Result<CompositionMatch> matchGrade(const std::vector<ElementReading>& measured, const Grade& grade,
                                    const Tables& tables, AnalysisMethod method);
/// E14. The same with everything that is known, each element from the first analysis that sees it.
Result<CompositionMatch> matchGrade(const std::vector<Analysis>& known, const Grade& grade, const Tables& tables);

/// M26. A grade of the library as candidate for a composition.
struct GradeCandidate {
    const Grade* grade = nullptr;
    double score = 0;                  ///< logarithm of the likelihood, 0 for the best
    double share = 0;                  ///< posterior, 0 to 1; with the others and those outside the library 1 together
    bool cannot_be_told_apart = false; ///< within a factor of 20 of the best
    Claim claim = Claim::consistent;
    bool told = true; ///< what makes the grade and can be seen was measured (E15)
};

/// A spark beside a bar of this grade: it looked alike, or not.
struct SparkSeen {
    std::string grade;
    bool agrees = true;

    bool operator==(const SparkSeen&) const = default;
};

/// E14. All grades by likelihood over everything known, composition, hardened pieces and a spark (a grade whose carbon
/// is within 0.2 % of the bar's looks alike; a wrong word of it is taken as one in five); a piece harder than a grade
/// can be nearly excludes it, one softer says little, since it may be under-hardened. The steels that are no blade
/// steels stand among the grades (E49). What is in neither has 5 % before anything is known, with elements anywhere
/// between none and half more than any grade has; 20 % where nobody has measured the carbon and the best is told by it
/// from the others, and then looks like the steels of the library do. Errors: as matchGrade.
Result<std::vector<GradeCandidate>> rankGrades(const std::vector<Analysis>& known, const std::vector<double>& coupons,
                                               const std::vector<Grade>& grades, const Tables& tables,
                                               const std::optional<SparkSeen>& spark = std::nullopt);

/// M26. All grades by likelihood over the same elements, best first. The answer 'none fits' is that the first one is
/// not consistent. Errors: as matchGrade.
Result<std::vector<GradeCandidate>> rankGrades(const std::vector<ElementReading>& measured,
                                               const std::vector<Grade>& grades, const Tables& tables,
                                               AnalysisMethod method);

} // namespace rollcall
