// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/number.h"
#include "core/base/result.h"

#include <optional>
#include <QHash>
#include <QString>
#include <QStringList>
#include <vector>

namespace rollcall::cli {

/// The words behind a command: files and names in order, and --options with their values.
class Options {
public:
    /// Understands the named options; those ending in '=' take a value, those ending in '*' take one and may be given
    /// many times. Errors (argument): an option that is
    /// not known, given twice or without its value, more or fewer plain words than asked.
    static Result<Options> parse(const QStringList& words, const QStringList& known, int plainWords);

    const QString& word(int index) const { return m_words[index]; }
    bool has(const char* name) const { return m_values.contains(QLatin1String(name)); }
    std::string text(const char* name, const char* otherwise = "") const;
    /// The option as it is, or an error when it is missing.
    Result<std::string> required(const char* name) const;
    Result<double> number(const char* name) const;
    Result<double> number(const char* name, double otherwise) const;
    Result<std::optional<double>> optionalNumber(const char* name) const;
    Result<double> length(const char* name) const;
    Result<std::vector<double>> numbers(const char* name) const;
    /// All values of an option that may be given many times, in order.
    std::vector<std::string> all(const char* name) const;

private:
    QStringList m_words;
    QHash<QString, QString> m_values;
    QHash<QString, QStringList> m_repeated;
};

} // namespace rollcall::cli
