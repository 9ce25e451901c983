// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <set>
#include <string>

class QJsonArray;

namespace rollcall {

class Database;

/// What acts have changed, as far as those who keep what they read must know: only that is read and judged anew.
struct Touched {
    bool shop = false;             ///< people, testers, ovens, settings, the shop's own grades, the day
    bool runs = false;             ///< readings on blocks: what every tester is worth
    bool list = false;             ///< the list of batches
    bool everything = false;       ///< more than could be followed: an import, a merge
    std::set<std::string> batches; ///< ids

    bool nothing() const { return !shop && !runs && !list && !everything && batches.empty(); }
    void add(const Touched& more);
};

/// What one entry of the change log has touched, from the rows it notes: each kind of row leads to its batch. An entry
/// of more than a thousand rows touches everything.
Touched touchedBy(const QJsonArray& notes, Database& database);

} // namespace rollcall
