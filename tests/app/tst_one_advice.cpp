// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/typed_shop.h"
#include "tests/support/window_driver.h"

#include <QtTest>

using namespace rollcall;
using fixtures::WindowDriver;

// One blade, one answer: the temper that comes next is the same on the Call, on the batch, in the form, on the ladder
// and on the command line (E21, E22).
class tst_OneAdvice : public QObject {
    Q_OBJECT

private slots:
    void theNextTemperIsOne() {
        fixtures::TypedShop shop;
        shop.begin("one");
        shop.line("{'do': 'tester', 'name': 'Bench 1', 'kind': 'bench'}");
        shop.line("{'do': 'block', 'name': '62.6', 'certified': 62.6}");
        shop.line("{'do': 'verify', 'tester': 'Bench 1', 'block': '62.6', 'readings': [62.6, 62.7, 62.5, 62.6, 62.6], "
                  "'time': '2026-11-25T08:00'}");
        shop.line("{'do': 'batch', 'name': 'B', 'blades': [{'mark': 'M-1', 'thickness': 2.4}, {'mark': 'M-2', "
                  "'thickness': 2.4}, {'mark': 'M-3', 'thickness': 2.4}], 'sold_as': '115CrV3', 'window': '60:62', "
                  "'gates': ['temper']}");
        shop.line("{'do': 'temper', 'batch': 'B', 'blades': 'all', 'temperature': 175, 'hours': 2}");
        const double means[] = {63.4, 63.6, 63.9};
        for (int i = 0; i < 3; ++i) {
            for (const double off : {-0.1, 0.0, 0.1})
                shop.line(QStringLiteral("{'do': 'reading', 'batch': 'B', 'blade': 'M-%1', 'gate': 'temper', "
                                         "'tester': 'Bench 1', 'value': %2, 'time': '2026-11-25T09:00'}")
                              .arg(i + 1)
                              .arg(means[i] + off, 0, 'f', 1));
        }
        const QJsonObject shown = shop.show("B");
        const QJsonObject load = shown["next_load"].toArray().at(0).toObject();
        QCOMPARE(load["blades"].toArray().size(), 3);
        const double celsius = load["temperature_c"].toDouble();
        const QString said = QStringLiteral("%1 °C").arg(celsius);

        QList<double> ladders; // asked before the window takes the logbook
        for (const char* mark : {"M-1", "M-2", "M-3"})
            ladders << shop.ask("ladder", {"B", mark})["advice"].toObject()["temperature_c"].toDouble();
        WindowDriver d(shop.path());
        for (int i = 0; i < 3; ++i) {
            const QString mark = QStringLiteral("M-%1").arg(i + 1);
            // The command line, twice.
            const QJsonObject blade = shown["blades"].toArray()[i].toObject();
            QCOMPARE(blade["next"].toObject()["temperature_c"].toDouble(), celsius);
            QCOMPARE(blade["next"].toObject()["load"].toArray().size(), 3);
            QCOMPARE(ladders[i], celsius);
            // The Call, and the form that its key opens.
            d.press(Qt::Key_F5);
            d.document().selectBlade(i);
            d.settle();
            QVERIFY2(WindowDriver::plain(d.act()).contains(said), qPrintable(d.act()));
            d.type("t");
            QCOMPARE(d.formValue("temperature").toDouble(), celsius);
            QCOMPARE(d.formValue("blades"), QStringLiteral("M-1, M-2, M-3"));
            d.press(Qt::Key_Escape);
            // The batch.
            d.press(Qt::Key_F9);
            QVERIFY2(d.reasons().contains(QStringLiteral("%1, Temper: Temper again at %2").arg(mark, said)),
                     qPrintable(d.reasons()));
            // The ladder.
            d.press(Qt::Key_F3);
            d.type("2");
            QVERIFY2(d.reasons().contains(QStringLiteral("Advised: %1").arg(said)), qPrintable(d.reasons()));
        }
    }
};

QTEST_MAIN(tst_OneAdvice)
#include "tst_one_advice.moc"
