// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/temper.h"

#include "core/base/number.h"
#include "core/heat/kelvin.h"
#include "core/heat/temper_runs.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <boost/math/distributions/normal.hpp>
#include <cmath>
#include <Eigen/Dense>
#include <fmt/format.h>
#include <map>

namespace rollcall {

namespace {

constexpr double slopeSd = 1.5e-3; // HRC for each unit of P
constexpr double heatSd = 0.8;     // HRC
constexpr double bladeSd = 0.35;   // HRC
constexpr double twoSided95 = 1.959963984540054;
constexpr double leastSpreadWhenOff = 2.5; // HRC, soak or cold treatment not as the curve assumes
constexpr double soakOffBy = 15;           // °C
constexpr double knownBeyond_c = 40;       // °C beyond what was read, E43

Result<Done> validate(const TemperHeat& heat) {
    if (!(heat.temperature_c >= 80 && heat.temperature_c <= 750))
        return Error{ErrorKind::range, "",
                     fmt::format("a temper lies between 80 and 750 °C; this is {:g} °C", heat.temperature_c)};
    if (!(heat.hours > 0 && heat.hours <= 48))
        return Error{ErrorKind::range, "",
                     fmt::format("a temper takes more than 0 and at most 48 hours; this is {:g} h", heat.hours)};
    return Done{};
}

double ownParameter(double c, const TemperHeat& heat) {
    return (heat.temperature_c + kelvin) * (c + std::log10(heat.hours));
}

} // namespace

double equivalentHours(double c, const std::vector<TemperHeat>& before, double temperature_c) {
    double hours = 0;
    for (const TemperHeat& heat : before) hours += std::pow(10.0, ownParameter(c, heat) / (temperature_c + kelvin) - c);
    return hours;
}

Result<double> temperParameter(double c, const std::vector<TemperHeat>& tempers) {
    if (tempers.empty()) return Error{ErrorKind::range, "", "no temper is given"};
    for (const TemperHeat& heat : tempers) {
        if (const auto valid = validate(heat); !valid) return valid.error();
    }
    const TemperHeat& last = tempers.back();
    const std::vector<TemperHeat> before(tempers.begin(), tempers.end() - 1);
    return ownParameter(c, {last.temperature_c, last.hours + equivalentHours(c, before, last.temperature_c)});
}

double temperatureFor(double c, double parameter, double hours) {
    return parameter / (c + std::log10(hours)) - kelvin;
}

Result<TemperCurve> TemperCurve::of(const Grade& grade) {
    return through(grade.hj_c, grade.temper_curve);
}

Result<TemperCurve> TemperCurve::through(double c, const std::vector<TemperPoint>& points) {
    if (points.size() < 4) return Error{ErrorKind::range, "", "a temper curve needs at least four points"};
    TemperCurve curve;
    curve.m_points = points;
    for (const TemperPoint& point : points) {
        curve.m_parameters.push_back(ownParameter(c, {point.temperature_c, point.hours * point.tempers}));
        if (curve.m_parameters.size() > 1 &&
            curve.m_parameters.back() <= curve.m_parameters[curve.m_parameters.size() - 2])
            return Error{ErrorKind::range, "", "the points of a temper curve must rise"};
    }
    // Fritsch and Carlson's slopes by the weighted harmonic mean: no overshoot between points, a hump stays a hump.
    const std::size_t n = points.size();
    const std::vector<double>& p = curve.m_parameters;
    const auto secant = [&](std::size_t i) { return (points[i + 1].hrc - points[i].hrc) / (p[i + 1] - p[i]); };
    curve.m_slopes.assign(n, 0.0);
    for (std::size_t i = 1; i + 1 < n; ++i) {
        const double before = secant(i - 1);
        const double after = secant(i);
        if (before * after <= 0) continue;
        const double w1 = 2 * (p[i + 1] - p[i]) + (p[i] - p[i - 1]);
        const double w2 = (p[i + 1] - p[i]) + 2 * (p[i] - p[i - 1]);
        curve.m_slopes[i] = (w1 + w2) / (w1 / before + w2 / after);
    }
    curve.m_slopes.front() = secant(0);
    curve.m_slopes.back() = secant(n - 2);

    constexpr double humpRise = 0.5; // HRC: less is within the table's own rounding
    std::size_t lowest = 0;
    double most = humpRise - limitTolerance;
    for (std::size_t i = 1; i < n; ++i) {
        if (points[i].hrc - points[lowest].hrc > most) {
            most = points[i].hrc - points[lowest].hrc;
            curve.m_hump = Hump{lowest, i};
        }
        if (points[i].hrc < points[lowest].hrc) lowest = i;
    }
    return curve;
}

bool TemperCurve::reaches(double parameter) const {
    constexpr double slack = 1e-6; // of P, so that a table's own temperature is inside
    return parameter >= lowest() - slack && parameter <= highest() + slack;
}

std::size_t TemperCurve::segment(double parameter) const {
    const auto after = std::upper_bound(m_parameters.begin() + 1, m_parameters.end() - 1, parameter);
    return static_cast<std::size_t>(after - m_parameters.begin()) - 1;
}

double TemperCurve::at(double parameter) const {
    const std::size_t i = segment(parameter);
    const double h = m_parameters[i + 1] - m_parameters[i];
    const double t = (parameter - m_parameters[i]) / h;
    const double t2 = t * t;
    const double t3 = t2 * t;
    return (2 * t3 - 3 * t2 + 1) * m_points[i].hrc + (t3 - 2 * t2 + t) * h * m_slopes[i] +
           (3 * t2 - 2 * t3) * m_points[i + 1].hrc + (t3 - t2) * h * m_slopes[i + 1];
}

double TemperCurve::spreadAt(double parameter) const {
    const std::size_t i = segment(parameter);
    return std::max(m_points[i].plus_minus, m_points[i + 1].plus_minus);
}

Confidence TemperCurve::confidenceAt(double parameter) const {
    const std::size_t i = segment(parameter);
    return std::max(m_points[i].confidence, m_points[i + 1].confidence);
}

double hardeningShift(const Grade& grade, const TemperCurve& curve, const HardeningState& state, double parameter) {
    const double share = std::clamp((parameter - curve.lowest()) / (curve.highest() - curve.lowest()), 0.0, 1.0);
    const bool beyondHump = curve.hump() && parameter > curve.parameterOf(curve.hump()->valley);
    constexpr double most = 2; // HRC
    if (state.quench_hrc) {
        constexpr double kept = 0.6;
        const double off = std::clamp(*state.quench_hrc - grade.as_quenched_typical, -3.0, most);
        // Beyond the valley the hump makes up for what the quench left soft.
        return beyondHump ? 0.0 : kept * (1 - share) * off;
    }
    double shift = 0;
    if (state.soak_c && grade.austenitise_c.known()) {
        // What stays undissolved is missing; what dissolves beyond the range keeps austenite, which the hump turns.
        const double under = std::max(0.0, *grade.austenitise_c.low - *state.soak_c) / 10;
        const double over = std::max(0.0, *state.soak_c - *grade.austenitise_c.high) / 10;
        const bool alloyed = grade.needsFullAnneal();
        shift -= (alloyed ? 0.4 : 0.5) * under;
        shift += over * (beyondHump ? 0.2 : alloyed ? -0.4 : -0.1);
    }
    const bool assumed = curve.points().front().cold_assumed;
    if (state.cold_treated && *state.cold_treated != assumed && grade.cold_treatment != "no") {
        const double gain = grade.needsFullAnneal() ? 1.0 : 0.5;
        shift += (*state.cold_treated ? gain : -gain) * (beyondHump ? 0.0 : 1 - share);
    }
    return std::clamp(shift, -most, most);
}

double TemperExpectation::chanceBelow(double limit) const {
    return boost::math::cdf(boost::math::normal(hrc, u), limit);
}

std::pair<double, double> TemperExpectation::intervalOfReading(double reading_u) const {
    const double half = twoSided95 * std::hypot(u, reading_u);
    return {hrc - half, hrc + half};
}

namespace {

// Grade offset (in its own standard deviations), slope (likewise) and heat: independent standard normals before any
// reading.
using Effects = Eigen::RowVector3d;
using State = Eigen::Vector3d;
using Information = Eigen::Matrix3d;

// One blade's readings, for the part of them that only this blade shares.
struct BladeRows {
    Eigen::Matrix<double, Eigen::Dynamic, 3> effects;
    Eigen::VectorXd residuals;
    Eigen::VectorXd precisions;
    Information information;
    State vector;
    double square = 0;
    double weight = 1; ///< how far its readings are believed

