// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/typed_shop.h"
#include "tests/support/window_driver.h"

#include <QtTest>

using namespace rollcall;
using fixtures::WindowDriver;

// What a person decides where the numbers may not: whose readings stand, what a surprise was, by which rules and means
// a batch is judged, which zone is read; by keys and buttons, and what is then on screen and on disk.
class tst_RulesOnScreen : public QObject {
    Q_OBJECT

    fixtures::TypedShop m_shop;

    void begin(const QString& window = QStringLiteral("59:63")) {
        m_shop.begin(QLatin1String(QTest::currentTestFunction()));
        m_shop.line("{'do': 'tester', 'name': 'Bench 1', 'kind': 'bench'}");
        m_shop.line("{'do': 'tester', 'name': 'Bench 2', 'kind': 'bench'}");
        m_shop.line("{'do': 'block', 'name': '62.6', 'certified': 62.6}");
        for (const char* tester : {"Bench 1", "Bench 2"})
            m_shop.line(
                QStringLiteral("{'do': 'verify', 'tester': '%1', 'block': '62.6', 'readings': [62.6, 62.7, 62.5, "
                               "62.6, 62.6], 'time': '2026-11-25T08:00'}")
                    .arg(QLatin1String(tester)));
        m_shop.line(QStringLiteral("{'do': 'batch', 'name': 'B', 'blades': [{'mark': 'M-1', 'thickness': 2.4}], "
                                   "'sold_as': '115CrV3', 'window': '%1', 'gates': ['temper']}")
                        .arg(window));
    }
    void temper(int celsius) {
        m_shop.line(QStringLiteral("{'do': 'temper', 'batch': 'B', 'blades': 'all', 'temperature': %1, 'hours': 2}")
                        .arg(celsius));
    }
    void read(double mean, const char* tester = "Bench 1") {
        for (const double off : {-0.1, 0.0, 0.1})
            m_shop.line(QStringLiteral("{'do': 'reading', 'batch': 'B', 'blade': 'M-1', 'gate': 'temper', 'tester': "
                                       "'%1', 'value': %2, 'time': '2026-11-25T09:00'}")
                            .arg(QLatin1String(tester))
                            .arg(mean + off, 0, 'f', 1));
    }
    const QString& stored() {
        m_shop.show("B");
        return m_shop.path();
    }

private slots:
    void whoseReadingsStand() {
        begin();
        temper(205);
        read(61.0);
        read(63.6, "Bench 2");
        WindowDriver d(stored());
        d.press(Qt::Key_F5);
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QCOMPARE(d.act(), QStringLiteral("Choose a tester"));
        d.press(Qt::Key_Return);
        QVERIFY2(d.dialogText().contains("Bench 1") && d.dialogText().contains("Bench 2"), qPrintable(d.dialogText()));
        d.type(d.dialogText().indexOf("Bench 1") < d.dialogText().indexOf("Bench 2") ? "1" : "2");
        d.fill("reason", "verified on a nearer block");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("verified on a nearer block"), qPrintable(d.reasons()));
        // The other set stays visible, struck out as superseded.
        const Blade& blade = d.document().batch().blades[0];
        QCOMPARE(std::count_if(blade.readings.begin(), blade.readings.end(),
                               [](const Reading& r) { return r.struck.has_value(); }),
                 3);
    }
    void aSurpriseIsLookedInto() {
        begin("63.5:66");
        temper(260);
        read(65.2);
        WindowDriver d(stored());
        d.press(Qt::Key_F5);
        QCOMPARE(d.act(), QStringLiteral("Look into it"));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(!d.formMessage().isEmpty(), "a reason is needed");
        d.fill("reason", "the thermocouple had slipped");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("the thermocouple had slipped"), qPrintable(d.reasons()));
        d.restart();
        d.press(Qt::Key_F5);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
    }
    void theRulesOfTheShop() {
        begin("60:62");
        temper(205);
        read(62.2);
        WindowDriver d(stored());
        d.press(Qt::Key_F5);
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        d.run("rules");
        d.fill("allowance", "9");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("0 to 3"), qPrintable(d.formMessage()));
        d.fill("rule", "outside by no more than the allowance");
        d.fill("allowance", "0.5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.column().sub.contains("With allowance"), qPrintable(d.column().sub));
        QVERIFY2(d.reasons().contains("Passes with allowance"), qPrintable(d.reasons()));
    }
    void aGateAskedByFiles() {
        begin("48:62");
        m_shop.line("{'do': 'tester', 'name': 'Files', 'kind': 'files', 'files': [40, 45, 50, 55, 60, 65]}");
        temper(205);
        WindowDriver d(stored());
        d.press(Qt::Key_F5);
        d.type("p");
        d.fill("means", "files");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.act(), QStringLiteral("Try the files"));
        QVERIFY2(d.reasons().contains("Asked by files"), qPrintable(d.reasons()));
        d.press(Qt::Key_Return);
        QVERIFY(d.dialog() != nullptr); // the files, to say which skate and which bite
        d.press(Qt::Key_Escape);
    }
    // Z and a digit: the next number is the spine's; it is named, and the edge's verdict does not move.
    void aZoneIsReadBesideTheEdge() {
        begin();
        temper(205);
        read(61.0);
        WindowDriver d(stored());
        d.press(Qt::Key_F5);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.type("z");
        QVERIFY2(d.dialogText().contains("never averaged"), qPrintable(d.dialogText()));
        d.type("2");
        QCOMPARE(d.act(), QStringLiteral("Read the spine"));
        d.type("410\n");
        if (d.document().batch().blades[0].readings.size() == 3) d.press(Qt::Key_Return); // far off: asked once
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(4));
        QCOMPARE(d.document().batch().blades[0].readings.back().zone, Zone::spine);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("Beside the edge, spine"), qPrintable(d.reasons()));
        d.type("z"); // back to the edge
        QVERIFY2(d.act() != "Read the spine", qPrintable(d.act()));
    }
    void anotherSteelInTheBlade() {
        begin();
        m_shop.line("{'do': 'plan', 'batch': 'B', 'gate': 'heat', 'required': true}");
        WindowDriver d(stored());
        d.press(Qt::Key_F2);
        d.run("steel.other");
        d.fill("grade", "420");
        d.fill("place", "cladding");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().other_steels.size(), std::size_t(1));
        d.press(Qt::Key_F3);
        QVERIFY2(d.reasons().contains("soaking temperature") || d.reasons().contains("soaked together"),
                 qPrintable(d.reasons()));
    }
};

QTEST_MAIN(tst_RulesOnScreen)
#include "tst_rules_on_screen.moc"
