// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/steel/composition.h"

#include <map>
#include <random>
#include <string>
#include <vector>

namespace rollcall::numbers {

using Steel = std::map<std::string, double>; ///< per cent by element

/// The family of a grade as residuals go (E16).
std::string residualFamily(const Grade& grade);

/// Makes steels of known composition, and reads them as an analyser would.
class Analyser {
public:
    Analyser(const Tables& tables, unsigned seed) : m_tables(tables), m_random(seed) {}
    /// Evenly within the grade's limits; what it gives no limit for as it occurs: log-normal, half of the bars below a
    /// third of what the family's practice leaves in (E16), none beyond it.
    Steel steelOf(const Grade& grade);
    /// Anything: each element evenly between none and half more than any grade has.
    Steel anySteel();
    /// With the standard uncertainties and limits of detection of the table.
    std::vector<ElementReading> measure(const Steel& steel, AnalysisMethod method);

private:
    const Tables& m_tables;
    std::mt19937 m_random;
    std::uniform_real_distribution<double> m_even{0, 1};
    std::normal_distribution<double> m_normal;
};

} // namespace rollcall::numbers
