// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/worker.h"

#include <QtTest>
#include <stdexcept>
#include <vector>

using namespace rollcall;

class tst_Worker : public QObject {
    Q_OBJECT

private slots:
    void worksInOrderOnOneThreadBeside() {
        Worker worker;
        std::vector<int> done; // touched by the worker alone until the last answer is in
        std::vector<std::future<std::thread::id>> answers;
        for (int i = 0; i < 100; ++i) {
            answers.push_back(worker.ask([&done, i] {
                done.push_back(i);
                return std::this_thread::get_id();
            }));
        }
        const std::thread::id one = answers.front().get();
        QVERIFY(one != std::this_thread::get_id());
        for (std::size_t i = 1; i < answers.size(); ++i) QVERIFY(answers[i].get() == one);
        QCOMPARE(done.size(), std::size_t(100));
        QVERIFY(std::is_sorted(done.begin(), done.end()));
    }

    void whatIsThrownComesWithTheAnswer() {
        Worker worker;
        auto broken = worker.ask([]() -> int { throw std::runtime_error("broken"); });
        auto next = worker.ask([] { return 7; });
        QVERIFY_EXCEPTION_THROWN(broken.get(), std::runtime_error);
        QCOMPARE(next.get(), 7);
    }

    void whatWasAskedIsDoneBeforeItEnds() {
        int done = 0;
        {
            Worker worker;
            for (int i = 0; i < 50; ++i) worker.ask([&done] { ++done; });
        }
        QCOMPARE(done, 50);
        Worker unasked; // begins no thread, and ends
    }
};

QTEST_APPLESS_MAIN(tst_Worker)
#include "tst_worker.moc"
