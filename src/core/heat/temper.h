// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"
#include "core/base/result.h"

#include <cmath>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace rollcall {

/// One temper as the steel saw it.
struct TemperHeat {
    double temperature_c = 0;
    double hours = 0;
};

/// What an oven can be set to, °C: steps apart, through one of them.
struct OvenSteps {
    double apart_c = 5;
    double through_c = 0; ///< 0 °F of an oven that is set in °F

    /// The setting nearest to a temperature.
    double nearest(double temperature_c) const {
        return through_c + std::round((temperature_c - through_c) / apart_c) * apart_c;
    }
};

/// M19. Hollomon-Jaffe parameter P = T (C + log10 t) of all tempers together, T in kelvin, t in hours: those before
/// the last one become equivalent time at its temperature. 190 °C 2 h then 207 °C 2 h with C 15.5: 7637.7. From
/// 450 °C up it is a time correction only: each temper also softens what the one before transformed.
/// Errors (range): no temper, a temperature outside 80 to 750 °C, a time outside 0 to 48 h. Source: J. H. Hollomon,
/// L. D. Jaffe, Trans. AIME 162 (1945).
Result<double> temperParameter(double c, const std::vector<TemperHeat>& tempers);

/// M19. Hours at a temperature that are worth the tempers before it.
double equivalentHours(double c, const std::vector<TemperHeat>& before, double temperature_c);

/// The inverse for one temper: the temperature in degrees Celsius that gives this parameter in these hours.
double temperatureFor(double c, double parameter, double hours);

/// M20. A grade's expected hardness over the parameter: a shape-preserving cubic (Fritsch and Carlson) through the
/// points of its table. Not defined beyond its ends.
class TemperCurve {
public:
    /// Errors (range): fewer than four points, or points whose parameters do not rise.
    static Result<TemperCurve> of(const Grade& grade);
    /// The same from points alone; for checks that leave one out.
    static Result<TemperCurve> through(double c, const std::vector<TemperPoint>& points);

    double lowest() const { return m_parameters.front(); }
    double highest() const { return m_parameters.back(); }
    bool reaches(double parameter) const;
    /// Expected hardness in HRC; the parameter must lie within the ends.
    double at(double parameter) const;
    /// Honest spread of the rows on either side, the larger of the two.
    double spreadAt(double parameter) const;
    /// The weaker confidence of the rows on either side.
    Confidence confidenceAt(double parameter) const;

    /// Where hardness falls to before the hump of secondary hardening, and the top of the hump, as places among the
    /// table's points; none where no row lies half a point or more above an earlier one.
    struct Hump {
        std::size_t valley = 0;
        std::size_t peak = 0;
    };
    const std::optional<Hump>& hump() const { return m_hump; }
    const std::vector<TemperPoint>& points() const { return m_points; }
    double parameterOf(std::size_t point) const { return m_parameters[point]; }

private:
    std::size_t segment(double parameter) const;

    std::vector<TemperPoint> m_points;
    std::vector<double> m_parameters;
    std::vector<double> m_slopes;
    std::optional<Hump> m_hump;
};

/// How a blade was hardened, as far as it moves the curve; each may be unknown.
struct HardeningState {
    std::optional<double> soak_c = {};
    std::optional<bool> cold_treated = {};
    std::optional<double> quench_hrc = {}; ///< its mean before the first temper, by a verified tester
};

/// E60. By how much a blade hardened so is expected off its grade's curve at a parameter, HRC. What it read from the
/// quench counts most where least was tempered (six tenths of its distance from the grade's usual value at the curve's
/// cool end, nothing at the hot one); where it was not read, a soak outside the grade's range and a cold treatment that
/// the curve does not assume. Never over 2. Judgement, low confidence.
double hardeningShift(const Grade& grade, const TemperCurve& curve, const HardeningState& state, double parameter);

/// A reading after a temper, from which the shop's curve is learned.
struct TemperObservation {
    std::string heat;             ///< blades of one heat share its draw
    std::string blade;            ///< readings of one blade share its draw
    double parameter = 0;         ///< M19, of its tempers up to the reading
    double hrc = 0;               ///< mean, corrected for the tester's error
    double u = 0.4;               ///< standard uncertainty of the mean, its own part; 0.4 when it is not known
    double common_u = 0;          ///< the part common to all of its heat: the block, the conversion (E19)
    std::string run = {};         ///< blades tempered together share it (E42); empty: as its heat
    int day = 0;                  ///< local day of that temper; 0: not known
    bool stands = false;          ///< somebody has looked into the reading and said that it is so
    bool doubted = false;         ///< a number of its tempers would make sense in another unit (E44)
    HardeningState hardened = {}; ///< of its blade
    std::string batch = {};       ///< name, for saying which run is doubted
};

