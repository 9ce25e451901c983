// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/logbook.h"

#include "core/judge/release_judge.h"
#include "files/disk.h"
#include "logbook/change_log.h"
#include "logbook/database.h"
#include "logbook/logbook_file.h"
#include "logbook/schema.h"
#include "logbook/touched.h"

#include <fmt/format.h>
#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QLockFile>
#include <QScopeGuard>
#include <QThread>
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
    if (!m_written) return;
    if (m_held && m_held->holds() == HeldFile::Holds::shared) {
        // What another program wrote would be written over with what was known before.
        m_database->leaveAsItIs();
        return;
    }
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
        bool told = lock->getLockInfo(&pid, &host, &program);
        if (!told) {
            // Whoever made it is about to write who it is, or was killed before that.
            constexpr unsigned long aboutTo_ms = 100;
            QThread::msleep(aboutTo_ms);
            told = lock->getLockInfo(&pid, &host, &program);
            if (!told && lock->removeStaleLockFile() && lock->tryLock(0)) return lock;
        }
        const std::string who =
            told ? fmt::format(" ({}, process {} on {})", program.toStdString(), pid, host.toStdString()) : "";
        return Error{ErrorKind::locked, path.toStdString(),
                     fmt::format("this logbook is open in another window{}. Close it there first.", who)};
    }
    return Error{ErrorKind::disk, path.toStdString(), "this folder cannot be written to"};
}

// Why a logbook of this schema is not as Rollcall leaves it; empty when it is.
std::string troubleIn(Database& database) {
    const auto planted = schema::planted(database);
    const auto recent = planted && planted->empty() ? recentTrouble(database) : planted;
    return recent ? *recent : "it cannot be read to its end (" + recent.error().text + ")";
}

} // namespace

Result<Done> Logbook::make(const QString& path, LogbookSeams seams,
                           const std::function<Result<Done>(const QString& part)>& fill) {
    if (auto named = mayBeNamed(path); !named) return named; // before anything is written beside it
    const auto lock = lockBeside(path);
    if (!lock) return lock.error();
    return makeWhole(path, [&](const QString& part) -> Result<Done> {
        {
            auto database = std::make_unique<Database>();
            if (auto opened = database->open(part, Database::Mode::create); !opened) return opened;
            Logbook logbook(std::move(database), nullptr, std::move(seams));
            if (auto ready = logbook.prepare(part, true); !ready) return ready;
        }
        return fill ? fill(part) : Result<Done>(Done{});
    });
}

Result<std::unique_ptr<Logbook>> Logbook::create(const QString& path, LogbookSeams seams) {
    if (auto made = make(path, seams, {}); !made) return made.error();
    return open(path, Access::write, std::move(seams));
}