    // The inverse of diag(u^2) + bladeSd^2 * ones, applied to columns (Sherman and Morrison).
    template<class Columns>
    Eigen::MatrixXd whitened(const Columns& columns) const {
        const Eigen::MatrixXd weighted = precisions.asDiagonal() * columns;
        const double shrink = bladeSd * bladeSd / (1.0 + bladeSd * bladeSd * precisions.sum());
        return weighted - shrink * precisions * weighted.colwise().sum();
    }
    void close() {
        const Eigen::MatrixXd white = whitened(effects);
        information = effects.transpose() * white;
        vector = white.transpose() * residuals;
        square = residuals.dot(whitened(residuals).col(0));
    }
    // Squared distance of its readings from a belief, in units of what is usual.
    double distance(const State& mean, const Information& covariance) const {
        return square - 2 * mean.dot(vector) + mean.dot(information * mean) + (information * covariance).trace();
    }
};

struct HeatRows {
    Information information = Information::Zero();
    State vector = State::Zero();
    std::map<std::string, BladeRows> blades;

    // What a heat says of offset and slope when its own draw is integrated out.
    Eigen::Matrix2d sharedInformation() const {
        return information.topLeftCorner<2, 2>() -
               information.topRightCorner<2, 1>() * information.bottomLeftCorner<1, 2>() / (1.0 + information(2, 2));
    }
    Eigen::Vector2d sharedVector() const {
        return vector.head<2>() - information.topRightCorner<2, 1>() * (vector(2) / (1.0 + information(2, 2)));
    }
};

// Belief about offset, slope and the draw of one heat.
struct Belief {
    Information covariance = Information::Identity();
    State mean = State::Zero();
};

Belief beliefOf(const Information& information, const State& vector) {
    Belief belief;
    belief.covariance = information.inverse();
    belief.mean = belief.covariance * vector;
    return belief;
}

} // namespace

struct TemperModel::Learned {
    bool any = false;
    double scale = 1; ///< variance of the observations in units of what is usual, 1 at least
    double pivot = 0; ///< weighted mean parameter of the observations
    double from = 0;  ///< the slope is known from here,
    double to = 0;    ///< to here
    std::map<std::string, HeatRows> heats;
    std::map<std::string, Belief> beliefs; ///< by heat
    Belief newHeat;

