// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/piece_card.h"

#include "core/judge/release_judge.h"
#include "plot/glyphs.h"
#include "plot/translate.h"
#include "report/page.h"
#include "report/qr_code.h"
#include "words/words.h"

#include <algorithm>
#include <array>

namespace rollcall {

namespace {

constexpr double pointsPerMm = 72 / 25.4;
constexpr double cardWidth = 85 * pointsPerMm;
constexpr double cardHeight = 54 * pointsPerMm;

const Verdict* at(const BatchVerdicts& verdicts, std::size_t blade, Gate gate) {
    const std::optional<Verdict>& verdict = verdicts.at(blade, gate);
    return verdict ? &*verdict : nullptr;
}

QString steelOf(const BladeClaim& claim) {
    return QString::fromStdString(claim.claimed.empty() ? claim.grade : claim.claimed);
}

QString means(const Measurement& m) {
    return tr("%1 ± %2 HRC").arg(words::hardness(m.decided_mean), words::uncertainty(m.decided_uncertainty));
}

} // namespace

QString pieceCode(const Blade& blade, const Batch& batch) {
    return QStringLiteral("#%1@%2").arg(QString::fromStdString(blade.mark), QString::fromStdString(batch.name));
}

std::optional<PieceName> pieceNamed(const QString& code) {
    if (!code.startsWith(QLatin1Char('#')) || code.size() < 2) return std::nullopt;
    const qsizetype at = code.lastIndexOf(QLatin1Char('@'));
    const QString mark = (at < 0 ? code.mid(1) : code.mid(1, at - 1)).trimmed();
    if (mark.isEmpty()) return std::nullopt;
    return PieceName{mark, at < 0 ? QString() : code.mid(at + 1).trimmed()};
}

int drawPieceCards(Paper& paper, const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables,
                   const QString& shop) {
    Page page(paper, QString::fromStdString(batch.name));
    const Look& look = page.look();
    QPainter& painter = page.painter();
    constexpr int across = 2;
    constexpr int down = 4;
    const double left = (page.width() - across * cardWidth) / 2;
    int place = 0;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        const BladeClaim claim = batch.claimOf(blade);
        if (blade.fate) continue;
        if (place == across * down) {
            page.breakPage();
            place = 0;
        }
        const QRectF card(left + (place % across) * cardWidth, (place / across) * (cardHeight + 6), cardWidth,
                          cardHeight);
        ++place;
        painter.setPen(QPen(QColor(0x99, 0x99, 0x99), 0.4, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(card);
        const double x = card.x() + 12;
        constexpr double codeSide = 84;
        const int room = static_cast<int>(cardWidth - codeSide - 20);
        const QString mark = QString::fromStdString(blade.mark);
        drawText(painter, x, card.y() + 28, elided(mark, look.font(20, true), room), look.font(20, true), Qt::black);
        drawText(painter, x, card.y() + 42, elided(QString::fromStdString(batch.name), look.font(10), room),
                 look.font(10), grey);
        drawText(painter, x, card.y() + 58, elided(steelOf(claim), look.font(11, true), room), look.font(11, true),
                 Qt::black);
        const Window asked = *claim.window;
        const Verdict* temper = at(verdicts, i, Gate::temper);
        const bool read = temper != nullptr && temper->measurement.has_value();
        drawText(painter, x, card.y() + 82, read ? means(*temper->measurement) : tr("hardness not read"),
                 look.font(15, true), Qt::black);
        if (read && (asked.low || asked.high))
            drawText(painter, x, card.y() + 95,
                     tr("asked %1: %2").arg(words::windowText(asked), words::stateName(temper->state)), look.font(9),
                     Qt::black);
        const ReleaseAnswer release = releaseAnswer(batch, i, verdicts.blades[i], tables);
        const QString decision =
            release.signature == nullptr ? tr("not signed")
            : !release.changed.empty()
                ? tr("signature stale")
                : tr("%1, %2, %3")
                      .arg(words::dispositionName(release.signature->disposition),
                           QString::fromStdString(release.signature->by), dayOf(release.signature->at));
        drawText(painter, x, card.y() + 113, elided(decision, look.font(10), static_cast<int>(cardWidth - 24)),
                 look.font(10), Qt::black);
        drawText(painter, x, card.y() + cardHeight - 20, elided(shop, look.font(9), static_cast<int>(cardWidth - 24)),
                 look.font(9), Qt::black);
        drawText(painter, x, card.y() + cardHeight - 9, tr("A maker's own record; no accreditation."), look.font(7),
                 grey);
        drawCode(painter, QRectF(card.right() - codeSide - 6, card.y() + 6, codeSide, codeSide),
                 pieceCode(blade, batch));
    }
    return page.pages();
}

} // namespace rollcall
