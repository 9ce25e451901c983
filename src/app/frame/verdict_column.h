// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/column_content.h"
#include "plot/look.h"

#include <optional>
#include <QListView>
#include <QWidget>
#include <vector>

class QStandardItemModel;

namespace rollcall {

class PrimaryButton;
class SideButton;

/// A list of reasons: small glyph and wrapped text, readable by keyboard and screen reader.
class ReasonList : public QListView {
    Q_OBJECT

public:
    explicit ReasonList(const Look& look, QWidget* parent = nullptr);
    void show(const std::vector<ColumnContent::Line>& lines);
    /// Height at which nothing is cut, for a width.
    int heightFor(int width) const;
    /// Rows that fit as a whole into this height, and what they need of it.
    struct Whole {
        int rows = 0;
        int height = 0;
    };
    Whole wholeRows(int width, int height, int from = 0) const;
    /// Rows further down than what is in sight.
    int rowsBelow() const;
    int rows() const;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    int rowHeight(int row, int width) const;

    const Look& m_look;
    mutable std::vector<int> m_heights; ///< of the rows at this width; empty when they are not known
    mutable int m_heightsWidth = 0;
    QStandardItemModel* m_model;
};

/// The right column: verdict, numbers, reasons, next step as the one loud button, cautions.
class VerdictColumn : public QWidget {
    Q_OBJECT

public:
    explicit VerdictColumn(const Look& look, QWidget* parent = nullptr);
    void show(const ColumnContent& content);
    /// On a small screen.
    void setNarrow(bool narrow);
    const ColumnContent& content() const { return m_content; }
    /// How many reasons are further down, in words; empty where all are in sight.
    const QString& rest() const { return m_rest; }

signals:
    void acted();
    void leftClicked();
    void rightClicked();
    void whyAsked();
    void draggedOut(); ///< the verdict was drawn away with the mouse: a picture is wanted

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent*) override;

private:
    int margin() const;
    /// Where the parts of the head stand, in pixels at scale 1; the last four are measured from the line under it.
    struct Head {
        int caption, glyph, glyph_size, word_size, word, line, label, value_size, value, end;
    };
    Head head() const;
    QRect lineArea() const;
    int headHeight() const;
    void sayRest();
    QString saysAt(const QPoint& at) const;

    const Look& m_look;
    std::optional<QPoint> m_pressed;
    ColumnContent m_content;
    ReasonList* m_reasons;
    ReasonList* m_below;
    /// Whether the cautions, and whether the numbers, stand in the list of reasons.
    struct Folded {
        bool cautions = false;
        bool numbers = false;
        bool operator==(const Folded&) const = default;
    };
    std::optional<Folded> m_folded; ///< none: the lists are not filled yet
    QString m_rest;                 ///< "3 more" under the reasons, where not all are in sight
    bool m_tellsRest = false;
    bool m_numbersInList = false;
    PrimaryButton* m_primary;
    SideButton* m_left;
    SideButton* m_right;
};

} // namespace rollcall