    Effects effectsAt(double parameter, double spread) const {
        return {spread, any ? slopeSd * (std::clamp(parameter, from, to) - pivot) : 0.0, heatSd};
    }
    // What the slope leaves open beyond where it is known, HRC.
    double slopeBeyond(double parameter) const {
        return any ? slopeSd * (parameter - std::clamp(parameter, from, to)) : 0.0;
    }
    // What all blades say together, each as far as it is believed.
    void combine() {
        Information shared = Information::Identity();
        State pulled = State::Zero();
        for (auto& [name, heat] : heats) {
            heat.information.setZero();
            heat.vector.setZero();
            for (const auto& [mark, rows] : heat.blades) {
                heat.information += rows.weight / scale * rows.information;
                heat.vector += rows.weight / scale * rows.vector;
            }
            shared.topLeftCorner<2, 2>() += heat.sharedInformation();
            pulled.head<2>() += heat.sharedVector();
        }
        newHeat = beliefOf(shared, pulled);
        for (const auto& [name, heat] : heats) {
            // Its own readings count whole, with its draw; what it said of the shared part alone is taken back.
            Information own = shared + heat.information;
            State ownPulled = pulled + heat.vector;
            own.topLeftCorner<2, 2>() -= heat.sharedInformation();
            ownPulled.head<2>() -= heat.sharedVector();
            beliefs[name] = beliefOf(own, ownPulled);
        }
    }
    // E19. Student's t by reweighting (the EM steps of K. L. Lange, R. J. A. Little, J. M. G. Taylor, J. Am. Stat.
    // Assoc. 84 (1989)), until no blade's weight moves by more than a hundredth.
    void reweigh() {
        constexpr double tails = 4;        // degrees of freedom
        constexpr double usualCounts = 10; // how many observations the usual scatter is worth against what is seen
        constexpr int mostSteps = 40;
        combine();
        for (int step = 0; step < mostSteps; ++step) {
            double moved = 0;
            double squares = usualCounts;
            double count = usualCounts;
            for (auto& [name, heat] : heats) {
                const Belief& belief = beliefs.at(name);
                for (auto& [mark, rows] : heat.blades) {
                    const double q = std::max(0.0, rows.distance(belief.mean, belief.covariance));
                    const auto n = static_cast<double>(rows.residuals.size());
                    const double weight = (tails + n) / (tails + q / scale);
                    moved = std::max(moved, std::abs(weight - rows.weight));
                    rows.weight = weight;
                    squares += weight * q;
                    count += n;
                }
            }
            scale = std::max(1.0, squares / count);
            combine();
            if (moved < 0.01) break;
        }
    }
};

double TemperModel::belief(const std::string& heat, const std::string& blade) const {
    const auto rows = m_learned->heats.find(heat);
    if (rows == m_learned->heats.end()) return 1;
    const auto own = rows->second.blades.find(blade);
    return own == rows->second.blades.end() ? 1.0 : own->second.weight;
}

double TemperModel::scatter() const {
    return std::sqrt(m_learned->scale);
}

bool TemperModel::doubts(const std::string& run) const {
    return std::any_of(m_doubtedRuns.begin(), m_doubtedRuns.end(),
                       [&](const DoubtedRun& one) { return one.run == run; });
}

namespace {

const std::string& runOf(const TemperObservation& o) {
    return o.run.empty() ? o.heat : o.run;
}

} // namespace

Result<TemperModel> TemperModel::learn(const Grade& grade, const HardeningState& hardening,
                                       const std::vector<TemperObservation>& observations) {
    Result<TemperCurve> curve = TemperCurve::of(grade);
    if (!curve) return curve.error();
    TemperModel model(std::move(curve).value(), grade);
    model.m_hardened = hardening;
    const TemperPoint& assumed = model.m_curve.points().front();
    const bool soakOff = hardening.soak_c && std::abs(*hardening.soak_c - assumed.austenitise_assumed_c) > soakOffBy;
    const bool coldOff = hardening.cold_treated && *hardening.cold_treated != assumed.cold_assumed;
    if (soakOff || coldOff) model.m_leastSpread = leastSpreadWhenOff;

    std::vector<const TemperObservation*> usable;
    for (const TemperObservation& o : observations) {
        if (!(std::isfinite(o.parameter) && std::isfinite(o.hrc) && o.u > 0 && std::isfinite(o.u)))
            return Error{ErrorKind::range, "", "an observation of the temper curve is not a number"};
        if (!model.m_curve.reaches(o.parameter)) {
            ++model.m_leftOut;
            continue;
        }
        if (o.hrc - 2 * std::hypot(o.u, o.common_u) > grade.as_quenched_max) {
            ++model.m_notBelieved;
            continue;
        }
        usable.push_back(&o);
    }
    const auto residual = [&](const TemperObservation& o) {
        return o.hrc - model.m_curve.at(o.parameter) - hardeningShift(grade, model.m_curve, o.hardened, o.parameter);
    };

    // E42. The witness is a run: its blades were tempered together, and share whatever is wrong with its row.
    std::map<std::string, std::vector<const TemperObservation*>> byRun;
    for (const TemperObservation* o : usable) byRun[runOf(*o)].push_back(o);
    std::vector<TemperRun> runs;
    for (const auto& [key, list] : byRun) {
        std::vector<double> residuals;
        std::vector<double> parameters;
        TemperRun run;
        run.heat = list.front()->heat;
        double squares = 0;
        for (const TemperObservation* o : list) {
            residuals.push_back(residual(*o));
            parameters.push_back(o->parameter);
            squares += o->u * o->u + bladeSd * bladeSd;
            run.u = std::max(run.u, o->common_u);
            run.day = std::max(run.day, o->day);
            run.stands = run.stands || o->stands;
            run.doubted = run.doubted || o->doubted;
        }
        run.u = std::hypot(run.u, std::sqrt(squares) / static_cast<double>(list.size()));
        run.residual = medianOf(residuals);
        run.parameter = medianOf(parameters);
        run.spread = model.offsetSpread(run.parameter);
        runs.push_back(std::move(run));
    }
    const std::vector<bool> believed = believedRuns(runs, {heatSd, slopeSd});
    std::size_t place = 0;
    for (const auto& [key, list] : byRun) {
        if (!believed[place++]) model.m_doubtedRuns.push_back({key, list.front()->batch});
    }

    auto learned = std::make_shared<Learned>();
    std::map<std::pair<std::string, std::string>, std::vector<const TemperObservation*>> blades;
    double weights = 0;
    for (const TemperObservation* o : usable) {
        if (model.doubts(runOf(*o))) continue;
        blades[{o->heat, o->blade}].push_back(o);
        const double weight = 1.0 / (o->u * o->u);
        weights += weight;
        learned->pivot += weight * o->parameter;
        const double beyond = knownBeyond_c * model.m_c;
        learned->from = learned->any ? std::min(learned->from, o->parameter - beyond) : o->parameter - beyond;
        learned->to = learned->any ? std::max(learned->to, o->parameter + beyond) : o->parameter + beyond;
        learned->any = true;
        model.m_furthestRead = std::max(model.m_furthestRead.value_or(o->parameter), o->parameter);
    }
    if (learned->any) learned->pivot /= weights;

    // An error common to a heat's blades does not average out over them: each carries its share of it.
    std::map<std::string, int> blades_of;
    for (const auto& [key, list] : blades) ++blades_of[key.first];
    for (const auto& [key, list] : blades) {
        BladeRows rows;
        const auto n = static_cast<Eigen::Index>(list.size());
        rows.effects.resize(n, 3);
        rows.residuals.resize(n);
        rows.precisions.resize(n);
        for (Eigen::Index i = 0; i < n; ++i) {
            const TemperObservation& o = *list[static_cast<std::size_t>(i)];
            rows.effects.row(i) = learned->effectsAt(o.parameter, model.offsetSpread(o.parameter));
            rows.residuals(i) = residual(o);
            rows.precisions(i) = 1.0 / (o.u * o.u + blades_of[key.first] * o.common_u * o.common_u);
        }
        rows.close();
        learned->heats[key.first].blades[key.second] = std::move(rows);
    }
    learned->reweigh();
    model.m_learned = std::move(learned);
    return model;
}

Result<TemperModel> TemperModel::afterHeat(double parameter, int blades, double reading_u) const {
    const auto expected = expect(parameter);
    if (!expected) return expected.error();
    auto learned = std::make_shared<Learned>();
    learned->any = true;
    learned->scale = m_learned->scale;
    learned->pivot = m_learned->any ? m_learned->pivot : parameter;
    const double beyond = knownBeyond_c * m_c;
    learned->from = m_learned->any ? std::min(m_learned->from, parameter - beyond) : parameter - beyond;
    learned->to = m_learned->any ? std::max(m_learned->to, parameter + beyond) : parameter + beyond;
    BladeRows blade;
    blade.effects = learned->effectsAt(parameter, offsetSpread(parameter));
    blade.residuals = Eigen::VectorXd::Constant(1, expected->hrc - expected->library_hrc);
    blade.precisions = Eigen::VectorXd::Constant(1, 1 / (reading_u * reading_u));
    blade.close();
    HeatRows heat;
    heat.information = blades / learned->scale * blade.information;
    heat.vector = blades / learned->scale * blade.vector;
    Information shared = m_learned->newHeat.covariance.inverse();
    State pulled = shared * m_learned->newHeat.mean;
    shared.topLeftCorner<2, 2>() += heat.sharedInformation();
    pulled.head<2>() += heat.sharedVector();
    learned->newHeat = beliefOf(shared, pulled);
    TemperModel model = *this;
    model.m_learned = std::move(learned);
    return model;
}

double TemperModel::offsetSpread(double parameter) const {
    return std::max(m_leastSpread, m_curve.spreadAt(parameter));
}

struct TemperModel::Place {
    const Belief* belief = nullptr;
    const BladeRows* blade = nullptr; ///< null: without readings of its own
    Eigen::RowVectorXd gain;          ///< how far its own readings move it
    const HardeningState* hardened = nullptr;
};

TemperModel::Place TemperModel::placeOf(const std::string& heat, const std::string& blade,
                                        const HardeningState* hardened) const {
    Place place;
    place.hardened = hardened != nullptr ? hardened : &m_hardened;
    const auto known = m_learned->beliefs.find(heat);
    const bool isKnown = !heat.empty() && known != m_learned->beliefs.end();
    place.belief = isKnown ? &known->second : &m_learned->newHeat;
    if (!isKnown) return place;
    const std::map<std::string, BladeRows>& blades = m_learned->heats.at(heat).blades;
    if (const auto own = blades.find(blade); own != blades.end()) {
        place.blade = &own->second;
        const Eigen::VectorXd ones = Eigen::VectorXd::Ones(own->second.residuals.size());
        place.gain = bladeSd * bladeSd * own->second.whitened(ones).transpose();
    }
    return place;
}

double TemperModel::unbounded(double parameter, const Place& place) const {
    Effects effects = m_learned->effectsAt(parameter, offsetSpread(parameter));
    double hrc = m_curve.at(parameter) + hardeningShift(m_grade, m_curve, *place.hardened, parameter);
    if (place.blade != nullptr) {
        // What the blade's own readings say beyond offset, slope and heat.
        hrc += place.gain * place.blade->residuals;
        effects -= place.gain * place.blade->effects;
    }
    return hrc + effects * place.belief->mean;
}

Result<TemperExpectation> TemperModel::expect(double parameter, const std::string& heat, const std::string& blade,
                                              const HardeningState* hardened) const {
    if (!(std::isfinite(parameter) && m_curve.reaches(parameter)))
        return Error{ErrorKind::range, "",
                     "this temper lies beyond the ends of the grade's curve: no prediction there"};
    const Place place = placeOf(heat, blade, hardened);
    Effects effects = m_learned->effectsAt(parameter, offsetSpread(parameter));
    double variance = m_learned->scale * bladeSd * bladeSd;
    if (place.blade != nullptr) {
        effects -= place.gain * place.blade->effects;
        variance = m_learned->scale / place.blade->weight * (1 - place.gain.sum()) * bladeSd * bladeSd;
    }
    variance += effects * place.belief->covariance * effects.transpose();
    // Beyond where the slope is known, what it is off by within goes on.
    const double beyond = std::abs(m_learned->slopeBeyond(parameter));
    const double within = std::abs(effects(1)) * std::sqrt(place.belief->covariance(1, 1));
    variance += beyond * (beyond + 2 * within);

    // E42. Hardness never rises with the temper but over the hump, and never passes what the quench can give.
    double hrc = std::min(unbounded(parameter, place), m_grade.as_quenched_max);
    for (std::size_t i = 0; i < m_curve.points().size() && m_curve.parameterOf(i) < parameter; ++i) {
        const bool belowHump = !m_curve.hump() || parameter <= m_curve.parameterOf(m_curve.hump()->valley);
        const bool sameSide = belowHump || m_curve.parameterOf(i) >= m_curve.parameterOf(m_curve.hump()->peak);
        if (sameSide) hrc = std::min(hrc, unbounded(m_curve.parameterOf(i), place));
    }

    TemperExpectation e;
    e.hrc = hrc;
    e.u = std::sqrt(variance);
    e.low = hrc - twoSided95 * e.u;
    e.high = hrc + twoSided95 * e.u;
    e.parameter = parameter;
    e.library_hrc = m_curve.at(parameter);
    e.confidence = m_curve.confidenceAt(parameter);
    return e;
}

} // namespace rollcall
