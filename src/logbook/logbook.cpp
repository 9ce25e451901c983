// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/logbook.h"

#include "core/judge/release_judge.h"

#include "logbook/change_log.h"
#include "logbook/database.h"
#include "logbook/schema.h"
#include "logbook/touched.h"

#include <fmt/format.h>
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QLockFile>
#include <QScopeGuard>
#include <QUuid>

namespace rollcall {

LogbookSeams LogbookSeams::real() {
    return {[] {
                const QDateTime now = QDateTime::currentDateTime();
                return Instant{now.toMSecsSinceEpoch(), now.offsetFromUtc() / 60};
            },
            [] { return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString(); }};
}

Logbook::Logbook(std::unique_ptr<Database> database, std::unique_ptr<QLockFile> lock, LogbookSeams seams)
    : m_database(std::move(database)), m_lock(std::move(lock)), m_seams(std::move(seams)) {}

Logbook::~Logbook() {
    if (m_readOnly) return;
    // A closed logbook is one file without a write-ahead log beside it. When that fails the log stays, and
    // the next opening takes it in.
    (void)m_database->run(QStringLiteral("PRAGMA wal_checkpoint(TRUNCATE)"));
    (void)m_database->run(QStringLiteral("PRAGMA journal_mode=DELETE"));
}

namespace {

Result<std::unique_ptr<QLockFile>> lockBeside(const QString& path) {
    auto lock = std::make_unique<QLockFile>(path + QStringLiteral(".lock"));
    lock->setStaleLockTime(0); // a lock is stale when its process is gone, never by age
    if (lock->tryLock(0)) return lock;
    if (lock->error() == QLockFile::LockFailedError) {
        qint64 pid = 0;
        QString host;
        QString program;
        lock->getLockInfo(&pid, &host, &program);
        return Error{ErrorKind::locked, path.toStdString(),
                     fmt::format("this logbook is open in another window ({}, process {} on {}). Close it there first.",
                                 program.toStdString(), pid, host.toStdString())};
    }
    return Error{ErrorKind::disk, path.toStdString(), "this folder cannot be written to"};
}

} // namespace

Result<std::unique_ptr<Logbook>> Logbook::create(const QString& path, LogbookSeams seams) {
    if (QFileInfo::exists(path))
        return Error{ErrorKind::exists, path.toStdString(), "this file is there already and is not overwritten"};
    auto lock = lockBeside(path);
    if (!lock) return lock.error();
    auto database = std::make_unique<Database>();
    if (const auto opened = database->open(path, Database::Mode::create); !opened) {
        return Error{opened.error().kind, path.toStdString(), opened.error().text};
    }
    std::unique_ptr<Logbook> logbook(new Logbook(std::move(database), std::move(lock).value(), std::move(seams)));
    if (const auto ready = logbook->prepare(path, true); !ready)
        return Error{ready.error().kind, path.toStdString(), ready.error().text};
    return logbook;
}

Result<std::unique_ptr<Logbook>> Logbook::open(const QString& path, Access access, LogbookSeams seams) {
    const QFileInfo file(path);
    const std::string place = path.toStdString();
    if (!file.exists()) return Error{ErrorKind::input, place, "there is no such file"};
    if (!file.isFile()) return Error{ErrorKind::input, place, "this is not a file"};
    if (!file.isReadable()) return Error{ErrorKind::disk, place, "this file cannot be read"};

    std::unique_ptr<QLockFile> lock;
    std::string reason;
    const bool folderWritable = QFileInfo(file.absolutePath()).isWritable() && file.isWritable();
    if (folderWritable) {
        auto taken = lockBeside(path);
        if (!taken) return taken.error();
        lock = std::move(taken).value();
    } else {
        reason = "the file or its folder cannot be written to";
    }
    const bool wal = QFileInfo::exists(path + QStringLiteral("-wal"));
    auto database = std::make_unique<Database>();
    // What a killed program left in the write-ahead log is taken in, even when only reading was asked.
    const bool readOnly = !folderWritable || (access == Access::read && !wal);
    auto opened = database->open(path, readOnly ? Database::Mode::readOnly : Database::Mode::readWrite);
    Result<QVariant> application =
        opened ? database->single(QStringLiteral("PRAGMA application_id")) : Result<QVariant>(opened.error());
    if (!application) return Error{application.error().kind, place, application.error().text};
    if (application->toInt() != schema::applicationId)
        return Error{ErrorKind::damaged, place, "this file is not a Rollcall logbook"};

    // One of an older Rollcall is brought up to date even when only reading was asked.
    bool reading = readOnly;
    const Result<QVariant> stored = database->single(QStringLiteral("PRAGMA user_version"));
    if (readOnly && folderWritable && stored && stored->toInt() >= 1 && stored->toInt() < schema::version) {
        database = std::make_unique<Database>();
        opened = database->open(path, Database::Mode::readWrite);
        if (!opened) return Error{opened.error().kind, place, opened.error().text};
        reading = false;
    }
    std::unique_ptr<Logbook> logbook(new Logbook(std::move(database), std::move(lock), std::move(seams)));
    logbook->m_readOnly = reading;
    logbook->m_readOnlyReason = reason;
    if (const auto ready = logbook->prepare(path, false); !ready)
        return Error{ready.error().kind, place, ready.error().text};
    return logbook;
}

Result<Done> Logbook::prepare(const QString& path, bool fresh) {
    const Result<QVariant> stored = m_database->single(QStringLiteral("PRAGMA user_version"));
    if (!stored) return stored.error();
    m_schema = stored->toInt();
    if (!fresh && m_schema > schema::version) {
        m_readOnly = true;
        m_readOnlyReason = "it was written by a newer Rollcall";
    }
    if (!fresh && m_schema < 1) return Error{ErrorKind::damaged, "", "the logbook does not say which version it is"};
    if (m_schema >= schema::version) return Done{};
    if (m_readOnly)
        return Error{ErrorKind::refused, "",
                     "this logbook was written by an older Rollcall and must be brought up to date before it can be "
                     "read: copy it into a folder that can be written to"};
    if (!fresh) {
        // Nothing is lost should the new schema be at fault: the file as it was stays beside it.
        const QString backup = QStringLiteral("%1.before-schema-%2").arg(path).arg(schema::version);
        if (!QFileInfo::exists(backup)) {
            if (auto kept = m_database->run(QStringLiteral("VACUUM INTO ?"), {backup}); !kept) return kept.error();
        }
    }
    Database::Transaction transaction(*m_database);
    if (!transaction.begun()) return transaction.begun();
    for (int version = m_schema + 1; version <= schema::version; ++version) {
        for (const char* statement : schema::migration(version)) {
            if (auto done = m_database->run(QString::fromLatin1(statement)); !done) return done.error();
        }
        for (const char* table : schema::appendOnlyTables(version)) {
            for (const char* verb : {"UPDATE", "DELETE"}) {
                const QString trigger =
                    QStringLiteral(
                        "CREATE TRIGGER %1_no_%2 BEFORE %3 ON %1 BEGIN SELECT RAISE(ABORT, '%1 is append-only'); END")
                        .arg(QLatin1String(table), QString::fromLatin1(verb).toLower(), QLatin1String(verb));
                if (auto done = m_database->run(trigger); !done) return done.error();
            }
        }
    }
    if (auto done = m_database->run(QStringLiteral("PRAGMA application_id=%1").arg(schema::applicationId)); !done)
        return done.error();
    if (auto done = m_database->run(QStringLiteral("PRAGMA user_version=%1").arg(schema::version)); !done)
        return done.error();
    m_schema = schema::version;
    return transaction.commit();
}

Result<Done> Logbook::transact(const char* action, const std::function<Result<Done>()>& work) {
    if (m_readOnly) return Error{ErrorKind::refused, "", "this logbook is open for reading only: " + m_readOnlyReason};
    if (m_inEntry) return work(); // part of the entry that is being made
    const auto entry = [&]() -> Result<Done> {
        (void)m_database->takeNotes();
        const auto leave = qScopeGuard([this] { m_inEntry = false; });
        m_inEntry = true;
        if (auto done = work(); !done) return done;
        const QJsonArray notes = m_database->takeNotes();
        m_touched.add(touchedBy(notes, *m_database));
        if (auto done = forgetScatter(notes); !done) return done;
        return appendChange(*m_database, m_seams.now(), q(m_person), action, notes);
    };
    return m_inTransaction ? entry() : inOneTransaction(entry);
}

Result<Done> Logbook::inOneTransaction(const std::function<Result<Done>()>& work) {
    Database::Transaction transaction(*m_database);
    if (!transaction.begun()) return transaction.begun();
    const auto leave = qScopeGuard([this, outer = std::exchange(m_inTransaction, true)] { m_inTransaction = outer; });
    if (auto done = work(); !done) return done;
    return transaction.commit();
}

void Logbook::forgetLearned() {
    m_learned.clear();
    m_learnedDay = -1;
    m_traces.clear();
    m_touched.everything = true;
}

} // namespace rollcall
