// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/cutting.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

// The runs of one blade as logarithms: mean of the lower and upper bounds, scatter of the middles.
struct Side {
    double low = 0;
    std::optional<double> high;
    double variance_of_mean = 0;
    double n = 0;
    bool passed = true; ///< every run passed at least one look
};

Side sideOf(const std::vector<DullInterval>& runs) {
    Side side;
    side.n = static_cast<double>(runs.size());
    double high = 0;
    bool closed = true;
    std::vector<double> middles;
    for (const DullInterval& run : runs) {
        side.passed = side.passed && run.last_pass > 0;
        closed = closed && run.first_fail.has_value();
        // Until it passes a look nothing is known from below.
        const double low = std::log(std::max(run.last_pass, 1e-9));
        side.low += low / side.n;
        const double top = run.first_fail ? std::log(*run.first_fail) : low;
        high += top / side.n;
        middles.push_back(run.last_pass > 0 ? (low + top) / 2 : top);
    }
    if (closed) side.high = high;
    if (const auto sd = sampleSd(middles)) side.variance_of_mean = *sd * *sd / side.n;
    return side;
}

} // namespace

Result<DullInterval> dullInterval(const std::vector<CutLook>& looks) {
    const auto out = [](const char* text) { return Error{ErrorKind::range, "", text}; };
    if (looks.empty()) return out("nothing was cut yet");
    DullInterval interval;
    double before = 0;
    for (const CutLook& look : looks) {
        if (!(look.cuts >= before && look.cuts > 0)) return out("the cuts run backwards");
        before = look.cuts;
        if (interval.first_fail && look.result != CutResult::fails)
            return out("it passed after it had failed: look again, and log the one that counts");
        if (look.result == CutResult::fails) {
            if (!interval.first_fail) interval.first_fail = look.cuts;
            continue;
        }
        interval.last_pass = look.cuts;
        if (look.result == CutResult::hesitates && !interval.first_hesitation) interval.first_hesitation = look.cuts;
    }
    return interval;
}

Result<CutRatio> cutRatio(const std::vector<DullInterval>& a, const std::vector<DullInterval>& b) {
    if (a.empty() || b.empty()) return Error{ErrorKind::range, "", "each blade needs a run of cuts"};
    const Side left = sideOf(a);
    const Side right = sideOf(b);
    CutRatio ratio;
    ratio.runs_a = static_cast<int>(a.size());
    ratio.runs_b = static_cast<int>(b.size());
    constexpr int enough = 3;
    const bool several = ratio.runs_a >= enough && ratio.runs_b >= enough;
    double half = 0;
    if (several) {
        const double variance = left.variance_of_mean + right.variance_of_mean;
        // Welch; runs that all came out alike have no scatter to add.
        if (variance > 0) {
            const double dof = variance * variance /
                               (left.variance_of_mean * left.variance_of_mean / (left.n - 1) +
                                right.variance_of_mean * right.variance_of_mean / (right.n - 1));
            half = tQuantile(0.975, dof) * std::sqrt(variance);
        }
    }
    ratio.low = right.high && left.passed ? std::exp(left.low - *right.high - half) : 0.0;
    if (left.high && right.passed) ratio.high = std::exp(*left.high - right.low + half);
    ratio.says = ratio.runs_a == 1 && ratio.runs_b == 1 ? CutRatio::Says::oneTrial
                 : !several                             ? CutRatio::Says::tooFewRuns
                 : ratio.low > 1                        ? CutRatio::Says::aLonger
                 : ratio.high && *ratio.high < 1        ? CutRatio::Says::bLonger
                                                        : CutRatio::Says::open;
    return ratio;
}

} // namespace rollcall
