// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/blade_picture.h"
#include "plot/glyphs.h"
#include "plot/rule.h"

#include <cmath>
#include <QFontMetrics>
#include <QImage>
#include <QRawFont>
#include <QtTest>

using namespace rollcall;

class tst_Plot : public QObject {
    Q_OBJECT

    static QImage drawn(const QSize& size, const QColor& background, const std::function<void(QPainter&)>& draw) {
        QImage image(size, QImage::Format_RGB32);
        image.fill(background);
        QPainter painter(&image);
        draw(painter);
        return image;
    }
    static int pixels(const QImage& image, const QColor& color) {
        int count = 0;
        for (int y = 0; y < image.height(); ++y) {
            for (int x = 0; x < image.width(); ++x) count += image.pixelColor(x, y) == color;
        }
        return count;
    }
    // Contrast of two colours after WCAG 2.
    static double contrast(const QColor& a, const QColor& b) {
        const auto luminance = [](const QColor& c) {
            const auto channel = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
            return 0.2126 * channel(c.redF()) + 0.7152 * channel(c.greenF()) + 0.0722 * channel(c.blueF());
        };
        const double x = luminance(a), y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // With the system's package of the same typeface installed a careless name would give the monospaced face.
    void theSansFaceIsProportional() {
        const Look look;
        QVERIFY(look.width("iiii", 40) < look.width("mmmm", 40) / 2);
        const QFontMetrics mono(look.mono(40));
        QCOMPARE(mono.horizontalAdvance('i'), mono.horizontalAdvance('m'));
        QCOMPARE(QRawFont::fromFont(look.font(40, true)).styleName(),
                 QStringLiteral("Bold")); // a real face, not a smeared one
        // Figures are tabular, so that columns of numbers stand.
        QCOMPARE(look.width("1111", 40), look.width("8888", 40));
    }

    void textIsReadableOnItsGround_data() {
        QTest::addColumn<bool>("dark");
        QTest::addColumn<bool>("high");
        QTest::newRow("light") << false << false;
        QTest::newRow("dark") << true << false;
        QTest::newRow("high contrast, light") << false << true;
        QTest::newRow("high contrast, dark") << true << true;
    }
    void textIsReadableOnItsGround() {
        QFETCH(bool, dark);
        QFETCH(bool, high);
        const Palette p = Palette::wished(dark, high);
        const double read = high ? 7 : 4.5; // as WCAG asks at AA and at AAA
        for (const QColor& ground : {p.paper, p.panel}) {
            for (const QColor& text : {p.ink, p.muted, p.pass, p.borderline, p.fail, p.primary, p.quenched, p.older})
                QVERIFY2(contrast(text, ground) >= read, qPrintable(text.name() + " on " + ground.name()));
            QVERIFY(contrast(p.earlier, ground) >= (high ? 4.5 : 3));
            QVERIFY(contrast(p.line, ground) >= (high ? 4.5 : 3));
        }
        QVERIFY(contrast(p.on_primary, p.primary) >= read);
        QVERIFY(contrast(p.ink, p.window) >= read);
    }

    // Shape tells the verdicts apart without colour: in one colour no two glyphs cover the same pixels.
    void glyphsDifferInShape() {
        Look look;
        Palette& p = look.palette;
        p.pass = p.borderline = p.fail = p.muted = p.primary = Qt::black;
        QList<QImage> images;
        for (const State state : {State::pass, State::borderline, State::fail, State::notYet, State::excused}) {
            images << drawn({24, 24}, Qt::white,
                            [&](QPainter& painter) { drawVerdictGlyph(painter, 0, 0, 24, state, look, Qt::white); });
        }
        for (int i = 0; i < images.size(); ++i) {
            QVERIFY(pixels(images[i], Qt::black) > 40);
            for (int k = 0; k < i; ++k) QVERIFY(images[i] != images[k]);
        }
    }

    void theAxisHoldsEverything_data() {
        QTest::addColumn<double>("low");
        QTest::addColumn<double>("high");
        QTest::addColumn<QList<double>>("values");
        QTest::newRow("in the window") << 61.0 << 63.0 << QList<double>{62.0, 62.2};
        QTest::newRow("soft and hard") << 61.0 << 63.0 << QList<double>{55.0, 67.0};
        QTest::newRow("far below") << 61.0 << 63.0 << QList<double>{51.0};
        QTest::newRow("empty") << 55.0 << 58.0 << QList<double>{};
    }
    void theAxisHoldsEverything() {
        QFETCH(double, low);
        QFETCH(double, high);
        QFETCH(QList<double>, values);
        const Axis axis = Axis::around({low, high}, {values.begin(), values.end()}, 8);
        QVERIFY(axis.high - axis.low >= 8);
        QVERIFY(axis.low <= low && axis.high >= high);
        for (const double v : values) QVERIFY(axis.low < v && v < axis.high);
        QCOMPARE(axis.at(axis.low, 100, 80), 100.0);
        QCOMPARE(axis.at(axis.high, 100, 80), 180.0);
    }

    // Whatever a damaged record says, a rule ends.
    void theAxisEnds() {
        for (const double far : {63e6, 1e300, -1e300, double(INFINITY)}) {
            const Axis axis = Axis::around({61, far}, {62, far}, 8);
            QVERIFY(axis.high - axis.low >= 8 && axis.high - axis.low < 2000);
            const Axis low = Axis::around({far, {}}, {}, 8);
            QVERIFY(low.high - low.low >= 8 && low.high - low.low < 2000);
        }
    }

    void theRuleShowsMeanInTheVerdictsColour() {
        const Look look;
        RuleData data;
        data.axis = {58, 66};
        data.window = {61, 63};
        data.mean = 59.0;
        data.uncertainty = 0.6;
        data.state = State::fail;
        const auto image = [&] {
            return drawn({560, 184}, look.palette.panel, [&](QPainter& painter) {
                drawRule(painter, {0, 0, 560, 184}, data, look);
            });
        };
        QVERIFY(pixels(image(), look.palette.fail) > 200);
        data.state = State::pass;
        QCOMPARE(pixels(image(), look.palette.fail), 0);
        QVERIFY(pixels(image(), look.palette.window) > 1000);
    }

    // A place keeps its millimetres through the picture and back.
    void bladeScaleIsTrue() {
        const Look look;
        const BladeShape shape = BladeShape::knife(58, 16, 2.4);
        const QRect area(0, 0, 560, 190);
        const BladeScale scale = BladeScale::fitting(shape, area, look);
        const Spot spot{41.3, 2.6};
        const Spot back = scale.toBlade(scale.toPixel(spot));
        QVERIFY(distance(back, spot) < 1e-9);
        for (const Spot& corner : shape.outline) QVERIFY(area.contains(scale.toPixel(corner).toPoint()));
        const double millimetre = scale.toPixel({1, 0}).x() - scale.toPixel({0, 0}).x();
        QCOMPARE(millimetre, scale.px_per_mm);
    }
};

QTEST_MAIN(tst_Plot)
#include "tst_plot.moc"
