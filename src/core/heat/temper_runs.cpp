// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/temper_runs.h"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <set>

namespace rollcall {

namespace {

constexpr double surprise = 3; // standard uncertainties

// What runs say of the library's offset and of the slope: independent standard normals before any of them.
class Expected {
public:
    Expected(const std::vector<TemperRun>& runs, const RunScatter& scatter) : m_runs(runs), m_scatter(scatter) {}

    void add(std::size_t run, double sign = 1) {
        const Eigen::RowVector2d effects = effectsOf(run);
        const double precision = sign / varianceOf(run);
        m_information += precision * effects.transpose() * effects;
        m_vector += precision * m_runs[run].residual * effects.transpose();
    }
    void remove(std::size_t run) { add(run, -1); }
    // Standard uncertainties by which a run is off what the runs that were added lead to expect.
    double distance(std::size_t run) const {
        const Eigen::Matrix2d covariance = m_information.inverse();
        const Eigen::RowVector2d effects = effectsOf(run);
        const double off = m_runs[run].residual - effects.dot(covariance * m_vector);
        return std::abs(off) / std::sqrt(varianceOf(run) + (effects * covariance * effects.transpose()).value());
    }

private:
    double pivot() const {
        double sum = 0;
        for (const TemperRun& run : m_runs) sum += run.parameter;
        return sum / static_cast<double>(m_runs.size());
    }
    Eigen::RowVector2d effectsOf(std::size_t run) const {
        return {m_runs[run].spread, m_scatter.slope_sd * (m_runs[run].parameter - m_pivot)};
    }
    double varianceOf(std::size_t run) const {
        return m_scatter.heat_sd * m_scatter.heat_sd + m_runs[run].u * m_runs[run].u;
    }

    const std::vector<TemperRun>& m_runs;
    const RunScatter& m_scatter;
    double m_pivot = pivot();
    Eigen::Matrix2d m_information = Eigen::Matrix2d::Identity();
    Eigen::Vector2d m_vector = Eigen::Vector2d::Zero();
};

class Screen {
public:
    Screen(const std::vector<TemperRun>& runs, const RunScatter& scatter)
        : m_runs(runs), m_scatter(scatter), m_believed(runs.size(), false) {}

    std::vector<bool> run() {
        const Expected library(m_runs, m_scatter);
        for (std::size_t i = 0; i < m_runs.size(); ++i)
            m_believed[i] = m_runs[i].stands || (mayTeach(i) && library.distance(i) <= surprise);
        settle();
        if (const std::vector<std::size_t> others = largestAgreeing(); witnesses(others) > witnesses(chosen())) {
            for (std::size_t i = 0; i < m_runs.size(); ++i)
                m_believed[i] = m_runs[i].stands || std::count(others.begin(), others.end(), i) > 0;
            settle();
        }
        return m_believed;
    }

private:
    bool mayTeach(std::size_t run) const { return m_runs[run].stands || !m_runs[run].doubted; }

    std::vector<std::size_t> chosen() const {
        std::vector<std::size_t> list;
        for (std::size_t i = 0; i < m_runs.size(); ++i) {
            if (m_believed[i]) list.push_back(i);
        }
        return list;
    }

    // Each run against all others that are believed, until none changes sides.
    void settle() {
        constexpr int mostSteps = 10;
        for (int step = 0; step < mostSteps; ++step) {
            Expected all(m_runs, m_scatter);
            for (const std::size_t i : chosen()) all.add(i);
            std::vector<bool> next = m_believed;
            for (std::size_t i = 0; i < m_runs.size(); ++i) {
                Expected others = all;
                if (m_believed[i]) others.remove(i);
                next[i] = m_runs[i].stands || (mayTeach(i) && others.distance(i) <= surprise);
            }
            if (next == m_believed) return;
            m_believed = std::move(next);
        }
    }

    // Hardening heats that speak: where several do, of more than one day; a slip made once is repeated through a day.
    int witnesses(const std::vector<std::size_t>& list) const {
        std::set<std::string> heats;
        std::set<int> days;
        for (const std::size_t i : list) {
            heats.insert(m_runs[i].heat);
            if (m_runs[i].day != 0) days.insert(m_runs[i].day);
        }
        return days.size() < 2 ? std::min<int>(1, static_cast<int>(heats.size())) : static_cast<int>(heats.size());
    }

    // Of the runs that are not believed the most that agree with one of them.
    std::vector<std::size_t> largestAgreeing() const {
        std::vector<std::size_t> best;
        for (std::size_t i = 0; i < m_runs.size(); ++i) {
            if (m_believed[i] || !mayTeach(i)) continue;
            std::vector<std::size_t> agreeing;
            for (std::size_t k = 0; k < m_runs.size(); ++k) {
                if (!m_believed[k] && mayTeach(k) && agree(m_runs[i], m_runs[k])) agreeing.push_back(k);
            }
            if (witnesses(agreeing) > std::max(1, witnesses(best))) best = std::move(agreeing);
        }
        return best;
    }
    bool agree(const TemperRun& a, const TemperRun& b) const {
        const double slope = m_scatter.slope_sd * (a.parameter - b.parameter);
        const double u = std::sqrt(2 * m_scatter.heat_sd * m_scatter.heat_sd + a.u * a.u + b.u * b.u + slope * slope);
        return std::abs(a.residual - b.residual) <= surprise * u;
    }

    const std::vector<TemperRun>& m_runs;
    const RunScatter& m_scatter;
    std::vector<bool> m_believed;
};

} // namespace

std::vector<bool> believedRuns(const std::vector<TemperRun>& runs, const RunScatter& scatter) {
    if (runs.empty()) return {};
    return Screen(runs, scatter).run();
}

} // namespace rollcall
