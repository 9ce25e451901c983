// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/growing_model.h"
#include "app/store/document.h"
#include "plot/rule.h"

#include <QAbstractListModel>
#include <QListView>
#include <QWidget>

namespace rollcall {

/// One row of the roll, ready to paint.
struct RollRow {
    QString mark;
    State state = State::notYet;
    QString word;
    Strip strip;
    Window window;        ///< that this blade is asked for
    bool complete = true; ///< the planned readings are there
};

/// The blades of the batch as rows, at the open gate or, in the overview, at the furthest gate each has reached.
class RollModel : public GrowingModel<QAbstractListModel> {
    Q_OBJECT

public:
    explicit RollModel(const Document& document, QObject* parent = nullptr);
    /// Reads the document anew.
    void refresh(std::optional<Gate> gate);

    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

    const RollRow& row(int index) const { return m_rows[static_cast<std::size_t>(index)]; }
    const Axis& axis() const { return m_axis; }
    int count(State state) const;

private:
    const Document& m_document;
    std::vector<RollRow> m_rows;
    Axis m_axis;
};

/// The roll: axis on top, one row a blade, counts at the foot.
class Roll : public QWidget {
    Q_OBJECT

public:
    Roll(Document& document, const Look& look, QWidget* parent = nullptr);
    /// gate none: the overview is open.
    void refresh(std::optional<Gate> gate);
    const RollModel& model() const { return *m_model; }
    /// On a small screen marks and verdicts alone.
    void setNarrow(bool narrow);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void paintFoot(QPainter& painter, int top) const;

    Document& m_document;
    const Look& m_look;
    RollModel* m_model;
    QListView* m_list;
    std::optional<Gate> m_gate;
    bool m_refreshing = false;
    bool m_narrow = false;
};

} // namespace rollcall
