// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/rule_view.h"

#include "app/shared/accessible.h"
#include "app/shared/pointing.h"
#include "core/measure/statistics.h"
#include "words/words.h"

#include <map>

namespace rollcall {

RuleView::RuleView(const Document& document, const ReadingStation& station, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_station(station), m_look(look) {
    setRole(this, QAccessible::Chart);
    setObjectName(QStringLiteral("rule"));
    setFixedHeight(look.px(184));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

RuleData RuleView::bladeData() const {
    RuleData shown;
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return shown;
    shown.window = windowOf(m_document.batch(), *m_document.blade(), m_document.gate(), m_document.tables());
    shown.caption =
        shown.window.high ? tr("window %1").arg(words::windowText(shown.window)) : words::windowText(shown.window);
    std::vector<double> values;
    const Verdict* verdict = m_document.verdict();
    if (verdict != nullptr) {
        shown.state = verdict->state;
        int number = 0;
        for (const Reading& r : blade->readings) {
            if (std::find(verdict->standing.begin(), verdict->standing.end(), r.id) == verdict->standing.end())
                continue;
            ++number;
            const std::optional<double> hrc = inHrc(m_document.tables(), r);
            if (!hrc) continue;
            shown.readings.push_back({*hrc, QString::number(number)});
            values.push_back(*hrc);
        }
        if (verdict->measurement) {
            shown.mean = verdict->measurement->decided_mean;
            shown.uncertainty = verdict->measurement->decided_uncertainty;
            values.push_back(*shown.mean);
        }
    }
    if (m_document.gate() == Gate::temper) {
        std::map<int, std::vector<double>> earlier;
        for (const Reading& r : blade->readings) {
            if (r.struck || r.round != blade->round) continue;
            if (r.gate == Gate::quench)
                earlier[0].push_back(r.value);
            else if (r.after_temper.value_or(0) > 0 && *r.after_temper < lastTemper(*blade))
                earlier[*r.after_temper].push_back(r.value);
        }
        for (const auto& [temper, list] : earlier) {
            shown.earlier.push_back(
                {meanOf(list), temper == 0 ? tr("quench") : tr("temper %1").arg(temper), temper == 0});
            values.push_back(meanOf(list));
        }
    }
    shown.bracket = bracketOf(fileTestAt(*blade, m_document.gate()));
    shown.axis = Axis::around(shown.window, values, 4);
    return shown;
}

std::optional<Interval> RuleView::bracketOf(const FileTest* test) {
    if (test == nullptr || test->surface != Surface::bare) return std::nullopt;
    const FileBracket bracket = fileBracket(test->trials);
    if (bracket.conflict != FileConflict::none) return std::nullopt;
    constexpr double open = std::numeric_limits<double>::infinity();
    return Interval{bracket.lower.value_or(-open), bracket.upper.value_or(open)};
}

RuleData RuleView::blockData() const {
    RuleData shown;
    const Block& block = m_station.block();
    std::vector<double> values;
    if (const Verification* run = m_station.run()) {
        int number = 0;
        for (const double value : run->readings) shown.readings.push_back({value, QString::number(++number)});
        values = run->readings;
        shown.mean = meanOf(values);
        shown.uncertainty = rangeOf(values) / 2;
        const auto answer = verifyTester(m_document.tables(), block.scale, block.certified, values);
        shown.state = !answer ? State::notYet : answer->ok ? State::pass : State::fail;
    }
    if (const auto band = toleranceFor(m_document.tables(), block.scale, block.certified)) {
        shown.window = {block.certified - band->max_error, block.certified + band->max_error};
        shown.caption = tr("allowed %1").arg(words::windowText(shown.window));
    }
    shown.axis = Axis::around(shown.window, values, 4);
    return shown;
}

void RuleView::refresh() {
    m_data = m_station.mode() == ReadingStation::Mode::block ? blockData() : bladeData();
    setAccessibleName(m_data.mean ? tr("Mean %1, %2").arg(words::hardness(*m_data.mean), m_data.caption)
                                  : m_data.caption);
    QStringList readings;
    for (const RuleData::Needle& needle : m_data.readings) readings << words::hardness(needle.value);
    setAccessibleDescription(readings.isEmpty() ? tr("no readings") : readings.join(QStringLiteral("; ")));
    update();
}

QString RuleView::saysAt(const QPoint& at) const {
    return ruleSays(rect(), m_data, at, m_look);
}

void RuleView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    drawRule(painter, rect(), m_data, m_look);
}

} // namespace rollcall
