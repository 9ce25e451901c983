// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/options.h"

#include <QCommandLineParser>

namespace rollcall::cli {

namespace {
Error wrong(const QString& place, const QString& text) {
    return {ErrorKind::argument, place.toStdString(), text.toStdString()};
}

QString dashed(const QString& name) {
    return QStringLiteral("--") + name;
}

// What the parser could not read, said of the word that it stands in.
Error unreadable(const QCommandLineParser& parser, const QStringList& words) {
    const QStringList unknown = parser.unknownOptionNames();
    if (unknown.isEmpty()) return wrong(words.isEmpty() ? QString() : words.back(), parser.errorText());
    return wrong(dashed(unknown.front()), QStringLiteral("this option is not known"));
}

template<class T>
Result<T> placed(Result<T> result, const char* name) {
    if (result) return result;
    return Error{result.error().kind, std::string("--") + name, result.error().text};
}
} // namespace

Result<Options> Options::parse(const QStringList& words, const QStringList& known, int plainWords) {
    QCommandLineParser parser;
    QStringList repeating;
    for (QString name : known) {
        const bool repeats = name.endsWith(QLatin1Char('*'));
        const bool takesValue = repeats || name.endsWith(QLatin1Char('='));
        if (takesValue) name.chop(1);
        if (repeats) repeating << name;
        parser.addOption({name, QString(), takesValue ? QStringLiteral("value") : QString()});
    }
    if (!parser.parse(QStringList{QStringLiteral("rollcallctl")} + words)) return unreadable(parser, words);
    Options options;
    options.m_words = parser.positionalArguments();
    const QStringList given = parser.optionNames();
    for (const QString& name : given) {
        const QStringList values = parser.values(name);
        const bool repeats = repeating.contains(name);
        if (!repeats && given.count(name) > 1) return wrong(dashed(name), QStringLiteral("this option is given twice"));
        options.m_values.insert(name, values.isEmpty() ? QString() : values.back());
        if (repeats) options.m_repeated[name] = values;
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
