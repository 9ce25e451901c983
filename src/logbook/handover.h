// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <condition_variable>
#include <cstddef>
#include <deque>
#include <future>
#include <mutex>
#include <QScopeGuard>
#include <utility>
#include <vector>

namespace rollcall {

/// What one thread makes and another takes, in its order. Few wait: neither side needs memory for all of it.
template<class T>
class Handover {
public:
    /// together: so many are handed over at once, so that the threads seldom wait for each other.
    explicit Handover(std::size_t together) : m_together(together) {}
    /// By the maker. False: no more is wanted.
    bool give(T&& one) {
        m_making.push_back(std::move(one));
        return m_making.size() < m_together || flush();
    }
    /// By the maker: hands over what is not yet. False: no more is wanted.
    bool flush() {
        std::unique_lock lock(m_mutex);
        m_moved.wait(lock, [&] { return m_left || m_waiting.size() < most; });
        if (m_left) return false;
        m_waiting.push_back(std::exchange(m_making, {}));
        m_moved.notify_all();
        return true;
    }
    /// By the maker: nothing comes any more.
    void end() { tell(m_ended); }
    /// By the taker: nothing is wanted any more.
    void leave() { tell(m_left); }
    /// By the taker: those that are next; none when all were taken.
    std::vector<T> next() {
        std::unique_lock lock(m_mutex);
        m_moved.wait(lock, [&] { return m_ended || !m_waiting.empty(); });
        if (m_waiting.empty()) return {};
        std::vector<T> taken = std::move(m_waiting.front());
        m_waiting.pop_front();
        m_moved.notify_all();
        return taken;
    }

private:
    static constexpr std::size_t most = 4; // times as many wait

    void tell(bool& what) {
        const std::lock_guard lock(m_mutex);
        what = true;
        m_moved.notify_all();
    }

    std::size_t m_together;
    std::vector<T> m_making; ///< the maker's alone
    std::mutex m_mutex;
    std::condition_variable m_moved;
    std::deque<std::vector<T>> m_waiting;
    bool m_ended = false;
    bool m_left = false;
};

/// Runs make(give) on a thread of its own, a little ahead of take(one) here. Either ends it by false. Gives what make
/// gives; what make throws is thrown here.
template<class T, class Make, class Take>
auto takeAhead(const Make& make, const Take& take) {
    constexpr std::size_t together = 256;
    Handover<T> over(together);
    auto making = std::async(std::launch::async, [&] {
        const auto ended = qScopeGuard([&] { over.end(); });
        auto made = make([&](T&& one) { return over.give(std::move(one)); });
        over.flush();
        return made;
    });
    const auto left = qScopeGuard([&] { over.leave(); }); // before `making` waits for its end
    for (bool more = true; more;) {
        std::vector<T> some = over.next();
        more = !some.empty();
        for (std::size_t i = 0; more && i < some.size(); ++i) more = take(std::move(some[i]));
    }
    over.leave();
    return making.get();
}

} // namespace rollcall
