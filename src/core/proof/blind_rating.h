// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace rollcall {

/// One look at a fracture beside drawn ones, two at a time and without their numbers: which is nearer? It halves what
/// is left of 1 to 10, so three or four answers name the two nearest ratings, or the one.
class BlindRating {
public:
    enum class Nearer { coarser, finer, between };

    /// Ratings of the pair to show; the finer is one above the coarser.
    int coarser() const { return (m_low + m_high - 1) / 2; }
    int finer() const { return coarser() + 1; }
    int answered() const { return m_answered; }
    /// The rating once it is found, a half for between two; none while there is a pair to show.
    std::optional<double> rating() const { return m_rating; }

    void answer(Nearer nearer) {
        if (m_rating) return;
        ++m_answered;
        if (nearer == Nearer::between)
            m_rating = coarser() + 0.5;
        else if (nearer == Nearer::coarser)
            m_high = coarser();
        else
            m_low = finer();
        if (!m_rating && m_low == m_high) m_rating = m_low;
    }

private:
    int m_low = 1;
    int m_high = 10;
    int m_answered = 0;
    std::optional<double> m_rating;
};

} // namespace rollcall
