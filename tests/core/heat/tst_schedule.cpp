// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/schedule.h"

#include <QtTest>

using namespace rollcall;

class tst_Schedule : public QObject {
    Q_OBJECT

    static constexpr std::int64_t minute = 60000;
    static PlannedRun run(const char* id, const char* oven, std::int64_t start, double hours, double cool = 30) {
        PlannedRun c;
        c.id = id;
        c.oven = oven;
        c.start_ms = start * minute;
        c.hours = hours;
        c.temperature_c = 200;
        c.cool_minutes = cool;
        return c;
    }

private slots:
    void eventsInOrder() {
        std::vector<PlannedRun> day{run("a", "1", 0, 2), run("b", "1", 200, 1), run("c", "2", 10, 1)};
        day[0].started = true;
        day[2].started = true;
        const auto events = dayEvents(day, 100 * minute);
        QCOMPARE(events.size(), std::size_t(3));
        QCOMPARE(events[0].run, std::size_t(2)); // out since minute 70
        QVERIFY(events[0].due && events[0].kind == DayEvent::Kind::takeOut);
        QVERIFY(!events[1].due);
        QCOMPARE(events[1].at_ms, 120 * minute);
        QCOMPARE(events[2].kind, DayEvent::Kind::putIn);
    }
    void coolDownIsAnEventUntilItIsOver() {
        std::vector<PlannedRun> day{run("a", "1", 0, 1, 30)};
        day[0].started = day[0].out = true;
        QCOMPARE(dayEvents(day, 70 * minute)[0].kind, DayEvent::Kind::cooled);
        QVERIFY(dayEvents(day, 90 * minute).empty());
        day[0].cancelled = true;
        QVERIFY(dayEvents(day, 70 * minute).empty());
    }
    void ovensClash() {
        const std::vector<PlannedRun> day{run("a", "1", 0, 2), run("b", "1", 160, 2)};
        QCOMPARE(clash(day, run("n", "1", 100, 1)).value(), std::size_t(0));
        QVERIFY(!clash(day, run("n", "2", 100, 1)));
        QVERIFY(!clash(day, run("n", "1", 0, 2)));  // together with a, at one temperature
        QVERIFY(!clash(day, run("a", "1", 30, 1))); // itself, moved
        PlannedRun hot = run("n", "1", 0, 2);
        hot.temperature_c = 230;
        QVERIFY(clash(day, hot));
        QCOMPARE(earliestStart(day, run("n", "1", 0, 1), 10 * minute), 310 * minute);
    }
};

QTEST_APPLESS_MAIN(tst_Schedule)
#include "tst_schedule.moc"
