// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/cutting.h"
#include "core/proof/speaks.h"

#include <cmath>
#include <functional>
#include <QtTest>

using namespace rollcall;

namespace {

PieceFacts piece() {
    PieceFacts facts;
    facts.mark = "A";
    facts.grade = "51CrV4";
    facts.lot = "bar L";
    facts.recipe = "Hooks 1";
    facts.heat = "run 1";
    facts.tempers = "220 °C 2 h";
    facts.equivalent_min = 10;
    facts.hrc = 55.0;
    facts.thickness_mm = 5;
    facts.edge_mm = 0.8;
    facts.angle_deg = 20;
    facts.finish = "belt";
    return facts;
}

} // namespace

class tst_Compare : public QObject {
    Q_OBJECT

private slots:
    // M31: each count lies between the last pass and the first fail.
    void dullIntervals() {
        const DullInterval dull =
            dullInterval({{10, CutResult::passes}, {20, CutResult::hesitates}, {30, CutResult::fails}}).value();
        QCOMPARE(dull.last_pass, 20.0);
        QCOMPARE(*dull.first_fail, 30.0);
        QCOMPARE(dullInterval({{10, CutResult::fails}})->last_pass, 0.0);
        QVERIFY(!dullInterval({{10, CutResult::passes}})->first_fail);
        QVERIFY(!dullInterval({}));
        QVERIFY(!dullInterval({{20, CutResult::passes}, {10, CutResult::passes}}));
        QVERIFY(!dullInterval({{10, CutResult::fails}, {20, CutResult::passes}}));
    }
    // One run each: [120/90, 130/80], and never more than 'one trial'.
    void oneRunEach() {
        const CutRatio ratio = cutRatio({{120, 130.0, {}}}, {{80, 90.0, {}}}).value();
        QVERIFY(std::abs(ratio.low - 120.0 / 90) < 1e-12);
        QVERIFY(std::abs(*ratio.high - 130.0 / 80) < 1e-12);
        QCOMPARE(ratio.says, CutRatio::Says::oneTrial);
        QVERIFY(!cutRatio({{120, 130.0, {}}}, {{0, 10.0, {}}})->high); // nothing passed: no upper bound
        QCOMPARE(cutRatio({{0, 10.0, {}}}, {{80, 90.0, {}}})->low, 0.0);
        QVERIFY(!cutRatio({{120, {}, {}}}, {{80, 90.0, {}}})->high); // not cut until dull
        QVERIFY(!cutRatio({}, {{80, 90.0, {}}}));
    }
    void threeRunsEach() {
        const std::vector<DullInterval> a{{120, 130.0, {}}, {125, 135.0, {}}, {118, 128.0, {}}};
        const std::vector<DullInterval> b{{60, 70.0, {}}, {62, 72.0, {}}, {58, 68.0, {}}};
        const CutRatio longer = cutRatio(a, b).value();
        QCOMPARE(longer.says, CutRatio::Says::aLonger);
        // Wider than the plain bounds of the geometric means, on both sides.
        const auto mean = [](double x, double y, double z) { return std::cbrt(x * y * z); };
        QVERIFY(longer.low < mean(120, 125, 118) / mean(70, 72, 68));
        QVERIFY(*longer.high > mean(130, 135, 128) / mean(60, 62, 58));
        QCOMPARE(cutRatio(b, a)->says, CutRatio::Says::bLonger);
        QCOMPARE(cutRatio(a, a)->says, CutRatio::Says::open);
        QCOMPARE(cutRatio(a, {b[0]})->says, CutRatio::Says::tooFewRuns);
        // No scatter at all: the bounds are those of one run.
        const CutRatio same = cutRatio({a[0], a[0], a[0]}, {b[0], b[0], b[0]}).value();
        QVERIFY(std::abs(same.low - 120.0 / 70) < 1e-9 && std::abs(*same.high - 130.0 / 60) < 1e-9);
    }

