// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <QByteArray>
#include <QRegularExpression>
#include <QString>
#include <vector>

namespace rollcall {

/// What one line of an instrument says.
struct DeviceLine {
    enum class Kind {
        reading, ///< value, and what else the pattern names
        blank,   ///< nothing in it
        unknown  ///< does not match, or its number cannot be read
    };
    Kind kind = Kind::blank;
    double value = 0;
    QString text;                   ///< the number as it came
    QString scale;                  ///< empty when the line names none
    std::optional<qint64> sequence; ///< the instrument's own count; tells a repetition from a second equal reading
};

/// The form of an instrument's lines: a regular expression with the named group value, and scale and seq if it has
/// them.
class LinePattern {
public:
    /// Errors (argument): not a regular expression, no group named value.
    static Result<LinePattern> fromText(const QString& expression);

    /// Pure: the same line gives the same answer.
    DeviceLine parse(const QByteArray& line) const;
    QString text() const { return m_expression.pattern(); }

private:
    explicit LinePattern(QRegularExpression expression) : m_expression(std::move(expression)) {}
    QRegularExpression m_expression;
};

/// Cuts a stream of bytes into lines. What has no end yet waits; what grows longer than a line can be is given up as
/// one unknown line, so that a stream of rubbish cannot fill the memory.
class LineSplitter {
public:
    static constexpr int longestLine = 200; ///< bytes
    std::vector<QByteArray> take(const QByteArray& bytes);
    /// Forgets the part of a line that never ended, and returns it.
    QByteArray abandon();

private:
    QByteArray m_rest;
};

/// A form of lines that ships with Rollcall, for a kind of instrument.
struct LinePreset {
    QString name;
    int baud = 9600;
    QString pattern;
    QString note;
};

/// Reads data/devices/lines.csv. Errors (table): missing, damaged, a pattern that is none.
Result<std::vector<LinePreset>> readLinePresets(const QString& file);

} // namespace rollcall
