// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <sqlite3.h>

namespace rollcall::fixtures {

/// Memory as SQLite asks for it; the request with a number, and all after it where it lasts, gets none.
struct FailingMemory {
    sqlite3_mem_methods real{};
    int failIn = -1; ///< requests from now; -1: none fails
    bool lasts = false;
    bool failed = false; ///< since somebody set it to false

    bool refuses() {
        if (failIn < 0) return false;
        if (failIn > 0) return --failIn, false;
        if (!lasts) failIn = -1;
        return failed = true;
    }
};

inline FailingMemory& memory() {
    static FailingMemory one;
    return one;
}

/// From now on SQLite gets its memory through memory(). Must be called before SQLite is used at all.
inline void takeMemory() {
    sqlite3_config(SQLITE_CONFIG_GETMALLOC, &memory().real);
    sqlite3_mem_methods ours = memory().real;
    ours.xMalloc = [](int bytes) -> void* { return memory().refuses() ? nullptr : memory().real.xMalloc(bytes); };
    ours.xRealloc = [](void* block, int bytes) -> void* {
        return memory().refuses() ? nullptr : memory().real.xRealloc(block, bytes);
    };
    sqlite3_config(SQLITE_CONFIG_MALLOC, &ours);
}

} // namespace rollcall::fixtures
