// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Signed decisions and samples. Each act is one transaction with its entry in
/// the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

/// A decision about one blade.
struct Decision {
    std::string blade; ///< id
    Signature signature;
};

Result<Done> sign(Logbook& logbook, const std::vector<Decision>& decisions);
/// Declares the chance asked for the blades left unread; none: every blade is read. Errors (refused): not between 0
/// and 1.
Result<Done> askSample(Logbook& logbook, const std::string& batch, std::optional<double> chance);

} // namespace rollcall
