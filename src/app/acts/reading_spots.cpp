// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/reading_station.h"
#include "core/measure/indent.h"

#include <algorithm>
#include <cmath>

// The part of ReadingStation that knows where the next indent goes.
namespace rollcall {

std::vector<Spot> ReadingStation::indents(bool withCurrent) const {
    std::vector<Spot> spots;
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return spots;
    const int temper = lastTemper(*blade);
    for (const Reading& r : blade->readings) {
        if (r.surface != blade->surface) continue; // ground off
        const bool current = !r.struck && r.gate == m_document.gate() && r.round == blade->round &&
                             (r.gate == Gate::quench || r.after_temper.value_or(0) == temper);
        if (r.spot && (withCurrent || !current)) spots.push_back(*r.spot);
    }
    if (withCurrent) spots.insert(spots.end(), m_placed.begin(), m_placed.end());
    return spots;
}

SpacingRule ReadingStation::spacing(double softer_by) const {
    const double hardness = std::clamp(expected().value_or(60.0) - softer_by, 20.0, 68.0);
    const Result<double> d = indentDiameter(m_document.tables(), m_scale, inScale(hardness).value_or(hardness));
    SpacingRule rule = SpacingRule::forIndent(d ? *d : 0.5, m_document.batch().shop_spacing);
    const Tester* tester = m_document.tester();
    if (tester != nullptr && tester->kind == TesterKind::rebound)
        rule.min_spacing_mm = std::max(rule.min_spacing_mm, betweenStrikes_mm);
    return rule;
}

std::optional<Spot> ReadingStation::nextSpot() const {
    const Blade* blade = m_document.blade();
    if (m_chosen) return m_chosen;
    if (blade == nullptr || blade->shape.outline.size() < 3) return std::nullopt;
    if (m_suggested && m_suggested->revision == m_document.revision() && m_suggested->placed == m_placed.size() &&
        m_suggested->scale == m_scale)
        return m_suggested->spot;
    // A reading softer than expected leaves a larger mark: room is kept for it where the blade has it.
    constexpr double softer = 10;
    std::optional<Spot> spot = freeSpot(*blade, spacing(softer));
    if (!spot) spot = freeSpot(*blade, spacing());
    m_suggested = Suggested{m_document.revision(), m_placed.size(), m_scale, spot};
    return spot;
}

std::optional<Spot> ReadingStation::freeSpot(const Blade& blade, const SpacingRule& rule) const {
    const Verdict* verdict = m_document.verdict();
    const int planned = verdict != nullptr ? std::max(1, verdict->planned) : 3;
    const std::vector<Spot> all = indents(true);
    const std::vector<Spot> row = suggestSpots(blade.shape, indents(false), planned, rule).spots;
    const double pitch = row.size() > 1 ? distance(row[0], row[1]) : 0;
    // A place of the row is taken when a reading of this set lies nearer to it than half way to the next.
    std::vector<Spot> current(all);
    for (const Spot& old : indents(false)) std::erase(current, old);
    for (const Spot& spot : row) {
        const bool taken =
            std::any_of(current.begin(), current.end(), [&](const Spot& s) { return distance(s, spot) < pitch / 2; });
        if (!taken && checkSpot(blade.shape, all, spot, rule).allowed) return spot;
    }
    // Beyond the plan: the free place furthest from the readings of this set, so that the blade gets mapped.
    const std::vector<Spot> places = suggestSpots(blade.shape, all, 24, rule).spots;
    const auto away = [&](const Spot& spot) {
        double nearest = 1e9;
        for (const Spot& other : current) nearest = std::min(nearest, distance(spot, other));
        return nearest;
    };
    const auto best =
        std::max_element(places.begin(), places.end(), [&](const Spot& a, const Spot& b) { return away(a) < away(b); });
    return best == places.end() ? std::nullopt : std::optional<Spot>(*best);
}

QString ReadingStation::noSpotReason() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || blade->shape.outline.size() < 3) return tr("place not known: outline missing");
    return tr("no room left on the reading line");
}

SpotCheck ReadingStation::checkNext() const {
    const std::optional<Spot> spot = nextSpot();
    if (!spot) return {};
    return checkSpot(m_document.blade()->shape, indents(true), *spot, spacing());
}

bool ReadingStation::chooseSpot(const Spot& spot) {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || blade->shape.outline.size() < 3 || m_mode == Mode::block) return false;
    const SpacingRule rule = spacing();
    const SpotCheck check = checkSpot(blade->shape, indents(true), spot, rule);
    if (check.edge_mm < 0) return false; // not on the blade
    if (!check.allowed) {
        m_message = check.too_near_indent
                        ? tr("Too near: %1 from an indent, %2 needed.")
                              .arg(words::length(check.nearest_mm), words::lengthNumber(rule.min_spacing_mm))
                        : tr("Too near: %1 from the edge, %2 needed.")
                              .arg(words::length(check.edge_mm), words::lengthNumber(rule.min_edge_mm));
        emit changed();
        return false;
    }
    m_message.clear();
    m_chosen = Spot{std::round(spot.x_mm * 10) / 10, std::round(spot.y_mm * 10) / 10};
    emit changed();
    return true;
}

void ReadingStation::moveSpot(double dx_mm, double dy_mm) {
    const std::optional<Spot> from = nextSpot();
    if (!from || m_mode == Mode::block) return;
    const Blade* blade = m_document.blade();
    const SpacingRule rule = spacing();
    // Steps over what is too near to the next free place in that direction.
    Spot spot = *from;
    for (int step = 0; step < 400; ++step) {
        spot = {spot.x_mm + dx_mm, spot.y_mm + dy_mm};
        const SpotCheck check = checkSpot(blade->shape, indents(true), spot, rule);
        if (check.edge_mm < 0) break;
        if (check.allowed) {
            chooseSpot(spot);
            return;
        }
    }
    m_message = tr("No free place further that way.");
    emit changed();
}

} // namespace rollcall
