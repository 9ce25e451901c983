// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/gate_track.h"

#include "app/shared/accessible.h"
#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <QHBoxLayout>

namespace rollcall {

namespace {

constexpr int leastCell = 74;
constexpr int mostCell = 136;

} // namespace

GateCell::GateCell(Gate gate, const Document& document, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_gate(gate), m_document(document), m_look(look) {
    setText(words::gateName(gate));
    setObjectName(QStringLiteral("gate-") + QString::fromLatin1(nameOf(gate)));
    setFocusPolicy(Qt::TabFocus);
    setFixedHeight(look.px(88));
    setMinimumWidth(look.px(leastCell));
    setMaximumWidth(look.px(mostCell));
}

QSize GateCell::sizeHint() const {
    return {m_look.px(mostCell), m_look.px(88)};
}

void GateCell::refresh(bool open, bool cameFrom) {
    m_open = open;
    m_cameFrom = cameFrom;
    const bool required = m_document.hasBatch() && m_document.batch().planOf(m_gate).required;
    m_states.clear();
    m_answered = m_asked = 0;
    m_begun = false;
    for (std::size_t i = 0; m_document.hasBatch() && i < m_document.batch().blades.size(); ++i) {
        const Verdict* verdict = m_document.verdict(static_cast<int>(i), m_gate);
        if (verdict == nullptr) continue;
        m_states.push_back(verdict->state);
        if (verdict->state == State::excused) continue;
        ++m_asked;
        if (verdict->state != State::notYet) ++m_answered;
        m_begun = m_begun || verdict->taken > 0 || verdict->state != State::notYet;
    }
    const QString answered = tr("%1 of %2 have answered").arg(m_answered).arg(m_asked);
    const QString notAsked = tr("%1 is not asked in this batch").arg(text());
    setToolTip(plainTip(required ? (QStringList{answered} + marksByState()).join(QLatin1Char('\n')) : notAsked));
    setAccessibleDescription(required ? answered : notAsked);
    update();
}

// What the small marks stand for: "Fail: GK-2".
QStringList GateCell::marksByState() const {
    QStringList lines;
    for (const State state : {State::fail, State::borderline, State::pass, State::notYet, State::excused}) {
        QStringList marks;
        for (std::size_t i = 0; i < m_document.batch().blades.size(); ++i) {
            const Verdict* verdict = m_document.verdict(static_cast<int>(i), m_gate);
            if (verdict != nullptr && verdict->state == state)
                marks << QString::fromStdString(m_document.batch().blades[i].mark);
        }
        constexpr qsizetype most = 12;
        const qsizetype more = marks.size() - most;
        if (more > 0) marks = marks.first(most) + QStringList{tr("and %1 more").arg(more)};
        if (!marks.isEmpty()) lines << tr("%1: %2").arg(words::stateName(state), marks.join(QStringLiteral(", ")));
    }
    return lines;
}

void GateCell::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), m_open ? p.panel : p.paper);
    painter.fillRect(0, 0, 1, height(), p.hair);
    painter.fillRect(0, height() - 1, width(), 1, p.hair);
    if (m_open || m_cameFrom) painter.fillRect(0, height() - px(4), width(), px(4), m_open ? p.primary : p.line);

    // In a narrow cell the count stands under the name.
    const bool narrow = width() < px(124);
    const int margin = px(narrow ? 8 : 14);
    const int nameSize = fittingSize(m_look, text(), 18, 12, narrow ? width() - 2 * margin : px(78), m_open);
    drawText(painter, margin, px(30), text(), m_look.font(nameSize, m_open), m_begun || m_open ? p.ink : p.muted);
    if (m_states.empty()) {
        const QString none = tr("not asked");
        drawText(painter, margin, px(62), none, m_look.font(fittingSize(m_look, none, 14, 10, width() - 2 * margin)),
                 p.muted);
        return;
    }
    drawText(painter, narrow ? margin : width() - margin, px(narrow ? 50 : 30),
             QStringLiteral("%1/%2").arg(m_answered).arg(m_asked), m_look.font(narrow ? 14 : 16),
             m_begun ? p.ink : p.muted, narrow ? Qt::AlignLeft : Qt::AlignRight);
    const int base = px(narrow ? 78 : 72);
    const double pitch =
        std::min(px(12) * 1.0, (width() - 2 * margin - px(4)) / std::max(1.0, static_cast<double>(m_states.size())));
    const int lineWidth = std::max(px(8), qRound(pitch * static_cast<double>(m_states.size()) - px(4)));
    painter.fillRect(margin + px(2), base, lineWidth, m_begun ? 2 : 1, m_begun ? p.ink : p.line);
    for (std::size_t i = 0; i < m_states.size(); ++i) {
        const int x = margin + px(6) + qRound(pitch * static_cast<double>(i));
        const State state = m_states[i];
        const bool calling = m_open && static_cast<int>(i) == m_document.bladeIndex() && state == State::notYet;
        painter.setRenderHint(QPainter::Antialiasing, false);
        if (calling) {
            painter.fillRect(x - 1, base - px(12), 3, px(12), p.primary);
            continue;
        }
        const QColor color = p.number(state);
        switch (state) {
        case State::pass:
            painter.fillRect(x - 1, base - px(20), 3, px(20), p.ink);
            break;
        case State::borderline:
        case State::fail:
            painter.fillRect(x - 1, base - px(16), 3, px(16), color);
            drawVerdictGlyph(painter, x - px(5), base - px(24), px(10), state, m_look, m_open ? p.panel : p.paper);
            break;
        case State::notYet:
            painter.fillRect(x, base - px(7), 1, px(7), p.line);
            break;
        case State::excused:
            painter.fillRect(x - 3, base - px(5), px(7), 2, p.muted);
            break;
        }
    }
    paintFocus(painter, *this, m_look);
}