Result<std::unique_ptr<Logbook>> Logbook::open(const QString& name, Access access, LogbookSeams seams) {
    if (auto named = mayBeNamed(name); !named) return named.error();
    // Lock and log lie beside the file itself, whatever link leads to it.
    const QString real = QFileInfo(name).canonicalFilePath();
    const QString path = real.isEmpty() ? name : real;
    if (auto ours = isALogbook(path); !ours) return ours.error();
    const QFileInfo file(path);
    const std::string place = path.toStdString();
    if (file.permission(QFile::ReadOwner) && !(file.permissions() & (QFile::ReadGroup | QFile::ReadOther)))
        keepWhatLeavesPrivate(true);

    std::unique_ptr<QLockFile> lock;
    std::unique_ptr<QTemporaryDir> elsewhere;
    std::string reason;
    QString at = path;
    const bool folderWritable = QFileInfo(file.absolutePath()).isWritable() && file.isWritable();
    if (folderWritable) {
        auto taken = lockBeside(path);
        // A disk that is full can still be read.
        if (!taken && taken.error().kind == ErrorKind::disk && !hasLeftovers(path))
            reason = "nothing can be written beside it: the disk is full, or gone";
        else if (!taken)
            return taken.error();
        else
            lock = std::move(taken).value();
    } else {
        reason = "the file or its folder cannot be written to";
    }
    const bool second = lock && hasSecondName(path);
    if (second) reason = "it has a second name (a hard link): make a copy and go on with that";
    // What a stopped program left beside it is taken in, even when only reading was asked; where nothing can or may be
    // written, in a copy.
    const bool leftovers = hasLeftovers(path);
    if (leftovers && (!folderWritable || second)) {
        auto copy = copyElsewhere(path);
        if (!copy) return copy.error();
        elsewhere = std::move(copy).value();
        at = elsewhere->filePath(file.fileName());
    }
    // Looked at before it is touched: one that is not as Rollcall leaves it is not written to at all.
    auto database = std::make_unique<Database>();
    auto opened = database->open(at, leftovers ? Database::Mode::readWrite : Database::Mode::readOnly);
    const Result<QVariant> application =
        opened ? database->single(QStringLiteral("PRAGMA application_id")) : Result<QVariant>(opened.error());
    if (!application) return Error{application.error().kind, place, application.error().text};
    if (application->toInt() != schema::applicationId)
        return Error{ErrorKind::damaged, place, "this file is not a Rollcall logbook"};
    const Result<QVariant> stored = database->single(QStringLiteral("PRAGMA user_version"));
    if (!stored) return Error{stored.error().kind, place, stored.error().text};
    const bool older = stored->toInt() >= 1 && stored->toInt() < schema::version;
    if (stored->toInt() == schema::version) {
        if (const std::string trouble = troubleIn(*database); !trouble.empty()) reason = trouble;
    }
    bool reading = !reason.empty() || access == Access::read;
    // One of an older Rollcall is brought up to date even when only reading was asked.
    if (older && reason.empty()) reading = false;
    if (!leftovers && !reading) {
        database = std::make_unique<Database>();
        opened = database->open(at, Database::Mode::readWrite);
        if (!opened) return Error{opened.error().kind, place, opened.error().text};
    }
    std::unique_ptr<Logbook> logbook(new Logbook(std::move(database), std::move(lock), std::move(seams)));
    logbook->m_elsewhere = std::move(elsewhere);
    logbook->m_readOnly = reading;
    logbook->m_written = leftovers || !reading;
    logbook->m_readOnlyReason = reason;
    logbook->m_path = path;
    logbook->m_identity = identityOf(path);
    if (const auto ready = logbook->prepare(path, false); !ready)
        return Error{ready.error().kind, place, ready.error().text};
    if (logbook->m_written && !logbook->m_elsewhere) logbook->m_held = std::make_unique<HeldFile>(path);
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
        if (auto kept = keepBefore(*m_database, path, schema::version); !kept) return kept;
    }
    Database::Transaction transaction(*m_database);
    if (!transaction.begun()) return transaction.begun();
    for (int version = m_schema + 1; version <= schema::version; ++version) {
        for (const char* statement : schema::migration(version)) {
            if (auto done = m_database->run(QString::fromLatin1(statement)); !done) return done.error();
        }
    }
    // A guard that an earlier Rollcall did not make, or that is gone, stands from now on.
    for (QString guard : schema::guards()) {
        guard.replace(QLatin1String("CREATE TRIGGER "), QLatin1String("CREATE TRIGGER IF NOT EXISTS "));
        if (auto done = m_database->run(guard); !done) return done.error();
    }
    if (auto done = m_database->run(QStringLiteral("PRAGMA application_id=%1").arg(schema::applicationId)); !done)
        return done.error();
    if (auto done = m_database->run(QStringLiteral("PRAGMA user_version=%1").arg(schema::version)); !done)
        return done.error();
    m_schema = schema::version;
    return transaction.commit();
}

std::string Logbook::newId() const {
    return m_database->series() != nullptr ? m_database->series()->nextId().toStdString() : m_seams.newId();
}

