// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/analyser.h"
#include "core/steel/composition.h"
#include "core/steel/tell_apart.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Composition : public QObject {
    Q_OBJECT

    static const Grade& grade(const char* name) { return *tables().grade(name); }
    static CompositionShot shot(const char* text, double sigmas = 1) { return readShot(text, sigmas).value(); }
    static CompositionMatch match(const char* text, const char* name, AnalysisMethod method = AnalysisMethod::xrf) {
        return matchGrade(shot(text).elements, grade(name), tables(), method).value();
    }

private slots:
    // Between two grades alike, thirteen uncertainties above the one and below the other: neither is likelier.
    void tooMuchIsNoWorseThanTooLittle() {
        Grade low = grade("115CrV3");
        low.name = "low";
        low.composition = {{"Cr", 1.0, 1.5}};
        Grade high = low;
        high.name = "high";
        high.composition = {{"Cr", 3.5, 4.0}};
        const std::vector<ElementReading> measured{{"Cr", 2.5, {}, 0.001}};
        const auto ranked = rankGrades(measured, {low, high}, tables(), AnalysisMethod::xrf).value();
        QVERIFY(std::abs(ranked[0].score - ranked[1].score) < 1e-6);
    }
    void shotsAreRead() {
        const CompositionShot s = shot(
            "element;percent;error\nCr;13,6;0,12\nMo;<LOD;0,03\nV;<0,05;\nXx9;1;1\nCr;2;1\nNi;much;\nMn;0.46%;0.06\n",
            2);
        QCOMPARE(s.elements.size(), std::size_t(4));
        QCOMPARE(s.elements[0].percent.value(), 13.6);
        QCOMPARE(s.elements[0].sigma.value(), 0.06);                  // printed at 2 sigma
        QVERIFY(std::abs(s.elements[1].lod.value() - 0.045) < 1e-12); // 3 sigma
        QCOMPARE(s.elements[2].lod.value(), 0.05);
        std::vector<int> lines;
        for (const auto& skipped : s.skipped) lines.push_back(skipped.line);
        QCOMPARE(lines, (std::vector<int>{5, 6, 7}));
        QVERIFY(!readShot("a,b\n1,2\n"));
        QVERIFY(!readShot(""));
        QVERIFY(!readShot("element,percent\nCr,1\n", 5));
    }
    // z by hand: Mo 0.05 of 0.50 with e 0.01: 0.45 / hypot(0.01, 0.03 * 0.50) = 24.96; V under 0.05 of 0.10: 0.05 /
    // hypot(0.05/3, 0.03 * 0.10) = 2.953; Cr 13.6 of 14.0 with e 0.1: 0.4 / hypot(0.1, 0.42) = 0.926.
    void zByHand() {
        const CompositionMatch m = match(
            "element,percent,error\nMo,0.05,0.01\nV,<0.05,\nCr,13.6,0.1\nMn,0.46,0.05\nNi,0.14,0.05\n", "X50CrMoV15");
        QCOMPARE(m.claim, Claim::notConsistent);
        QCOMPARE(m.elements[0].element, std::string("Mo"));
        QVERIFY(std::abs(m.elements[0].z - 24.96) < 0.01);
        QVERIFY(std::abs(m.elements[1].z - 2.953) < 0.001);
        QVERIFY(std::abs(m.elements[2].z - 0.926) < 0.001);
        QVERIFY(std::find(m.unseen.begin(), m.unseen.end(), "C") != m.unseen.end());
        QCOMPARE(m.elements.back().z, 0.0);
    }
    void betweenTwoAndThreeIsUndecided() {
        // 0.4 below 14.0 with e 0.1: z 0.93; 1.0 below: 2.32; 1.4 below: 3.24.
        const auto claim = [&](const char* cr) {
            return match(qPrintable(QString("element,percent,error\nCr,%1,0.1\nMo,0.6,0.01\n").arg(cr)), "X50CrMoV15")
                .claim;
        };
        QCOMPARE(claim("13.6"), Claim::consistent);
        QCOMPARE(claim("13.0"), Claim::undecidable);
        QCOMPARE(claim("12.6"), Claim::notConsistent);
    }
    void residualsCountToo() {
        const CompositionMatch m = match("element,percent,error\nCr,0.9,0.02\nMn,0.4,0.03\n", "1084");
        QCOMPARE(m.claim, Claim::notConsistent); // 0.30 of chromium may be there as a residual
        QVERIFY(m.elements[0].residual);
        QCOMPARE(m.elements[0].high.value(), 0.30);
    }
    // E16. D2 names neither nickel nor copper: half a per cent of each is too much of both, half of one is not.
    void nickelAndCopperCountTogether() {
        const char* both =
            "element,percent,error\nCr,12,0.1\nMo,0.9,0.03\nV,0.8,0.03\nMn,0.3,0.03\nNi,0.5,0.02\nCu,0.5,0.02\n";
        const char* one =
            "element,percent,error\nCr,12,0.1\nMo,0.9,0.03\nV,0.8,0.03\nMn,0.3,0.03\nNi,0.5,0.02\nCu,0.1,0.02\n";
        QCOMPARE(match(one, "D2").claim, Claim::consistent);
        QVERIFY(match(both, "D2").claim != Claim::consistent);
        QCOMPARE(match(both, "D2").elements.front().element, std::string("Ni + Cu"));
    }
    void carbonIsSeenBySparkEmissionOnly() {
        const char* text = "element,percent,error\nC,0.62,0.01\nMn,0.75,0.02\nCr,0.1,0.02\n";
        QCOMPARE(match(text, "1095", AnalysisMethod::oes).claim, Claim::notConsistent);
        const CompositionMatch xrf = match(text, "1084");
        for (const ElementMatch& m : xrf.elements) QVERIFY(m.element != "C");
        QVERIFY(!matchGrade(shot("element,percent\nC,0.8\n").elements, grade("1084"), tables(), AnalysisMethod::xrf));
    }
    void shotsAreAveragedWithTheirScatter() {
        const std::vector<CompositionShot> shots{shot("element,percent,error\nCr,13.0,0.1\nV,<0.06,\n"),
                                                 shot("element,percent,error\nCr,13.4,0.1\nV,0.06,0.02\n"),
                                                 shot("element,percent,error\nCr,13.8,0.1\nV,<0.06,\n")};
        const auto means = averageShots(shots, tables(), AnalysisMethod::xrf).value();
        QVERIFY(std::abs(means[0].percent.value() - 13.4) < 1e-12);
        QVERIFY(std::abs(means[0].sigma.value() - 0.4 / std::sqrt(3.0)) < 1e-12); // their scatter is the larger
        QVERIFY(std::abs(means[1].percent.value() - 0.04) < 1e-12);               // 0.03, 0.06, 0.03
        QVERIFY(!averageShots({}, tables(), AnalysisMethod::xrf));
    }
    void oddShotsAreNamed() {
        QCOMPARE(shotWarnings(shot("element,percent\nZn,2\nFe,95\n").elements),
                 std::vector<ShotWarning>{ShotWarning::coating});
        QCOMPARE(shotWarnings(shot("element,percent\nSi,6\nFe,93\n").elements),
                 std::vector<ShotWarning>{ShotWarning::scale});
        QCOMPARE(shotWarnings(shot("element,percent\nFe,60\nCr,13\n").elements),
                 std::vector<ShotWarning>{ShotWarning::smallSpot});
        QVERIFY(shotWarnings(shot("element,percent\nFe,86\nCr,13\n").elements).empty());
    }
    void carbonAloneIsNeverToldApart() {
        numbers::Analyser analyser(tables(), 11);
        for (const auto& [a, b] :
             {std::pair("1084", "1080"), std::pair("440B", "440C"), std::pair("X46Cr13", "X65Cr13")}) {
            for (int i = 0; i < 200; ++i) {
                const auto measured = analyser.measure(analyser.steelOf(grade(a)), AnalysisMethod::xrf);
                const auto ranked = rankGrades(measured, tables().grades(), tables(), AnalysisMethod::xrf).value();
                const auto group = std::count_if(ranked.begin(), ranked.end(),
                                                 [](const GradeCandidate& c) { return c.cannot_be_told_apart; });
                QVERIFY2(group >= 2, a);
            }
            QVERIFY(howToTellApart(grade(a), grade(b)).test != TellApart::Test::none || a == std::string("1084"));
        }
        QCOMPARE(howToTellApart(grade("1075"), grade("1095")).test, TellApart::Test::carbon);
        QCOMPARE(howToTellApart(grade("X46Cr13"), grade("X65Cr13")).test, TellApart::Test::carbon);
        QVERIFY(couponFits(grade("420"), 53, 0.5) && !couponFits(grade("X65Cr13"), 53, 0.5));
    }
};

QTEST_APPLESS_MAIN(tst_Composition)
#include "tst_composition.moc"
