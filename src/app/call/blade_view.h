// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "plot/blade_picture.h"

#include <QWidget>

namespace rollcall {

/// The blade in hand with its indents and the next spot; a click places another.
class BladeView : public QWidget {
    Q_OBJECT

public:
    BladeView(const Document& document, ReadingStation& station, const Look& look, QWidget* parent = nullptr);
    void refresh();
    const BladePicture& picture() const { return m_picture; }
    /// Pixel of a place on the blade, as drawn now.
    QPointF pixelOf(const Spot& spot) const;
    /// The reading whose indent lies at a place of it: its id, empty where none does; and in words.
    std::string readingAt(const QPoint& at) const;
    QString saysAt(const QPoint& at) const;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    bool isNear(const Spot& spot, const QPoint& at) const;
    void paintBlockHelp(QPainter& painter) const;

    const Document& m_document;
    ReadingStation& m_station;
    const Look& m_look;
    BladePicture m_picture;
};

} // namespace rollcall