Result<std::optional<Instant>> Logbook::entryAhead() {
    const auto last =
        m_database->select(QStringLiteral("SELECT at_ms, at_offset FROM change ORDER BY seq DESC LIMIT 1"));
    if (!last) return last.error();
    constexpr std::int64_t clocksDiffer_ms = 120000; // two computers that share a file
    if (last->empty()) return std::optional<Instant>();
    const Instant at = instantOf(last->front()[0], last->front()[1]);
    return at.utc_ms > now().utc_ms + clocksDiffer_ms ? std::optional(at) : std::nullopt;
}

Result<Done> Logbook::transact(const char* action, const std::function<Result<Done>()>& work) {
    if (m_readOnly) return Error{ErrorKind::refused, "", "this logbook is open for reading only: " + m_readOnlyReason};
    if (m_inEntry) return work(); // part of the entry that is being made
    const auto entry = [&]() -> Result<Done> {
        (void)m_database->takeNotes();
        const auto leave = qScopeGuard([this] { m_inEntry = false; });
        m_inEntry = true;
        if (auto done = work(); !done) return done;
        return tellSoFar(action);
    };
    return m_inTransaction ? entry() : inOneTransaction(entry);
}

Result<Done> Logbook::tellSoFar(const char* action) {
    const QJsonArray notes = m_database->takeNotes();
    const bool followed = !m_touched.everything || m_present.known();
    const Touched touched = followed ? touchedBy(notes, *m_database) : Touched();
    m_touched.add(touched);
    if (auto done = forgetScatter(notes); !done) return done;
    const auto entry = appendChange(*m_database, m_seams.now(), q(m_person), action, notes);
    if (!entry) return entry.error();
    m_present.follow(*entry, touched);
    return Done{};
}

Result<Done> Logbook::inOneTransaction(const std::function<Result<Done>()>& work) {
    Database::Transaction transaction(*m_database);
    if (!transaction.begun()) return transaction.begun();
    const auto leave = qScopeGuard([this, outer = std::exchange(m_inTransaction, true)] { m_inTransaction = outer; });
    if (auto done = work(); !done) return done;
    if (auto there = stillThere(); !there) return there;
    return transaction.commit();
}

// What is stored in a file that nobody can find any more is lost: it is said before anything more is acknowledged.
Result<Done> Logbook::stillThere() {
    if (m_path.isEmpty()) return Done{};
    const auto lost = [this](const char* why) { // short: it stands in one line of the window
        return Error{ErrorKind::disk, QFileInfo(m_path).fileName().toStdString(), why};
    };
    if (identityOf(m_path) != m_identity)
        return lost(QFileInfo::exists(m_path)
                        ? "nothing more is stored: another file has taken the place of this logbook; save a copy under "
                          "another name, then look which is the right one"
                        : "nothing more is stored: it was moved or deleted while it was open; put it back, or save a "
                          "copy under another name");
    switch (m_held ? m_held->holds() : HeldFile::Holds::all) {
    case HeldFile::Holds::noLog:
        return lost("nothing more is stored: its -wal file was deleted while it was open; open the logbook again");
    case HeldFile::Holds::shared:
        return lost("nothing more is stored: another program has been in it; close it there, then open it here again");
    case HeldFile::Holds::all:
        break;
    }
    return Done{};
}

Result<Done> Logbook::backup(const QString& to) {
    return copyOf(*m_database, m_path, to);
}

Result<Done> Logbook::backupBeside(const char* word) {
    const QString moment = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-HHmmss"));
    const QString name = QStringLiteral("%1.%2-%3").arg(m_path, QLatin1String(word), moment);
    for (int number = 1;; ++number) {
        const QString free = number == 1 ? name : QStringLiteral("%1.%2").arg(name).arg(number);
        if (!QFileInfo::exists(free)) return backup(free);
    }
}

void Logbook::settle() {
    if (!m_readOnly && stillThere()) (void)m_database->run(QStringLiteral("PRAGMA wal_checkpoint(TRUNCATE)"));
}

void Logbook::forgetLearned() {
    m_learned.clear();
    m_learnedDay = -1;
    m_traces.clear();
    m_touched.everything = true;
}

} // namespace rollcall
