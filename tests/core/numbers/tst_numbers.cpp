// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"

#include <QtTest>

using namespace rollcall;

// The figures of docs/method.md with few draws: each within what is asked of it, but for three standard deviations of
// what so few draws make by chance. `rollcall_numbers` makes the full table.
class tst_Numbers : public QObject {
    Q_OBJECT

private slots:
    void keepTheirWord_data() {
        QTest::addColumn<numbers::Figure>("figure");
        constexpr int draws = 600;
        for (const auto part : {numbers::measurementFigures, numbers::samplingFigures, numbers::driftFigures,
                                numbers::verificationFigures, numbers::temperFigures, numbers::steelFigures,
                                numbers::grainFigures, numbers::makerFigures}) {
            for (const numbers::Figure& figure : part(draws)) QTest::newRow(figure.what.c_str()) << figure;
        }
    }
    void keepTheirWord() {
        QFETCH(const numbers::Figure, figure);
        QVERIFY2(figure.kept(figure.chance()), qPrintable(QString::number(figure.value)));
    }
};

QTEST_APPLESS_MAIN(tst_Numbers)
#include "tst_numbers.moc"
