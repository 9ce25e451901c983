// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/verdict.h"
#include "plot/look.h"

#include <QListView>
#include <QWidget>
#include <vector>

class QStandardItemModel;

namespace rollcall {

class PrimaryButton;
class SideButton;

/// What the verdict column says; made by the bench in work.
struct ColumnContent {
    QString caption; ///< "GK-4 at Temper"
    State state = State::notYet;
    QString word;
    QString sub;
    struct Number {
        QString label;
        QString value;
        QString beside;
        bool coloured = false; ///< takes the verdict's colour at Borderline and Fail
    };
    std::vector<Number> numbers; ///< at most two
    struct Line {
        Tone tone = Tone::note;
        QString text;
        QString rule;
        bool hazard = false; ///< a caution for hand and eye
    };
    std::vector<Line> lines;
    std::vector<Line> below; ///< under the buttons
    QString act;
    QString detail;
    QString key;
    bool act_enabled = true;
    QString left, left_key;
    QString right, right_key;
};

/// Puts the reasons of a verdict into lines; what nobody looked at is folded into one.
std::vector<ColumnContent::Line> reasonLines(const Verdict& verdict);

/// A list of reasons: small glyph and wrapped text, readable by keyboard and screen reader.
class ReasonList : public QListView {
    Q_OBJECT

public:
    explicit ReasonList(const Look& look, QWidget* parent = nullptr);
    void show(const std::vector<ColumnContent::Line>& lines);
    /// Height at which nothing is cut, for a width.
    int heightFor(int width) const;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    const Look& m_look;
    QStandardItemModel* m_model;
};

/// The right column: verdict, numbers, reasons, next step as the one loud button, cautions.
class VerdictColumn : public QWidget {
    Q_OBJECT

public:
    explicit VerdictColumn(const Look& look, QWidget* parent = nullptr);
    void show(const ColumnContent& content);
    const ColumnContent& content() const { return m_content; }

signals:
    void acted();
    void leftClicked();
    void rightClicked();
    void whyAsked();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;

private:
    int headHeight() const;

    const Look& m_look;
    ColumnContent m_content;
    ReasonList* m_reasons;
    ReasonList* m_below;
    PrimaryButton* m_primary;
    SideButton* m_left;
    SideButton* m_right;
};

} // namespace rollcall
