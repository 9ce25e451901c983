// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/uncertainty.h"

#include <QtTest>

using namespace rollcall;

class tst_Uncertainty : public QObject {
    Q_OBJECT

private slots:
    // The worked example of M9: readings 62.1, 61.8, 61.9 have s = 0.1528, below sigma-0.
    void workedExampleWithoutVerification() {
        const Budget b = uncertaintyBudget(TesterModel::bench(), 3, 0.152753, std::nullopt).value();
        QVERIFY(std::abs(b.standard_uncertainty - 0.2309) < 5e-5);
        QVERIFY(std::abs(b.dof - 31.6) < 0.05);
        QVERIFY(std::abs(b.coverage_factor - 2.038) < 5e-4);
        QVERIFY(std::abs(b.expanded_uncertainty - 0.471) < 5e-4);
    }
    void workedExampleWithTwoBlockReadings() {
        const Budget b = uncertaintyBudget(TesterModel::bench(), 3, 0.152753, BlockBias{0.2, 2}).value();
        QVERIFY(std::abs(b.standard_uncertainty - 0.3136) < 5e-5);
        QVERIFY(std::abs(b.dof - 28.2) < 0.05);
        QVERIFY(std::abs(b.coverage_factor - 2.048) < 5e-4);
        QVERIFY(std::abs(b.expanded_uncertainty - 0.642) < 5e-4);
    }

    void partsByHand() {
        const Budget b = uncertaintyBudget(TesterModel::bench(), 4, 0.6, BlockBias{0, 4}).value();
        const double expected = std::sqrt(0.15 * 0.15 + 0.15 * 0.15 + 0.01 / 12.0 + 0.3 * 0.3);
        QVERIFY(std::abs(b.standard_uncertainty - expected) < 1e-12);
        QCOMPARE(b.parts.size(), std::size_t(4));
        QVERIFY(std::isinf(b.parts[0].dof));
        QCOMPARE(b.parts[3].dof, 11.0);
    }

    void reboundHasItsCoupling() {
        const Budget b = uncertaintyBudget(TesterModel::reboundTester(), 5, 0.5, std::nullopt).value();
        QVERIFY(b.standard_uncertainty > 1.5);
        QCOMPARE(b.parts.back().source, BudgetPart::Source::rebound);
    }

    void inPointsOfAnotherScale() {
        const TesterModel hrc = TesterModel::bench().perPoint(0.45); // HR15N at 60 HRC
        QVERIFY(std::abs(hrc.pooled_sd - 0.3 / 0.45) < 1e-12);
        QVERIFY(std::abs(hrc.resolution - 0.1 / 0.45) < 1e-12);
    }

    void refusesModelsThatCannotBe() {
        TesterModel model;
        QVERIFY(!uncertaintyBudget(model, 0, std::nullopt, std::nullopt).ok());
        model.pooled_sd = 0;
        QVERIFY(!uncertaintyBudget(model, 3, 0.1, std::nullopt).ok());
        model = {};
        model.pooled_dof = std::nan("");
        QVERIFY(!uncertaintyBudget(model, 3, 0.1, std::nullopt).ok());
        model = {};
        model.resolution = -0.1;
        QVERIFY(!uncertaintyBudget(model, 3, 0.1, std::nullopt).ok());
        model = {};
        QVERIFY(!uncertaintyBudget(model, 3, 0.1, BlockBias{0.1, 0}).ok());
    }
};

QTEST_APPLESS_MAIN(tst_Uncertainty)
#include "tst_uncertainty.moc"
