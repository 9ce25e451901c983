// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/number.h"
#include "core/base/tables.h"
#include "logbook/logbook.h"

#include <functional>
#include <map>
#include <memory>
#include <QDir>
#include <QJsonObject>
#include <string>
#include <vector>

namespace rollcall::cli {

/// One thing a line says of an act.
struct LogField {
    const char* name;
    bool needed;
    const char* help;
};

/// A line that cannot be done: the field it stumbled over, and what is known there.
struct BadField {
    std::string field;
    std::string text;
};

/// E44. A line that was stored and would make sense in another way.
struct LogDoubt {
    int line = 0;
    std::string why;
    std::string perhaps; ///< what it may have been meant as
};

/// What the lines before have made known to this one.
struct LogContext {
    Logbook& logbook;
    const Tables& tables;
    QDir beside;                              ///< where paths in the lines begin
    std::map<std::string, std::string> heats; ///< ids of heats by the names that lines gave them
    int line = 0;                             ///< that is being done
    std::vector<LogDoubt> doubts;
};

/// The values of one line, asked for by name. Each asking throws BadField where the value is missing or cannot be.
class LogLine {
public:
    LogLine(const QJsonObject& values, LogContext& context) : m_values(values), m_context(context) {}

    bool has(const char* field) const;
    std::string text(const char* field, const char* otherwise = nullptr) const;
    /// A number, or one with its unit as text.
    double number(const char* field, Quantity quantity, double least, double most) const;
    std::optional<double> optional(const char* field, Quantity quantity, double least, double most) const;
    /// A number without a unit.
    double plain(const char* field, double least, double most) const;
    std::optional<double> optionalPlain(const char* field, double least, double most) const;
    int whole(const char* field, int least, int most) const;
    bool yes(const char* field, bool otherwise) const;
    std::vector<double> numbers(const char* field, double least, double most) const;
    template<class Enum>
    Enum word(const char* field, std::optional<Enum> otherwise = {}) const {
        if (!has(field) && otherwise) return *otherwise;
        const auto known = named<Enum>(text(field));
        if (known) return *known;
        std::string words;
        for (const char* one : namesOf<Enum>) words += (words.empty() ? "" : ", ") + std::string(one);
        throw BadField{field, "known are " + words};
    }
    Gate gate(const char* field) const;
    /// "sure": true. Its numbers are meant as they stand.
    bool sure() const { return yes("sure", false); }
    /// The line is stored, and doubted until somebody says otherwise.
    void doubt(const std::string& why, const std::string& perhaps) const {
        if (!sure()) m_context.doubts.push_back({m_context.line, why, perhaps});
    }

    /// What is named must be there.
    Batch batch() const;
    const Blade& blade(const Batch& batch) const;
    /// "blades": marks, or "all"; "blade": one.
    std::vector<const Blade*> blades(const Batch& batch) const;
    Tester tester() const;
    QJsonValue value(const char* field) const { return m_values[QLatin1String(field)]; }
    LogContext& context() const { return m_context; }
    Logbook& logbook() const { return m_context.logbook; }
    std::string entered() const; ///< the line as it was given, for what is kept as entered

private:
    const QJsonObject& m_values;
    LogContext& m_context;
};

/// One act a line can ask for: the one that the window does, by the same function.
struct LogAct {
    const char* name;
    const char* help;
    std::vector<LogField> fields;
    std::function<Result<Done>(const LogLine&)> run;
};

/// All acts, as `rollcallctl log --help` and docs/formats.md list them.
const std::vector<LogAct>& logActs();

/// Does what lines say, one after another.
class LogLines {
public:
    /// Each line has its own moment: clock is what the logbook takes for now, and is set before each act.
    LogLines(Logbook& logbook, const Tables& tables, const QDir& beside, std::shared_ptr<Instant> clock);

    /// The act of one line, a JSON object. Errors (argument), with the line's number and the field: what is not
    /// understood or cannot be; as the act itself.
    Result<Done> take(int number, const QByteArray& text);
    /// How often each act was done.
    const std::map<std::string, int>& done() const { return m_done; }
    /// What of them was doubted.
    const std::vector<LogDoubt>& doubts() const { return m_context.doubts; }

private:
    LogContext m_context;
    std::shared_ptr<Instant> m_clock;
    Instant m_now;
    std::map<std::string, int> m_done;
};

} // namespace rollcall::cli
