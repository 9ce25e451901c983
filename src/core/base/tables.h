// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"
#include "core/base/names.h"
#include "core/base/protocol.h"
#include "core/base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// A Rockwell scale (table rockwell_scales): HR = N - h/S with h in mm.
struct RockwellScale {
    std::string symbol;                     ///< as written with a number: "HRC", "HR15N", "HRBW"
    double n = 0;                           ///< N, the number at zero depth
    double s_mm = 0;                        ///< S, depth of one Rockwell point
    double total_force_kgf = 0;             ///< total force
    std::optional<double> ball_diameter_mm; ///< absent for the diamond cone
    std::optional<double> low;              ///< valid range of the scale; absent where none is laid down
    std::optional<double> high;
    Confidence confidence = Confidence::high;
};

/// One line of the conversion table for non-austenitic steels (table e140_hrc).
struct ConversionRow {
    double hrc = 0;
    /// In the order of Tables::conversionScales; absent where the table has a gap.
    std::vector<std::optional<double>> others;
    Confidence confidence = Confidence::high;
};

/// Allowed error and repeatability of a tester (table e18_machine_tolerance), for low <= block < high.
struct ToleranceBand {
    std::string scale;
    std::optional<double> low;
    std::optional<double> high;
    double max_repeatability = 0; ///< largest minus smallest, in points
    double max_error = 0;         ///< either side of the certified value, in points
    Confidence confidence = Confidence::high;
    int line = 0; ///< line in the table's file, shown when the maker asks why
};

/// Smallest thickness on which a hardness may be read (table e18_min_thickness).
struct ThicknessRow {
    std::string scale;
    double thickness_mm = 0;
    double min_hardness = 0;
    Confidence confidence = Confidence::high;
    int line = 0;
};

/// Corrections of readings on convex cylinders (tables convex_correction_*).
struct ConvexTable {
    std::vector<std::string> scales;
    std::vector<double> readings;    ///< rising
    std::vector<double> radii_mm;    ///< rising
    std::vector<double> corrections; ///< to be added; row by row, a row for each reading
};

/// Limits of the test temper, seconds (table e18_test_cycle).
struct TestCycle {
    double dwell_min_s = 2; ///< total force held at least
    double dwell_max_s = 6; ///< and at most
    Confidence confidence = Confidence::high;
};

/// How a composition was measured.
enum class AnalysisMethod { xrf, oes };
template<>
inline constexpr std::array namesOf<AnalysisMethod>{"xrf", "oes"};

/// What a method sees of one element (table pmi_limits).
struct DetectionLimit {
    AnalysisMethod method = AnalysisMethod::xrf;
    std::string element;
    bool visible = true;
    std::optional<double> content_low; ///< content for which the row holds, per cent; none: any
    double sigma = 0;                  ///< the larger standard uncertainty of the row, per cent
    std::optional<double> lod;         ///< the larger limit of detection
    Confidence confidence = Confidence::medium;
};

/// What a blade is for, by one of the two schools of thought (table purposes): where to begin, not a rule.
struct PurposeProfile {
    std::string purpose; ///< "Chopper"
    std::string school;  ///< "hard and thin", "softer and thicker"
    double window_low = 0;
    double window_high = 0;
    double behind_edge_mm = 0;
    double angle_per_side_deg = 0;
    double rod_force_n = 90; ///< the rung of the rod test its edge is asked for
    double rod_raise_deg = 45;
    std::vector<std::string> tests; ///< protocols that matter for it
    std::string why;
    Confidence confidence = Confidence::low;
};

/// All reference tables, read once from a folder and validated. The values are recalled, not copied from a
/// printed standard; the shop's own copy of the standard governs.
class Tables {
public:
    /// Reads every table of the folder. Errors (kind table): a file that is missing or not CSV, a missing
    /// column, a field that is not what it must be, rows out of order; place is "file line N column C".
    static Result<Tables> load(const std::string& folder);

    const std::vector<RockwellScale>& scales() const { return m_scales; }
    const std::vector<ConversionRow>& conversions() const { return m_conversions; }
    const std::vector<ToleranceBand>& tolerances() const { return m_tolerances; }
    const std::vector<ThicknessRow>& thicknesses() const { return m_thicknesses; }
    const std::vector<Grade>& grades() const { return m_grades; }
    /// Steels that are no blade steels: composition and hardness as quenched alone.
    const std::vector<Grade>& otherSteels() const { return m_otherSteels; }
    const std::vector<ConvexTable>& convex() const { return m_convex; }
    const TestCycle& testCycle() const { return m_testCycle; }
    /// Plain and low-alloy steel first, then stainless; each from pale to dark.
    const std::vector<OxideColour>& oxideColours() const { return m_oxideColours; }

    const std::vector<PurposeProfile>& purposes() const { return m_purposes; }
    /// Null when there is none.
    const PurposeProfile* purpose(std::string_view purpose, std::string_view school) const;
    /// The shipped protocols of proof.
    const std::vector<Protocol>& protocols() const { return m_protocols; }

    /// What a method sees of an element at this content; null where the table says nothing.
    const DetectionLimit* detection(AnalysisMethod method, std::string_view element, double percent) const;
    /// Whether a method can see an element at all; one that the table does not name it can.
    bool canSee(AnalysisMethod method, std::string_view element) const;

    /// The scale of this symbol ("HRC", "hr15n", "C"); kind argument when there is none.
    Result<RockwellScale> scale(std::string_view symbol) const;
    /// The grade of this designation, compared without regard to case; the shop's own before the shipped one; null when
    /// there is none.
    const Grade* grade(std::string_view name) const;
    /// These tables with the shop's own grades in front of the library, which stays as it was shipped.
    Tables withOwnGrades(std::vector<Grade> own) const;
    /// Names of the scales beside HRC in the conversion table, in the order of ConversionRow::others.
    static const std::vector<std::string>& conversionScales();
    /// A name for this edition of the tables, stamped on verdicts so that an old one can be reproduced.
    static constexpr const char* edition = "2026-12a";

private:
    std::vector<RockwellScale> m_scales;
    std::vector<ConversionRow> m_conversions;
    std::vector<ToleranceBand> m_tolerances;
    std::vector<ThicknessRow> m_thicknesses;
    std::vector<Grade> m_grades;
    std::vector<Grade> m_otherSteels;
    std::vector<ConvexTable> m_convex;
    TestCycle m_testCycle;
    std::vector<OxideColour> m_oxideColours;
    std::vector<DetectionLimit> m_detection;
    std::vector<PurposeProfile> m_purposes;
    std::vector<Protocol> m_protocols;
};

} // namespace rollcall
