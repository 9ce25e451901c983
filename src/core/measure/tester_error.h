// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/uncertainty.h"

#include <optional>
#include <vector>

namespace rollcall {

/// What a tester's earlier runs on blocks say of its error before today's run.
struct ErrorHistory {
    int runs = 0;
    double mean = 0;       ///< of their errors, HRC
    double between_sd = 0; ///< from run to run, beyond what the readings' own scatter explains, HRC

    /// Of an error that no run of the day tells, about zero: root mean square of the errors that may come.
    double unknownError() const;
};

/// E3. From the latest twelve of these errors, in order of time; none for fewer than eight. pooled_sd: of single
/// readings.
std::optional<ErrorHistory> errorHistory(std::vector<BlockBias> errors, double pooled_sd);

/// E3. Today's error drawn towards the earlier ones by how much they differ from run to run and by how well a few
/// readings tell today's. An error over three standard deviations from them is taken as it is: something has changed.
BlockBias drawnTowards(const ErrorHistory& history, const BlockBias& today, double pooled_sd);

/// E2. The error between two blocks, at a hardness between theirs, by a straight line.
BlockBias interpolated(double lower, const BlockBias& at_lower, double upper, const BlockBias& at_upper, double hrc,
                       double pooled_sd);

} // namespace rollcall
