// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"

#include <QtTest>

using namespace rollcall;

class tst_Number : public QObject {
    Q_OBJECT

private slots:
    void roundsHalfToEvenOnTheDecimalValue_data() {
        QTest::addColumn<double>("value");
        QTest::addColumn<QString>("text");
        // The product's own examples: 61.45 gives 61.4; a double holds neither exactly.
        QTest::newRow("61.45") << 61.45 << "61.4";
        QTest::newRow("61.55") << 61.55 << "61.6";
        QTest::newRow("61.25") << 61.25 << "61.2";
        QTest::newRow("61.35") << 61.35 << "61.4";
        QTest::newRow("61.449") << 61.449 << "61.4";
        QTest::newRow("61.451") << 61.451 << "61.5";
        QTest::newRow("noise above a half") << 61.45 + 1e-13 << "61.4";
        QTest::newRow("negative") << -0.25 << "-0.2";
        QTest::newRow("no negative zero") << -0.04 << "0.0";
        QTest::newRow("whole") << 60.0 << "60.0";
    }
    void roundsHalfToEvenOnTheDecimalValue() {
        QFETCH(double, value);
        QTEST(QString::fromStdString(tenthText(value)), "text");
    }

    void roundsUncertaintyUp_data() {
        QTest::addColumn<double>("u");
        QTest::addColumn<QString>("text");
        QTest::newRow("0.41") << 0.41 << "0.5";
        QTest::newRow("0.40 exactly") << 0.4 << "0.4";
        QTest::newRow("0.3 from a sum") << 0.1 + 0.2 << "0.3";
        QTest::newRow("0.642") << 0.642 << "0.7";
        QTest::newRow("0") << 0.0 << "0.0";
    }
    void roundsUncertaintyUp() {
        QFETCH(double, u);
        QTEST(QString::fromStdString(uncertaintyText(u)), "text");
    }

    void readsNumbers_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<double>("value");
        QTest::newRow("point") << "62.1" << 62.1;
        QTest::newRow("comma") << "59,5" << 59.5;
        QTest::newRow("blanks") << "  62 " << 62.0;
        QTest::newRow("plus") << "+0.2" << 0.2;
        QTest::newRow("minus") << "-0.2" << -0.2;
        QTest::newRow("true minus") << QStringLiteral("\u22120.2") << -0.2;
        QTest::newRow("small, from a program") << "1e-05" << 0.00001;
        QTest::newRow("large, from a spreadsheet") << "1,5E+10" << 15000000000.0;
        QTest::newRow("no digit before the point") << ".5" << 0.5;
    }
    void readsNumbers() {
        QFETCH(QString, text);
        const auto number = parseNumber(text.toStdString());
        QVERIFY(number.ok());
        QTEST(*number, "value");
    }

    void refusesWhatIsNoNumber_data() {
        QTest::addColumn<QString>("text");
        for (const char* text :
             {"", " ", "sixty", "62.1.2", "6e999", "62 1", "6e", "6e+", "e5", "--5", "nan", "inf", "0x10", "."})
            QTest::newRow(text) << text;
    }
    void refusesWhatIsNoNumber() {
        QFETCH(QString, text);
        QVERIFY(!parseNumber(text.toStdString()).ok());
    }

    void readsQuantitiesWithTheirUnits_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<int>("quantity");
        QTest::addColumn<double>("value");
        const int t = int(Quantity::temperature), l = int(Quantity::length), f = int(Quantity::force),
                  d = int(Quantity::duration);
        QTest::newRow("boiling water in F") << "212F" << t << 100.0;
        QTest::newRow("bare is Celsius") << "207" << t << 207.0;
        QTest::newRow("degree sign") << QStringLiteral("212 °F") << t << 100.0;
        QTest::newRow("inch") << "0.030in" << l << 0.762;
        QTest::newRow("thou") << "30 thou" << l << 0.762;
        QTest::newRow("mm") << "0,7mm" << l << 0.7;
        QTest::newRow("pound force") << "10 lbf" << f << 44.482216152605;
        QTest::newRow("kilogram force") << "1kgf" << f << 9.80665;
        QTest::newRow("minutes") << "90min" << d << 1.5;
        QTest::newRow("hours") << "2h" << d << 2.0;
    }
    void readsQuantitiesWithTheirUnits() {
        QFETCH(QString, text);
        QFETCH(int, quantity);
        QFETCH(double, value);
        const auto read = parseQuantity(text.toStdString(), static_cast<Quantity>(quantity));
        QVERIFY(read.ok());
        QVERIFY(std::abs(*read - value) < 1e-9);
    }

    void refusesQuantitiesThatCannotBe() {
        // As a rule is read, and as scales for kitchens say it.
        const struct {
            const char* text;
            Quantity quantity;
            double is;
        } typed[] = {{"3/16in", Quantity::length, 4.7625},      {"3/16 in", Quantity::length, 4.7625},
                     {"1 1/4 in", Quantity::length, 31.75},     {"1/2\"", Quantity::length, 12.7},
                     {"7/64 inch", Quantity::length, 2.778125}, {"95 thou", Quantity::length, 2.413},
                     {"95mil", Quantity::length, 2.413},        {"30lb", Quantity::force, 133.446648},
                     {"30 lbs", Quantity::force, 133.446648},   {"4 kg", Quantity::force, 39.2266}};
        for (const auto& one : typed) {
            const auto read = parseQuantity(one.text, one.quantity);
            QVERIFY2(read.ok() && std::abs(*read - one.is) < 1e-6, one.text);
        }
        for (const char* none : {"3/0in", "/16in", "3/in", "1 2 3/4in", "3/16 lb"})
            QVERIFY2(!parseQuantity(none, Quantity::length).ok(), none);
        QVERIFY(!parseQuantity("3/16", Quantity::temperature).ok()); // only lengths are read off a rule
        QVERIFY(!parseQuantity("-300", Quantity::temperature).ok());
        QVERIFY(!parseQuantity("2 parsec", Quantity::length).ok());
        QVERIFY(!parseQuantity("207 mm", Quantity::temperature).ok());
        QVERIFY(!parseQuantity("-1h", Quantity::duration).ok());
        QCOMPARE(parseQuantity("2 parsec", Quantity::length).error().text,
                 std::string("the unit 'parsec' in '2 parsec' is not understood"));
    }

    void readsLists() {
        QCOMPARE(parseNumbers("62.1,61.8,61.9").value(), (std::vector<double>{62.1, 61.8, 61.9}));
        QCOMPARE(parseNumbers("62,1;61,8").value(), (std::vector<double>{62.1, 61.8}));
        QCOMPARE(parseNumbers("62,1 61,8").value(), (std::vector<double>{62.1, 61.8}));
        QVERIFY(!parseNumbers("62.1,,61.8").ok());
        QVERIFY(!parseNumbers("").ok());
    }

    void countsDecimals() {
        QCOMPARE(decimalsOf("62"), 0);
        QCOMPARE(decimalsOf("62,5"), 1);
        QCOMPARE(decimalsOf("62.10"), 2);
    }
};

QTEST_APPLESS_MAIN(tst_Number)
#include "tst_number.moc"
