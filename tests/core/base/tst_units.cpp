// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/units.h"

#include <QtTest>

using namespace rollcall;

// Values by definition: an inch is 25.4 mm, water freezes at 32 °F and boils at 212 °F.
class tst_Units : public QObject {
    Q_OBJECT

private slots:
    void knownPoints_data() {
        QTest::addColumn<int>("quantity");
        QTest::addColumn<double>("kept");
        QTest::addColumn<double>("shown");
        QTest::newRow("inch") << int(Quantity::length) << 25.4 << 1.0;
        QTest::newRow("freezing") << int(Quantity::temperature) << 0.0 << 32.0;
        QTest::newRow("boiling") << int(Quantity::temperature) << 100.0 << 212.0;
        QTest::newRow("where both say the same") << int(Quantity::temperature) << -40.0 << -40.0;
        QTest::newRow("force stays") << int(Quantity::force) << 90.0 << 90.0;
    }
    void knownPoints() {
        QFETCH(int, quantity);
        QFETCH(double, kept);
        QFETCH(double, shown);
        const auto q = static_cast<Quantity>(quantity);
        QVERIFY(std::abs(inUnits(kept, q, Units::inch) - shown) < 1e-12);
        QVERIFY(std::abs(outOfUnits(shown, q, Units::inch) - kept) < 1e-12);
        QCOMPARE(inUnits(kept, q, Units::metric), kept);
        QCOMPARE(outOfUnits(kept, q, Units::metric), kept);
    }

    // A thousandth of an inch is the finest that is shown; an inch is 25.4 mm.
    void lengthsAsText() {
        QCOMPARE(QString::fromStdString(lengthText(3.175, 1, Units::metric)), QStringLiteral("3.2"));
        QCOMPARE(QString::fromStdString(lengthText(3.175, 1, Units::inch)), QStringLiteral("0.125"));
        QCOMPARE(QString::fromStdString(lengthText(0.45, 2, Units::metric)), QStringLiteral("0.45"));
        QCOMPARE(QString::fromStdString(lengthText(0.45, 2, Units::inch)), QStringLiteral("0.018"));
        QCOMPARE(QString::fromStdString(lengthText(254, 0, Units::inch)), QStringLiteral("10.00"));
    }
    void differences() {
        QCOMPARE(differenceInUnits(10, Quantity::temperature, Units::inch), 18.0);
        QCOMPARE(differenceInUnits(50.8, Quantity::length, Units::inch), 2.0);
    }

    // A bare number is the shop's, a named unit is what it says.
    void typed_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<int>("quantity");
        QTest::addColumn<double>("inchShop");
        QTest::addColumn<double>("metricShop");
        QTest::newRow("bare length") << "0.125" << int(Quantity::length) << 3.175 << 0.125;
        QTest::newRow("fraction") << "3/16" << int(Quantity::length) << 4.7625 << 0.1875;
        QTest::newRow("mm") << "2.4 mm" << int(Quantity::length) << 2.4 << 2.4;
        QTest::newRow("in") << "0.5in" << int(Quantity::length) << 12.7 << 12.7;
        QTest::newRow("bare degrees") << "401" << int(Quantity::temperature) << 205.0 << 401.0;
        QTest::newRow("Celsius") << "205C" << int(Quantity::temperature) << 205.0 << 205.0;
        QTest::newRow("Fahrenheit") << "401 F" << int(Quantity::temperature) << 205.0 << 205.0;
        QTest::newRow("hours") << "90min" << int(Quantity::duration) << 1.5 << 1.5;
    }
    void typed() {
        QFETCH(QString, text);
        QFETCH(int, quantity);
        QFETCH(double, inchShop);
        QFETCH(double, metricShop);
        const auto q = static_cast<Quantity>(quantity);
        QVERIFY(std::abs(parseQuantity(text.toStdString(), q, Units::inch).value() - inchShop) < 1e-9);
        QVERIFY(std::abs(parseQuantity(text.toStdString(), q, Units::metric).value() - metricShop) < 1e-9);
    }
    void whatIsNoQuantityIsRefused() {
        for (const char* text : {"", "thin", "2 apples", "-460"})
            QVERIFY2(!parseQuantity(text, Quantity::temperature, Units::inch), text);
    }
};

QTEST_GUILESS_MAIN(tst_Units)
#include "tst_units.moc"
