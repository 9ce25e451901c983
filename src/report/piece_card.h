// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gates.h"

#include <optional>
#include <QString>

namespace rollcall {

struct Paper;

/// What the code on a piece's card says, and what a reader of codes types into Rollcall: "#GK-4@Orchard 12".
QString pieceCode(const Blade& blade, const Batch& batch);

/// The piece and batch that such a text names; none when it is no such text.
struct PieceName {
    QString mark;
    QString batch; ///< empty: the one in hand
};
std::optional<PieceName> pieceNamed(const QString& code);

/// Draws small cards, 85 by 54 mm, eight on a page: mark, steel, hardness with its uncertainty and window, decision,
/// and a code that names batch and piece. Pieces that are out have none. Returns the number of pages.
int drawPieceCards(Paper& paper, const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables,
                   const QString& shop);

} // namespace rollcall
