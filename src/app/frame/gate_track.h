// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "plot/look.h"

#include <QAbstractButton>
#include <QWidget>
#include <vector>

namespace rollcall {

/// One gate of the track: its name, how many blades have answered, and a tick for every blade.
class GateCell : public QAbstractButton {
    Q_OBJECT

public:
    GateCell(Gate gate, const Document& document, const Look& look, QWidget* parent = nullptr);
    void refresh(bool open, bool cameFrom);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QStringList marksByState() const;
    Gate m_gate;
    const Document& m_document;
    const Look& m_look;
    bool m_open = false;
    bool m_cameFrom = false;
    std::vector<State> m_states; ///< of the blades that are asked
    int m_answered = 0;
    int m_asked = 0;
    bool m_begun = false;
};

/// The cell at the left of the track: the batch in hand. Opens the overview; its menu leads everywhere else.
class BatchCell : public QAbstractButton {
    Q_OBJECT

public:
    BatchCell(const Document& document, const Look& look, QWidget* parent = nullptr);
    void refresh(bool open, bool cameFrom);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QStringList parts() const;
    QString windowText() const;

    const Document& m_document;
    const Look& m_look;
    bool m_open = false;
    bool m_cameFrom = false;
};

/// Batch cell and seven gates.
class GateTrack : public QWidget {
    Q_OBJECT

public:
    GateTrack(const Document& document, const Look& look, QWidget* parent = nullptr);
    enum class Open { batch, gate, none };
    /// What is open. Outside the gates a bar marks the cell one came from, where Esc returns to.
    void refresh(Open open, Gate gate, bool cameFromGate);
    void setBatchWidth(int width);

signals:
    void batchClicked();
    void gateClicked(rollcall::Gate gate);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
    BatchCell* m_batch;
    std::vector<GateCell*> m_cells;
};

} // namespace rollcall
