// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/proof/fracture.h"
#include "core/proof/fracture_texture.h"
#include "plot/look.h"
#include "plot/told.h"

#include <optional>
#include <QImage>
#include <QRect>
#include <vector>

namespace rollcall {

/// A photo ready to be drawn at any size: itself, then halved again and again.
using PhotoLevels = std::vector<QImage>;
PhotoLevels photoLevels(QImage photo);
/// A photo as a file has it, upright as the camera was held.
struct ReadPhoto {
    QImage photo;         ///< null where it cannot be shown
    bool ofAKind = true;  ///< it is of a kind of file that is read here
    QString trouble = {}; ///< what is wrong with it, in the library's words
};
/// Decodes a picture; never into more than 400 MB of memory, whatever its head says of its size.
ReadPhoto readPhoto(QByteArray bytes);
QImage imageOf(const GreyImage& grey);
GreyImage greyOf(const QImage& image);

/// What part of a photo is seen in a pane.
struct PhotoView {
    QPointF middle;     ///< of the pane, in pixels of the photo
    double scale = 1.0; ///< pixels on screen for one of the photo
};
QPointF onScreen(const QRect& pane, const PhotoView& view, const PicturePoint& at);
PicturePoint onPhoto(const QRect& pane, const PhotoView& view, const QPointF& at);

/// Draws what is seen of the photo; costs what the pane costs, however large the photo is.
void drawPhoto(QPainter& painter, const QRect& pane, const PhotoView& view, const PhotoLevels& photo);

/// A line over a photo with its crossings: white over a dark rim, for photos are neither light nor dark.
struct LineMarks {
    TestLine line;
    std::vector<Crossing> crossings;
    bool draft = false; ///< not counted yet: dashed
    int chosen = -1;    ///< crossing in hand
};
void drawLineMarks(QPainter& painter, const QRect& pane, const PhotoView& view, const LineMarks& marks,
                   const Look& look);

/// A rule in millimetres under a pane, as long as a round number fits.
void drawScaleRule(QPainter& painter, const QRect& area, double screen_px_per_mm, const Look& look);

/// Ratings 1 to 10 on one axis with tiles of drawn fractures, needles of what was read, and what is asked.
struct RatingStrip {
    std::vector<QImage> tiles; ///< ten; null where it cannot be drawn at this scale
    double least = 8;
    struct Needle {
        QString name;
        double g = 0;
        double low = 0;
        double high = 0;
        bool chosen = false;
        QString says; ///< under the pointer
    };
    std::vector<Needle> needles;
    std::optional<double> finest_seen; ///< finer is not to be seen on the photo
    int reference = 0;                 ///< rating shown beside the photo; 0: none
};
void drawRatingStrip(QPainter& painter, const QRect& area, const RatingStrip& strip, const Look& look,
                     Told* told = nullptr);
/// Size of one tile.
QSize ratingTile(const QRect& area, const Look& look);

/// A blank plate, as a PNG: it stands for the photo of a fracture that was counted or rated without one.
QByteArray blankPlate(int width, int height);

/// Grain size of coupons over a factor.
struct GrainPlot {
    struct Point {
        QString name;
        double x = 0;
        double g = 0;
        double low = 0;
        double high = 0;
        State state = State::notYet;
        bool expected = false; ///< not broken: on the trend's line
        QString says;          ///< under the pointer
    };
    std::vector<Point> points;
    double least = 8;
    struct Line {
        double x = 0;
        double g = 0;
        double slope = 0;
    };
    std::optional<Line> trend;
    std::optional<double> longest; ///< of the plan
    QString unit;                  ///< "min"
};
void drawGrainPlot(QPainter& painter, const QRect& area, const GrainPlot& plot, const Look& look, Told* told = nullptr);

} // namespace rollcall
