// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/trace.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_Trace : public QObject {
    Q_OBJECT

private slots:
    void forms_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<double>("end_s");
        QTest::addColumn<double>("last_c");
        QTest::newRow("seconds, no header") << QByteArray("0,20\n60,800\n") << 60.0 << 800.0;
        QTest::newRow("header, Fahrenheit") << QByteArray("time,temp F\n0,68\n30,1472\n") << 30.0 << 800.0;
        QTest::newRow("header with unit in brackets")
            << QByteArray("time;temperature (F)\r\n0;68\r\n30;1472\r\n") << 30.0 << 800.0;
        QTest::newRow("clock") << QByteArray("time,C\n09:20:00,20\n09:21:30,800\n") << 90.0 << 800.0;
        QTest::newRow("past midnight") << QByteArray("23:59:00,20\n00:01:00,30\n") << 120.0 << 30.0;
        QTest::newRow("dates") << QByteArray("t,c\n2026-11-24T23:59:00,20\n2026-11-25T00:00:30,30\n") << 90.0 << 30.0;
        QTest::newRow("dates with offset")
            << QByteArray("2026-11-24T23:59:00Z,20\n2026-11-25T01:00:30+01:00,30\n") << 90.0 << 30.0;
        QTest::newRow("semicolon, decimal comma, mark")
            << QByteArray("\xEF\xBB\xBFs;°C\n0,5;20,5\n1,5;800,25\n") << -1.0 << 0.0;
        QTest::newRow("decimal comma in the temperature") << QByteArray("s;°C\n0;20,5\n10;800,25\n") << 10.0 << 800.25;
        QTest::newRow("quoted, third column")
            << QByteArray("\"s\",\"c\",\"note\"\n\"0\",\"20\",\"in\"\n\"10\",\"21\",\"\"\n") << 10.0 << 21.0;
    }
    void forms() {
        QFETCH(QByteArray, text);
        QFETCH(double, end_s);
        QFETCH(double, last_c);
        const auto file = readTrace(text.toStdString());
        QCOMPARE(file.ok(), end_s >= 0);
        if (!file) return;
        QVERIFY(std::abs(file->trace.end() - end_s) < 1e-6);
        QVERIFY(std::abs(file->trace.samples().back().c - last_c) < 1e-9);
        QVERIFY(file->skipped.empty());
    }
    void badLinesAreNamedAndSkipped() {
        const auto file = readTrace("s,c\n0,20\nrubbish\n5,\n10,hot\n20,21\n30,nan\n400,22\n").value();
        QCOMPARE(file.trace.samples().size(), std::size_t(3));
        std::vector<int> lines;
        for (const auto& skipped : file.skipped) lines.push_back(skipped.line);
        QCOMPARE(lines, (std::vector<int>{3, 4, 5, 7}));
        QCOMPARE(file.gaps.size(), std::size_t(1));
        QCOMPARE(file.gaps[0].line, 8);
    }
    // One line of a logger that wrote something else is left out and named; the others make the trace.
    void whatIsNoMoment_data() {
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<QString>("why");
        const QString no_time = QStringLiteral("the time is not understood");
        for (const char* moment :
             {"26-11-24T10:05:00", "2026/11-24T10:05:00", "2026-1-24T10:05:00", "2026-11/24T10:05:00",
              "2026-11-4T10:05:00", "2026-11-24x10:05:00", "2026-11-24T1:05:00", "2026-11-24T10.05", "2026-11-24T25:05",
              "2026-11-24T10:5", "2026-11-24T10:75", "2026-11-24T10:05:61", "2026-11-24T10:05:-3",
              "2026-02-30T10:05:00", "2026-11-24T10:05:00Z1", "2026-11-24T10:05:00*02", "2026-11-24T10:05:00+2",
              "2026-11-24T10:05:00+02:0", "2026-11-24T10:05:00+02:003"})
            QTest::newRow(moment) << QByteArray(moment) + ";700" << no_time;
        QTest::newRow("hotter than any oven")
            << QByteArray("2026-11-24T10:05:00;2001") << QStringLiteral("the temperature cannot be");
        QTest::newRow("colder than can be")
            << QByteArray("2026-11-24T10:05:00;-274") << QStringLiteral("the temperature cannot be");
        QTest::newRow("seconds among days")
            << QByteArray("300;700") << QStringLiteral("the time is written in another way than before");
        QTest::newRow("a time of day among days")
            << QByteArray("10:05:00;700") << QStringLiteral("the time is written in another way than before");
    }
    void whatIsNoMoment() {
        QFETCH(QByteArray, line);
        QFETCH(QString, why);
        const QByteArray text = "2026-11-24T10:00:00;20\n" + line + "\n2026-11-24T10:10;800\n";
        const auto file = readTrace(text.toStdString()).value();
        QCOMPARE(file.trace.samples().size(), std::size_t(2));
        QCOMPARE(file.trace.end(), 600.0);
        QCOMPARE(file.skipped.size(), std::size_t(1));
        QCOMPARE(file.skipped[0].line, 2);
        QCOMPARE(QString::fromLatin1(file.skipped[0].reason), why);
    }
    void offsetsWithoutMinutesOrColon() {
        for (const char* offset : {"+01", "+0100", "+01:00", "-23:00"}) {
            const auto file = readTrace(std::string("2026-11-24T10:00:00Z,20\n2026-11-24T12:00:00") + offset + ",21\n");
            QVERIFY2(file.ok(), offset);
            QCOMPARE(file->trace.end(), offset[0] == '+' ? 3600.0 : 25 * 3600.0);
        }
    }
    void tabsBetween() {
        const auto file = readTrace("s\tdegC\n0\t20\n10\t21.5\n").value();
        QCOMPARE(file.trace.samples().back().c, 21.5);
        QVERIFY(!file.fahrenheit);
    }
    // E25. A single sample far off both neighbours stays in the trace, and is named.
    void aProbeFaultIsNamed() {
        const auto fault = readTrace("0,800\n30,801\n60,1372\n90,799\n120,800\n").value();
        QCOMPARE(fault.trace.samples().size(), std::size_t(5));
        QCOMPARE(fault.faults.size(), std::size_t(1));
        QCOMPARE(fault.faults[0].c, 1372.0);
        // Two in a row, or a step that stays, is the oven and no fault.
        QVERIFY(readTrace("0,800\n30,650\n60,640\n90,799\n").value().faults.empty());
        QVERIFY(readTrace("0,700\n600,900\n1200,700\n").value().faults.empty()); // too slow a logger to tell
        QVERIFY(readTrace("0,20\n30,500\n60,799\n90,800\n").value().faults.empty());
    }
    void timeRunningBackwardsNamesItsLine() {
        const auto file = readTrace("0,20\n10,21\n5,22\n");
        QVERIFY(!file);
        QCOMPARE(file.error().place, std::string("line 3"));
        QVERIFY(!readTrace("10:00:00,20\n09:00:00,22\n"));
    }
    void noTraceAtAll() {
        QVERIFY(!readTrace(""));
        QVERIFY(!readTrace("hello\nworld\n"));
        QVERIFY(!Trace::of({{0, 20}}));
        QVERIFY(!Trace::of({{0, 20}, {1, std::nan("")}}));
        QVERIFY(!Trace::of({{1, 20}, {0, 30}}));
    }
    void straightBetweenSamples() {
        const Trace trace = Trace::of({{100, 20}, {110, 40}, {120, 40}}).value().shifted(-100);
        QCOMPARE(trace.start(), 0.0);
        QCOMPARE(trace.end(), 20.0);
        QCOMPARE(trace.at(5), 30.0);
        QCOMPARE(trace.at(-5), 20.0);
        QCOMPARE(trace.at(99), 40.0);
        QCOMPARE(trace.between(5, 15).size(), std::size_t(3));
        QVERIFY(trace.between(15, 5).empty());
        QCOMPARE(Trace().at(5), 0.0); // nothing was read
        QVERIFY(Trace().between(0, 10).empty());
    }
    void clocks() {
        QCOMPARE(parseClock("12:30").value(), 750.0);
        QCOMPARE(parseClock("1:00:05").value(), 3605.0);
        QCOMPARE(parseClock("90").value(), 90.0);
        QVERIFY(!parseClock("12:75"));
        QVERIFY(!parseClock("noon"));
    }
};

QTEST_APPLESS_MAIN(tst_Trace)
#include "tst_trace.moc"
