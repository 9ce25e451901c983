// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/handover.h"

#include "core/base/result.h"

#include <atomic>
#include <QThread>
#include <stdexcept>
#include <string>

using namespace rollcall;

namespace {

constexpr int many = 100000;

// Numbers from nought on, as long as they are wanted; how many were made.
struct Numbers {
    std::atomic<int> made = 0;

    auto upTo(int count) {
        return [this, count](const auto& give) -> Result<Done> {
            for (int i = 0; i < count; ++i) {
                ++made;
                if (!give(int(i))) return Done{};
            }
            return Done{};
        };
    }
};

} // namespace

class TestHandover : public QObject {
    Q_OBJECT
private slots:
    void allComeInTheirOrderFromAnotherThread() {
        Numbers numbers;
        int next = 0;
        bool elsewhere = false;
        const QThread* here = QThread::currentThread();
        const auto make = [&](const auto& give) {
            elsewhere = QThread::currentThread() != here;
            return numbers.upTo(many)(give);
        };
        const Result<Done> done = takeAhead<int>(make, [&](int one) {
            if (one != next || QThread::currentThread() != here) return false;
            ++next;
            return true;
        });
        QVERIFY(done.ok());
        QVERIFY(elsewhere);
        QCOMPARE(next, many);
    }

    void nothingIsAResultToo() {
        Numbers numbers;
        int taken = 0;
        QVERIFY((takeAhead<int>(numbers.upTo(0), [&](int) { return ++taken > 0; }).ok()));
        QCOMPARE(taken, 0);
    }

    void fewAreMadeAhead() {
        Numbers numbers;
        int most = 0;
        int taken = 0;
        QVERIFY((takeAhead<int>(numbers.upTo(many), [&](int) {
                     if (taken % 1000 == 0) QThread::msleep(1); // the maker has time to run away
                     most = std::max(most, numbers.made - ++taken);
                     return true;
                 }).ok()));
        QVERIFY2(most < 2000, std::to_string(most).c_str());
    }

    void itsTakerCanEndIt() {
        Numbers numbers;
        int taken = 0;
        QVERIFY((takeAhead<int>(numbers.upTo(many), [&](int) { return ++taken < 10; }).ok()));
        QCOMPARE(taken, 10);
        QVERIFY(numbers.made < many);
    }

    void whatTheMakerGivesIsGiven() {
        const auto make = [](const auto& give) -> Result<Done> {
            give(1);
            return Error{ErrorKind::input, "line 2", "torn"};
        };
        int taken = 0;
        const Result<Done> done = takeAhead<int>(make, [&](int) { return ++taken > 0; });
        QVERIFY(!done.ok());
        QCOMPARE(done.error().text, std::string("torn"));
        QCOMPARE(taken, 1); // what came before it
    }

    void whatIsThrownEndsBoth() {
        const auto make = [](const auto& give) -> Result<Done> {
            give(1);
            throw std::runtime_error("no memory");
        };
        QVERIFY_EXCEPTION_THROWN(takeAhead<int>(make, [](int) { return true; }), std::runtime_error);
        Numbers numbers;
        const auto take = [](int) -> bool { throw std::runtime_error("no memory"); };
        QVERIFY_EXCEPTION_THROWN(takeAhead<int>(numbers.upTo(many), take), std::runtime_error);
        QVERIFY(numbers.made < many);
    }
};

QTEST_GUILESS_MAIN(TestHandover)
#include "tst_handover.moc"