    // M32, one limit at a time: is the piece still good for a blade like it, but for this?
    void speaksFor_data() {
        QTest::addColumn<std::function<void(PieceFacts&)>>("change"); // of the blade
        QTest::addColumn<int>("passed");                              // what a piece that passed says
        QTest::addColumn<int>("failed");
        using Change = std::function<void(PieceFacts&)>;
        constexpr int yes = int(Speaks::yes);
        constexpr int no = int(Speaks::no);
        constexpr int part = int(Speaks::withReservations);
        QTest::newRow("alike") << Change([](PieceFacts&) {}) << yes << yes;
        QTest::newRow("other lot") << Change([](PieceFacts& b) { b.lot = "bar M"; }) << no << no;
        QTest::newRow("other heat") << Change([](PieceFacts& b) { b.heat = "run 2"; }) << no << no;
        QTest::newRow("one temper more") << Change([](PieceFacts& b) { b.tempers += ", 230 °C 2 h"; }) << no << no;
        QTest::newRow("soft spine") << Change([](PieceFacts& b) { b.spine = "torch, 3 passes"; }) << no << no;
        QTest::newRow("carburised") << Change([](PieceFacts& b) { b.changed = "carburised"; }) << no << no;
        QTest::newRow("soaked longer than the piece")
            << Change([](PieceFacts& b) { b.equivalent_min = 11.2; }) << no << yes;
        QTest::newRow("soaked a little longer") << Change([](PieceFacts& b) { b.equivalent_min = 11.1; }) << yes << yes;
        QTest::newRow("soaked shorter") << Change([](PieceFacts& b) { b.equivalent_min = 6; }) << yes << no;
        QTest::newRow("harder") << Change([](PieceFacts& b) { b.hrc = 55.6; }) << no << yes;
        QTest::newRow("softer") << Change([](PieceFacts& b) { b.hrc = 54.4; }) << yes << no;
        QTest::newRow("thinner") << Change([](PieceFacts& b) { b.thickness_mm = 4.5; }) << no << yes;
        QTest::newRow("much thicker") << Change([](PieceFacts& b) { b.thickness_mm = 6.3; }) << no << no;
        QTest::newRow("thicker") << Change([](PieceFacts& b) { b.thickness_mm = 5.8; }) << yes << no;
        QTest::newRow("edge angle") << Change([](PieceFacts& b) { b.angle_deg = 24; }) << no << no;
        QTest::newRow("edge angle, nearly") << Change([](PieceFacts& b) { b.angle_deg = 23; }) << yes << yes;
        QTest::newRow("soak not known") << Change([](PieceFacts& b) { b.equivalent_min.reset(); }) << part << part;
        QTest::newRow("finish") << Change([](PieceFacts& b) { b.finish = "stone"; }) << yes << yes;
    }
    void speaksFor() {
        QFETCH(std::function<void(PieceFacts&)>, change);
        QFETCH(int, passed);
        QFETCH(int, failed);
        PieceFacts blade = piece();
        change(blade);
        const Speech good = rollcall::speaksFor(piece(), blade, true);
        const Speech bad = rollcall::speaksFor(piece(), blade, false);
        QCOMPARE(int(good.speaks), passed);
        QCOMPARE(int(bad.speaks), failed);
        QCOMPARE(good.differences.empty(), good.speaks == Speaks::yes);
    }
    void studiesListWhatDiffers() {
        PieceFacts b = piece();
        PieceFacts c = piece();
        b.edge_mm = 0.5;
        QVERIFY(differencesBeside({piece(), b}, Trait::edge).empty());
        QCOMPARE(differencesBeside({piece(), b}, std::nullopt).size(), std::size_t(1));
        c.hrc = 56.2;
        c.heat.clear();
        const auto differences = differencesBeside({piece(), b, c}, Trait::edge);
        QCOMPARE(differences.size(), std::size_t(2));
        QCOMPARE(differences[0].trait, Trait::heat);
        QVERIFY(!differences[0].known);
        QCOMPARE(differences[1].trait, Trait::hardness);
        QCOMPARE(differences[1].b, std::string("56.2"));
        QVERIFY(differencesBeside({piece()}, std::nullopt).empty());
        for (int i = 0; i <= int(Trait::finish); ++i) QCOMPARE(*traitNamed(nameOf(Trait(i))), Trait(i));
    }
};

Q_DECLARE_METATYPE(std::function<void(PieceFacts&)>)

QTEST_APPLESS_MAIN(tst_Compare)
#include "tst_compare.moc"
