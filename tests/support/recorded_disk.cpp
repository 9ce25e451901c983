// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/recorded_disk.h"

#include <algorithm>
#include <cerrno>
#include <dlfcn.h>
#include <fcntl.h>
#include <functional>
#include <QDir>
#include <QFile>
#include <sys/stat.h>
#include <unistd.h>

using rollcall::fixtures::RecordedDisk;
using Call = RecordedDisk::Call;

namespace rollcall::fixtures {

/// A disk: what is certain to be on it, and what is on its way.
struct RecordedDisk::Disk {
    struct Pending {
        bool resize = false;
        long long at = 0;
        QByteArray data;
    };
    struct Content {
        QByteArray flushed;
        std::vector<Pending> pending;
    };
    std::map<unsigned long long, Content> files;
    std::map<QByteArray, unsigned long long> names; ///< as flushed
    std::vector<const Call*> namesPending;

    static void apply(QByteArray& content, const Pending& change) {
        if (change.resize) {
            content.resize(change.at, '\0');
            return;
        }
        if (content.size() < change.at + change.data.size()) content.resize(change.at + change.data.size(), '\0');
        std::copy(change.data.begin(), change.data.end(), content.begin() + change.at);
    }
    void applyName(const Call& call) {
        using Kind = Call::Kind;
        if (call.kind == Kind::name) names[call.name] = call.file;
        if (call.kind == Kind::unname) names.erase(call.name);
        if (call.kind != Kind::rename) return;
        const auto from = names.find(call.name);
        if (from == names.end()) return;
        names[call.to] = from->second;
        names.erase(call.name);
    }
};

RecordedDisk*& RecordedDisk::current() {
    static RecordedDisk* disk = nullptr;
    return disk;
}

RecordedDisk::RecordedDisk(const QString& folder) : m_folder(QFile::encodeName(folder) + '/') {
    for (const QFileInfo& file : QDir(folder).entryInfoList(QDir::Files | QDir::Hidden)) {
        QFile read(file.filePath());
        if (!read.open(QIODevice::ReadOnly)) continue;
        const QByteArray name = QFile::encodeName(file.filePath());
        struct stat found {};
        ::stat(name.constData(), &found);
        m_first[name] = read.readAll();
        m_firstFile[name] = m_known[found.st_ino] = ++m_files;
    }
    current() = this;
}

RecordedDisk::~RecordedDisk() {
    current() = nullptr;
}

unsigned long long RecordedDisk::see(unsigned long long inode, const QByteArray& name, long long size) {
    const auto [known, isNew] = m_known.emplace(inode, m_files + 1);
    if (!isNew) return known->second;
    const unsigned long long file = ++m_files;
    note({Call::Kind::name, file, name, {}, 0, {}});
    if (size > 0) note({Call::Kind::resize, file, name, {}, size, {}});
    return file;
}

bool RecordedDisk::flushes(std::size_t call) const {
    return m_calls[call].kind == Call::Kind::flush || m_calls[call].kind == Call::Kind::flushNames;
}

RecordedDisk::Disk RecordedDisk::diskBehind(std::size_t calls) const {
    using Kind = Call::Kind;
    Disk disk;
    for (const auto& [name, content] : m_first) {
        disk.names[name] = m_firstFile.at(name);
        disk.files[m_firstFile.at(name)].flushed = content;
    }
    for (std::size_t i = 0; i < std::min(calls, m_calls.size()); ++i) {
        const Call& call = m_calls[i];
        Disk::Content& content = disk.files[call.file];
        switch (call.kind) {
        case Kind::write:
            content.pending.push_back({false, call.at, call.data});
            break;
        case Kind::resize:
            content.pending.push_back({true, call.at, {}});
            break;
        case Kind::flush:
            for (const Disk::Pending& change : content.pending) Disk::apply(content.flushed, change);
            content.pending.clear();
            break;
        case Kind::flushNames:
            for (const Call* change : disk.namesPending) disk.applyName(*change);
            disk.namesPending.clear();
            break;
        default:
            disk.namesPending.push_back(&call);
        }
    }
    return disk;
}

std::map<QByteArray, QByteArray> RecordedDisk::found(Disk& disk) const {
    std::map<QByteArray, QByteArray> all;
    for (const auto& [name, file] : disk.names) all[name.mid(m_folder.size())] = disk.files[file].flushed;
    return all;
}

std::map<QByteArray, QByteArray> RecordedDisk::afterKill(std::size_t calls) const {
    Disk disk = diskBehind(calls);
    for (const Call* change : disk.namesPending) disk.applyName(*change);
    for (auto& [file, content] : disk.files) {
        for (const Disk::Pending& change : content.pending) Disk::apply(content.flushed, change);
    }
    return found(disk);
}

std::map<QByteArray, QByteArray> RecordedDisk::afterPowerCut(std::size_t calls, std::mt19937& chance) const {
    Disk disk = diskBehind(calls);
    // Of what was not flushed: nothing, all, or anything between.
    const auto upTo = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n)(chance); };
    const std::size_t kept = upTo(disk.namesPending.size());
    for (std::size_t i = 0; i < kept; ++i) disk.applyName(*disk.namesPending[i]);
    constexpr long long sector = 512;
    for (auto& [file, content] : disk.files) {
        const std::size_t way = upTo(3); // 0 nothing, 1 all, 2 each write or not, 3 each sector or not
        for (const Disk::Pending& change : content.pending) {
            if (way == 0 || (way == 2 && upTo(1) == 0)) continue;
            if (way < 3 || change.resize) {
                Disk::apply(content.flushed, change);
                continue;
            }
            for (long long at = 0; at < change.data.size();) {
                const long long next =
                    std::min<long long>(change.data.size(), (change.at + at) / sector * sector + sector - change.at);
                if (upTo(1) == 1) Disk::apply(content.flushed, {false, change.at + at, change.data.mid(at, next - at)});
                at = next;
            }
        }
    }
    return found(disk);
}

