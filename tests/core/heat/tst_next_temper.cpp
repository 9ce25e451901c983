// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/next_temper.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_NextTemper : public QObject {
    Q_OBJECT

    static TemperModel model(const char* grade, const std::vector<TemperObservation>& seen = {}) {
        return TemperModel::learn(*tables().grade(grade), {}, seen).value();
    }
    static TemperAdvice advise(const char* grade, const TemperCandidate& blade, const TemperAim& aim,
                               const std::vector<TemperObservation>& seen = {}) {
        return adviseTemper(model(grade, seen), *tables().grade(grade), blade, aim).value();
    }
    static bool warned(const TemperAdvice& advice, TemperWarning warning) {
        return std::find(advice.warnings.begin(), advice.warnings.end(), warning) != advice.warnings.end();
    }

private slots:
    // Whatever it answers must keep what it promises, and the next step of the oven must break it.
    void hottestThatKeepsBothPromises() {
        const double p = temperParameter(tables().grade("115CrV3")->hj_c, {{185, 2}}).value();
        const std::vector<TemperObservation> seen{{"h", "b", p, 63.4, 0.3}};
        const TemperAim aim{Window{61, 63}, 2, {}, std::nullopt, 0.10, false};
        const TemperAdvice advice = advise("115CrV3", {"h", "b", {{185, 2}}}, aim, seen);
        QVERIFY(advice.best);
        QCOMPARE(std::fmod(advice.best->temperature_c, 5.0), 0.0);
        QVERIFY(advice.best->temperature_c >= 185);
        QVERIFY(advice.best->expect.hrc >= 62 && advice.best->chance_soft <= 0.10);
        const auto hotter = predictTemper(model("115CrV3", seen), {"h", "b", {{185, 2}}},
                                          {advice.best->temperature_c + 5, 2}, aim.window);
        QVERIFY(hotter->expect.hrc < 62 || hotter->chance_soft > 0.10);
        QVERIFY(!advice.cautious ||
                (advice.cautious->temperature_c < advice.best->temperature_c && advice.cautious->chance_soft <= 0.025));
    }
    // An oven that is set in steps of 10 °F is told a multiple of them, a blade fresh from the quench too.
    void settingsOfTheOven() {
        const OvenSteps oven{10 / 1.8, -32 / 1.8};
        QVERIFY(std::abs(oven.nearest(205) - (400 - 32) / 1.8) < 1e-9); // 401 °F
        const auto fahrenheit = [](const TemperAdvice& advice) { return advice.best->temperature_c * 1.8 + 32; };
        const auto isSetting = [](double f) { return std::abs(f / 10 - std::round(f / 10)) < 1e-9; };
        TemperAim aim{Window{60, 62}};
        aim.oven = oven;
        const double fresh = fahrenheit(advise("115CrV3", {"h", "b", {}}, aim));
        QVERIFY2(isSetting(fresh) && fresh >= 300, qPrintable(QString::number(fresh)));
        const double p = temperParameter(tables().grade("115CrV3")->hj_c, {{185, 2}}).value();
        const double next = fahrenheit(advise("115CrV3", {"h", "b", {{185, 2}}}, aim, {{"h", "b", p, 63.4, 0.3}}));
        QVERIFY2(isSetting(next) && next >= 185 * 1.8 + 32, qPrintable(QString::number(next)));
    }
    // E21. Fresh from the quench there is always an answer, never cooler than is of use; then it is read.
    void aFreshBladeAlwaysGetsAUsefulTemper_data() {
        QTest::addColumn<QString>("grade");
        QTest::addColumn<double>("low");
        QTest::addColumn<double>("high");
        QTest::newRow("115CrV3 60 to 62") << "115CrV3" << 60.0 << 62.0;
        QTest::newRow("115CrV3 61 to 63") << "115CrV3" << 61.0 << 63.0;
        QTest::newRow("X50CrMoV15 55 to 57") << "X50CrMoV15" << 55.0 << 57.0;
        QTest::newRow("1084 60 to 62") << "1084" << 60.0 << 62.0;
        QTest::newRow("D2 60 to 61") << "D2" << 60.0 << 61.0;
        QTest::newRow("M2 62 to 64") << "M2" << 62.0 << 64.0;
    }
    void aFreshBladeAlwaysGetsAUsefulTemper() {
        QFETCH(QString, grade);
        QFETCH(double, low);
        QFETCH(double, high);
        const TemperAdvice advice = advise(grade.toStdString().c_str(), {"h", "b", {}}, {Window{low, high}});
        QVERIFY(advice.best);
        QVERIFY2(advice.best->temperature_c >= 150, qPrintable(QString::number(advice.best->temperature_c)));
        if (warned(advice, TemperWarning::readAfter) && advice.branch == TemperBranch::low)
            QVERIFY(advice.best->temperature_c == 150 || advice.best->temperature_c == 175);
    }
    // What has been tempered is not tempered cooler again: there no answer is an answer.
    void aTemperedBladeIsNotSentBack() {
        const TemperAdvice advice = advise("115CrV3", {"h", "b", {{260, 2}}}, {Window{61, 63}});
        QVERIFY(!warned(advice, TemperWarning::readAfter));
    }
    void chancesAddUp() {
        const auto answer = predictTemper(model("1084"), {"h", "b", {}}, {205, 2}, Window{60, 62}).value();
        const double hard = 1 - answer.expect.chanceBelow(62);
        QVERIFY(std::abs(answer.chance_inside + answer.chance_soft + hard - 1) < 1e-12);
    }
    void softBladesGetNoTemper() {
        const double p = temperParameter(tables().grade("115CrV3")->hj_c, {{185, 2}}).value();
        const TemperAdvice advice =
            advise("115CrV3", {"h", "b", {{185, 2}}}, {Window{61, 63}}, {{"h", "b", p, 58, 0.3}});
        QVERIFY(!advice.best);
        QVERIFY(warned(advice, TemperWarning::alreadySoft));
    }
    void neverInsideWhatTheGradeIsToAvoid() {
        // 51CrV4 is to avoid 230 to 370 °C; its window asks for about 260.
        const TemperCandidate fresh{"h", "b", {}};
        const TemperAdvice refused = advise("51CrV4", fresh, {Window{53, 55}, 2, {}, std::nullopt, 0.10, false});
        QVERIFY(!refused.best || refused.best->temperature_c < 230 || refused.best->temperature_c > 370);
        const TemperAdvice allowed = advise("51CrV4", fresh, {Window{50, 55}, 2, {}, std::nullopt, 0.10, true});
        QVERIFY(allowed.best && allowed.best->temperature_c >= 230 && allowed.best->temperature_c <= 370);
        QVERIFY(warned(allowed, TemperWarning::insideEmbrittlement));
    }
    void branchesAreNotCrossed() {
        const TemperCandidate fresh{"h", "b", {}};
        const TemperAim low{Window{58, 62}, 2, {}, TemperBranch::low, 0.3, false};
        const TemperAdvice below = advise("D2", fresh, low);
        QVERIFY(below.best && below.best->temperature_c < 380);
        const TemperAim high{Window{56, 60}, 2, {}, TemperBranch::high, 0.3, false};
        const TemperAdvice above = advise("D2", fresh, high);
        QVERIFY(above.best && above.best->temperature_c > 480);
        QCOMPARE(advise("M2", fresh, {Window{62, 66}}).branch, TemperBranch::high);
        QCOMPARE(advise("D2", {"h", "b", {{520, 2}}}, {Window{56, 60}}).branch, TemperBranch::high);
    }
    void notBelowTheHottestBefore() {
        const TemperAdvice advice = advise("1084", {"h", "b", {{200, 2}}}, {Window{55, 62}});
        QVERIFY(advice.best && advice.best->temperature_c >= 200);
    }
    void unreachableInputs() {
        const Grade& g = *tables().grade("1084");
        QVERIFY(!adviseTemper(model("1084"), g, {}, {Window{std::nullopt, 62}}));
        QVERIFY(!adviseTemper(model("1084"), g, {}, {Window{60, 62}, 0}));
    }
};

QTEST_APPLESS_MAIN(tst_NextTemper)
#include "tst_next_temper.moc"
