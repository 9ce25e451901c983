// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/worker.h"

namespace rollcall {

Worker::~Worker() {
    {
        const std::lock_guard lock(m_mutex);
        m_ends = true;
    }
    m_more.notify_one();
    if (m_thread.joinable()) m_thread.join();
}

void Worker::add(std::function<void()> work) {
    {
        const std::lock_guard lock(m_mutex);
        m_work.push_back(std::move(work));
    }
    if (!m_thread.joinable()) m_thread = std::thread([this] { goOn(); });
    m_more.notify_one();
}

void Worker::goOn() {
    for (;;) {
        std::unique_lock lock(m_mutex);
        m_more.wait(lock, [this] { return m_ends || !m_work.empty(); });
        if (m_work.empty()) return;
        const std::function<void()> next = std::move(m_work.front());
        m_work.pop_front();
        lock.unlock();
        next();
    }
}

} // namespace rollcall
