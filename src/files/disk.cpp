// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/disk.h"

#include "files/held_file.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QTemporaryFile>
#include <sys/stat.h>
#include <unistd.h>

namespace rollcall {

namespace {

bool onlyForOwner = false;

bool flush(const QString& path, int flags) {
    const int file = ::open(QFile::encodeName(path).constData(), flags | O_CLOEXEC);
    if (file < 0) return false;
    const bool done = ::fsync(file) == 0;
    const int why = errno;
    ::close(file);
    errno = why;
    return done;
}

Error notWritten(const QString& path, const QString& why) {
    return {ErrorKind::disk, path.toStdString(),
            why.isEmpty() ? "this file cannot be written" : "this file cannot be written: " + why.toStdString()};
}

// The first bytes of a database, https://www.sqlite.org/fileformat.html
QByteArray headOf(const QString& path) {
    constexpr qint64 header = 100;
    if (const auto held = HeldFile::headOf(path, header)) return *held;
    QFile file(path);
    return QFileInfo(path).isFile() && file.open(QIODevice::ReadOnly) ? file.read(header) : QByteArray();
}

// A logbook, or what a logbook that is open has beside it.
bool isOfALogbook(const QString& path) {
    if (isDatabase(path)) return true;
    for (const char* ending : {"-wal", "-shm", "-journal", ".lock"}) {
        if (path.endsWith(QLatin1String(ending)) && isDatabase(path.chopped(static_cast<qsizetype>(strlen(ending)))))
            return true;
    }
    return false;
}

mode_t usualMode() {
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return 0666 & ~mask;
}

// What an earlier file of the name may be read by stays; a new one of a private logbook is private.
mode_t modeFor(const QString& path) {
    struct stat earlier {};
    if (::stat(QFile::encodeName(path).constData(), &earlier) == 0) return earlier.st_mode & 0777;
    return onlyForOwner ? 0600 : usualMode();
}

Result<Done> copyInto(const QString& device, const QString& part) {
    QFile from(part);
    QFile to(device);
    if (!from.open(QIODevice::ReadOnly)) return notWritten(device, whyNot());
    if (!to.open(QIODevice::WriteOnly | QIODevice::Unbuffered)) return notWritten(device, to.errorString());
    while (!from.atEnd()) {
        const QByteArray piece = from.read(1 << 20);
        if (to.write(piece) != piece.size()) return notWritten(device, to.errorString());
    }
    return Done{};
}

} // namespace

QString whyNot() {
    return QString::fromLocal8Bit(std::strerror(errno));
}

bool flushFile(const QString& path) {
    return flush(path, O_RDONLY);
}

bool flushFolderOf(const QString& path) {
    return flush(QFileInfo(path).absolutePath(), O_RDONLY | O_DIRECTORY);
}

Result<Done> giveName(const QString& part, const QString& path) {
    if (!flushFile(part)) return notWritten(path, whyNot());
    const QByteArray from = QFile::encodeName(part);
    const QByteArray to = QFile::encodeName(path);
    // A link never takes a name that is taken; where the disk knows no links the name is looked at first.
    if (::link(from.constData(), to.constData()) == 0) {
        ::unlink(from.constData());
    } else if (errno == EEXIST || QFileInfo::exists(path)) {
        return Error{ErrorKind::exists, path.toStdString(), "this file is there already and is not overwritten"};
    } else if (::rename(from.constData(), to.constData()) != 0) {
        return notWritten(path, whyNot());
    }
    if (!flushFolderOf(path)) return notWritten(path, whyNot());
    return Done{};
}

bool isDatabase(const QString& path) {
    return headOf(path).startsWith(QByteArray("SQLite format 3\0", 16));
}

int applicationOf(const QString& path) {
    constexpr qsizetype at = 68;
    const QByteArray head = headOf(path);
    if (!isDatabase(path) || head.size() < at + 4) return 0;
    quint32 id = 0;
    for (qsizetype i = 0; i < 4; ++i) id = id << 8 | static_cast<unsigned char>(head[at + i]);
    return static_cast<int>(id);
}

Result<Done> writeFile(const QString& path, const QByteArray& bytes) {
    return writeFileBy(path, [&](const QString& part) -> Result<Done> {
        QFile file(part);
        const bool written = file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size() && file.flush();
        return written ? Result<Done>(Done{}) : notWritten(path, file.errorString());
    });
}

Result<Done> writeFileBy(const QString& path, const std::function<Result<Done>(const QString& part)>& write) {
    const QFileInfo asked(path);
    if (path.isEmpty()) return Error{ErrorKind::refused, "", "a file needs a name"};
    if (asked.isDir()) return Error{ErrorKind::refused, path.toStdString(), "this is a folder"};
    // What a link leads to is written, not the link.
    const QString target = asked.isSymLink() ? asked.symLinkTarget() : asked.absoluteFilePath();
    if (isOfALogbook(target))
        return Error{ErrorKind::refused, path.toStdString(),
                     "this is a logbook or belongs to one, and is not written over: choose another name"};
    const QFileInfo there(target);
    const bool device = there.exists() && !there.isFile();
    QTemporaryFile part(device ? QDir::temp().filePath(QStringLiteral("rollcall-XXXXXX.part"))
                               : QStringLiteral("%1/.%2-XXXXXX.part").arg(there.absolutePath(), there.fileName()));
    if (!part.open()) return notWritten(path, part.errorString());
    part.close();
    if (auto done = write(part.fileName()); !done) return done;
    if (device) return copyInto(target, part.fileName());
    const QByteArray name = QFile::encodeName(part.fileName());
    if (!flushFile(part.fileName()) || ::chmod(name.constData(), modeFor(target)) != 0 ||
        ::rename(name.constData(), QFile::encodeName(target).constData()) != 0 || !flushFolderOf(target))
        return notWritten(path, whyNot());
    return Done{};
}

void clearLeftovers(const QString& folder, const QStringList& names, const QDateTime& before) {
    const auto all = QDir(folder).entryInfoList(names, QDir::Files | QDir::Dirs | QDir::NoDotAndDotDot | QDir::Hidden);
    for (const QFileInfo& one : all) {
        if (one.isSymLink() || one.ownerId() != ::geteuid() || one.lastModified() >= before) continue;
        if (one.isDir())
            QDir(one.filePath()).removeRecursively();
        else
            QFile::remove(one.filePath());
    }
}

void keepWhatLeavesPrivate(bool yes) {
    onlyForOwner = yes;
}

} // namespace rollcall