void RecordedDisk::failAt(int call, int code, bool lasts) {
    m_failIn = call;
    m_code = code;
    m_lasts = lasts;
    m_failed = false;
}

int RecordedDisk::before() {
    if (m_failIn < 0) return 0;
    if (m_failIn > 0) {
        --m_failIn;
        return 0;
    }
    if (!m_lasts) m_failIn = -1;
    m_failed = true;
    return m_code;
}

} // namespace rollcall::fixtures

// --- the calls of the system, in front of the library's own

namespace {

template<class F>
F real(const char* name) {
    return reinterpret_cast<F>(dlsym(RTLD_NEXT, name));
}

// The disk that the file belongs to; null where it is none of ours.
RecordedDisk* diskOf(int file, QByteArray& name, struct stat& found) {
    RecordedDisk* disk = RecordedDisk::current();
    if (disk == nullptr) return nullptr;
    char path[4096];
    const ssize_t length = ::readlink(("/proc/self/fd/" + std::to_string(file)).c_str(), path, sizeof path - 1);
    if (length <= 0) return nullptr;
    name = QByteArray(path, length);
    if (!disk->isOurs(name + '/') || ::fstat(file, &found) != 0) return nullptr;
    return disk;
}

int failed(int code) {
    errno = code;
    return -1;
}

ssize_t written(int file, const void* data, size_t size, off_t at, bool here) {
    QByteArray name;
    struct stat found {};
    RecordedDisk* disk = diskOf(file, name, found);
    if (disk == nullptr || !S_ISREG(found.st_mode))
        return here ? real<ssize_t (*)(int, const void*, size_t)>("write")(file, data, size)
                    : real<ssize_t (*)(int, const void*, size_t, off_t)>("pwrite64")(file, data, size, at);
    if (const int code = disk->before()) return failed(code);
    if (here) at = ::lseek(file, 0, SEEK_CUR);
    const auto known = disk->see(found.st_ino, name, found.st_size);
    disk->note({Call::Kind::write, known, name, {}, at, QByteArray(static_cast<const char*>(data), qsizetype(size))});
    return here ? real<ssize_t (*)(int, const void*, size_t)>("write")(file, data, size)
                : real<ssize_t (*)(int, const void*, size_t, off_t)>("pwrite64")(file, data, size, at);
}

int flushed(int file, const char* call) {
    QByteArray name;
    struct stat found {};
    RecordedDisk* disk = diskOf(file, name, found);
    if (disk != nullptr) {
        if (const int code = disk->before()) return failed(code);
        if (S_ISDIR(found.st_mode)) {
            disk->note({Call::Kind::flushNames, 0, name, {}, 0, {}});
        } else {
            disk->note({Call::Kind::flush, disk->see(found.st_ino, name, found.st_size), name, {}, 0, {}});
        }
    }
    return real<int (*)(int)>(call)(file);
}

// Whether a change of names may go on; it is noted down by done().
int names(const char* from, const char* to, Call::Kind kind, const std::function<int()>& change) {
    RecordedDisk* disk = RecordedDisk::current();
    if (disk == nullptr || !disk->isOurs(from)) return change();
    if (const int code = disk->before()) return failed(code);
    struct stat found {};
    ::stat(from, &found);
    const int result = change();
    if (result != 0) return result;
    const auto file = disk->see(found.st_ino, from, found.st_size);
    disk->note({kind, file, kind == Call::Kind::name ? to : from, to != nullptr ? to : "", 0, {}});
    if (kind == Call::Kind::unname && found.st_nlink == 1) disk->forget(found.st_ino);
    return result;
}

} // namespace

extern "C" {

ssize_t write(int file, const void* data, size_t size) {
    return written(file, data, size, 0, true);
}
ssize_t pwrite(int file, const void* data, size_t size, off_t at) {
    return written(file, data, size, at, false);
}
ssize_t pwrite64(int file, const void* data, size_t size, off64_t at) {
    return written(file, data, size, at, false);
}
int ftruncate64(int file, off64_t size) noexcept {
    QByteArray name;
    struct stat found {};
    if (RecordedDisk* disk = diskOf(file, name, found)) {
        if (const int code = disk->before()) return failed(code);
        disk->note({Call::Kind::resize, disk->see(found.st_ino, name, found.st_size), name, {}, size, {}});
    }
    return real<int (*)(int, off64_t)>("ftruncate64")(file, size);
}
int ftruncate(int file, off_t size) noexcept {
    return ftruncate64(file, size);
}
int fsync(int file) {
    return flushed(file, "fsync");
}
int fdatasync(int file) {
    return flushed(file, "fdatasync");
}
int rename(const char* from, const char* to) noexcept {
    return names(from, to, Call::Kind::rename,
                 [&] { return real<int (*)(const char*, const char*)>("rename")(from, to); });
}
int link(const char* from, const char* to) noexcept {
    return names(from, to, Call::Kind::name, [&] { return real<int (*)(const char*, const char*)>("link")(from, to); });
}
int unlink(const char* name) noexcept {
    return names(name, nullptr, Call::Kind::unname, [&] { return real<int (*)(const char*)>("unlink")(name); });
}
}
