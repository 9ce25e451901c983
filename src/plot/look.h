// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/units.h"
#include "core/judge/verdict.h"

#include <QColor>
#include <QFont>
#include <QPainter>
#include <QString>

namespace rollcall {

/// Colours by meaning. Colour never carries a meaning alone: shape, place and word say it too.
struct Palette {
    QColor paper, panel, steel, window, window_on_panel, ink, muted, hair, line;
    QColor primary, on_primary, on_primary_second;
    QColor pass, borderline, fail;
    QColor earlier;  ///< data of an earlier temper
    QColor older;    ///< older indents and estimates: a slate violet, apart from the bronze of Borderline
    QColor quenched; ///< as-quenched data
    bool dark = false;
    bool contrast = false;

    static Palette light();
    static Palette darkOne();
    /// For eyes that want more: every text at 7 to 1 or better, every line that tells something at 4.5 to 1.
    static Palette highContrast(bool dark);
    static Palette wished(bool dark, bool contrast);

    /// Colour of a verdict's word and glyph.
    QColor of(State state) const;
    /// Colour of a judged number: ink but for Borderline and Fail.
    QColor number(State state) const;
};

/// How everything is drawn: one palette, one scale for all sizes, one pair of typefaces.
struct Look {
    Palette palette = Palette::light();
    double factor = 1.0; ///< text size, 0.8 to 2.0
    Units units = Units::metric;

    int px(double size) const { return qRound(size * factor); }
    QFont font(int size, bool bold = false) const;
    QFont mono(int size) const;
    int width(const QString& text, int size, bool bold = false) const;
};

/// Loads the typefaces that ship with Rollcall from this folder; false when one is missing.
bool loadFonts(const QString& folder);

/// Text with its baseline at y; alignment is Qt::AlignLeft (x is the left end), AlignRight or AlignHCenter.
void drawText(QPainter& painter, double x, double baseline, const QString& text, const QFont& font, const QColor& color,
              Qt::Alignment alignment = Qt::AlignLeft);

/// The text cut with an ellipsis to this width.
QString elided(const QString& text, const QFont& font, int width);

/// The largest size from most down to least at which a text is no wider than this; least where none is.
int fittingSize(const Look& look, const QString& text, int most, int least, int width, bool bold = false);

/// A text that is no wider than this: as large as it can be down to two thirds of its size, cut only below that.
void drawFitted(QPainter& painter, double x, double baseline, const QString& text, int width, const Look& look,
                int size, bool bold, const QColor& color, Qt::Alignment alignment = Qt::AlignLeft);

/// A text at one end of a line.
struct EndText {
    QString text;
    int size = 16;
    bool bold = false;
    QColor color;
};
/// Two texts at the ends of a line, from left to right: where they would meet both shrink alike, to two thirds at most.
void drawEnds(QPainter& painter, double left, double right, double baseline, const EndText& first, const EndText& last,
              const Look& look);

/// Lines of plain text from this baseline on, each wrapped to the width, with a gap between them. Gives the baseline
/// that would come next.
int drawParagraphs(QPainter& painter, int left, int baseline, int width, const QStringList& lines, int gap,
                   const Look& look, int size, const QColor& color);

/// A text that may be cut because it is told whole elsewhere: a name in a bar as long as its time.
QString shortened(const QString& text, const QFont& font, int width);

/// Told of every text that is drawn, with its place on the paint device, and of every one that was cut; for tests that
/// look for what is cut or lies over something else. Null in the program.
struct TextWatcher {
    virtual ~TextWatcher() = default;
    virtual void drawn(const QString& text, const QRectF& place) = 0;
    virtual void cut(const QString& whole) = 0;
};
void watchText(TextWatcher* watcher);

/// "207 °C" or "405 °F"; "3.2 mm" with so many decimals or "0.126 in" with two more, three at most.
QString degreesText(double celsius, const Look& look);
QString lengthText(double mm, int decimals, const Look& look);

/// A crisp horizontal or vertical line of whole pixels.
void fillLine(QPainter& painter, int x, int y, int width, int height, const QColor& color);

} // namespace rollcall