/// M20. Hardness to expect, with how well it is known.
struct TemperExpectation {
    double hrc = 0;
    double u = 0;   ///< standard uncertainty of the blade's true mean
    double low = 0; ///< 95 % interval of the true mean
    double high = 0;
    double parameter = 0;   ///< M19
    double library_hrc = 0; ///< the curve alone
    Confidence confidence = Confidence::high;

    /// Chance that the true mean lies below a hardness.
    double chanceBelow(double limit) const;
    /// 95 % interval of a mean read with this standard uncertainty.
    std::pair<double, double> intervalOfReading(double reading_u) const;
};

/// A run that teaches nothing yet (E42).
struct DoubtedRun {
    std::string run;
    std::string batch; ///< its name
};

/// M20. The grade's curve moved by what the shop has read: a linear update of a grade offset (standard
/// deviation: the curve's spread, 2.5 at least when the soak was over 15 °C from the assumed one or cold treatment
/// differs), a slope (1.5 HRC per 1000 of P about the observations' weighted mean P), a draw for each heat (0.8) and
/// for each blade (0.35). E19: what one blade says follows Student's t with 4 degrees of freedom, fitted by
/// reweighting, so that one wrong blade hardly moves the others; blades that contradict each other, or themselves,
/// widen what is foretold. E42: a run that the others do not lead to expect teaches nothing; beyond 40 °C from what
/// was read the slope says no more than at its end; nothing is expected above the grade's maximum as quenched, and
/// nothing that rises with the temper outside the hump of secondary hardening. Learning is linear in the observations,
/// an expectation costs the same however many there are.
class TemperModel {
public:
    /// Errors (range): as TemperCurve; an observation that is not finite, or without a positive uncertainty.
    /// Observations beyond the curve's ends are left out and counted.
    static Result<TemperModel> learn(const Grade& grade, const HardeningState& hardening,
                                     const std::vector<TemperObservation>& observations);
    /// What would be known of new heats after one whose blades all read what is expected at a parameter, each with
    /// this standard uncertainty: what was read is believed as it is now, and the heats it came from are no longer
    /// told apart. Errors (range): as expect().
    Result<TemperModel> afterHeat(double parameter, int blades, double reading_u) const;

    const TemperCurve& curve() const { return m_curve; }
    double constant() const { return m_c; }
    int leftOut() const { return m_leftOut; }
    /// Observations surely above the most that the grade can give as quenched; they teach nothing.
    int notBelieved() const { return m_notBelieved; }
    /// E42. Runs that teach nothing until somebody has looked.
    const std::vector<DoubtedRun>& doubtedRuns() const { return m_doubtedRuns; }
    /// Whether a run is one of them.
    bool doubts(const std::string& run) const;
    /// E43. The most tempered that a run which is believed has been read at, as parameter; none where there is none.
    std::optional<double> furthestRead() const { return m_furthestRead; }
    /// How much wider than usual the observations scatter; 1 where they agree.
    double scatter() const;
    /// How far a blade's readings are believed: about 1 where they come as expected, near 0 where they are far off; 1
    /// for a blade without any.
    double belief(const std::string& heat, const std::string& blade) const;

    /// Expectation at a parameter: for a blade of a heat (a blade without readings is a new one of that heat), hardened
    /// so; with an empty heat for a blade of a new heat. Errors (range): beyond the ends of the curve.
    Result<TemperExpectation> expect(double parameter, const std::string& heat = {}, const std::string& blade = {},
                                     const HardeningState* hardened = nullptr) const;

private:
    struct Learned; ///< what the observations say, worked out once
    struct Place;   ///< a blade as it is asked for

    TemperModel(TemperCurve curve, const Grade& grade) : m_curve(std::move(curve)), m_grade(grade), m_c(grade.hj_c) {}
    double offsetSpread(double parameter) const;
    Place placeOf(const std::string& heat, const std::string& blade, const HardeningState* hardened) const;
    /// What is expected by offset, slope, heat and blade alone.
    double unbounded(double parameter, const Place& place) const;

    TemperCurve m_curve;
    Grade m_grade;
    HardeningState m_hardened;
    std::vector<DoubtedRun> m_doubtedRuns;
    std::optional<double> m_furthestRead;
    double m_c = 20;
    double m_leastSpread = 0;
    int m_leftOut = 0;
    int m_notBelieved = 0;
    std::shared_ptr<const Learned> m_learned;
};

} // namespace rollcall
