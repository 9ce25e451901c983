// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/typed_time.h"

#include <QDateTime>

namespace rollcall {

Result<Instant> typedTime(const QString& text, const Instant& now) {
    const QString plain = text.simplified();
    if (plain.isEmpty()) return now;
    const int offset = now.offset_minutes * 60;
    const QDateTime here = QDateTime::fromMSecsSinceEpoch(now.utc_ms, Qt::OffsetFromUTC, offset);
    QDateTime when;
    const QTime time = QTime::fromString(plain, QStringLiteral("H:mm"));
    if (time.isValid()) {
        when = QDateTime(here.date(), time, Qt::OffsetFromUTC, offset);
        if (when > here) when = when.addDays(-1);
    } else {
        for (const char* form : {"yyyy-MM-dd H:mm", "yyyy-MM-ddTH:mm", "d.M.yyyy H:mm"}) {
            const QDateTime read = QDateTime::fromString(plain, QString::fromLatin1(form));
            if (read.isValid()) when = QDateTime(read.date(), read.time(), Qt::OffsetFromUTC, offset);
        }
    }
    if (!when.isValid())
        return Error{ErrorKind::argument, plain.toStdString(), "a time is typed like 14:30 or 2026-11-24 18:00"};
    if (when > here) return Error{ErrorKind::range, plain.toStdString(), "it lies ahead"};
    return Instant{when.toMSecsSinceEpoch(), now.offset_minutes};
}

Result<std::string> typedDate(const QString& text) {
    const QString plain = text.simplified();
    if (plain.isEmpty()) return std::string();
    for (const char* form : {"yyyy-M-d", "d.M.yyyy"}) {
        if (const QDate date = QDate::fromString(plain, QString::fromLatin1(form)); date.isValid())
            return date.toString(Qt::ISODate).toStdString();
    }
    if (const QDate month = QDate::fromString(plain, QStringLiteral("yyyy-M")); month.isValid())
        return month.addDays(month.daysInMonth() - 1).toString(Qt::ISODate).toStdString();
    return Error{ErrorKind::argument, plain.toStdString(), "a day is typed like 2027-05-31 or 31.5.2027"};
}

} // namespace rollcall
