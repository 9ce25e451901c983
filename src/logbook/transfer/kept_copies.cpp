// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/kept_copies.h"

#include "files/disk.h"

#include <algorithm>
#include <functional>
#include <QDir>
#include <QFileInfo>
#include <QRegularExpression>
#include <set>

namespace rollcall {

namespace {

const QString moments = QStringLiteral("yyyy-MM-dd HHmmss");

QString endingOf(const QFileInfo& logbook) {
    return logbook.suffix().isEmpty() ? QString() : QLatin1Char('.') + logbook.suffix();
}

// What a copy is called until it was looked through.
QString beforeItCounts(const QString& path) {
    return path + QStringLiteral(".unchecked");
}

} // namespace

QDateTime onTheWall(const Instant& at) {
    return QDateTime::fromMSecsSinceEpoch(at.utc_ms + at.offset_minutes * 60000LL, Qt::UTC);
}

std::vector<KeptCopy> keptCopies(const QString& folder, const QString& logbook) {
    const QFileInfo of(logbook);
    const QRegularExpression named(
        QStringLiteral("^%1 (\\d{4}-\\d{2}-\\d{2} \\d{6})%2$")
            .arg(QRegularExpression::escape(of.completeBaseName()), QRegularExpression::escape(endingOf(of))));
    std::vector<KeptCopy> copies;
    for (const QFileInfo& file : QDir(folder).entryInfoList(QDir::Files)) {
        const auto match = named.match(file.fileName());
        QDateTime made = QDateTime::fromString(match.captured(1), moments);
        made.setTimeSpec(Qt::UTC); // the wall's own: no hour of it is missing or comes twice
        if (match.hasMatch() && made.isValid()) copies.push_back({file.filePath(), made});
    }
    std::sort(copies.begin(), copies.end(), [](const KeptCopy& a, const KeptCopy& b) { return a.made > b.made; });
    return copies;
}

std::vector<KeptCopy> copiesBeforeMerges(const QString& logbook) {
    const QFileInfo of(logbook);
    const QRegularExpression named(
        QStringLiteral("^%1\\.before-merge-(\\d{8}-\\d{6})(\\.\\d+)?$").arg(QRegularExpression::escape(of.fileName())));
    std::vector<KeptCopy> copies;
    for (const QFileInfo& file : of.dir().entryInfoList(QDir::Files)) {
        const auto match = named.match(file.fileName());
        QDateTime made = QDateTime::fromString(match.captured(1), QStringLiteral("yyyyMMdd-HHmmss"));
        made.setTimeSpec(Qt::UTC);
        if (match.hasMatch() && made.isValid()) copies.push_back({file.filePath(), made});
    }
    std::sort(copies.begin(), copies.end(), [](const KeptCopy& a, const KeptCopy& b) { return a.made > b.made; });
    return copies;
}

std::vector<KeptCopy> superfluous(const std::vector<KeptCopy>& copies) {
    struct Span {
        std::size_t many;
        std::function<QString(const QDateTime&)> of;
    };
    const auto week = [](const QDateTime& at) {
        int year = 0;
        const int number = at.date().weekNumber(&year);
        return QStringLiteral("%1-%2").arg(year).arg(number);
    };
    const Span spans[] = {{24, [](const QDateTime& at) { return at.toString(QStringLiteral("yyyyMMddHH")); }},
                          {7, [](const QDateTime& at) { return at.toString(QStringLiteral("yyyyMMdd")); }},
                          {5, week},
                          {12, [](const QDateTime& at) { return at.toString(QStringLiteral("yyyyMM")); }}};
    std::set<QString> stay;
    for (const Span& span : spans) {
        std::set<QString> seen;
        for (const KeptCopy& copy : copies) { // the newest of a span comes first
            if (seen.size() < span.many && seen.insert(span.of(copy.made)).second) stay.insert(copy.path);
        }
    }
    std::vector<KeptCopy> go;
    std::copy_if(copies.begin(), copies.end(), std::back_inserter(go),
                 [&](const KeptCopy& copy) { return stay.count(copy.path) == 0; });
    return go;
}

Result<std::optional<KeptCopy>> copyToKeep(Logbook& logbook, const QString& path, const QString& folder) {
    const auto head = logbook.head();
    if (!head) return head.error();
    const std::vector<KeptCopy> copies = keptCopies(folder, path);
    if (!copies.empty()) {
        const auto last = Logbook::open(copies.front().path, Logbook::Access::read, logbook.seams());
        const auto its = last ? (*last)->head() : Result<std::string>(last.error());
        if (its && *its == *head) return std::optional<KeptCopy>();
    }
    if (!QDir().mkpath(folder)) return Error{ErrorKind::disk, folder.toStdString(), "this folder cannot be made"};
    const QFileInfo of(path);
    const QDateTime wall = onTheWall(logbook.now());
    const QString name = QStringLiteral("%1 %2%3").arg(of.completeBaseName(), wall.toString(moments), endingOf(of));
    const QString to = QDir(folder).filePath(name);
    QFile::remove(beforeItCounts(to)); // of one that was killed
    if (auto copied = logbook.backup(beforeItCounts(to)); !copied) return copied.error();
    return std::optional(KeptCopy{to, wall});
}

Result<CopyKept> keepIfSound(const KeptCopy& copy, const QString& path) {
    const QString unchecked = beforeItCounts(copy.path);
    const auto problems = [&]() -> Result<std::vector<std::string>> {
        auto opened = Logbook::open(unchecked, Logbook::Access::read);
        if (!opened) return opened.error();
        return (*opened)->check();
    }();
    if (!problems || !problems->empty()) {
        QFile::remove(unchecked);
        const std::string why = problems ? problems->front() : problems.error().text;
        return Error{ErrorKind::damaged, copy.path.toStdString(),
                     "the copy does not pass its check and was not kept: " + why};
    }
    if (auto named = giveName(unchecked, copy.path); !named) return named.error();
    CopyKept report;
    const std::vector<KeptCopy> copies = keptCopies(QFileInfo(copy.path).path(), path);
    for (const KeptCopy& old : superfluous(copies)) {
        if (QFile::remove(old.path)) ++report.removed;
    }
    report.made = copy;
    report.kept = static_cast<int>(copies.size()) - report.removed;
    return report;
}

Result<CopyKept> keepCopy(Logbook& logbook, const QString& path, const QString& folder) {
    const auto copy = copyToKeep(logbook, path, folder);
    if (!copy) return copy.error();
    if (*copy) return keepIfSound(**copy, path);
    CopyKept report;
    report.kept = static_cast<int>(keptCopies(folder, path).size());
    return report;
}

} // namespace rollcall
