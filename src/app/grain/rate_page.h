// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/grain/count_page.h"
#include "core/proof/blind_rating.h"

namespace rollcall {

/// A fracture rated by comparison: two drawn fractures without their numbers beside the photo, which is nearer? Done
/// twice, with others drawn, to see whether it repeats.
class RatePage : public Bench {
    Q_OBJECT

public:
    RatePage(Document& document, PhotoStore& photos, const CountPage& count, const Look& look);

    QString title() const override { return tr("Rate"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { answer(m_finerLeft ? BlindRating::Nearer::finer : BlindRating::Nearer::coarser); }
    void rightAct() override { answer(m_finerLeft ? BlindRating::Nearer::coarser : BlindRating::Nearer::finer); }
    Commands commands() override;
    QStringList movements() const override;
    bool escape() override;
    QString unsaved() const override;
    bool key(QKeyEvent* event) override;

    bool running() const { return m_look1.has_value(); }
    /// Rating shown on the left, on the right; for those who may know it.
    std::pair<int, int> shown() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    BlindRating& hand() { return m_look2 ? *m_look2 : *m_look1; }
    const BlindRating& hand() const { return m_look2 ? *m_look2 : *m_look1; }
    void answer(BlindRating::Nearer nearer);
    void shuffle();

    PhotoStore& m_photos;
    const CountPage& m_count; ///< which photo is in hand
    std::optional<BlindRating> m_look1;
    std::optional<BlindRating> m_look2;
    bool m_finerLeft = false;
    int m_seed = 2;
    std::string m_photo; ///< id of the photo that is being rated
};

} // namespace rollcall
