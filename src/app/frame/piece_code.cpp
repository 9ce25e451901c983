// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"
#include "report/gate_table.h"
#include "report/piece_card.h"

#include <QKeyEvent>

// What of the batch is in view as tables, and the piece that a card's code brings into view.
namespace rollcall {

std::vector<ReportTable> MainWindow::tablesInView() const {
    std::vector<ReportTable> tables = m_current->tables();
    if (!m_document.hasBatch() || (!m_current->gate() && !overviewOpen())) return tables;
    for (ReportTable& table : allTables(m_document.batch(), m_document.verdicts(), m_document.tables()))
        tables.push_back(std::move(table));
    return tables;
}

bool MainWindow::handleCode(QKeyEvent* event) {
    const bool begins = m_code.isEmpty() && event->text() == QLatin1String("#");
    if (!begins && m_code.isEmpty()) return false;
    if (m_current->wantsAll()) return false;
    switch (event->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
        goToPiece(std::exchange(m_code, {}));
        return true;
    case Qt::Key_Escape:
        m_code.clear();
        return true;
    case Qt::Key_Backspace:
        m_code.chop(1);
        break;
    default:
        m_code += event->text();
    }
    say(m_code, false);
    return true;
}

void MainWindow::goToPiece(const QString& code) {
    const auto piece = pieceNamed(code);
    const auto missing = [this, code] { say(tr("%1: there is no such piece here.").arg(code), true); };
    if (!piece) return missing();
    const auto choose = [this, mark = piece->mark.toStdString(), missing] {
        const int index = m_document.indexOfMark(mark);
        index < 0 ? missing() : m_document.selectBlade(index);
    };
    if (piece->batch.isEmpty() ||
        (m_document.hasBatch() && QString::fromStdString(m_document.batch().name) == piece->batch))
        return choose();
    for (const BatchSummary& batch : m_document.state().batches()) {
        if (QString::fromStdString(batch.name) != piece->batch) continue;
        return m_document.selectBatch(batch.id, [choose](const Result<Done>& done) {
            if (done) choose();
        });
    }
    missing();
}

} // namespace rollcall
