// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/verdict.h"

#include <QCoreApplication>
#include <QString>
#include <QStringList>

/// What the files of this folder share.
namespace rollcall::words {

inline QString tr(const char* text) {
    return QCoreApplication::translate("words", text);
}

inline QString text(const Reason& reason, std::size_t index) {
    return index < reason.texts.size() ? QString::fromStdString(reason.texts[index]) : QString();
}

inline double number(const Reason& reason, std::size_t index) {
    return index < reason.numbers.size() ? reason.numbers[index] : 0.0;
}

inline QString minutes(double value) {
    return QString::number(value, 'f', 1);
}

/// The texts of a reason, four of them at most.
inline QString listed(const Reason& reason) {
    QStringList all;
    for (std::size_t i = 0; i < reason.texts.size(); ++i) all << text(reason, i);
    constexpr int shown = 4;
    if (all.size() > shown) all = all.mid(0, shown) << tr("%1 more").arg(all.size() - shown);
    return all.join(QStringLiteral(", "));
}

/// The sentence of a fact about a heat, an expectation or the next temper; empty for any other.
QString heatSentence(const Reason& reason);

/// The sentence of a fact of the Edge and Proof gates; empty for any other.
QString proofSentence(const Reason& reason);
/// The line under the verdict word at these two gates.
QString proofHeadline(const Verdict& verdict);

/// The sentence of a fact about grain; empty for any other.
QString grainSentence(const Reason& reason);

/// The sentence of a fact about release and sampling; empty for any other.
QString releaseSentence(const Reason& reason);
/// The line under the verdict word at Release.
QString releaseHeadline(const Verdict& verdict);

} // namespace rollcall::words
