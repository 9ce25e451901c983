// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/logbook_file.h"

#include "files/disk.h"
#include "logbook/database.h"
#include "logbook/schema.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QScopeGuard>
#include <QUuid>
#include <sys/stat.h>

namespace rollcall {

namespace {

const QString parts = QStringLiteral(".part-");

Error at(ErrorKind kind, const QString& path, const char* text) {
    return {kind, path.toStdString(), text};
}

void removeWithLeftovers(const QString& path) {
    for (const char* ending : {"", "-wal", "-shm", "-journal", ".lock"}) QFile::remove(path + QLatin1String(ending));
}

bool holdsSomething(const QString& path) {
    return QFileInfo(path).size() > 0;
}

// How far a logbook has come: as many entries, the last of them this.
Result<QVariant> headOf(Database& database) {
    return database.single(QStringLiteral(
        "SELECT (SELECT COUNT(*) FROM change) || ' ' || COALESCE((SELECT hash FROM change ORDER BY seq DESC LIMIT 1), "
        "'')"));
}

// A copy is worth keeping when it can be read whole and ends where the logbook does.
bool isCopyOf(const QString& copy, const QVariant& head, const QVariant& schema) {
    Database database;
    if (!database.open(copy, Database::Mode::readOnly)) return false;
    const auto sound = database.single(QStringLiteral("PRAGMA integrity_check(1)"));
    const auto version = database.single(QStringLiteral("PRAGMA user_version"));
    const auto its = headOf(database);
    return sound && sound->toString() == QLatin1String("ok") && version && *version == schema && its && *its == head;
}

} // namespace

Result<Done> mayBeNamed(const QString& path) {
    if (path.trimmed().isEmpty()) return at(ErrorKind::refused, path, "a logbook needs a name");
    if (path.startsWith(QLatin1String("file:")) || path == QLatin1String(":memory:"))
        return at(ErrorKind::refused, path, "this is no name of a file");
    if (path.contains(QChar(0))) return at(ErrorKind::refused, path, "this name cannot be written");
    return Done{};
}

Result<Done> isALogbook(const QString& path) {
    const QFileInfo file(path);
    if (!file.exists()) return at(ErrorKind::input, path, "there is no such file");
    if (!file.isFile()) return at(ErrorKind::input, path, "this is not a file");
    if (!file.isReadable()) return at(ErrorKind::disk, path, "this file cannot be read");
    // What a killed program wrote may all be beside it still; only SQLite can tell then.
    const bool waiting = holdsSomething(path + QStringLiteral("-wal"));
    if (file.size() == 0 && waiting) return Done{};
    if (file.size() == 0) return at(ErrorKind::damaged, path, "this file is empty: it is no Rollcall logbook");
    const int application = applicationOf(path);
    const bool ours = application == schema::applicationId || (application == 0 && waiting && isDatabase(path));
    return ours ? Result<Done>(Done{}) : at(ErrorKind::damaged, path, "this file is not a Rollcall logbook");
}

bool hasSecondName(const QString& path) {
    const QFileInfo file(path);
    for (const QString& part : file.absoluteDir().entryList({file.fileName() + parts + QLatin1Char('*')},
                                                            QDir::Files | QDir::Hidden | QDir::System)) {
        const QString left = file.absoluteDir().filePath(part);
        if (identityOf(left) == identityOf(path)) QFile::remove(left);
    }
    struct stat found {};
    return ::stat(QFile::encodeName(path).constData(), &found) == 0 && found.st_nlink > 1;
}

bool hasLeftovers(const QString& path) {
    return holdsSomething(path + QStringLiteral("-wal")) || holdsSomething(path + QStringLiteral("-journal"));
}

Result<std::unique_ptr<QTemporaryDir>> copyElsewhere(const QString& path) {
    auto folder = std::make_unique<QTemporaryDir>(QDir::temp().filePath(QStringLiteral("rollcall-XXXXXX")));
    const QString name = QFileInfo(path).fileName();
    for (const char* ending : {"", "-wal", "-journal"}) {
        const QString from = path + QLatin1String(ending);
        const QString to = folder->filePath(name + QLatin1String(ending));
        if (!QFileInfo::exists(from)) continue;
        if (!QFile::copy(from, to) || !QFile::setPermissions(to, QFile::ReadOwner | QFile::WriteOwner))
            return at(ErrorKind::disk, path,
                      "a program that was stopped has left something beside this logbook that cannot be taken in: copy "
                      "both into a folder that can be written to");
    }
    return folder;
}

Result<Done> makeWhole(const QString& path, const std::function<Result<Done>(const QString& part)>& make) {
    if (auto named = mayBeNamed(path); !named) return named;
    if (QFileInfo::exists(path) || QFileInfo(path).isSymLink())
        return at(ErrorKind::exists, path, "this file is there already and is not overwritten");
    // What was killed while it was being made.
    const QFileInfo file(path);
    for (const QString& left : file.absoluteDir().entryList({file.fileName() + parts + QLatin1Char('*')},
                                                            QDir::Files | QDir::Hidden | QDir::System))
        QFile::remove(file.absoluteDir().filePath(left));
    const QString part = path + parts + QUuid::createUuid().toString(QUuid::WithoutBraces).left(8);
    const auto leave = qScopeGuard([&] { removeWithLeftovers(part); });
    if (auto made = make(part); !made) {
        Error error = made.error();
        if (error.place == part.toStdString()) error.place = path.toStdString();
        return error;
    }
    return giveName(part, path);
}

Result<Done> copyOf(Database& database, const QString& logbook, const QString& to) {
    const auto head = headOf(database);
    const auto version = database.single(QStringLiteral("PRAGMA user_version"));
    if (!head || !version) return head ? version.error() : head.error();
    return makeWhole(to, [&](const QString& part) -> Result<Done> {
        if (auto copied = database.run(QStringLiteral("VACUUM INTO ?"), {part}); !copied) return copied;
        QFile::setPermissions(part, QFile::permissions(logbook));
        if (!isCopyOf(part, *head, *version))
            return at(ErrorKind::damaged, to, "the copy could not be read back and was not kept");
        return Done{};
    });
}

Result<Done> keepBefore(Database& database, const QString& path, int schema) {
    const auto head = headOf(database);
    const auto version = database.single(QStringLiteral("PRAGMA user_version"));
    if (!head || !version) return head ? version.error() : head.error();
    const QString name = QStringLiteral("%1.before-schema-%2").arg(path).arg(schema);
    for (int number = 1;; ++number) {
        const QString copy = number == 1 ? name : QStringLiteral("%1.%2").arg(name).arg(number);
        if (!QFileInfo::exists(copy)) return copyOf(database, path, copy);
        if (isCopyOf(copy, *head, *version)) return Done{};
    }
}

} // namespace rollcall
