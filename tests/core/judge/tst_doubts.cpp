// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/doubts.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;

// E44. Numbers that make more sense in another unit.
class tst_Doubts : public QObject {
    Q_OBJECT

    static const Grade* grade(const QString& name) { return fixtures::tables().grade(name.toStdString()); }

private slots:
    void fahrenheitAsTheChartsHaveIt() { // 400 °F is 204.4 °C, 1000 °F is 537.8 °C
        QVERIFY(std::abs(fahrenheitToCelsius(400) - 204.44) < 0.01);
        QVERIFY(std::abs(fahrenheitToCelsius(1000) - 537.78) < 0.01);
    }
    void temperInAnotherUnit_data() {
        QTest::addColumn<QString>("name");
        QTest::addColumn<double>("celsius");
        QTest::addColumn<double>("low");
        QTest::addColumn<double>("high");
        QTest::addColumn<bool>("doubted");
        QTest::newRow("400 for a knife of 1084") << "1084" << 400.0 << 59.0 << 61.0 << true;
        QTest::newRow("400 for a spring of 1084") << "1084" << 400.0 << 44.0 << 48.0 << false;
        QTest::newRow("205") << "1084" << 205.0 << 59.0 << 61.0 << false;
        QTest::newRow("240, under any chart in Fahrenheit") << "1084" << 240.0 << 59.0 << 61.0 << false;
        QTest::newRow("350 for 52100") << "52100" << 350.0 << 61.0 << 63.0 << true;
        QTest::newRow("550 on the hump of M2") << "M2" << 550.0 << 63.0 << 65.0 << false;
    }
    void temperInAnotherUnit() {
        QFETCH(const QString, name);
        QFETCH(const double, celsius);
        QFETCH(const double, low);
        QFETCH(const double, high);
        QFETCH(const bool, doubted);
        Window window;
        window.low = low;
        window.high = high;
        QVERIFY(grade(name) != nullptr);
        QCOMPARE(perhapsFahrenheit(celsius, grade(name), window), doubted);
    }
    void withoutAWindowOnlyWhatNoPlainGradeSees() {
        QVERIFY(perhapsFahrenheit(400, grade("1084"), Window()));
        QVERIFY(!perhapsFahrenheit(280, grade("1084"), Window()));
    }
    void stockInInches() {
        QVERIFY(std::abs(perhapsInches(0.094).value_or(0) - 2.39) < 0.01);
        QVERIFY(!perhapsInches(2.4));
        QVERIFY(!perhapsInches(0));
    }
    // Far from what was advised it is asked about, but not where the library itself would temper.
    void farFromTheAdvisedIsAskedAbout() {
        const Grade* steel = fixtures::tables().grade("1084"); // 60 after 205 °C
        const Window window{59, 61};
        QVERIFY(!farFromAdvised(180, 150, steel, window));
        QVERIFY(!farFromAdvised(205, 150, steel, window));
        QVERIFY(farFromAdvised(260, 150, steel, window));
        QVERIFY(farFromAdvised(150, 205, steel, window));
        QVERIFY(!farFromAdvised(171, 205, steel, window));
        QVERIFY(farFromAdvised(205, 150, nullptr, window));
    }
};

QTEST_APPLESS_MAIN(tst_Doubts)
#include "tst_doubts.moc"
