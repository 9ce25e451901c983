// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/temper.h"

#include "core/base/number.h"
#include "core/heat/kelvin.h"

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
    std::map<std::string, HeatRows> heats;
    std::map<std::string, Belief> beliefs; ///< by heat
    Belief newHeat;

    Effects effectsAt(double parameter, double spread) const {
        return {spread, any ? slopeSd * (parameter - pivot) : 0.0, heatSd};
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

Result<TemperModel> TemperModel::learn(const Grade& grade, const HardeningState& hardening,
                                       const std::vector<TemperObservation>& observations) {
    Result<TemperCurve> curve = TemperCurve::of(grade);
    if (!curve) return curve.error();
    TemperModel model(std::move(curve).value(), grade.hj_c);
    const TemperPoint& assumed = model.m_curve.points().front();
    const bool soakOff = hardening.soak_c && std::abs(*hardening.soak_c - assumed.austenitise_assumed_c) > soakOffBy;
    const bool coldOff = hardening.cold_treated && *hardening.cold_treated != assumed.cold_assumed;
    if (soakOff || coldOff) model.m_leastSpread = leastSpreadWhenOff;

    auto learned = std::make_shared<Learned>();
    std::map<std::pair<std::string, std::string>, std::vector<const TemperObservation*>> blades;
    double weights = 0;
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
        blades[{o.heat, o.blade}].push_back(&o);
        const double weight = 1.0 / (o.u * o.u);
        weights += weight;
        learned->pivot += weight * o.parameter;
    }
    learned->any = weights > 0;
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
            rows.residuals(i) = o.hrc - model.m_curve.at(o.parameter);
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

Result<TemperExpectation> TemperModel::expect(double parameter, const std::string& heat,
                                              const std::string& blade) const {
    if (!(std::isfinite(parameter) && m_curve.reaches(parameter)))
        return Error{ErrorKind::range, "",
                     "this temper lies beyond the ends of the grade's curve: no prediction there"};
    const auto known = m_learned->beliefs.find(heat);
    const bool isKnown = !heat.empty() && known != m_learned->beliefs.end();
    const Belief& belief = isKnown ? known->second : m_learned->newHeat;
    Effects effects = m_learned->effectsAt(parameter, offsetSpread(parameter));
    double hrc = m_curve.at(parameter);
    double variance = m_learned->scale * bladeSd * bladeSd;
    if (isKnown) {
        const std::map<std::string, BladeRows>& blades = m_learned->heats.at(heat).blades;
        if (const auto own = blades.find(blade); own != blades.end()) {
            // What the blade's own readings say beyond offset, slope and heat.
            const BladeRows& rows = own->second;
            const Eigen::VectorXd ones = Eigen::VectorXd::Ones(rows.residuals.size());
            const Eigen::RowVectorXd gain = bladeSd * bladeSd * rows.whitened(ones).transpose();
            hrc += gain * rows.residuals;
            effects -= gain * rows.effects;
            variance = m_learned->scale / rows.weight * (1 - gain.sum()) * bladeSd * bladeSd;
        }
    }
    hrc += effects * belief.mean;
    variance += effects * belief.covariance * effects.transpose();

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
