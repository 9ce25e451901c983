// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/sampling.h"
#include "core/proof/bend.h"
#include "core/proof/edge.h"
#include "core/proof/grain.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>
#include <random>

using namespace rollcall;
using fixtures::tables;

// The worked figures of the method for edges, bends, grain and samples.
class tst_Proof : public QObject {
    Q_OBJECT

private slots:
    void edgeLoad() {
        const EdgeYield y = edgeYield(tables(), {60, 15, 0.25, 133, 25, 3}).value();
        QVERIFY(std::abs(y.line_load_n_per_mm - 40.2) < 0.05);
        QVERIFY(std::abs(y.yield_thickness_mm - 0.197) < 0.001);
        QVERIFY(std::abs(y.yield_depth_mm.value() - 0.368) < 0.001);
        QVERIFY(!edgeYield(tables(), {60, 15, 0.15, 133, 25, 3})->yield_depth_mm); // beyond the bevel
        QVERIFY(!edgeYield(tables(), {60, 15, 0.25, 133, 15, 3}));                 // the apex is not loaded
        QVERIFY(!edgeYield(tables(), {60, 15, 0.25, 0, 25, 3}));
        QVERIFY(!edgeYield(tables(), {75, 15, 0.25, 133, 25, 3}));
    }
    void bends() {
        QVERIFY(std::abs(bendStrain(4.76, 100, 90, {})->mean - 3.74) < 0.005);
        QVERIFY(std::abs(bendStrain(2.4, 25, 60, {})->mean - 5.03) < 0.005);
        const BendStrain lever = bendStrain(4.76, 100, 90, 300).value();
        QVERIFY(std::abs(lever.at_least.value() / lever.mean - 800.0 / 700) < 1e-12);
        QVERIFY(std::abs(bendStrain(4, 100, 90, 0)->at_least.value() / bendStrain(4, 100, 90, {})->mean - 2) < 1e-12);
        QVERIFY(!bendStrain(0, 100, 90, {}));
        QVERIFY(!bendStrain(5, 4, 90, {}));
        QVERIFY(!bendStrain(5, 100, 200, {}));
    }
    void grain() {
        const GrainSize one = grainSize({{5, 240}}).value();
        QVERIFY(std::abs(one.g - 7.88) < 0.005);
        QVERIFY(!one.interval && one.rough);
        const GrainSize five = grainSize({{1, 50}, {1, 52}, {1, 48}, {1, 51}, {1, 49}}).value();
        QVERIFY(!five.rough);
        QVERIFY(five.interval->first < five.g && five.g < five.interval->second);
        // By hand: 50 per mm, s 1.5811, t(0.975, 4) 2.7764: 1.963, with 0.035 of 50 of the method: 50 +- 2.630.
        QVERIFY(std::abs(five.interval->second - (6.643856 * std::log10(52.630) - 3.288)) < 1e-3);
        QVERIFY(!grainSize({}));
        QVERIFY(!grainSize({{5, 0}}));
        QVERIFY(!grainSize({{-1, 5}}));
    }
    void samples() {
        const SampleChance chance = sampleChance({61.2, 61.0, 61.5, 60.9, 61.3}, {60, 62}, 4).value();
        QVERIFY(std::abs(chance.next - 0.977) < 0.0005);
        QVERIFY2(std::abs(chance.all - 0.930) < 0.0015, qPrintable(QString::number(chance.all, 'f', 5)));
        QVERIFY(!chance.rough);
        QVERIFY(std::abs(sampleChance({61.2, 61.0, 61.5, 60.9, 61.3}, {60, 62}, 1)->all - chance.next) < 0.001);
        QVERIFY(sampleChance({61.2, 61.0, 61.5}, {60, 62}, 2)->rough);
        // What all share makes it less sure; what was only reading noise did not make the blades differ (E11).
        QVERIFY(sampleChance({61.2, 61.0, 61.5, 60.9, 61.3}, {60, 62}, 4, {0, 0.3})->all < chance.all - 0.01);
        QVERIFY(sampleChance({61.2, 61.0, 61.5, 60.9, 61.3}, {60, 62}, 4, {0.2, 0})->all > chance.all + 0.01);
        QVERIFY(!sampleChance({61, 61.1}, {60, 62}, 4));
        QVERIFY(!sampleChance({61, 61, 61}, {60, 62}, 4));
        QVERIFY(!sampleChance({61, 61.1, 61.2}, {}, 4));
    }
    // The joint chance against a plain simulation of it: mean and scatter unknown, four further blades.
    void samplesAgainstSimulation() {
        std::mt19937 random(5);
        std::normal_distribution<double> normal;
        std::chi_squared_distribution<double> chi(4);
        const double s = 0.23874672772626646; // of the five
        int inside = 0;
        constexpr int runs = 200000;
        for (int i = 0; i < runs; ++i) {
            const double sigma = s * std::sqrt(4 / chi(random));
            const double mean = 61.18 + sigma / std::sqrt(5.0) * normal(random);
            bool all = true;
            for (int k = 0; k < 4; ++k) {
                const double x = mean + sigma * normal(random);
                all = all && x >= 60 && x <= 62;
            }
            inside += all ? 1 : 0;
        }
        const double simulated = double(inside) / runs;
        QVERIFY(std::abs(simulated - sampleChance({61.2, 61.0, 61.5, 60.9, 61.3}, {60, 62}, 4)->all) < 0.003);
    }
};

QTEST_APPLESS_MAIN(tst_Proof)
#include "tst_proof.moc"
