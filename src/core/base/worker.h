// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <condition_variable>
#include <deque>
#include <functional>
#include <future>
#include <memory>
#include <mutex>
#include <thread>
#include <utility>

namespace rollcall {

/// One thread beside the one that asks; it does what it is given in order, and stays, with what it keeps for itself,
/// until this ends. Nothing is begun before it is asked. What was asked is done before it ends.
class Worker {
public:
    Worker() = default;
    Worker(const Worker&) = delete;
    Worker& operator=(const Worker&) = delete;
    ~Worker();

    /// What the work returns or throws comes with the future.
    template<class Work>
    auto ask(Work work) {
        auto task = std::make_shared<std::packaged_task<decltype(work())()>>(std::move(work));
        auto answer = task->get_future();
        add([task = std::move(task)]() mutable {
            (*task)();
            task.reset();
        });
        return answer;
    }

private:
    void add(std::function<void()> work);
    void goOn();

    std::mutex m_mutex;
    std::condition_variable m_more;
    std::deque<std::function<void()>> m_work;
    bool m_ends = false;
    std::thread m_thread;
};

} // namespace rollcall
