// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

/// What the numbers of the core are worth: seeded simulations of things whose truth is known, each beside what is asked
/// of it. The tests run a few hundred of them, `rollcall_numbers` many thousand; the table stands in docs/method.md.
namespace rollcall::numbers {

/// One figure with what is asked of it.
struct Figure {
    std::string what;
    double value = 0;
    double least = 0;
    double most = 1;
    int draws = 0;
    bool share = true; ///< of 1, with the scatter that so many draws have; else a plain number

    /// Within what is asked, but for what so few draws make by chance (three standard deviations); 0 for the full run.
    bool kept(double slack) const { return value >= least - slack && value <= most + slack; }
    /// Three standard deviations of a share from so many draws.
    double chance() const;
};

using Figures = std::vector<Figure>;

/// Coverage of U, verified and not; chance inside; what further readings settle. draws: for each cell.
Figures measurementFigures(int draws);
/// Joint chance of blades that were not read.
Figures samplingFigures(int draws);
/// Steady and drifting testers; a year of weekly runs each.
Figures driftFigures(int draws);
/// Verification of a perfect tester.
Figures verificationFigures(int draws);
/// What the curve of a grade foretells where one sibling in four, or in ten, is wrong.
Figures temperFigures(int draws);
/// Shares of the candidates, and how often the true grade or a wrong claim is called not consistent.
Figures steelFigures(int draws);
/// A maker who does what the button says, in worlds with wrong rows; and a good batch of ten.
Figures makerFigures(int draws);
/// Grain sizes suggested on textures of known size.
Figures grainFigures(int draws);

/// All of them, as a table for docs/method.md.
std::string asTable(const Figures& figures);

} // namespace rollcall::numbers
