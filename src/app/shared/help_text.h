// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/pictograms.h"

#include <QStringList>
#include <vector>

namespace rollcall {

/// One thing to do, with what it is done with.
struct HelpStep {
    Pictogram picture;
    QString text;
};

/// What a place says of itself: what it answers, how in a few lines, by which rules of docs/method.md, and what it does
/// not see.
struct HelpText {
    QString answers;
    std::vector<HelpStep> steps;
    QStringList rules; ///< "M9": names in docs/method.md
    QString blind;
};

} // namespace rollcall
