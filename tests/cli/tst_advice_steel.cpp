// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/typed_shop.h"

#include <QtTest>

using namespace rollcall;
using fixtures::TypedShop;

// E46, E48 to E50. Bars that are not what they were sold as, and heats that no grade stands: none of them passes.
class tst_AdviceSteel : public QObject {
    Q_OBJECT

    TypedShop m_shop;

    void batch(const QString& grade, const char* gates) {
        m_shop.line(QStringLiteral("{'do': 'batch', 'name': 'B', 'sold_as': '%1', 'window': '59:61', 'gates': [%2], "
                                   "'blades': [{'mark': 'M-1', 'thickness': 2.4}]}")
                        .arg(grade, QLatin1String(gates)));
    }
    void shot(const QString& elements, const char* method = "xrf") {
        m_shop.line(QStringLiteral("{'do': 'shot', 'batch': 'B', 'method': '%1', 'elements': {%2}}")
                        .arg(QLatin1String(method), elements));
    }
    QJsonObject blade() { return m_shop.show("B")["blades"].toArray().at(0).toObject(); }
    double shareOf(const QString& grade) {
        for (const QJsonValue one : m_shop.show("B")["candidates"].toArray()) {
            if (one.toObject()["grade"].toString() == grade) return one.toObject()["share"].toDouble();
        }
        return 0;
    }

private slots:
    void init() {
        m_shop.begin(QString::fromLatin1(QTest::currentTestFunction()) + QLatin1Char('-') +
                     QString::fromLatin1(QTest::currentDataTag()).replace('/', '-'));
    }

    void noOtherBarPasses_data() {
        QTest::addColumn<QString>("claimed");
        QTest::addColumn<QStringList>("shots");
        QTest::newRow("two shots of two metals")
            << "1084" << QStringList{"'Cr': 0.06, 'Mn': 0.75", "'Cr': 17.4, 'Mn': 0.7"};
        QTest::newRow("chromed") << "1084" << QStringList{"'Cr': 22.0, 'Mn': 0.7"};
        QTest::newRow("galvanised") << "1084" << QStringList{"'Cr': 0.1, 'Mn': 0.7, 'Zn': 8.0"};
        QTest::newRow("M35 without its cobalt")
            << "M35" << QStringList{"'Co': [0.1, 0.1], 'Cr': 4.1, 'Mo': 5.0, 'W': 6.3, 'V': 1.9"};
        QTest::newRow("S235") << "1084" << QStringList{"'Mn': 1.2, 'Cr': 0.08, 'Ni': 0.1, 'Mo': 0.02, 'Cu': 0.3"};
        QTest::newRow("4340") << "75Ni8" << QStringList{"'Mn': 0.7, 'Cr': 0.8, 'Ni': 1.8, 'Mo': 0.25, 'Cu': 0.2"};
        QTest::newRow("304") << "1084" << QStringList{"'Cr': 18.3, 'Ni': 8.2, 'Mn': 1.6, 'Mo': 0.3, 'Cu': 0.4"};
    }
    void noOtherBarPasses() {
        QFETCH(const QString, claimed);
        QFETCH(const QStringList, shots);
        batch(claimed, "'steel'");
        for (const QString& one : shots) shot(one);
        QVERIFY(TypedShop::state(blade(), "steel") != QLatin1String("pass"));
    }
    void theRightBarPasses_data() {
        QTest::addColumn<QString>("claimed");
        QTest::addColumn<QString>("elements");
        QTest::newRow("D2") << "D2"
                            << "'Cr': 11.8, 'Mo': 0.8, 'V': 0.85, 'Mn': 0.3, 'Ni': 0.2";
        QTest::newRow("X50CrMoV15") << "X50CrMoV15"
                                    << "'Cr': 14.6, 'Mo': 0.6, 'V': 0.15, 'Mn': 0.5, 'Ni': 0.2";
    }
    void theRightBarPasses() {
        QFETCH(const QString, claimed);
        QFETCH(const QString, elements);
        batch(claimed, "'steel'");
        shot(elements);
        QCOMPARE(TypedShop::state(blade(), "steel"), QStringLiteral("pass"));
    }
    // A skin is ground off and shot again: no bar is sent back for its plating, and no stainless is named for it.
    void platingIsGroundOffFirst() {
        batch("1084", "'steel'");
        shot("'Cr': 22.0, 'Mn': 0.7");
        const QJsonObject one = blade();
        QCOMPARE(TypedShop::next(one), QStringLiteral("shot"));
        QVERIFY(TypedShop::facts(one, "steel").join(' ').contains(QLatin1String("plated")));
    }
    // X-rays see no carbon: a plain carbon steel can be a structural one.
    void withoutCarbonAStructuralSteelIsNotExcluded() {
        batch("1084", "'steel'");
        shot("'Mn': 0.75, 'Cr': 0.1, 'Ni': 0.1, 'Mo': 0.02, 'Cu': 0.2");
        QVERIFY(shareOf("other") > 0.01);
        QVERIFY(TypedShop::facts(blade(), "steel").join(' ').contains(QLatin1String("carbon")));
    }
    // E50: 304 is shot or sent back before anybody reads or tempers it.
    void whatCannotHardenIsNeitherReadNorTempered() {
        batch("1084", "'quench', 'temper'");
        shot("'Cr': 18.3, 'Ni': 8.2, 'Mn': 1.6, 'Mo': 0.3, 'Cu': 0.4");
        const QString act = TypedShop::next(blade());
        QVERIFY2(act != QLatin1String("read") && act != QLatin1String("temper") && !act.isEmpty(), qPrintable(act));
    }

