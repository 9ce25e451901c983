// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/growing_model.h"

#include <QAbstractTableModel>

class QTableView;

namespace rollcall {

/// Blades by pieces that were tried to their end: whether each speaks for it.
class SpeechModel : public GrowingModel<QAbstractTableModel> {
    Q_OBJECT

public:
    explicit SpeechModel(const Document& document, QObject* parent = nullptr)
        : GrowingModel(parent), m_document(document) {}

    void refresh();
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    /// DisplayRole: "for it", "in part"; AccessibleTextRole a whole sentence.
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    /// What the glyph of a cell shows; none for the piece itself.
    std::optional<State> state(const QModelIndex& index) const;

private:
    const Document& m_document;
    int m_rows = 0;
    int m_columns = 0;
};

/// For whom a broken piece speaks, and why not.
class SpeaksPage : public Bench {
    Q_OBJECT

public:
    SpeaksPage(Document& document, const Look& look);

    QString title() const override { return tr("Stands for"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { stepPiece(-1); }
    void rightAct() override { stepPiece(1); }
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void stepPiece(int by);
    void layOut();
    bool anyEnded() const { return m_document.hasBatch() && !m_document.judged().ended().empty(); }

    SpeechModel* m_model;
    QTableView* m_table;
    int m_piece = 0; ///< column in hand
    bool m_refreshing = false;
};

} // namespace rollcall
