// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "plot/look.h"

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

namespace rollcall {

/// Readings taken, large, and the field in which the next one is typed, larger.
class ReadingRow : public QWidget {
    Q_OBJECT

public:
    ReadingRow(const Document& document, const ReadingStation& station, const Look& look, QWidget* parent = nullptr);
    void refresh();
    /// Counts the seconds the total force is held, against the limits of the test cycle; again stops it.
    void startDwell();
    /// Whether the tester in use is read on a dial; its habits stand beside the dwell timer, unless they were turned
    /// off.
    bool onDial() const;
    void turnHabits();
    /// The reading of the blade that stands at a place of it, by its id; empty where none does.
    std::string readingAt(const QPoint& at) const;
    QString saysAt(const QPoint& at) const;

signals:
    /// The field of the digits was clicked.
    void fieldClicked();
    /// The total force was held as long as the test cycle asks.
    void dwellOver();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    struct Taken {
        QString label;
        QString value;
        QString struck; ///< why it does not count; empty when it does
        std::string id; ///< of a reading on a blade; empty of any other
        QString says;   ///< who, when, with what
    };
    QRect fieldArea() const;
    /// The first of the readings that has room.
    std::size_t firstShown() const;
    const Taken* takenAt(const QPoint& at) const;
    void paintDwell(QPainter& painter, const QRect& field) const;
    void paintHabits(QPainter& painter, const QRect& area) const;

    QElapsedTimer m_dwell; ///< invalid when it does not run
    QTimer m_tick;
    bool m_sounded = false;
    void paintField(QPainter& painter, const QRect& field) const;
    void listFiles(const Blade& blade, const Verdict& verdict);
    void paintFiles(QPainter& painter, const QRect& field) const;

    const Document& m_document;
    const ReadingStation& m_station;
    const Look& m_look;
    std::vector<Taken> m_taken;
    int m_number = 1; ///< of the next reading
    QString m_files;  ///< what the files say, at a gate that they answer and where no number was read; else empty
};

} // namespace rollcall
