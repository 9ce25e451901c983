// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <atomic>

namespace rollcall {

/// How far a long work has come. The thread that does it tells so, others ask; whoever waits for it may give it up.
class Progress {
public:
    /// From 0 to 1.
    double part() const { return m_part.load(std::memory_order_relaxed); }
    void giveUp() { m_givenUp.store(true, std::memory_order_relaxed); }
    /// So much of it is done. Errors (refused): it was given up; what was begun is to be undone.
    Result<Done> reached(double part) {
        m_part.store(part, std::memory_order_relaxed);
        if (!m_givenUp.load(std::memory_order_relaxed)) return Done{};
        return Error{ErrorKind::refused, "", "given up; nothing of it was kept"};
    }

private:
    std::atomic<double> m_part{0};
    std::atomic<bool> m_givenUp{false};
};

} // namespace rollcall
