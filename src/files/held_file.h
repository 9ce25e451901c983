// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <QByteArray>
#include <QString>

namespace rollcall {

/// Which file on which disk a name leads to; a file that is moved and replaced by another has another.
struct FileIdentity {
    quint64 device = 0;
    quint64 inode = 0;
    bool operator==(const FileIdentity&) const = default;
    bool operator<(const FileIdentity& other) const {
        return device != other.device ? device < other.device : inode < other.inode;
    }
};
FileIdentity identityOf(const QString& path);

/// SQLite's locks on a database that is open for writing here. A process loses all its locks on a file when anything in
/// it closes that file once: a dialog that looks what kind of file it is, a table opened by mistake. This keeps the
/// file open itself, notices, and takes them again (https://www.sqlite.org/howtocorrupt.html, 2.2).
class HeldFile {
public:
    /// To be made when SQLite has its locks, and to live longer than its connection.
    explicit HeldFile(const QString& path);
    ~HeldFile();
    Q_DISABLE_COPY_MOVE(HeldFile)

    enum class Holds {
        all,   ///< nobody else was in the file
        noLog, ///< neither, but the log beside it, which is written to, was deleted
        shared ///< another program has been in it while the locks were gone, or is: what is known of it is old
    };
    /// Takes the locks again where they are gone. Once shared, always shared.
    Holds holds();

    /// The beginning of a file that is held, without opening it; none where it is not.
    static std::optional<QByteArray> headOf(const QString& path, qint64 bytes);

private:
    FileIdentity log() const { return identityOf(m_path + QStringLiteral("-wal")); }

    QString m_path;
    FileIdentity m_identity;
    FileIdentity m_log; ///< the write-ahead log that SQLite began
    int m_file;
    bool m_shared = false;
};

} // namespace rollcall
