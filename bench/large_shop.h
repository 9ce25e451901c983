// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

#include <QString>
#include <vector>

namespace rollcall::bench {

/// What a shop of this many times the demo's finished batches costs a maker at the bench, in the real window.
struct LargeShop {
    int readings = 0;
    double opened_ms = 0;           ///< from asking for the logbook to the window painted with its batch
    std::vector<double> entered_ms; ///< from Enter to the painted result, one for each reading typed
    std::vector<double> chosen_ms;  ///< from choosing another batch to its painted roll
    double gathered_ms = 0;         ///< until all words of the logbook can be found, between acts
    std::vector<double> sought_ms;  ///< from each key of a sentence to what is found
    double booked_ms = 0;           ///< until all batches have been gone through for the ledger, between acts
    std::vector<std::pair<std::string, double>> views_ms; ///< each page of the ledger, from its key to its picture
    std::vector<double> what_if_ms;                       ///< from each step of a drag to its picture
    double memory_mb = 0;                                 ///< of the whole program at its most, at the end
};

/// Writes such a logbook at path when there is none, then works in it. Throws std::runtime_error.
LargeShop largeShop(const QString& path, int scale, const Tables& tables);

} // namespace rollcall::bench
