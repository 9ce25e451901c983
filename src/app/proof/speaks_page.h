// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "core/judge/proof_judge.h"

#include <memory>

namespace rollcall {

/// For whom a test piece speaks (M32): pieces across, blades down, and why not.
class SpeaksPage : public Bench {
    Q_OBJECT

public:
    SpeaksPage(Document& document, const Look& look) : Bench(document, look) {
        setObjectName(QStringLiteral("speaks-page"));
    }

    QString title() const override { return tr("Stands for"); }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { stepPiece(-1); }
    void rightAct() override { stepPiece(1); }
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void stepPiece(int by);

    std::unique_ptr<ProofBook> m_book;
    int m_piece = 0; ///< column in hand
};

} // namespace rollcall
