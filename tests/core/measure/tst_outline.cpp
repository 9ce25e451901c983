// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/outline.h"

#include <QtTest>

using namespace rollcall;

class tst_Outline : public QObject {
    Q_OBJECT

    static BladeShape bar(double length = 120, double height = 28, double line = 3) {
        BladeShape shape = BladeShape::rectangle(length, height, 2.4);
        shape.reading_line_mm = line;
        return shape;
    }

private slots:
    void distanceFromTheOutline() {
        const BladeShape shape = bar();
        QCOMPARE(edgeDistance(shape, {60, 3}), 3.0);
        QCOMPARE(edgeDistance(shape, {60, 26}), 2.0);
        QCOMPARE(edgeDistance(shape, {119, 14}), 1.0);
        QCOMPARE(edgeDistance(shape, {60, -2}), -2.0);
        QCOMPARE(edgeDistance(shape, {123, 32}), -5.0);
    }

    void ruleIsNeverLooserThanE18() {
        const SpacingRule rule = SpacingRule::forIndent(0.5, {1.0, 3.0});
        QCOMPARE(rule.min_spacing_mm, 1.5);
        QCOMPARE(rule.min_edge_mm, 3.0);
    }

    void checksSpots() {
        const SpacingRule rule{1.5, 1.25};
        const SpotCheck near = checkSpot(bar(), {{60, 3}}, {61, 3}, rule);
        QVERIFY(!near.allowed && near.too_near_indent && !near.too_near_edge);
        QCOMPARE(near.nearest_mm, 1.0);
        QVERIFY(checkSpot(bar(), {{60, 3}}, {61.5, 3}, rule).allowed); // the limit is inclusive
        const SpotCheck edge = checkSpot(bar(), {}, {60, 1.2}, rule);
        QVERIFY(edge.too_near_edge && !edge.nearest.has_value());
    }

    void suggestsEvenlyFromHeelToTip() {
        const SuggestedSpots answer = suggestSpots(bar(), {}, 3, {1.5, 1.25});
        QCOMPARE(answer.spots.size(), std::size_t(3));
        QCOMPARE(answer.shortage, SpotShortage::none);
        QVERIFY(answer.spots[0].x_mm < answer.spots[1].x_mm && answer.spots[1].x_mm < answer.spots[2].x_mm);
        const double first = distance(answer.spots[0], answer.spots[1]);
        const double second = distance(answer.spots[1], answer.spots[2]);
        QVERIFY(std::abs(first - second) < 0.2);
        QVERIFY(std::abs(answer.spots[1].x_mm - 60) < 0.2);
    }

    // Whatever is asked, every spot keeps the rule; as many as possible are found.
    void everySuggestionKeepsTheRule_data() {
        QTest::addColumn<double>("length");
        QTest::addColumn<int>("count");
        QTest::addColumn<int>("found");
        QTest::newRow("roomy") << 120.0 << 10 << 10;
        QTest::newRow("just full: 1.25 to 10.75 holds 7 at 1.5") << 12.0 << 7 << 7;
        QTest::newRow("one too many") << 12.0 << 8 << 7;
        QTest::newRow("far too many") << 12.0 << 50 << 7;
        QTest::newRow("a stub") << 2.4 << 3 << 0;
    }
    void everySuggestionKeepsTheRule() {
        QFETCH(double, length);
        QFETCH(int, count);
        QFETCH(int, found);
        const SpacingRule rule{1.5, 1.25};
        const BladeShape shape = bar(length);
        const SuggestedSpots answer = suggestSpots(shape, {}, count, rule);
        QCOMPARE(int(answer.spots.size()), found);
        QCOMPARE(answer.shortage == SpotShortage::none, found == count);
        for (std::size_t i = 0; i < answer.spots.size(); ++i) {
            std::vector<Spot> others(answer.spots);
            others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
            QVERIFY(checkSpot(shape, others, answer.spots[i], rule).allowed);
        }
    }

    void keepsAwayFromExistingIndents() {
        const std::vector<Spot> old{{20, 3}, {60, 3.5}, {100, 4}};
        const SuggestedSpots answer = suggestSpots(bar(), old, 5, {1.5, 1.25});
        QCOMPARE(answer.spots.size(), std::size_t(5));
        for (const Spot& spot : answer.spots) QVERIFY(checkSpot(bar(), old, spot, {1.5, 1.25}).allowed);
    }

    void saysWhyThereIsNoRoom() {
        QCOMPARE(suggestSpots(bar(120, 28, 0.5), {}, 3, {1.5, 1.25}).shortage, SpotShortage::lineTooNearEdge);
        std::vector<Spot> full;
        for (double x = 0; x < 120; x += 1) full.push_back({x, 3});
        QCOMPARE(suggestSpots(bar(), full, 1, {1.5, 1.25}).shortage, SpotShortage::noRoomOnLine);
    }

    void aKnifeNarrowsToItsTip() {
        BladeShape knife = BladeShape::knife(100, 24, 3);
        knife.reading_line_mm = 12;
        QVERIFY(validate(knife).ok());
        QCOMPARE(knife.length(), 100.0);
        for (const Spot& spot : suggestSpots(knife, {}, 6, {1.5, 1.25}).spots) {
            QVERIFY(spot.x_mm >= 0); // not on the tang
            QVERIFY(edgeDistance(knife, spot) >= 1.25 - 1e-9);
        }
    }

    void refusesShapesThatCannotBe() {
        QVERIFY(!validate(BladeShape{{{0, 0}, {1, 0}}, 2, 0}).ok());
        QVERIFY(!validate(BladeShape{{{0, 0}, {1, 0}, {0, std::nan("")}}, 2, 0}).ok());
        QVERIFY(!validate(BladeShape::rectangle(10, 10, 0)).ok());
    }
};

QTEST_APPLESS_MAIN(tst_Outline)
#include "tst_outline.moc"
