// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/pictograms.h"

#include <vector>

namespace rollcall {

namespace {

struct Ring {
    double x, y, radius;
};

// On a grid of 24 units: broken lines, and rings.
struct Drawing {
    std::vector<QPolygonF> lines;
    std::vector<Ring> rings;
};

Drawing drawingOf(Pictogram which) {
    switch (which) {
    case Pictogram::blade:
        return {{{{1, 9}, {7, 9}, {7, 15}, {1, 15}, {1, 9}}, {{7, 9}, {19, 9}, {23, 14}, {20, 16}, {7, 16}}}, {}};
    case Pictogram::indent:
        return {{{{1, 16}, {9, 16}, {12, 20}, {15, 16}, {23, 16}}, {{12, 2}, {12, 12}}, {{9, 9}, {12, 12}, {15, 9}}},
                {}};
    case Pictogram::block:
        return {{}, {{12, 12, 10}, {12, 12, 1}, {8, 8, 1}, {16, 8, 1}, {8, 16, 1}, {16, 16, 1}}};
    case Pictogram::dial:
        return {{{{12, 13}, {17, 6}}, {{12, 3}, {12, 5}}, {{3, 13}, {5, 13}}, {{19, 13}, {21, 13}}}, {{12, 13, 10}}};
    case Pictogram::file:
        return {{{{1, 12}, {6, 10}, {6, 14}, {1, 12}},
                 {{6, 8}, {23, 8}, {23, 16}, {6, 16}, {6, 8}},
                 {{10, 8}, {8, 16}},
                 {{14, 8}, {12, 16}},
                 {{18, 8}, {16, 16}},
                 {{22, 8}, {20, 16}}},
                {}};
    case Pictogram::oven:
        return {{{{2, 3}, {22, 3}, {22, 21}, {2, 21}, {2, 3}},
                 {{5, 6}, {15, 6}, {15, 18}, {5, 18}, {5, 6}},
                 {{8, 15}, {8, 9}},
                 {{12, 15}, {12, 9}}},
                {{18.5, 7, 1.5}, {18.5, 12, 1.5}}};
    case Pictogram::trace:
        return {{{{2, 2}, {2, 22}, {22, 22}}, {{4, 20}, {8, 8}, {11, 6}, {17, 6}, {18, 18}, {22, 20}}}, {}};
    case Pictogram::clock:
        return {{{{12, 5}, {12, 12}, {17, 15}}}, {{12, 12, 10}}};
    case Pictogram::tank:
        return {{{{2, 8}, {2, 22}, {22, 22}, {22, 8}},
                 {{2, 12}, {6, 11}, {10, 13}, {14, 11}, {18, 13}, {22, 12}},
                 {{12, 1}, {12, 18}, {15, 16}, {15, 4}, {12, 1}}},
                {}};
    case Pictogram::peaks:
        return {
            {{{1, 21}, {5, 21}, {7, 4}, {9, 21}, {13, 21}, {15, 11}, {17, 21}, {19, 21}, {20, 16}, {21, 21}, {23, 21}}},
            {}};
    case Pictogram::magnifier:
        return {{{{15, 15}, {22, 22}}, {{5, 9}, {8, 7}, {11, 10}, {14, 8}}, {{7, 13}, {9, 11}, {12, 13}}},
                {{9.5, 9.5, 7.5}}};
    case Pictogram::bend:
        return {{{{2, 22}, {10, 22}, {10, 15}, {2, 15}, {2, 22}},
                 {{6, 15}, {7, 9}, {10, 5}, {15, 3}, {21, 3}},
                 {{18, 7}, {21, 3}, {17, 1}}},
                {}};
    case Pictogram::hammer:
        return {{{{9, 3}, {19, 3}, {22, 6}, {19, 9}, {9, 9}, {9, 3}}, {{12, 9}, {12, 17}}, {{2, 21}, {22, 21}}}, {}};
    case Pictogram::rod:
        return {{{{4, 21}, {9, 3}, {12, 3}, {10, 21}, {4, 21}}}, {{16, 5, 4}}};
    case Pictogram::rope:
        return {{{{2, 20}, {8, 14}, {10, 16}}, {{22, 4}, {16, 10}, {14, 8}}, {{4, 4}, {20, 20}}, {{6, 2}, {22, 18}}},
                {}};
    case Pictogram::page:
        return {{{{5, 2}, {15, 2}, {20, 7}, {20, 22}, {5, 22}, {5, 2}},
                 {{15, 2}, {15, 7}, {20, 7}},
                 {{8, 12}, {17, 12}},
                 {{8, 16}, {17, 16}}},
                {}};
    case Pictogram::pen:
        return {{{{18, 2}, {22, 6}, {9, 19}, {4, 20}, {5, 15}, {18, 2}}, {{2, 23}, {22, 23}}}, {}};
    case Pictogram::window:
        return {{{{1, 18}, {23, 18}},
                 {{4, 18}, {4, 21}},
                 {{12, 18}, {12, 21}},
                 {{20, 18}, {20, 21}},
                 {{8, 18}, {8, 5}, {16, 5}, {16, 18}},
                 {{12, 16}, {12, 9}}},
                {}};
    case Pictogram::boxes:
        return {{{{2, 3}, {6, 3}, {6, 7}, {2, 7}, {2, 3}},
                 {{2, 10}, {6, 10}, {6, 14}, {2, 14}, {2, 10}},
                 {{2, 17}, {6, 17}, {6, 21}, {2, 21}, {2, 17}},
                 {{10, 5}, {22, 5}},
                 {{10, 12}, {22, 12}},
                 {{10, 19}, {22, 19}}},
                {}};
    case Pictogram::arrows:
        return {{{{2, 8}, {22, 8}}, {{17, 3}, {22, 8}, {17, 13}}, {{22, 18}, {2, 18}}, {{7, 13}, {2, 18}, {7, 23}}},
                {}};
    case Pictogram::question:
        return {{{{8, 8}, {9, 4}, {13, 3}, {16, 5}, {16, 9}, {12, 12}, {12, 16}}}, {{12, 20, 1}}};
    }
    return {};
}

} // namespace

void drawPictogram(QPainter& painter, double x, double y, double size, Pictogram which, const Look& look) {
    const Drawing drawing = drawingOf(which);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(x, y);
    painter.scale(size / 24, size / 24);
    painter.setPen(QPen(look.palette.ink, 1.4, Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin));
    painter.setBrush(Qt::NoBrush);
    for (const QPolygonF& line : drawing.lines) painter.drawPolyline(line);
    for (const Ring& ring : drawing.rings) painter.drawEllipse(QPointF(ring.x, ring.y), ring.radius, ring.radius);
    painter.restore();
}

} // namespace rollcall
