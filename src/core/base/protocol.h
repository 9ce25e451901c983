// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/result.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// How a step of a protocol is answered.
enum class StepKind {
    number, ///< a number within limits
    count,  ///< strokes, one key each; at least and at most so many
    yesNo,  ///< seen to be so, or not
    cuts,   ///< so many cuts more and looked at again, until it is dull
    bend    ///< an angle reached without breaking; planned first
};
template<>
inline constexpr std::array namesOf<StepKind>{"number", "count", "yes or no", "cuts", "bend"};

/// One step of a proof protocol.
struct ProtocolStep {
    std::string name;
    StepKind kind = StepKind::yesNo;
    std::string on;   ///< what it is done on
    std::string unit; ///< of the number or count
    std::optional<double> least;
    std::optional<double> most;
    int every = 10;               ///< cuts between two looks
    std::optional<double> hold_s; ///< a timer to be run before it can be answered
    bool no_touch_up = false;     ///< from the first such step to the last the edge must not be touched up
    bool fail_ends = true;        ///< a failure ends the trial
    bool destroys = false;        ///< afterwards the piece is no longer a knife
    bool photo = false;           ///< a photo is wanted as evidence
    std::string caution;          ///< word for the hazard, acknowledged before the step: see cautionWords()
    std::string note;             ///< how it is done
};

/// An ordered trial with its limits; a data file, so that a shop can have its own.
struct Protocol {
    std::string name;
    std::vector<ProtocolStep> steps;

    /// Nothing in it can fail: it measures, such as cuts until dull, and proves nothing for or against a blade.
    bool onlyMeasures() const {
        for (const ProtocolStep& step : steps) {
            const bool open =
                (step.kind == StepKind::cuts || step.kind == StepKind::count) && !step.least && !step.most;
            if (!open) return false;
        }
        return true;
    }
    bool destroys() const {
        for (const ProtocolStep& step : steps) {
            if (step.destroys) return true;
        }
        return false;
    }
};

/// Hazards a step may name: "rope", "chop", "bend", "impact", "edge", "nail".
const std::vector<std::string>& cautionWords();

/// The names of the columns, in the order written.
const std::vector<std::string>& protocolColumns();

/// Reads protocols: CSV, one line for each step, the protocol's name in each line. Errors (input): no such table, a
/// kind, number or hazard that is none, a step without a name, limits that are swapped; place is "line N".
Result<std::vector<Protocol>> readProtocols(const std::string& csv);

/// The same as text that readProtocols takes.
std::string protocolText(const Protocol& protocol);

/// What is wrong with a step, in plain words; empty when nothing is.
std::string stepFault(const ProtocolStep& step);

/// Stored names of the kinds: "number", "count", "yes or no", "cuts", "bend".
std::optional<StepKind> stepKindNamed(const std::string& name);

} // namespace rollcall
