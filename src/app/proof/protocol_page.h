// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/row_list.h"
#include "app/shared/seams.h"

namespace rollcall {

/// The protocols of proof: the shipped ones to look at, the shop's own to change step by step.
class ProtocolPage : public Bench {
    Q_OBJECT

public:
    ProtocolPage(Document& document, Seams seams, const Look& look);

    QString title() const override { return tr("Protocols"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override { editStep(false); }
    void leftAct() override { editStep(true); }
    void rightAct() override { removeStep(); }
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    struct Listed {
        Protocol protocol;
        bool own = false;
    };
    const Listed* chosen() const;
    void editStep(bool fresh);
    void removeStep();
    void moveStep(int by);
    void newProtocol();
    /// Keeps it as the shop's own; asks for a name first when it is a shipped one.
    void keep(Protocol protocol);
    void exportCsv();
    void importCsv();

    void paintStep(QPainter& painter, const QRect& row, int i) const;

    Seams m_seams;
    RowList* m_steps;
    std::vector<Listed> m_protocols;
    int m_index = 0;
    int m_step = 0;
};

} // namespace rollcall
