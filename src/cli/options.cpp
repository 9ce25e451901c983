// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"

namespace rollcall::cli {

namespace {
Error wrong(const QString& place, const QString& text) {
    return {ErrorKind::argument, place.toStdString(), text.toStdString()};
}

template<class T>
Result<T> placed(Result<T> result, const char* name) {
    if (result) return result;
    return Error{result.error().kind, std::string("--") + name, result.error().text};
}
} // namespace

Result<Options> Options::parse(const QStringList& words, const QStringList& known, int plainWords) {
    Options options;
    for (int i = 0; i < words.size(); ++i) {
        const QString& word = words[i];
        if (!word.startsWith(QLatin1String("--"))) {
            options.m_words << word;
            continue;
        }
        const int equals = word.indexOf(QLatin1Char('='));
        const QString name = word.mid(2, equals < 0 ? -1 : equals - 2);
        const bool repeats = known.contains(name + QLatin1Char('*'));
        const bool takesValue = repeats || known.contains(name + QLatin1Char('='));
        if (!takesValue && !known.contains(name)) return wrong(word, QStringLiteral("this option is not known"));
        if (!repeats && options.m_values.contains(name))
            return wrong(word, QStringLiteral("this option is given twice"));
        if (!takesValue) {
            options.m_values.insert(name, QString());
        } else if (equals >= 0) {
            options.m_values.insert(name, word.mid(equals + 1));
        } else if (i + 1 < words.size()) {
            options.m_values.insert(name, words[++i]);
        } else {
            return wrong(word, QStringLiteral("its value is missing"));
        }
        if (repeats) options.m_repeated[name] << options.m_values[name];
    }
    if (options.m_words.size() < plainWords)
        return wrong(
            {}, QStringLiteral("%1 more word(s) needed, such as a file name").arg(plainWords - options.m_words.size()));
    if (options.m_words.size() > plainWords)
        return wrong(options.m_words[plainWords], QStringLiteral("this word is not expected"));
    return options;
}

std::string Options::text(const char* name, const char* otherwise) const {
    return has(name) ? m_values.value(QLatin1String(name)).toStdString() : otherwise;
}

Result<std::string> Options::required(const char* name) const {
    if (!has(name)) return wrong(QStringLiteral("--") + QLatin1String(name), QStringLiteral("this option is needed"));
    return text(name);
}

Result<double> Options::number(const char* name) const {
    const Result<std::string> value = required(name);
    if (!value) return value.error();
    return placed(parseNumber(*value), name);
}

Result<double> Options::number(const char* name, double otherwise) const {
    return has(name) ? number(name) : Result<double>(otherwise);
}

Result<std::optional<double>> Options::optionalNumber(const char* name) const {
    if (!has(name)) return std::optional<double>();
    const Result<double> value = number(name);
    if (!value) return value.error();
    return std::optional<double>(*value);
}

Result<double> Options::length(const char* name) const {
    const Result<std::string> value = required(name);
    if (!value) return value.error();
    return placed(parseQuantity(*value, Quantity::length), name);
}

Result<std::vector<double>> Options::numbers(const char* name) const {
    const Result<std::string> value = required(name);
    if (!value) return value.error();
    return placed(parseNumbers(*value), name);
}

std::vector<std::string> Options::all(const char* name) const {
    std::vector<std::string> values;
    for (const QString& value : m_repeated.value(QLatin1String(name))) values.push_back(value.toStdString());
    return values;
}

} // namespace rollcall::cli
