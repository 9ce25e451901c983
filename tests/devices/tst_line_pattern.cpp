// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/line_pattern.h"

#include <QtTest>

using namespace rollcall;

class tst_LinePattern : public QObject {
    Q_OBJECT

private slots:
    void readsWhatThePresetsPromise_data() {
        QTest::addColumn<int>("preset");
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<double>("value"); // 0: not understood
        QTest::addColumn<QString>("scale");
        QTest::newRow("counted") << 0 << QByteArray("R 12 62.1 HRC\r") << 62.1 << "HRC";
        QTest::newRow("counted, decimal comma") << 0 << QByteArray("R 7 62,1") << 62.1 << "";
        QTest::newRow("counted, rubbish behind") << 0 << QByteArray("R 12 62.1 HRC x") << 0.0 << "";
        QTest::newRow("value alone") << 1 << QByteArray("  62.1 ") << 62.1 << "";
        QTest::newRow("value alone, too many digits") << 1 << QByteArray("162.1") << 0.0 << "";
        QTest::newRow("value and scale") << 2 << QByteArray("No 3: 45.6 HR45N ok") << 45.6 << "HR45N";
        QTest::newRow("scale, then value") << 3 << QByteArray("HRC: 61,9") << 61.9 << "HRC";
        QTest::newRow("half a line") << 0 << QByteArray("R 12 6") << 6.0 << ""; // a number; the range is asked later
        QTest::newRow("not ASCII") << 0 << QByteArray("\xFF\xFE\x01") << 0.0 << "";
    }
    void readsWhatThePresetsPromise() {
        const auto presets = readLinePresets(QStringLiteral(ROLLCALL_DATA_DIR "/devices/lines.csv"));
        QVERIFY(presets.ok());
        QFETCH(int, preset);
        QFETCH(QByteArray, line);
        QFETCH(double, value);
        const LinePattern pattern = LinePattern::fromText((*presets)[std::size_t(preset)].pattern).value();
        const DeviceLine read = pattern.parse(line);
        QCOMPARE(read.kind, value > 0 ? DeviceLine::Kind::reading : DeviceLine::Kind::unknown);
        if (value <= 0) return;
        QCOMPARE(read.value, value);
        QTEST(read.scale, "scale");
    }

    void refusesPatternsThatCannotWork() {
        QVERIFY(!LinePattern::fromText("(?<value>\\d+"));
        QVERIFY(!LinePattern::fromText("(\\d+)"));
        QVERIFY(LinePattern::fromText("(?<value>\\d+)").ok());
        QVERIFY(!readLinePresets("/nowhere/lines.csv"));
    }

    void cutsBytesIntoLines() {
        LineSplitter splitter;
        QVERIFY(splitter.take("R 1 62").empty());
        QCOMPARE(splitter.take(".1\r\nR 2 6").at(0), QByteArray("R 1 62.1"));
        QCOMPARE(splitter.take("2.2\n\n\nR 3 62.3\n").size(), std::size_t(2)); // empty lines are none
        QVERIFY(splitter.take(QByteArray(1000, 'x')).size() >= 4);             // rubbish without end does not pile up
        QVERIFY(splitter.abandon().size() <= LineSplitter::longestLine);
        QVERIFY(splitter.abandon().isEmpty());
    }
};

QTEST_APPLESS_MAIN(tst_LinePattern)
#include "tst_line_pattern.moc"
