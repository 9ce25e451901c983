// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "cli/log_acts.h"

#include <algorithm>
#include <cstdio>
#include <fmt/format.h>
#include <iostream>
#include <memory>
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>

// `rollcallctl log FILE LINES`: every act of the window, a line each.
namespace rollcall::cli {

namespace {

std::string namesOfActs() {
    std::string names;
    for (const LogAct& act : logActs()) names += (names.empty() ? "" : ", ") + std::string(act.name);
    return names;
}

Error atLine(int number, const std::string& field, const std::string& text) {
    return {ErrorKind::argument, fmt::format("line {}{}", number, field.empty() ? "" : ", " + field), text};
}

Result<Instant> timeOf(const QString& text, const Instant& now) {
    const QDateTime moment = QDateTime::fromString(text, Qt::ISODate);
    if (!moment.isValid()) return Error{ErrorKind::argument, "time", "a moment is written like 2026-11-20T08:12"};
    const Instant at{moment.toMSecsSinceEpoch(), moment.offsetFromUtc() / 60};
    if (at.utc_ms > now.utc_ms) return Error{ErrorKind::argument, "time", "it lies ahead of now"};
    return at;
}

std::string fieldsOf(const LogAct& act) {
    std::string names;
    for (const LogField& field : act.fields)
        names += (names.empty() ? "" : ", ") + std::string(field.name) + (field.needed ? "" : "?");
    return fmt::format("'{}' takes {}", act.name, names.empty() ? "nothing more" : names);
}

bool blank(const QByteArray& line) {
    const QByteArray trimmed = line.trimmed();
    return trimmed.isEmpty() || trimmed.startsWith('#');
}

} // namespace

LogLines::LogLines(Logbook& logbook, const Tables& tables, const QDir& beside, std::shared_ptr<Instant> clock)
    : m_context{logbook, tables, beside, {}, 0, {}}, m_clock(std::move(clock)), m_now(logbook.now()) {}

Result<Done> LogLines::take(int number, const QByteArray& text) {
    QJsonParseError fault;
    const QJsonDocument document = QJsonDocument::fromJson(text, &fault);
    if (!document.isObject())
        return atLine(number, "",
                      fault.error == QJsonParseError::NoError ? "an object is needed"
                                                              : fault.errorString().toStdString());
    const QJsonObject values = document.object();
    const std::string name = values[QStringLiteral("do")].toString().toStdString();
    const auto act =
        std::find_if(logActs().begin(), logActs().end(), [&](const LogAct& one) { return name == one.name; });
    if (act == logActs().end())
        return atLine(number, "do", fmt::format("'{}' is no act; known are {}", name, namesOfActs()));
    for (auto value = values.begin(); value != values.end(); ++value) {
        const std::string field = value.key().toStdString();
        const bool common = field == "do" || field == "time" || field == "by" || field == "sure";
        const bool known =
            std::any_of(act->fields.begin(), act->fields.end(), [&](const LogField& one) { return field == one.name; });
        if (!common && !known) return atLine(number, field, fieldsOf(*act));
    }
    for (const LogField& field : act->fields) {
        const QJsonValue said = values[QLatin1String(field.name)];
        if (field.needed && (said.isUndefined() || (said.isString() && said.toString().trimmed().isEmpty())))
            return atLine(number, field.name, fmt::format("'{}' needs it; {}", name, fieldsOf(*act)));
    }
    // Lines of one file follow each other: what comes later in it came later.
    m_now = {std::max(LogbookSeams::real().now().utc_ms, m_now.utc_ms + 1), m_now.offset_minutes};
    *m_clock = m_now;
    m_context.line = number;
    if (values.contains(QStringLiteral("time"))) {
        const auto at = timeOf(values[QStringLiteral("time")].toString(), m_now);
        if (!at) return atLine(number, at.error().place, at.error().text);
        *m_clock = *at;
    }
    m_context.logbook.setPerson(values[QStringLiteral("by")].toString().toStdString());
    try {
        const auto done = act->run(LogLine(values, m_context));
        if (!done)
            return Error{done.error().kind == ErrorKind::refused ? ErrorKind::argument : done.error().kind,
                         fmt::format("line {}{}", number, done.error().place.empty() ? "" : ", " + done.error().place),
                         done.error().text};
        ++m_done[name];
        return Done{};
    } catch (const BadField& bad) {
        return atLine(number, bad.field, bad.text);
    }
}

QJsonObject logHelp() {
    QJsonArray acts;
    for (const LogAct& act : logActs()) {
        QJsonObject fields;
        for (const LogField& field : act.fields)
            fields[QLatin1String(field.name)] = QStringLiteral("%1%2").arg(
                field.needed ? QString() : QStringLiteral("may be left out; "), QString::fromUtf8(field.help));
        acts.append(QJsonObject{{"do", act.name}, {"what", act.help}, {"fields", fields}});
    }
    return {{"common",
             QJsonObject{
                 {"do", "the act"},
                 {"time", "ISO 8601; now when left out; not ahead of now"},
                 {"by", "initials"},
                 {"sure", "true: its numbers are meant as they stand, though they would make sense in another unit"}}},
            {"acts", acts}};
}

Result<QJsonObject> log(const Options& options, const Tables& shipped) {
    const QString lines = options.word(1);
    // Each line has its own moment; what is not dated is now.
    const auto clock = std::make_shared<Instant>(LogbookSeams::real().now());
    LogbookSeams seams = LogbookSeams::real();
    seams.now = [clock] { return *clock; };
    auto opened = Logbook::open(options.word(0), Logbook::Access::write, seams);
    if (!opened) return opened.error();
    Logbook& logbook = **opened;
    const auto shop = logbook.shop();
    if (!shop) return shop.error();
    const Tables tables = withSheets(shipped, shop->own_grades);
    QFile file(lines);
    const bool stream = lines == QLatin1String("-");
    if (stream ? !file.open(stdin, QIODevice::ReadOnly) : !file.open(QIODevice::ReadOnly))
        return Error{ErrorKind::input, lines.toStdString(), "this file cannot be read"};
    LogLines logging(logbook, tables, stream ? QDir::current() : QFileInfo(lines).absoluteDir(), clock);
    int number = 0;
    int taken = 0;
    if (options.has("each")) {
        while (!file.atEnd()) {
            const QByteArray line = file.readLine();
            ++number;
            if (blank(line)) continue;
            auto done = logbook.transact("line logged", [&] { return logging.take(number, line); });
            if (!done) return done.error();
            ++taken;
            if (stream) { // acknowledged once it is on disk
                std::printf("{\"line\":%d}\n", number);
                std::fflush(stdout);
            }
        }
    } else {
        auto done = logbook.transact("lines logged", [&]() -> Result<Done> {
            while (!file.atEnd()) {
                const QByteArray line = file.readLine();
                ++number;
                if (blank(line)) continue;
                if (auto one = logging.take(number, line); !one) return one;
                ++taken;
            }
            return Done{};
        });
        if (!done) return done.error();
    }
    QJsonObject acts;
    for (const auto& [name, count] : logging.done()) acts[q(name)] = count;
    QJsonArray doubts;
    for (const LogDoubt& one : logging.doubts())
        doubts.append(QJsonObject{{"line", one.line}, {"why", q(one.why)}, {"perhaps", q(one.perhaps)}});
    return QJsonObject{{"lines", taken}, {"acts", acts}, {"doubts", doubts}};
}

} // namespace rollcall::cli
