// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/fracture_picture.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_FracturePicture : public QObject {
    Q_OBJECT

    Look m_look;

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    void placesThereAndBack() {
        const QRect pane(40, 30, 500, 300);
        const PhotoView view{{1234, 777}, 0.37};
        const PicturePoint at = onPhoto(pane, view, {200, 100});
        const QPointF back = onScreen(pane, view, at);
        QVERIFY(std::abs(back.x() - 200) < 1e-9 && std::abs(back.y() - 100) < 1e-9);
    }
    // A white spot of the photo is drawn where its place is on screen, at every zoom, from every level.
    void aSpotIsDrawnWhereItIs() {
        QImage photo(3000, 2000, QImage::Format_RGB32);
        photo.fill(Qt::black);
        for (int y = 700; y < 760; ++y) {
            for (int x = 2100; x < 2160; ++x) photo.setPixelColor(x, y, Qt::white);
        }
        const PhotoLevels levels = photoLevels(photo);
        QVERIFY(levels.size() >= 4 && levels.back().width() <= 400);
        const QRect pane(10, 20, 600, 400);
        for (const double scale : {0.2, 0.5, 1.0, 3.0}) {
            const PhotoView view{{2100, 720}, scale};
            QImage screen(640, 440, QImage::Format_RGB32);
            screen.fill(Qt::red);
            QPainter painter(&screen);
            drawPhoto(painter, pane, view, levels);
            painter.end();
            const QPointF inside = onScreen(pane, view, {2130, 730});
            QVERIFY2(screen.pixelColor(inside.toPoint()).red() > 200, qPrintable(QString::number(scale)));
            const QPointF outside = onScreen(pane, view, {2060, 730});
            QVERIFY(screen.pixelColor(outside.toPoint()).red() < 60);
            QCOMPARE(screen.pixelColor(5, 5), QColor(Qt::red)); // nothing beside the pane
        }
    }
    void greyThereAndBack() {
        const GreyImage grey = fractureTexture(8, 600, 120, 90, 3).value().picture;
        const GreyImage back = greyOf(imageOf(grey));
        QCOMPARE(back.width, 120);
        QVERIFY(back.pixels == grey.pixels);
    }
    // A crossing is marked on its line, and a coarse coupon drawn below a fine one.
    void marksAndPoints() {
        const QRect pane(0, 0, 400, 300);
        QImage screen(400, 300, QImage::Format_RGB32);
        const auto drawn = [&](const std::vector<Crossing>& crossings) {
            screen.fill(Qt::gray);
            QPainter painter(&screen);
            drawLineMarks(painter, pane, {{200, 150}, 1}, {{false, {50, 150}, {350, 150}}, crossings, false, -1},
                          m_look);
            painter.end();
            return screen.copy();
        };
        const QImage bare = drawn({});
        const QImage marked = drawn({{0.25, 1}});
        for (int y = 0; y < 300; ++y) {
            for (int x = 0; x < 400; ++x) {
                if (bare.pixel(x, y) == marked.pixel(x, y)) continue;
                QVERIFY2(std::abs(x - 125) < 5 && std::abs(y - 150) < 12, qPrintable(QString("%1 %2").arg(x).arg(y)));
            }
        }
        QVERIFY(bare != marked);
    }
};

QTEST_MAIN(tst_FracturePicture)
#include "tst_fracture_picture.moc"
