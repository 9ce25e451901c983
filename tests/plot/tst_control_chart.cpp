// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/block_face.h"
#include "plot/control_chart.h"
#include "plot/differences.h"

#include <QImage>
#include <QtTest>

using namespace rollcall;

// What is drawn, pixel by pixel: values must stand where they belong, in light and dark.
class tst_ControlChart : public QObject {
    Q_OBJECT

    static QImage drawn(const QSize& size, const Look& look, const std::function<void(QPainter&, const QRect&)>& draw) {
        QImage image(size, QImage::Format_RGB32);
        image.fill(look.palette.panel);
        QPainter painter(&image);
        draw(painter, image.rect());
        return image;
    }
    static int count(const QImage& image, const QColor& color, const QRect& part) {
        int n = 0;
        for (int y = part.top(); y <= part.bottom(); ++y) {
            for (int x = part.left(); x <= part.right(); ++x) n += image.pixelColor(x, y) == color ? 1 : 0;
        }
        return n;
    }
    static ControlChart chart(double perWeek) {
        ControlChart c;
        for (int week = 0; week < 20; ++week) {
            c.errors.push_back({20000.0 + 7 * week, -0.2 + perWeek * week});
            c.spreads.push_back({20000.0 + 7 * week, week == 10 ? 1.4 : 0.3});
        }
        c.allowed_error = 0.5;
        c.allowed_spread = 1.0;
        c.drift = driftOf(c.errors);
        if (c.drift) c.weeks_left = weeksUntil(*c.drift, perWeek > 0 ? 0.5 : -0.5);
        return c;
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // The run under the pointer is told with its day and both its numbers; between two of them nothing, and where only
    // the second half is in view its first run lies at the left.
    void aRunIsTold() {
        const Look look;
        const QRect area(0, 0, 560, 240);
        ControlChart c = chart(0.0); // 2024-10-04, a run each week, all at -0.2
        const auto firstFrom = [&](int x) {
            for (; x < area.right(); ++x) {
                const QString says = controlChartSays(area, c, {x, 60}, look);
                if (!says.isEmpty()) return says;
            }
            return QString();
        };
        const QString day = QLocale().toString(QDate(1970, 1, 1).addDays(20000), QLocale::ShortFormat);
        QCOMPARE(firstFrom(0), day + ": error \u22120.2, spread 0.3");
        QString most;
        for (int x = 0; x < area.right(); ++x) {
            const QString says = controlChartSays(area, c, {x, 60}, look);
            if (says.contains("spread 1.4")) most = says;
        }
        QVERIFY2(most.startsWith(QLocale().toString(QDate(1970, 1, 1).addDays(20070), QLocale::ShortFormat)),
                 qPrintable(most));
        c.part = {0.5, 1};
        QVERIFY(firstFrom(0) != day + ": error \u22120.2, spread 0.3");
        QCOMPARE(controlChartSays(area, c, {280, 2000}, look), QString());
    }

    void theDriftIsDrawnOnlyWhenItIsLikely_data() {
        QTest::addColumn<bool>("dark");
        QTest::newRow("light") << false;
        QTest::newRow("dark") << true;
    }
    void theDriftIsDrawnOnlyWhenItIsLikely() {
        QFETCH(bool, dark);
        Look look;
        if (dark) look.palette = Palette::darkOne();
        const auto lines = [&](const ControlChart& c) {
            const QImage image =
                drawn({560, 240}, look, [&](QPainter& p, const QRect& r) { drawControlChart(p, r, c, look); });
            return count(image, look.palette.older, image.rect());
        };
        QCOMPARE(lines(chart(0.0)), 0);
        QVERIFY(lines(chart(0.02)) > 200);
        QVERIFY(lines(chart(-0.02)) > 200);
    }

    // The latest point is the large one at the right; a spread over what is allowed takes the colour of Fail.
    void pointsStandWhereTheirDayAndValueAre() {
        const Look look;
        const ControlChart c = chart(0.0);
        const QImage image =
            drawn({560, 240}, look, [&](QPainter& p, const QRect& r) { drawControlChart(p, r, c, look); });
        QVERIFY(count(image, look.palette.primary, QRect(280, 0, 280, 240)) > 40);
        QCOMPARE(count(image, look.palette.primary, QRect(0, 0, 280, 240)), 0);
        QVERIFY(count(image, look.palette.fail, image.rect()) > 10);
        ControlChart high = c;
        for (ControlPoint& point : high.errors) point.value = 0.45;
        const QImage above =
            drawn({560, 240}, look, [&](QPainter& p, const QRect& r) { drawControlChart(p, r, high, look); });
        const auto middleOf = [&](const QImage& i) {
            int sum = 0, n = 0;
            for (int y = 0; y < i.height(); ++y) {
                for (int x = 280; x < i.width(); ++x) {
                    if (i.pixelColor(x, y) != look.palette.primary) continue;
                    sum += y;
                    ++n;
                }
            }
            return sum / std::max(1, n);
        };
        QVERIFY(middleOf(above) < middleOf(image) - 20); // harder is higher
    }

    void emptyChartsDoNotHurt() {
        const Look look;
        ControlChart none;
        drawn({560, 240}, look, [&](QPainter& p, const QRect& r) { drawControlChart(p, r, none, look); });
        none.allowed_error = 0.5;
        drawn({560, 240}, look, [&](QPainter& p, const QRect& r) { drawControlChart(p, r, none, look); });
        drawn({200, 200}, look, [&](QPainter& p, const QRect& r) { drawBlockFace(p, r, 60, {}, 0, look); });
    }

    void theNeedleShowsWhatIsNotGood() {
        const Look look;
        NumberRule rule{"Error", "allowed", -1, 1, 0.5, -0.5, 0.5, 0.8, false};
        const auto pixels = [&](const NumberRule& r) {
            const QImage image =
                drawn({260, 70}, look, [&](QPainter& p, const QRect& a) { drawNumberRule(p, a, r, look); });
            return count(image, look.palette.fail, image.rect());
        };
        QVERIFY(pixels(rule) > 30);
        rule.good = true;
        QCOMPARE(pixels(rule), 0);
    }

    // Used places are dots, the next one a ring: half of them used, about half of the dots.
    void usedPlacesAreFilled() {
        const Look look;
        const std::vector<Spot> places = blockPlaces({60, 6, 0.5}).value();
        const auto ink = [&](int used) {
            const QImage image = drawn(
                {300, 300}, look, [&](QPainter& p, const QRect& r) { drawBlockFace(p, r, 60, places, used, look); });
            return count(image, look.palette.ink, QRect(20, 20, 260, 260));
        };
        const int all = static_cast<int>(places.size());
        const int none = ink(0);
        const int half = ink(all / 2) - none;
        const int full = ink(all) - none;
        QVERIFY(full > all); // antialiased dots hold few pixels of the plain colour
        QVERIFY(half > 0.4 * full && half < 0.6 * full);
    }

    void differencesAndBudgetsAreDrawn() {
        const Look look;
        const Comparison c = compareTesters({62, 61, 63, 60}, {61, 60.2, 62.1, 58.9}).value();
        const QImage image =
            drawn({560, 230}, look, [&](QPainter& p, const QRect& r) { drawDifferences(p, r, c, look); });
        QVERIFY(count(image, look.palette.window_on_panel, image.rect()) > 500); // the interval of the bias
        const Budget budget = uncertaintyBudget(TesterModel::bench(), 3, 0.1, BlockBias{0.2, 2}).value();
        const QImage bars = drawn({560, 120}, look, [&](QPainter& p, const QRect& r) {
            drawBudget(p, r, budget, {"certificate", "block", "display", "scatter"}, look);
        });
        // The largest part alone takes the loud colour; its bar is its share of the variance.
        const int loud = count(bars, look.palette.primary, bars.rect());
        const double share = 0.045 / (budget.standard_uncertainty * budget.standard_uncertainty); // 0.3²/2 block mean
        const int barWidth = (559 - 110) - 250;
        QVERIFY(std::abs(loud - share * barWidth * 16) < 60);
    }
};

QTEST_MAIN(tst_ControlChart)
#include "tst_control_chart.moc"
