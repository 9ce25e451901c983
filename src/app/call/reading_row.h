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

signals:
    /// The field of the digits was clicked.
    void fieldClicked();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    QRect fieldArea() const;
    void paintDwell(QPainter& painter, const QRect& field) const;
    void paintHabits(QPainter& painter, const QRect& area) const;

    QElapsedTimer m_dwell; ///< invalid when it does not run
    QTimer m_tick;
    bool m_sounded = false;
    struct Taken {
        QString label;
        QString value;
        QString struck; ///< why it does not count; empty when it does
    };
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
