// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/held_file.h"

#include <algorithm>
#include <cerrno>
#include <fcntl.h>
#include <map>
#include <mutex>
#include <QFile>
#include <sys/stat.h>
#include <unistd.h>

namespace rollcall {

namespace {

std::mutex heldMutex;
std::map<FileIdentity, int> held; ///< the descriptors of what is held

// The bytes that SQLite locks, of any database: https://www.sqlite.org/src/doc/trunk/src/os.h
struct flock locked() {
    struct flock range {};
    range.l_type = F_WRLCK;
    range.l_whence = SEEK_SET;
    range.l_start = 0x40000000;
    range.l_len = 512;
    return range;
}

// A lock of an open file is asked for in vain where this very process has a lock of its own.
bool areOurs(int file) {
    struct flock range = locked();
    return ::fcntl(file, F_OFD_GETLK, &range) == 0 && range.l_type != F_UNLCK && range.l_pid == ::getpid();
}

} // namespace

FileIdentity identityOf(const QString& path) {
    struct stat found {};
    if (::stat(QFile::encodeName(path).constData(), &found) != 0) return {};
    return {static_cast<quint64>(found.st_dev), static_cast<quint64>(found.st_ino)};
}

HeldFile::HeldFile(const QString& path)
    : m_path(path), m_identity(identityOf(path)), m_log(log()),
      m_file(::open(QFile::encodeName(path).constData(), O_RDWR | O_CLOEXEC)) {
    const std::lock_guard lock(heldMutex);
    if (m_file >= 0) held.emplace(m_identity, m_file);
}

HeldFile::~HeldFile() {
    const std::lock_guard lock(heldMutex);
    if (m_file < 0) return;
    held.erase(m_identity);
    ::close(m_file);
}

HeldFile::Holds HeldFile::holds() {
    if (m_shared) return Holds::shared;
    const bool kept = m_file >= 0 && areOurs(m_file);
    if (!kept && m_file >= 0) {
        struct flock range = locked();
        m_shared = ::fcntl(m_file, F_SETLK, &range) != 0 && (errno == EAGAIN || errno == EACCES);
    }
    if (m_log == FileIdentity()) m_log = log();
    const bool logged = log() == m_log;
    // Whoever leaves a database as the last one takes its log away.
    m_shared = m_shared || (!kept && !logged);
    return m_shared ? Holds::shared : logged ? Holds::all : Holds::noLog;
}

std::optional<QByteArray> HeldFile::headOf(const QString& path, qint64 bytes) {
    const std::lock_guard lock(heldMutex);
    const auto known = held.find(identityOf(path));
    if (known == held.end()) return std::nullopt;
    QByteArray head(bytes, 0);
    const auto read = ::pread(known->second, head.data(), static_cast<size_t>(bytes), 0);
    return head.left(static_cast<qsizetype>(std::max<ssize_t>(read, 0)));
}

} // namespace rollcall
