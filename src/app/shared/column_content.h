// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/verdict.h"

#include <QString>
#include <string>
#include <vector>

namespace rollcall {

/// What the verdict column says; made by the bench in work.
struct ColumnContent {
    QString caption; ///< "GK-4 at Temper"
    State state = State::notYet;
    QString word;
    QString sub;
    struct Number {
        QString label;
        QString value;
        QString beside;
        bool coloured = false; ///< takes the verdict's colour at Borderline and Fail
    };
    std::vector<Number> numbers; ///< at most two
    struct Line {
        Tone tone = Tone::note;
        QString text;
        QString rule;
        bool hazard = false; ///< a caution for hand and eye
    };
    std::vector<Line> lines;
    std::vector<Line> below; ///< under the buttons
    QString act;
    QString detail;
    QString key;
    bool act_enabled = true;
    QString left, left_key;
    QString right, right_key;
};

/// Puts the reasons of a verdict into lines; what nobody looked at is folded into one.
std::vector<ColumnContent::Line> reasonLines(const Verdict& verdict);

/// What the column begins with for a blade at the gate of its verdict: caption, word, headline and reasons.
ColumnContent columnOf(const Verdict& verdict, const std::string& mark);

} // namespace rollcall
