// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/element_ruler.h"
#include "plot/heat_chart.h"
#include "plot/temper_chart.h"

#include <cmath>
#include <QImage>
#include <QtTest>

using namespace rollcall;

class tst_HeatCharts : public QObject {
    Q_OBJECT

    Look m_look;

    QImage drawn(const std::function<void(QPainter&, const QRect&)>& draw, const QSize& size = {560, 400}) const {
        QImage image(size, QImage::Format_RGB32);
        image.fill(m_look.palette.panel);
        QPainter painter(&image);
        draw(painter, QRect({0, 0}, size));
        return image;
    }
    static int pixels(const QImage& image, const QColor& color, const QRect& where) {
        int count = 0;
        for (int y = where.top(); y <= where.bottom(); ++y) {
            for (int x = where.left(); x <= where.right(); ++x) count += image.pixelColor(x, y) == color;
        }
        return count;
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // The mouse finds the moment that is drawn where it points: ends and middle.
    void momentsOfTheTrace() {
        const Trace oven = Trace::of({{0, 800}, {1800, 800}}).value();
        SoakChart chart;
        chart.oven = &oven;
        chart.to_s = 1800;
        chart.clock = [](double s) { return QString::number(s); };
        const QRect area(0, 0, 560, 400);
        QCOMPARE(soakChartMoment(area, chart, -50, m_look), 0.0);
        QCOMPARE(soakChartMoment(area, chart, 2000, m_look), 1800.0);
        const double early = soakChartMoment(area, chart, 250, m_look);
        const double later = soakChartMoment(area, chart, 350, m_look);
        QVERIFY(early > 0 && later > early && later < 1800);
        // The cursor drawn at a moment stands where the mouse finds that moment.
        chart.cursor_s = later;
        const QImage image = drawn([&](QPainter& p, const QRect& r) { drawSoakChart(p, r, chart, m_look); });
        QVERIFY(pixels(image, m_look.palette.primary, QRect(348, 60, 5, 200)) > 100);
    }
    void bladesOverTheirSoakTakeAnotherColour() {
        const Trace oven = Trace::of({{0, 800}, {1800, 800}}).value();
        SoakChart chart;
        chart.oven = &oven;
        chart.to_s = 1800;
        chart.clock = [](double s) { return QString::number(s); };
        chart.bars = {{"A", 0.0, 900.0, 12.0, State::pass, false}, {"B", 0.0, 1500.0, 22.0, State::borderline, true}};
        const QRect lower(100, 280, 440, 100);
        const QImage image = drawn([&](QPainter& p, const QRect& r) { drawSoakChart(p, r, chart, m_look); });
        QVERIFY(pixels(image, m_look.palette.borderline, lower) > 200);
        QVERIFY(pixels(image, m_look.palette.older, lower) > 200);
    }
    // A million samples are drawn as the few that can be seen: the peak is not lost.
    void longTracesKeepTheirPeaks() {
        std::vector<TraceSample> samples;
        for (int i = 0; i < 200000; ++i) samples.push_back({double(i), i == 123456 ? 815.0 : 790.0});
        const Trace oven = Trace::of(samples).value();
        SoakChart chart;
        chart.oven = &oven;
        chart.to_s = 200000;
        chart.clock = [](double s) { return QString::number(s); };
        const QImage image = drawn([&](QPainter& p, const QRect& r) { drawSoakChart(p, r, chart, m_look); });
        int darkAbove = 0; // ink of the spike above the steady line, somewhere in the middle of the chart
        for (int y = 20; y < 120; ++y) {
            for (int x = 350; x < 420; ++x) darkAbove += image.pixelColor(x, y).lightness() < 120 ? 1 : 0;
        }
        QVERIFY2(darkAbove > 10, qPrintable(QString::number(darkAbove)));
    }
    void temperaturesOfTheCurve() {
        TemperChart chart;
        for (int c = 150; c <= 250; c += 10)
            chart.curve.push_back(
                {double(c), 66 - 0.03 * (c - 150), 65 - 0.03 * (c - 150), 67 - 0.03 * (c - 150), 65, true});
        chart.window = {61, 63};
        chart.trial = TemperChart::At{200, 64.5, 63.5, 65.5, 0, false};
        const QRect area(0, 0, 400, 400);
        QCOMPARE(temperChartTemperature(area, chart, 0, m_look), 150.0);
        QCOMPARE(temperChartTemperature(area, chart, 400, m_look), 250.0);
        const QImage image =
            drawn([&](QPainter& p, const QRect& r) { drawTemperChart(p, r, chart, m_look); }, {400, 400});
        // The trial's line stands at its temperature.
        for (int x = 60; x < 390; ++x) {
            if (pixels(image, m_look.palette.primary, QRect(x, 250, 1, 60)) < 50) continue;
            QVERIFY2(std::abs(temperChartTemperature(area, chart, x, m_look) - 200) < 2,
                     qPrintable(QString::number(x)));
            return;
        }
        QFAIL("the trial is not drawn");
    }
    void stagesAreFoundByTheMouse() {
        RecipeLine line;
        line.stages = {{StageKind::austenitise, 810, 6, 12, 10, "", ""},
                       {StageKind::quench, 55, 0, {}, 15, "oil", ""},
                       {StageKind::temper, 200, 120, {}, 5, "air", ""}};
        for (int i = 0; i < 3; ++i) {
            line.names.push_back(QString::number(i));
            line.holds.push_back(QString());
            line.warned.push_back(i == 1);
            line.done.push_back(false);
        }
        const QRect area(0, 0, 560, 400);
        QCOMPARE(recipeStageAt(area, line, 10, m_look), 0);
        QCOMPARE(recipeStageAt(area, line, 200, m_look), 1);
        QCOMPARE(recipeStageAt(area, line, 3000, m_look), -1);
        const QImage image = drawn([&](QPainter& p, const QRect& r) { drawRecipe(p, r, line, m_look); });
        QVERIFY(pixels(image, m_look.palette.borderline, QRect(150, 0, 150, 40)) > 20);
    }
    // The needle of an element that is short stands left of its band, one that fits inside it.
    void elementsStandWhereTheyAreMeasured() {
        ElementRuler ruler;
        ruler.match = {"Mo", {"Mo", 0.05, {}, 0.01}, 0.01, 0.5, 0.8, false, 25};
        ruler.state = State::fail;
        const QImage shortOne =
            drawn([&](QPainter& p, const QRect& r) { drawElementRuler(p, r, ruler, m_look); }, {560, 62});
        ruler.match.reading.percent = 0.65;
        ruler.match.z = 0;
        ruler.state = State::pass;
        const QImage fits =
            drawn([&](QPainter& p, const QRect& r) { drawElementRuler(p, r, ruler, m_look); }, {560, 62});
        const auto band = [&](const QImage& image) {
            int left = -1, right = -1;
            for (int x = 120; x < 410; ++x) {
                if (image.pixelColor(x, 50) != m_look.palette.window) continue;
                left = left < 0 ? x : left;
                right = x;
            }
            return std::pair(left, right);
        };
        const auto needle = [&](const QImage& image, const QColor& color) {
            for (int x = 126; x < 410; ++x) {
                if (pixels(image, color, QRect(x, 6, 1, 20)) >= 18 &&
                    pixels(image, color, QRect(x + 3, 6, 1, 20)) >= 18)
                    return x;
            }
            return -1;
        };
        const int missed = needle(shortOne, m_look.palette.fail);
        QVERIFY(missed > 0 && missed < band(shortOne).first);
        const int found = needle(fits, m_look.palette.ink);
        QVERIFY2(found > band(fits).first && found < band(fits).second, qPrintable(QString::number(found)));
    }
    void stacksAndStripsAreDrawn() {
        WarpStack stack;
        stack.pieces = {{"A", 1.2, WarpSide::right, false, 0}, {"B", 0.8, WarpSide::left, true, 0}};
        const QImage bows = drawn([&](QPainter& p, const QRect& r) { drawWarpStack(p, r, stack, m_look); });
        QVERIFY(pixels(bows, m_look.palette.primary, QRect(380, 0, 180, 400)) > 50); // 'turn over', framed
        OxideStrip strip;
        strip.bands = {{"straw", QColor("#D9B75A"), "180"}, {"blue", QColor("#2F3F7D"), "260"}};
        strip.chosen = 1;
        const QImage bands =
            drawn([&](QPainter& p, const QRect& r) { drawOxideStrip(p, r, strip, m_look); }, {560, 170});
        QVERIFY(pixels(bands, m_look.palette.primary, QRect(278, 0, 280, 120)) > 200); // the frame of the chosen one
        QCOMPARE(bands.pixelColor(140, 50), QColor("#D9B75A"));
    }
};

QTEST_MAIN(tst_HeatCharts)
#include "tst_heat_charts.moc"
