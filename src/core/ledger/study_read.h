// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/compare.h"
#include "core/ledger/study_plan.h"

namespace rollcall {

/// What the pieces of its batch have shown so far, by level: blades are known by their marks; those that are out or not
/// measured yet are missing.
std::vector<std::vector<double>> valuesOf(const StudyPlan& plan, const LedgerBatch& batch);

/// What came of it, by level in the order of the plan; pieces without a value are missing.
struct StudyRead {
    Comparisons comparisons;
    int missing = 0;
    double power_had =
        0; ///< for the difference that matters, with the scatter that the pieces showed and their least count
};
StudyRead readStudy(const StudyPlan& plan, const std::vector<std::vector<double>>& values);

} // namespace rollcall