BatchCell::BatchCell(const Document& document, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_document(document), m_look(look) {
    setObjectName(QStringLiteral("batch-cell"));
    setFocusPolicy(Qt::TabFocus);
    setFixedHeight(look.px(88));
    setFixedWidth(look.px(328));
}

// How many of what, of which steel and how thick; of a blade with a wish of its own that blade.
QStringList BatchCell::parts() const {
    const Batch& batch = m_document.batch();
    const BladeClaim claim = m_document.claim();
    QStringList parts;
    if (m_document.blade() != nullptr && m_document.blade()->own) {
        parts << QString::fromStdString(m_document.blade()->mark);
        if (!claim.purpose.empty()) parts << QString::fromStdString(claim.purpose);
    } else if (!batch.purpose.empty()) {
        parts << tr("%1 × %2").arg(batch.blades.size()).arg(QString::fromStdString(batch.purpose));
    } else {
        parts << (batch.blades.size() == 1 ? tr("one blade") : tr("%1 blades").arg(batch.blades.size()));
    }
    if (!claim.grade.empty()) parts << QString::fromStdString(claim.grade);
    if (!batch.blades.empty() && batch.blades.front().shape.thickness_mm > 0)
        parts << words::length(batch.blades.front().shape.thickness_mm);
    return parts;
}

QString BatchCell::windowText() const {
    return tr("Window %1 HRC").arg(words::windowText(*m_document.claim().window));
}

void BatchCell::refresh(bool open, bool cameFrom) {
    m_open = open;
    m_cameFrom = cameFrom;
    setText(m_document.hasBatch() ? QString::fromStdString(m_document.batch().name) : tr("No batch yet"));
    const QString says =
        m_document.hasBatch()
            ? QStringList{text(), parts().join(QStringLiteral(", ")), windowText()}.join(QLatin1Char('\n'))
            : tr("A new batch is begun with F10, N");
    setToolTip(plainTip(says));
    update();
}

void BatchCell::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), m_open ? p.panel : p.paper);
    painter.fillRect(0, height() - 1, width(), 1, p.hair);
    if (m_open || m_cameFrom) painter.fillRect(0, height() - px(4), width(), px(4), m_open ? p.primary : p.line);
    const int room = width() - px(28);
    drawFitted(painter, px(16), px(31), text(), room, m_look, 22, true, p.ink);
    if (m_document.hasBatch()) {
        QStringList parts = this->parts();
        // Where not all has room, grade and thickness go before what it is for.
        QString about = parts.join(QStringLiteral(", "));
        constexpr int smallest = 11;
        while (parts.size() > 1 && m_look.width(about, smallest) > room) {
            parts.removeFirst();
            about = parts.join(QStringLiteral(", "));
        }
        drawFitted(painter, px(16), px(54), about, room, m_look, 14, false, p.muted);
        const QString window = windowText();
        drawText(painter, px(16), px(74), window, m_look.font(fittingSize(m_look, window, 14, 10, room)), p.muted);
    } else {
        drawText(painter, px(16), px(54), tr("F10, N: new batch"), m_look.font(14), p.muted);
    }
    paintFocus(painter, *this, m_look);
}

GateTrack::GateTrack(const Document& document, const Look& look, QWidget* parent)
    : QWidget(parent), m_look(look), m_batch(new BatchCell(document, look)) {
    setRole(this, QAccessible::ToolBar);
    setAccessibleName(tr("Gates"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(m_batch);
    connect(m_batch, &QAbstractButton::clicked, this, &GateTrack::batchClicked);
    for (const Gate gate : allGates) {
        auto* cell = new GateCell(gate, document, look);
        connect(cell, &QAbstractButton::clicked, this, [this, gate] { emit gateClicked(gate); });
        row->addWidget(cell, 1);
        m_cells.push_back(cell);
    }
    row->addStretch();
    setFixedHeight(look.px(88));
}

void GateTrack::setBatchWidth(int width) {
    m_batch->setFixedWidth(width);
}

void GateTrack::refresh(Open open, Gate gate, bool cameFromGate) {
    const bool outside = open == Open::none;
    m_batch->refresh(open == Open::batch, outside && !cameFromGate);
    for (std::size_t i = 0; i < m_cells.size(); ++i) {
        const bool own = allGates[i] == gate;
        m_cells[i]->refresh(open == Open::gate && own, outside && cameFromGate && own);
    }
}

void GateTrack::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.paper);
    painter.fillRect(0, height() - 1, width(), 1, m_look.palette.hair);
}

} // namespace rollcall
