// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <QByteArray>
#include <QString>
#include <random>
#include <vector>

namespace rollcall::fixtures {

/// Everything that the program does to the files of one folder, call by call, for as long as it lives: what SQLite
/// writes and what we write ourselves. From that, every state in which a power cut at a moment may leave the disk: what
/// was flushed is there; of what was not, any part, in any order, torn at a sector; of the names in the folder those
/// up to any of the changes since it was flushed. A call can also be made to fail. One at a time.
class RecordedDisk {
public:
    explicit RecordedDisk(const QString& folder);
    ~RecordedDisk();
    RecordedDisk(const RecordedDisk&) = delete;
    RecordedDisk& operator=(const RecordedDisk&) = delete;

    /// Number of calls so far.
    std::size_t calls() const { return m_calls.size(); }
    /// Whether a call so far made something certain: a flush of a file or of the folder.
    bool flushes(std::size_t call) const;
    /// The files as they may be found after a power cut behind so many calls.
    std::map<QByteArray, QByteArray> afterPowerCut(std::size_t calls, std::mt19937& chance) const;

    /// The files as a program leaves them that is killed behind so many calls: all that was written, in its order.
    std::map<QByteArray, QByteArray> afterKill(std::size_t calls) const;

    /// The call with this number from now on, and all after it where it lasts, fails with this code; none for < 0.
    void failAt(int call, int code, bool lasts);
    /// Whether one has failed since.
    bool hasFailed() const { return m_failed; }

    struct Call {
        enum class Kind { write, resize, flush, name, unname, rename, flushNames };
        Kind kind = Kind::write;
        unsigned long long file = 0; ///< which file, whatever its name
        QByteArray name;
        QByteArray to;
        long long at = 0;
        QByteArray data;
    };
    /// For the calls themselves: notes one down; a code where it shall fail.
    int before();
    bool isOurs(const QByteArray& path) const { return path.startsWith(m_folder); }
    void note(Call call) { m_calls.push_back(std::move(call)); }
    /// Which file that is; a name is noted where it was not known yet.
    unsigned long long see(unsigned long long inode, const QByteArray& name, long long size);
    /// It is gone, and another may get its number.
    void forget(unsigned long long inode) { m_known.erase(inode); }
    static RecordedDisk*& current();

private:
    struct Disk;
    /// What is certain behind so many calls, and what is on its way.
    Disk diskBehind(std::size_t calls) const;
    std::map<QByteArray, QByteArray> found(Disk& disk) const;

    QByteArray m_folder;
    std::map<QByteArray, QByteArray> m_first; ///< the files as they were at the beginning
    std::map<QByteArray, unsigned long long> m_firstFile;
    std::map<unsigned long long, unsigned long long> m_known; ///< number on the disk -> file
    unsigned long long m_files = 0;
    std::vector<Call> m_calls;
    int m_failIn = -1;
    int m_code = 0;
    bool m_lasts = false;
    bool m_failed = false;
};

} // namespace rollcall::fixtures
