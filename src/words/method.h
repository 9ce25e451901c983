// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStringList>
#include <vector>

namespace rollcall {

/// One rule as docs/method.md states it.
struct MethodRule {
    QStringList names; ///< "M9", "E1", "E2"
    QString what;
    QString limits;
};

/// The table of rules of docs/method.md, which the program carries in it: help and paper say the same.
const std::vector<MethodRule>& methodRules();

} // namespace rollcall
