// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/soak.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_Soak : public QObject {
    Q_OBJECT

    static Trace steady(double c, double minutes) { return Trace::of({{0, c}, {minutes * 60, c}}).value(); }

private slots:
    // A triangle from 700 to 900 and back in 20 minutes is above 800 for half of it.
    void aboveAThreshold() {
        const Trace triangle = Trace::of({{0, 700}, {600, 900}, {1200, 700}}).value();
        const SoakAnswer answer = soakAbove(triangle, 800, 0, 1200).value();
        QVERIFY(std::abs(answer.minutes_above - 10) < 1e-9);
        QVERIFY(std::abs(answer.longest_span_minutes - 10) < 1e-9);
        QCOMPARE(answer.peak_c, 900.0);
        QVERIFY(std::abs(soakAbove(triangle, 800, 0, 600).value().minutes_above - 5) < 1e-9);
    }
    void longestSpanOfTwo() {
        const Trace dips = Trace::of({{0, 810}, {60, 810}, {60, 790}, {120, 790}, {120, 810}, {300, 810}}).value();
        const SoakAnswer answer = soakAbove(dips, 800, 0, 300).value();
        QVERIFY(std::abs(answer.minutes_above - 4) < 1e-9);
        QVERIFY(std::abs(answer.longest_span_minutes - 3) < 1e-9);
    }
    void stretchesOutsideAreRefused() {
        QVERIFY(!soakAbove(steady(800, 10), 780, -5, 60));
        QVERIFY(!soakAbove(steady(800, 10), 780, 60, 60));
        QVERIFY(!soakAbove(steady(800, 10), 780, 0, 601));
        QVERIFY(!soakAbove(Trace(), 780, 0, 60));
    }
    // exp(400000/8.314 * (1/1073.15 - 1/1123.15)) = 7.36.
    void fiftyDegreesCountSevenfold() {
        const double at850 = equivalentMinutes(steady(850, 10), 800, 730, 0, 600).value();
        QVERIFY(std::abs(at850 / 10 - 7.36) < 0.01);
        QVERIFY(std::abs(equivalentMinutes(steady(800, 10), 800, 730, 0, 600).value() - 10) < 1e-9);
        QVERIFY(std::abs(equivalentMinutes(steady(729, 10), 800, 730, 0, 600).value()) < 1e-12);
    }
    // A long straight ramp in two samples must give what a fine one gives: pieces are cut by temperature.
    void sparseTracesIntegrateAlike() {
        std::vector<TraceSample> fine;
        for (int i = 0; i <= 1800; ++i) fine.push_back({double(i), 700 + i / 9.0});
        const double sparse = equivalentMinutes(Trace::of({{0, 700}, {1800, 900}}).value(), 800, 735, 0, 1800).value();
        const double dense = equivalentMinutes(Trace::of(fine).value(), 800, 735, 0, 1800).value();
        QVERIFY(std::abs(sparse / dense - 1) < 1e-4);
    }
    // Times to within 5 °C of 800 °C for sheets put into a steady oven: worked apart from this code by small Euler
    // steps.
    void steelLagsTheOven_data() {
        QTest::addColumn<double>("thickness");
        QTest::addColumn<bool>("foil");
        QTest::addColumn<double>("minutes");
        QTest::newRow("2 mm") << 2.0 << false << 2.80;
        QTest::newRow("3 mm") << 3.0 << false << 4.21;
        QTest::newRow("5 mm") << 5.0 << false << 7.02;
        QTest::newRow("2 mm in foil") << 2.0 << true << 7.03;
        QTest::newRow("3 mm in foil") << 3.0 << true << 10.55;
        QTest::newRow("5 mm in foil") << 5.0 << true << 17.59;
    }
    void steelLagsTheOven() {
        QFETCH(double, thickness);
        QFETCH(bool, foil);
        QFETCH(double, minutes);
        const Trace steel =
            steelInOven(steady(800, 40), thickness, foil ? HeatSurface::foil : HeatSurface::scaled, 0, 2400).value();
        double reached = 0;
        while (steel.at(reached) < 795) reached += 1;
        QVERIFY2(std::abs(reached / 60 - minutes) < 0.05, qPrintable(QString::number(reached / 60)));
    }
    // Flux at 800 °C by hand: 15 * 780 + 0.8 * 5.67e-8 * (1073^4 - 293^4) = 71.5 kW/m2 over 1923 J/m2K: 37 K/s.
    void aThinEdgeCoolsInTheAir() {
        const double afterOne = afterTransfer(800, 0.7, 0.7, 1).value();
        QVERIFY(800 - afterOne > 32 && 800 - afterOne < 40);
        QCOMPARE(afterTransfer(800, 0.7, 0.7, 0).value(), 800.0);
        QVERIFY(afterTransfer(800, 2.4, 2.4, 2).value() > afterTransfer(800, 0.7, 0.7, 2).value() + 30);
        QVERIFY(!afterTransfer(800, 0.05, 1, 1));
        QVERIFY(!afterTransfer(800, 1, 0.7, 1));
        QVERIFY(!afterTransfer(800, 1, 1, -1));
    }
    // E23, by a finer grid of another program (0.375 mm, 5 ms): 733.5 °C at the edge, 780.6 in the body; without
    // conduction a sheet as thin as the edge would be at 689.6.
    void theBodyWarmsAThinEdge() {
        QCOMPARE_LE(std::abs(afterTransfer(815, 0.7, 3, 4).value() - 733), 2.0);
        QCOMPARE_LE(std::abs(afterTransfer(815, 0.7, 0.7, 4).value() - 689.6), 1.0);
        QVERIFY(std::isfinite(afterTransfer(1100, 0.1, 6, 60).value())); // the steps stay stable on a needle
    }
    // Nine blades in together, pulled one a minute from an oven that fell when they went in: those past the limit, and
    // no others, are over it.
    void pulledOneByOne() {
        std::vector<TraceSample> samples;
        for (int s = 0; s <= 3600; s += 5) {
            const double c =
                s < 120 ? 800 - s * 0.45 : 746 + 54 * (1 - std::exp(-(s - 120) / 240.0)) + 1.5 * std::sin(s / 40.0);
            samples.push_back({double(s), c});
        }
        const Trace oven = Trace::of(samples).value();
        std::vector<std::optional<SoakMarks>> marks;
        for (int i = 0; i < 9; ++i) marks.push_back(SoakMarks{60, 1260.0 + 60 * i});
        const std::vector<std::optional<double>> thickness(9, 2.4);
        // By the estimate itself, sampled second by second, independent of the integration.
        const Trace steel = steelInOven(oven, 2.4, HeatSurface::scaled, 60, 3600, 735).value();
        int reached = 0;
        while (steel.at(reached) < 790) ++reached;
        const double limit = (1260.0 + 60 * 6 + 30 - 60 - reached) / 60; // between the seventh and the eighth
        const auto answers = soaks(oven, {800, 10, 735, 6.0, limit, HeatSurface::scaled}, marks, thickness).value();
        for (std::size_t i = 0; i < 9; ++i) {
            QVERIFY(answers[i]);
            QCOMPARE(answers[i]->over, i >= 7);
            QVERIFY(!answers[i]->under);
            if (i > 0) QVERIFY(std::abs(answers[i]->minutes - answers[i - 1]->minutes - 1) < 0.05);
        }
    }
    void oneFarFromTheOthersIsNamed() {
        const Trace oven = steady(800, 60);
        const std::vector<std::optional<SoakMarks>> marks{SoakMarks{0, 900}, SoakMarks{0, 960}, SoakMarks{0, 2400},
                                                          std::nullopt};
        const auto answers =
            soaks(oven, {800, 10, 735, 5.0, std::nullopt, HeatSurface::scaled}, marks, {2.4, 2.4, 2.4, 2.4}).value();
        QVERIFY(!answers[0]->apart && !answers[1]->apart && answers[2]->apart);
        QVERIFY(!answers[3]);
        QVERIFY(!soaks(oven, {}, {SoakMarks{10, 5}}, {2.4}));
    }
};

QTEST_APPLESS_MAIN(tst_Soak)
#include "tst_soak.moc"
