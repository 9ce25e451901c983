// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/edge_picture.h"
#include "plot/proof_picture.h"

#include <cmath>
#include <QImage>
#include <QPainter>
#include <QtTest>

using namespace rollcall;

class tst_ProofPictures : public QObject {
    Q_OBJECT

    Look m_look;
    const QRect m_area{0, 0, 600, 420};

    QImage drawn(const std::function<void(QPainter&)>& draw) const {
        QImage image(m_area.size(), QImage::Format_RGB32);
        image.fill(m_look.palette.panel);
        QPainter painter(&image);
        draw(painter);
        return image;
    }
    int differing(const QImage& a, const QImage& b, const QRect& where) const {
        int count = 0;
        for (int y = where.top(); y <= where.bottom(); ++y) {
            for (int x = where.left(); x <= where.right(); ++x) count += a.pixel(x, y) != b.pixel(x, y);
        }
        return count;
    }

private slots:
    void initTestCase() { QVERIFY(loadFonts(QStringLiteral(ROLLCALL_DATA_DIR "/fonts"))); }

    // What happened on a rung is drawn in the cell where the mouse finds that rung, and nowhere else.
    void aRungIsWhereItIsDrawn() {
        LadderPicture ladder;
        ladder.grid = {{45, 90, 135}, {25, 35, 45}};
        ladder.cells.resize(9);
        const QImage before = drawn([&](QPainter& p) { drawEdgeLadder(p, m_area, ladder, m_look); });
        ladder.cells[3 + 2].outcome = EdgeOutcome::chip; // 35 degrees, 135 N
        const QImage after = drawn([&](QPainter& p) { drawEdgeLadder(p, m_area, ladder, m_look); });
        int inside = 0;
        for (int y = 0; y < m_area.height(); ++y) {
            for (int x = 0; x < m_area.width(); ++x) {
                if (before.pixel(x, y) == after.pixel(x, y)) continue;
                const auto cell = ladderCellAt(m_area, ladder, {x, y}, m_look);
                QVERIFY2(cell && *cell == std::pair(2, 1), qPrintable(QString("%1, %2").arg(x).arg(y)));
                ++inside;
            }
        }
        QVERIFY(inside > 50);
        QVERIFY(!ladderCellAt(m_area, ladder, {-5, 10}, m_look));
    }
    // A place on the edge found by the mouse is marked where it was pointed at.
    void aPlaceOnTheEdge() {
        const BladeShape shape = BladeShape::knife(260, 60, 5);
        QCOMPARE(edgePlaceAt(m_area, shape, -100, m_look), 0.0);
        QCOMPARE(edgePlaceAt(m_area, shape, 5000, m_look), shape.length());
        const double place = edgePlaceAt(m_area, shape, 300, m_look);
        QVERIFY(place > 0 && place < shape.length());
        const QImage bare = drawn([&](QPainter& p) { drawEdgeStrip(p, m_area, shape, {}, m_look); });
        const QImage marked = drawn([&](QPainter& p) {
            drawEdgeStrip(p, m_area, shape, {{place, "1", false}}, m_look);
        });
        QVERIFY(differing(bare, marked, QRect(280, 0, 41, m_area.height())) > 20);
        QCOMPARE(differing(bare, marked, QRect(0, 0, 250, m_area.height())), 0);
        QCOMPARE(differing(bare, marked, QRect(350, 0, 250, m_area.height())), 0);
    }
    // Half the free length at the same angle is another picture; so is a wedge that yields deeper.
    void picturesFollowTheirNumbers() {
        const auto bend = [&](double free) {
            return drawn([&](QPainter& p) { drawBend(p, m_area, {4.8, free, 90, "3.7 %", {}}, m_look); });
        };
        QVERIFY(differing(bend(100), bend(50), m_area) > 500);
        WedgePicture wedge;
        const auto edge = [&](double yields) {
            wedge.yield_mm = yields;
            return drawn([&](QPainter& p) { drawWedge(p, m_area, wedge, m_look); });
        };
        QVERIFY(differing(edge(0.05), edge(0.15), m_area) > 500);
    }
    // The bar of a run reaches as far as it cut: ten cuts more, further to the right.
    void cutsReachAsFarAsTheyWent() {
        CutChart chart;
        const auto run = [](const char* name, double passed) {
            return CutChart::Run{QString::fromLatin1(name),
                                 {{passed, CutResult::passes}, {passed + 10, CutResult::fails}},
                                 {passed, passed + 10, {}},
                                 false};
        };
        chart.runs = {run("A", 40), run("B", 40)};
        const QImage same = drawn([&](QPainter& p) { drawCuts(p, m_area, chart, m_look); });
        chart.runs = {run("A", 40), run("B", 20)};
        const QImage less = drawn([&](QPainter& p) { drawCuts(p, m_area, chart, m_look); });
        QVERIFY(differing(same, less, m_area) > 50);
    }
};

QTEST_MAIN(tst_ProofPictures)
#include "tst_proof_pictures.moc"
