// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/temper_ledger.h"

namespace rollcall {

/// Something that might have been otherwise.
struct WhatIf {
    std::string grade;    ///< whose blades; empty: all
    double low_by = 0;    ///< the window's lower limit, HRC higher
    double high_by = 0;   ///< its upper limit, HRC higher
    double error_by = 0;  ///< the tester reads so much harder than its block said, HRC
    double temper_by = 0; ///< every last temper so much hotter, °C
    std::optional<DecisionRule> rule;

    bool nothing() const { return low_by == 0 && high_by == 0 && error_by == 0 && temper_by == 0 && !rule; }
};

/// A blade that would be judged otherwise.
struct ChangedVerdict {
    const LedgerBatch* batch = nullptr;
    const LedgerBlade* blade = nullptr;
    State was = State::pass;
    State would_be = State::pass;
};

struct WhatIfAnswer {
    std::array<int, namesOf<State>.size()> was{};      ///< blades by their state at Temper
    std::array<int, namesOf<State>.size()> would_be{}; ///< likewise
    int blades = 0;                                    ///< that were read after their tempers
    int held = 0;   ///< of them, judged by more than their hardness: those stay as they are unless they get worse
    int beyond = 0; ///< whose tempers lie beyond what is known of their steel: left where they are
    std::vector<ChangedVerdict> changed; ///< the newest batch first
};

/// Asks the rule of the Temper gate (M15) again of every blade's recorded mean and uncertainty. What else speaks at
/// that gate is not asked again: a verdict that rests on other evidence than hardness only ever gets worse, what
/// is hard is taken to come down with another temper, and whether the block had refused a tester with such an error is
/// left open. The effect of another temperature is an estimate by the library's curve.
WhatIfAnswer whatIf(const Ledger& ledger, const Tables& tables, const WhatIf& wish);

/// The window that was asked of a grade last; none where none was.
std::optional<Window> lastWindow(const Ledger& ledger, const std::string& grade);

/// What the next batch of a grade may be expected to give in a window by the shop's own curve: tempered where most of
/// it passes, each blade read three times.
struct YieldForecast {
    Window window;
    double celsius = 0; ///< of tempers of two hours
    double share = 0;   ///< chance that a blade passes, 0 to 1
    Interval of_ten;    ///< blades of ten that pass in a batch, nine times of ten
    double u = 0;       ///< standard uncertainty of a blade's hardness before it is made, HRC
};

/// The same for the grade of a wish, in the window that was asked of it last, moved as wished; none without a grade.
std::optional<YieldForecast> forecastFor(const Ledger& ledger, const Tables& tables, const WhatIf& wish,
                                         const OvenSteps& oven);

/// None where nothing is known of the grade's tempers. Errors as temperLedger.
Result<std::optional<YieldForecast>> forecastYield(const Ledger& ledger, const Grade& grade, const Window& window,
                                                   DecisionRule rule, const OvenSteps& oven);

} // namespace rollcall
