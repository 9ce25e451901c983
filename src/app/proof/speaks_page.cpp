// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/speaks_page.h"

#include "app/shared/form_dialog.h"
#include "logbook/actions/blades.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>
#include <QKeyEvent>

namespace rollcall {

void SpeaksPage::refresh() {
    m_book.reset();
    if (m_document.hasBatch()) {
        const Batch& batch = m_document.batch();
        m_book = std::make_unique<ProofBook>(batch, HeatBook(batch, m_document.tables()),
                                             readMeans(batch, m_document.verdicts()));
        m_piece = std::clamp(m_piece, 0, std::max(0, static_cast<int>(m_book->ended().size()) - 1));
    }
    setAccessibleName(content().sub);
    update();
}

void SpeaksPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    if (!m_book) return;
    const Batch& batch = m_document.batch();
    const auto& ended = m_book->ended();
    if (ended.empty()) {
        drawText(painter, 0, px(60), tr("No trial has ended yet"), m_look.font(28, true), p.ink);
        drawText(painter, 0, px(100), tr("A piece speaks for blades that were treated no worse than it."),
                 m_look.font(18), p.ink);
        return;
    }
    const int column = std::min(px(130), (width() - px(90)) / static_cast<int>(ended.size()));
    const int row = std::min(px(44), (height() - px(330)) / std::max(1, static_cast<int>(batch.blades.size())));
    const auto x = [&](std::size_t i) { return px(90) + column * static_cast<int>(i); };
    for (std::size_t i = 0; i < ended.size(); ++i) {
        const bool chosen = static_cast<int>(i) == m_piece;
        const Blade& piece = batch.blades[ended[i].blade];
        drawText(painter, x(i), px(22),
                 elided(QString::fromStdString(piece.mark), m_look.font(18, true), column - px(8)),
                 m_look.font(18, true), chosen ? p.primary : p.ink);
        drawText(painter, x(i), px(44),
                 elided(QString::fromStdString(ended[i].name()), m_look.font(14), column - px(8)), m_look.font(14),
                 p.muted);
        drawText(painter, x(i), px(64), ended[i].passed ? tr("passed") : tr("failed"), m_look.font(14, true),
                 ended[i].passed ? p.pass : p.fail);
        if (chosen) painter.fillRect(x(i), px(72), column - px(12), px(4), p.primary);
    }
    int y = px(78);
    for (std::size_t b = 0; b < batch.blades.size(); ++b) {
        const bool current = static_cast<int>(b) == m_document.bladeIndex();
        if (current) painter.fillRect(0, y, width(), row, p.paper);
        painter.fillRect(0, y + row - 1, width(), 1, p.hair);
        const int base = y + row / 2 + px(6);
        drawText(painter, px(6), base,
                 elided(QString::fromStdString(batch.blades[b].mark), m_look.font(18, current), px(80)),
                 m_look.font(18, current), current ? p.primary : p.ink);
        for (std::size_t i = 0; i < ended.size(); ++i) {
            if (ended[i].blade == b) {
                drawText(painter, x(i), base, tr("the piece"), m_look.font(16), p.muted);
                continue;
            }
            const Speaks speaks = m_book->speech(ended[i], b).speaks;
            const State state = speaks == Speaks::no                 ? State::excused
                                : speaks == Speaks::withReservations ? State::borderline
                                : ended[i].passed                    ? State::pass
                                                                     : State::fail;
            drawVerdictGlyph(painter, x(i), y + row / 2 - px(10), px(20), state, m_look, current ? p.paper : p.panel);
            drawText(painter, x(i) + px(28), base,
                     elided(speaks == Speaks::no                 ? tr("no")
                            : speaks == Speaks::withReservations ? tr("in part")
                            : ended[i].passed                    ? tr("for it")
                                                                 : tr("against"),
                            m_look.font(16), column - px(34)),
                     m_look.font(16), p.ink);
        }
        y += row;
    }
    const auto& piece = ended[static_cast<std::size_t>(m_piece)];
    const auto blade = static_cast<std::size_t>(m_document.bladeIndex());
    y += px(34);
    const QString mark = QString::fromStdString(batch.blades[piece.blade].mark);
    if (piece.blade == blade)
        return drawText(painter, 0, y, tr("%1 is the piece itself.").arg(mark), m_look.font(18, true), p.ink);
    const Speech speech = m_book->speech(piece, blade);
    const QString other = QString::fromStdString(batch.blades[blade].mark);
    drawText(painter, 0, y,
             speech.speaks == Speaks::yes  ? tr("%1 was treated no better than %2: it speaks.").arg(mark, other)
             : speech.speaks == Speaks::no ? tr("%1 does not speak for %2:").arg(mark, other)
                                           : tr("%1 speaks for %2, with reservations:").arg(mark, other),
             m_look.font(20, true), p.ink);
    for (const Difference& difference : speech.differences) {
        y += px(30);
        drawToneGlyph(painter, 0, y - px(15), px(18), difference.known ? Tone::caution : Tone::unseen, m_look, p.panel);
        drawText(painter, px(28), y, elided(words::differenceText(difference), m_look.font(18), width() - px(30)),
                 m_look.font(18), p.ink);
    }
}

ColumnContent SpeaksPage::content() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || !m_book) return {};
    const Verdict verdict = judgeProof(m_document.batch(), static_cast<std::size_t>(m_document.bladeIndex()), *m_book);
    ColumnContent content = columnOf(verdict, blade->mark);
    const bool open = verdict.state == State::borderline || verdict.state == State::notYet;
    content.act = open ? tr("Excuse %1").arg(QString::fromStdString(blade->mark)) : tr("Next blade");
    content.detail = open ? tr("with your reason, in your name") : QString();
    content.right = tr("Next piece");
    content.right_key = QStringLiteral("→");
    content.left = tr("Last piece");
    content.left_key = QStringLiteral("←");
    content.below.push_back(
        {Tone::note,
         tr("Same lot, recipe, heat, tempers, spine; soak, hardness, thickness no kinder to the piece."),
         {},
         false});
    return content;
}

void SpeaksPage::act() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || !m_book) return;
    const State state =
        judgeProof(m_document.batch(), static_cast<std::size_t>(m_document.bladeIndex()), *m_book).state;
    if (state != State::borderline && state != State::notYet) {
        const auto count = static_cast<int>(m_document.batch().blades.size());
        return m_document.selectBlade((m_document.bladeIndex() + 1) % count);
    }
    auto* form = new FormDialog(
        tr("Excuse %1 at Proof").arg(QString::fromStdString(blade->mark)), tr("Excuse it"),
        {{"reason", tr("Reason"), tr("why the piece is good enough for it, or no trial is needed"), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("Say why.")} : FormFault{};
        },
        [this, id = blade->id](const FormValues& v) {
            m_document.perform([id, reason = v["reason"].toStdString()](Logbook& logbook) {
                return rollcall::excuse(logbook, id, Gate::proof, reason);
            });
        });
}

void SpeaksPage::stepPiece(int by) {
    const int count = m_book ? static_cast<int>(m_book->ended().size()) : 0;
    if (count == 0) return;
    m_piece = (m_piece + by + count) % count;
    emit changed();
}

bool SpeaksPage::key(QKeyEvent* event) {
    if (event->key() != Qt::Key_Right && event->key() != Qt::Key_Left) return false;
    stepPiece(event->key() == Qt::Key_Right ? 1 : -1);
    return true;
}

} // namespace rollcall