    void noSuchHeatPasses_data() {
        QTest::addColumn<QString>("grade");
        QTest::addColumn<QString>("heat");
        QTest::addColumn<int>("out");
        QTest::newRow("no soak") << "1084"
                                 << "'set': 815, 'medium': 'fast oil'" << 0;
        QTest::newRow("never austenite") << "1084"
                                         << "'set': 730, 'medium': 'fast oil'" << 600;
        QTest::newRow("far too hot") << "1084"
                                     << "'set': 1010, 'medium': 'fast oil'" << 600;
        QTest::newRow("water-thin steel in air") << "1084"
                                                 << "'set': 815, 'medium': 'still air'" << 500;
        QTest::newRow("air steel in brine") << "D2"
                                            << "'set': 1010, 'medium': 'brine'" << 1700;
        QTest::newRow("high speed steel for half an hour") << "M2"
                                                           << "'set': 1210, 'medium': 'salt'" << 28 * 60;
        QStringList trace; // ten minutes are missing, then the clock goes on as if nothing was
        for (int s : {0, 40, 80, 120, 720, 760, 800, 840}) trace << QStringLiteral("[%1, 815]").arg(s);
        QTest::newRow("a gap in the trace")
            << "1084"
            << QStringLiteral("'set': 815, 'medium': 'fast oil', 'trace': [%1]").arg(trace.join(QLatin1String(", ")))
            << 840;
    }
    void noSuchHeatPasses() {
        QFETCH(const QString, grade);
        QFETCH(const QString, heat);
        QFETCH(const int, out);
        batch(grade, "'heat'");
        m_shop.line(QStringLiteral("{'do': 'heat', 'batch': 'B', 'as': 'h', 'oven': 'O', %1}").arg(heat));
        m_shop.line(QStringLiteral("{'do': 'in_heat', 'heat': 'h', 'blade': 'M-1', 'in': 0, 'out': %1, 'quenched': %2}")
                        .arg(out)
                        .arg(out + 2));
        QVERIFY(TypedShop::state(blade(), "heat") != QLatin1String("pass"));
    }
    // E46. What an oil flashes at counts where its words say so; else what no quench oil flashes under does.
    void hotOilIsHeldAgainstItsFlashPoint_data() {
        QTest::addColumn<QString>("oil");
        QTest::addColumn<int>("at");
        QTest::addColumn<bool>("passes");
        QTest::newRow("cool enough") << "fast oil, flash 180" << 120 << true;
        QTest::newRow("within fifty degrees of it") << "fast oil, flash 180" << 140 << false;
        QTest::newRow("in Fahrenheit, 180 too") << "fast oil, flash point 356 F" << 140 << false;
        QTest::newRow("and its words go on") << "fast oil, flash 180, for plain steels" << 120 << true;
        QTest::newRow("not said, warm") << "fast oil" << 60 << true;
        QTest::newRow("not said, hot") << "fast oil" << 120 << false;
    }
    void hotOilIsHeldAgainstItsFlashPoint() {
        QFETCH(const QString, oil);
        QFETCH(const int, at);
        QFETCH(const bool, passes);
        batch("1084", "'heat'");
        m_shop.line(QStringLiteral("{'do': 'heat', 'batch': 'B', 'as': 'h', 'oven': 'O', 'set': 815, 'medium': '%1', "
                                   "'medium_temperature': %2}")
                        .arg(oil)
                        .arg(at));
        m_shop.line("{'do': 'in_heat', 'heat': 'h', 'blade': 'M-1', 'in': 0, 'out': 480, 'quenched': 482}");
        QCOMPARE(TypedShop::state(blade(), "heat") == QLatin1String("pass"), passes);
        QCOMPARE(TypedShop::facts(blade(), "heat").contains(QLatin1String("oil_hot")), !passes);
    }
    void aHeatByTheBookPasses() {
        batch("1084", "'heat'");
        m_shop.line("{'do': 'heat', 'batch': 'B', 'as': 'h', 'oven': 'O', 'set': 815, 'medium': 'fast oil'}");
        m_shop.line("{'do': 'in_heat', 'heat': 'h', 'blade': 'M-1', 'in': 0, 'out': 480, 'quenched': 482}");
        QCOMPARE(TypedShop::state(blade(), "heat"), QStringLiteral("pass"));
    }
};

QTEST_MAIN(tst_AdviceSteel)
#include "tst_advice_steel.moc"
