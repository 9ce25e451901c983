// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include <atomic>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <dlfcn.h>
#include <unistd.h>

// Laid before the libraries of a program that is to be killed: at the call to the disk whose number ROLLCALL_KILL_AT
// says it is gone, without a chance to tidy up. ROLLCALL_KILL_COUNT names a file that is told how many calls there
// were.

namespace {

std::atomic<long> calls{0};

template<class Function>
Function real(const char* name) {
    return reinterpret_cast<Function>(dlsym(RTLD_NEXT, name));
}

void before() {
    static const char* const wished = std::getenv("ROLLCALL_KILL_AT");
    static const long at = wished != nullptr ? std::atol(wished) : 0;
    if (++calls == at) std::raise(SIGKILL);
}

struct Told {
    ~Told() {
        const char* const name = std::getenv("ROLLCALL_KILL_COUNT");
        std::FILE* file = name != nullptr ? std::fopen(name, "w") : nullptr;
        if (file == nullptr) return;
        std::fprintf(file, "%ld", calls.load());
        std::fclose(file);
    }
} told;

} // namespace

extern "C" {
ssize_t write(int file, const void* data, size_t size) {
    before();
    static const auto next = real<ssize_t (*)(int, const void*, size_t)>("write");
    return next(file, data, size);
}
ssize_t pwrite(int file, const void* data, size_t size, off_t at) {
    before();
    static const auto next = real<ssize_t (*)(int, const void*, size_t, off_t)>("pwrite");
    return next(file, data, size, at);
}
ssize_t pwrite64(int file, const void* data, size_t size, off64_t at) {
    before();
    static const auto next = real<ssize_t (*)(int, const void*, size_t, off64_t)>("pwrite64");
    return next(file, data, size, at);
}
int ftruncate(int file, off_t size) noexcept {
    before();
    static const auto next = real<int (*)(int, off_t)>("ftruncate");
    return next(file, size);
}
int ftruncate64(int file, off64_t size) noexcept {
    before();
    static const auto next = real<int (*)(int, off64_t)>("ftruncate64");
    return next(file, size);
}
int fsync(int file) {
    before();
    static const auto next = real<int (*)(int)>("fsync");
    return next(file);
}
int fdatasync(int file) {
    before();
    static const auto next = real<int (*)(int)>("fdatasync");
    return next(file);
}
int rename(const char* from, const char* to) noexcept {
    before();
    static const auto next = real<int (*)(const char*, const char*)>("rename");
    return next(from, to);
}
int link(const char* from, const char* to) noexcept {
    before();
    static const auto next = real<int (*)(const char*, const char*)>("link");
    return next(from, to);
}
int unlink(const char* name) noexcept {
    before();
    static const auto next = real<int (*)(const char*)>("unlink");
    return next(name);
}
}
