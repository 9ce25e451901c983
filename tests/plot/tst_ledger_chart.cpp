// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/ledger_chart.h"

#include <QDate>
#include <QElapsedTimer>
#include <QImage>
#include <QtTest>

using namespace rollcall;

// The ledger's picture: points stand where they belong and belong to their rows, texts do not meet, and it ends
// whatever it is given.
class tst_LedgerChart : public QObject {
    Q_OBJECT

    struct Texts : TextWatcher {
        std::vector<std::pair<QString, QRectF>> drawn_;
        void drawn(const QString& text, const QRectF& place) override { drawn_.emplace_back(text, place); }
        void cut(const QString&) override {}
        QStringList all() const {
            QStringList texts;
            for (const auto& [text, place] : drawn_) texts << text;
            return texts;
        }
    };
    static constexpr QRect area{0, 0, 800, 400};

    static LedgerChart points(std::vector<QPointF> at) {
        LedgerChart chart;
        chart.y_title = "HRC";
        chart.x_title = "something";
        for (std::size_t i = 0; i < at.size(); ++i)
            chart.points.push_back({at[i].x(), at[i].y(), std::nullopt, static_cast<int>(i), LedgerChart::Tone::plain,
                                    QStringLiteral("point %1").arg(i)});
        return chart;
    }
    static QImage drawn(const LedgerChart& chart, const Look& look = {}, Texts* texts = nullptr) {
        QImage image(area.size(), QImage::Format_RGB32);
        image.fill(look.palette.panel);
        QPainter painter(&image);
        watchText(texts);
        drawLedgerChart(painter, area, chart, look);
        watchText(nullptr);
        return image;
    }
    // Where a point answers: the middle of the places that say it.
    static QPoint placeOf(const LedgerChart& chart, const QString& says) {
        QPoint sum;
        int n = 0;
        for (int y = 0; y < area.height(); y += 2) {
            for (int x = 0; x < area.width(); x += 2) {
                if (ledgerChartSays(area, chart, {x, y}, {}) != says) continue;
                sum += QPoint(x, y);
                ++n;
            }
        }
        return n == 0 ? QPoint(-1, -1) : sum / n;
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // Higher is higher, further right is further right, and halfway lies halfway.
    void pointsLieWhereTheyBelong() {
        const LedgerChart chart = points({{0, 60}, {5, 62}, {10, 64}});
        const QPoint low = placeOf(chart, "point 0");
        const QPoint middle = placeOf(chart, "point 1");
        const QPoint high = placeOf(chart, "point 2");
        QVERIFY(low.x() < middle.x() && middle.x() < high.x());
        QVERIFY(low.y() > middle.y() && middle.y() > high.y());
        QVERIFY((QPointF(middle) - QPointF(low + high) / 2).manhattanLength() < 6);
        // There is ink in the ring of each.
        const QImage image = drawn(chart);
        for (const QPoint& at : {low, middle, high}) {
            int ink = 0;
            for (int y = -8; y <= 8; ++y) {
                for (int x = -8; x <= 8; ++x) ink += image.pixelColor(at + QPoint(x, y)).lightness() < 120 ? 1 : 0;
            }
            QVERIFY(ink > 12);
        }
    }
    void framesAndClicksPickRows() {
        const LedgerChart chart = points({{0, 60}, {5, 62}, {10, 64}});
        QCOMPARE(ledgerRowsIn(area, chart, area, {}), (std::set<int>{0, 1, 2}));
        const QPoint middle = placeOf(chart, "point 1");
        QCOMPARE(ledgerRowsIn(area, chart, QRect(middle, QSize(1, 1)), {}), std::set<int>{1});
        QCOMPARE(ledgerRowsIn(area, chart, QRect(middle - QPoint(20, 20), QSize(40, 40)), {}), std::set<int>{1});
        QVERIFY(ledgerRowsIn(area, chart, QRect(2, 2, 1, 1), {}).empty());
        LedgerChart bars = points({{0, 1}});
        bars.points[0].row = -1; // a bar that stands for no row
        QVERIFY(ledgerRowsIn(area, bars, area, {}).empty());
    }
    void closerShowsAPart() {
        LedgerChart chart = points({{0, 60}, {5, 62}, {10, 64}});
        const int whole = placeOf(chart, "point 1").x() - placeOf(chart, "point 0").x();
        chart.part = {0, 0.6};
        const int close = placeOf(chart, "point 1").x() - placeOf(chart, "point 0").x();
        QVERIFY2(close > whole * 1.5, qPrintable(QString("%1 %2").arg(whole).arg(close)));
    }
    // Days as the calendar has them: the year's months, then its weeks when it is brought closer.
    void daysUnderTheAxis() {
        const double first = static_cast<double>(QDate(1970, 1, 1).daysTo(QDate(2026, 1, 1)));
        LedgerChart chart = points({{first, 0.1}, {first + 330, 0.4}});
        chart.over = LedgerChart::Over::day;
        Texts texts;
        drawn(chart, {}, &texts);
        QVERIFY2(texts.all().join(' ').contains("2026"), qPrintable(texts.all().join('|')));
        chart.part = {0, 0.1};
        Texts weeks;
        drawn(chart, {}, &weeks);
        QVERIFY2(weeks.all().join(' ').contains(" Jan"), qPrintable(weeks.all().join('|')));
    }
    void degreesAsTheShopReadsThem() {
        LedgerChart chart = points({{180, 62}, {220, 60}});
        chart.over = LedgerChart::Over::degrees;
        Texts metric;
        drawn(chart, {}, &metric);
        QVERIFY(metric.all().contains("200"));
        Look inch;
        inch.units = Units::inch;
        Texts fahrenheit;
        drawn(chart, inch, &fahrenheit);
        QVERIFY2(fahrenheit.all().contains("400") || fahrenheit.all().contains("380"),
                 qPrintable(fahrenheit.all().join('|')));
    }
    // Labels of lines and limits that end at the same height stand apart, inside the picture, beside the plot.
    void labelsDoNotMeet() {
        LedgerChart chart = points({{0, 60}, {10, 60}});
        chart.limits = {{60, "mean", false}, {60.02, "+3 sigma", true}, {59.98, "-3 sigma", true}};
        chart.lines.push_back({{{0, 60}, {10, 60}}, LedgerChart::Tone::shop, false, false, "this shop"});
        Texts texts;
        drawn(chart, {}, &texts);
        std::vector<QRectF> labels;
        for (const auto& [text, place] : texts.drawn_) {
            if (QStringList{"mean", "+3 sigma", "-3 sigma", "this shop"}.contains(text)) labels.push_back(place);
        }
        QCOMPARE(labels.size(), std::size_t(4));
        for (std::size_t i = 0; i < labels.size(); ++i) {
            QVERIFY(QRectF(area).contains(labels[i]));
            for (std::size_t k = i + 1; k < labels.size(); ++k)
                QVERIFY(!labels[i].adjusted(0, 3, 0, -3).intersects(labels[k].adjusted(0, 3, 0, -3)));
        }
    }
    // What is out of limits is told by its shape and filled, and what is picked out stands out.
    void alarmsAndChoice() {
        LedgerChart chart = points({{0, 60}, {5, 62}, {10, 64}});
        const QPoint middle = placeOf(chart, "point 1");
        const Look look;
        QVERIFY(drawn(chart).pixelColor(middle) == look.palette.panel); // a ring
        chart.points[1].tone = LedgerChart::Tone::alarm;
        QCOMPARE(drawn(chart).pixelColor(middle), look.palette.fail);
        chart.points[1].tone = LedgerChart::Tone::plain;
        const QImage before = drawn(chart);
        chart.chosen = {1};
        const QImage after = drawn(chart);
        int changed = 0;
        for (int y = 0; y < area.height(); ++y) {
            for (int x = 0; x < area.width(); ++x) {
                if (before.pixel(x, y) == after.pixel(x, y)) continue;
                ++changed;
                QVERIFY((QPoint(x, y) - middle).manhattanLength() < 40);
            }
        }
        QVERIFY(changed > 20);
    }
    // Years of a shop: 20,000 points with one alone far above. It is seen as a point and as the top of the line through
    // all of them, and where no point is there is no ink.
    void aCloudKeepsWhatStandsOut() {
        std::vector<QPointF> at;
        for (int i = 0; i < 20000; ++i) at.emplace_back(i, i == 11111 ? 70 : 60 + 0.001 * (i * 7919 % 1000));
        LedgerChart chart = points(at);
        const LedgerChart alone = chart;
        chart.points.clear();
        chart.lines.push_back({at, LedgerChart::Tone::limit, false, false, {}});
        const LedgerChart line = chart;
        const QPoint top = placeOf(points({at[0], at[11111], at[19999]}), "point 1");
        for (const LedgerChart& one : {alone, line}) {
            const QImage image = drawn(one);
            const auto ink = [&](int from, int to) { // pixels beside the frame's own lines, around where it stands out
                int count = 0;
                for (int y = from; y < to; ++y) {
                    for (int x = -4; x <= 4; ++x) count += image.pixelColor(top.x() + x, y).lightness() < 150 ? 1 : 0;
                }
                return count;
            };
            QVERIFY2(ink(top.y() - 4, top.y() + 6) >= 4, qPrintable(QString::number(ink(top.y() - 4, top.y() + 6))));
            const int empty = top.y() + 60; // between it and the others there is the line alone
            QVERIFY((ink(empty, empty + 10) > 0) == !one.lines.empty());
        }
    }

    void nothingToShow() {
        LedgerChart chart;
        chart.empty = "No heat was read yet.";
        const auto inkOf = [](const QImage& image) {
            int ink = 0;
            for (int y = 0; y < image.height(); ++y) {
                for (int x = 0; x < image.width(); ++x) ink += image.pixelColor(x, y).lightness() < 140 ? 1 : 0;
            }
            return ink;
        };
        QVERIFY(inkOf(drawn(chart)) > 100); // it is said
        QVERIFY(ledgerRowsIn(area, chart, area, {}).empty());
        // Too little room is not the same as nothing.
        LedgerChart full = points({{0, 60}, {5, 62}});
        full.empty = "No heat was read yet.";
        QImage image(200, 40, QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter painter(&image);
        drawLedgerChart(painter, image.rect(), full, {});
        QCOMPARE(inkOf(image), 0);
    }
    // Whatever it is given, it ends.
    void itEnds() {
        QElapsedTimer clock;
        clock.start();
        LedgerChart wide = points({{-1e15, -1e15}, {1e15, 1e15}});
        for (const auto over : {LedgerChart::Over::number, LedgerChart::Over::degrees, LedgerChart::Over::day,
                                LedgerChart::Over::names}) {
            wide.over = over;
            wide.names = QStringList(2000, "a name");
            drawn(wide);
        }
        LedgerChart odd = points({{0, std::nan("")}, {std::nan(""), 1}, {1, INFINITY}});
        drawn(odd);
        std::vector<QPointF> many;
        for (int i = 0; i < 30000; ++i) many.emplace_back(i, 60 + i % 7);
        drawn(points(many));
        QVERIFY2(clock.elapsed() < 20000, "a picture takes too long");
    }
};

QTEST_MAIN(tst_LedgerChart)
#include "tst_ledger_chart.moc"
