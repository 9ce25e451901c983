// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <vector>

namespace rollcall {

enum class CutResult { passes, hesitates, fails };

/// A look at an edge after so many cuts in all.
struct CutLook {
    double cuts = 0;
    CutResult result = CutResult::passes;
};

/// M31. When an edge went dull: after the last look it passed and no later than the first it failed.
struct DullInterval {
    double last_pass = 0;             ///< 0 when it never passed a look
    std::optional<double> first_fail; ///< none when it was stopped while it still cut
    std::optional<double> first_hesitation;
};

/// Errors (range): no look, cuts that run backwards, a pass after a fail.
Result<DullInterval> dullInterval(const std::vector<CutLook>& looks);

/// How much longer blade a cuts than blade b.
struct CutRatio {
    double low = 0;
    std::optional<double> high; ///< none: no upper bound
    int runs_a = 0;
    int runs_b = 0;
    enum class Says { oneTrial, tooFewRuns, open, aLonger, bLonger } says = Says::oneTrial;
};

/// M31. One run each: [pass a / fail b, fail a / pass b], 'one trial' whatever it is. From three runs each the bounds
/// are geometric means widened by Student's t on the scatter of the runs' logarithms (Welch), and 'cuts longer' is said
/// when the interval leaves 1 out. A pass of 0 gives no upper bound, a run that was not cut until dull none either.
/// Errors (range): a side without a run.
Result<CutRatio> cutRatio(const std::vector<DullInterval>& a, const std::vector<DullInterval>& b);

} // namespace rollcall
