// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/edge_judge.h"

#include "core/judge/gate_case.h"

#include <algorithm>

namespace rollcall {

namespace {

const char* word(EdgeOutcome outcome) {
    switch (outcome) {
    case EdgeOutcome::held:
        return "true";
    case EdgeOutcome::set:
        return "set";
    case EdgeOutcome::roll:
        return "roll";
    case EdgeOutcome::chip:
        return "chip";
    case EdgeOutcome::crack:
        return "crack";
    }
    return "";
}

class EdgeJudge {
public:
    EdgeJudge(const Batch& batch, std::size_t blade, std::optional<double> hrc, const Tables& tables)
        : m_blade(batch.blades[blade]), m_ask(edgeAskOf(batch)), m_rungs(rungsOf(m_blade)), m_read(hrc),
          m_hrc(edgeHardness(batch, hrc)), m_ladder(readLadder(tables, edgeOf(m_blade), m_hrc, m_rungs, m_ask.rung)) {
        m_verdict.gate = Gate::edge;
        m_verdict.blade = m_blade.id;
        m_verdict.tables_edition = Tables::edition;
    }

    Verdict judged() {
        if (sayExcused(m_blade, m_verdict)) return std::move(m_verdict);
        m_verdict.cautions = {Caution::sharpEdge};
        m_verdict.taken = static_cast<int>(m_ladder.rungs.size());
        if (!edgeOf(m_blade)) say(Fact::edgeNotMeasured, Tone::open, "M27");
        if (!m_read && m_hrc) say(Fact::hardnessAssumed, Tone::note, "M27", {*m_hrc});
        grinding();
        if (m_ladder.rungs.empty()) {
            say(Fact::noRungTaken, Tone::open, "M28");
            askedOpen();
        } else {
            sounds();
            m_ask.by_hand ? byHand() : byLoad();
        }
        if (m_burnt && m_verdict.state == State::pass) settle(State::borderline, Act::fileEdge);
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(), [](const Reason& a, const Reason& b) {
            if ((a.tone == Tone::bad) != (b.tone == Tone::bad)) return a.tone == Tone::bad;
            return rankOf(a.tone) < rankOf(b.tone);
        });
        return std::move(m_verdict);
    }

private:
    void say(Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
             std::vector<std::string> texts = {}) {
        m_verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }
    void settle(State state, Act act) {
        m_verdict.state = state;
        m_verdict.next = {act};
    }
    // A rung is asked for next.
    void settle(State state, const EdgeLoadStep& rung) {
        m_verdict.state = state;
        m_verdict.next = {Act::takeRung, rung};
    }

    void grinding() {
        if (m_blade.grinding.empty()) return;
        const GrindingNote& last = m_blade.grinding.back();
        m_burnt = last.colour && !last.cleared;
        if (m_burnt) say(Fact::burntInGrinding, Tone::caution, "edge");
        if (last.colour && last.cleared) say(Fact::burnCleared, Tone::good, "edge");
    }

    void sounds() {
        for (const RungAnswer& answer : m_ladder.rungs) {
            if (m_rungs[answer.rung].sound) return say(Fact::soundHeard, Tone::caution, "edge");
        }
    }

    void askedOpen() {
        if (m_ask.by_hand)
            say(Fact::askedFlexOpen, Tone::open, "M28");
        else
            say(Fact::askedRungOpen, Tone::open, "M28", {m_ask.rung.force_n, m_ask.rung.raise_deg});
        nextRung(State::notYet);
    }

    void nextRung(State state) {
        if (!edgeOf(m_blade)) return settle(state, Act::noteEdge);
        if (m_ask.by_hand) return settle(state, Act::takeRung);
        const EdgeLoadStep step = m_ladder.next.value_or(m_ask.rung);
        settle(state, step);
    }

    // School one: the edge flexed over the rod by hand, at about the sharpening angle.
    void byHand() {
        bool held = false;
        const EdgeRung* failed = nullptr;
        for (const RungAnswer& answer : m_ladder.rungs) {
            const EdgeRung& rung = m_rungs[answer.rung];
            if (rung.failed())
                failed = &rung;
            else
                held = true;
        }
        if (failed != nullptr) {
            const bool brittle = failed->outcome == EdgeOutcome::chip || failed->outcome == EdgeOutcome::crack;
            say(brittle ? Fact::flexChipped : Fact::flexBent, Tone::caution, "M28");
            explain();
            if (m_verdict.state != State::fail) settle(State::borderline, m_ask.rung);
            return;
        }
        if (!held) return askedOpen();
        say(Fact::flexHeld, Tone::good, "M28");
        const EdgeLoadStep meaningful = m_ladder.meaningful.value_or(EdgeLoadStep{90, 45});
        say(Fact::weakEvidence, Tone::caution, "M28", {meaningful.force_n, meaningful.raise_deg});
        settle(State::pass, Act::done);
    }

    // What explains the failures; true when one of them stands in the way of a Pass.
    bool explain() {
        bool bad = false;
        bool unknown = false;
        bool local = false;
        for (const RungAnswer& answer : m_ladder.rungs) {
            const EdgeRung& rung = m_rungs[answer.rung];
            const std::vector<double> numbers{rung.size_mm.value_or(0), answer.damage_thickness_mm.value_or(0),
                                              answer.expected ? answer.expected->yield_thickness_mm : 0.0,
                                              rung.force_n.value_or(0), rung.raise_deg.value_or(0)};
            switch (answer.cause) {
            case DamageCause::none:
                break;
            case DamageCause::yields:
                say(Fact::yieldsAnyway, Tone::note, "M27", numbers, {word(rung.outcome)});
                break;
            case DamageCause::geometry:
                say(Fact::geometryExplains, Tone::note, "M27", numbers, {word(rung.outcome)});
                break;
            case DamageCause::unknown:
                unknown = true;
                say(Fact::damageNotExplained, Tone::caution, "M27", {}, {word(rung.outcome)});
                break;
            case DamageCause::heat:
                say(Fact::heatTreatmentAsked, answer.local ? Tone::caution : Tone::bad, "M28", numbers,
                    {word(rung.outcome)});
                if (answer.local) {
                    local = true;
                    say(Fact::localDamage, Tone::caution, "edge", {rung.place_mm.value_or(0)});
                } else {
                    bad = true;
                }
                if (answer.gross) {
                    const bool brittle = rung.outcome == EdgeOutcome::chip || rung.outcome == EdgeOutcome::crack;
                    say(brittle ? Fact::grosslyHard : Fact::grosslySoft, Tone::bad, "M28");
                }
                break;
            }
        }
        if (bad)
            settle(State::fail, Act::lookAtHeat);
        else if (unknown)
            settle(State::borderline, edgeOf(m_blade) ? Act::measureDamage : Act::noteEdge);
        else if (local)
            settle(State::borderline, m_ask.rung);
        return bad || unknown || local;
    }

    void byLoad() {
        const bool stopped = explain();
        if (m_ladder.asked_held)
            say(Fact::askedRungHeld, Tone::good, "M28", {m_ask.rung.force_n, m_ask.rung.raise_deg});
        if (m_ladder.strong) say(Fact::strongEdge, Tone::good, "M27");
        praise();
        if (m_ladder.weak) {
            const EdgeLoadStep at = m_ladder.meaningful.value_or(EdgeLoadStep{0, 0});
            say(Fact::weakEvidence, Tone::caution, "M28", {at.force_n, at.raise_deg});
        }
        if (stopped) return;
        if (!m_ladder.asked_held) {
            const bool failed = m_ladder.asked_failed;
            say(Fact::askedRungOpen, failed ? Tone::caution : Tone::open, "M28",
                {m_ask.rung.force_n, m_ask.rung.raise_deg});
            if (failed && !m_ladder.next) return settle(State::borderline, Act::makerDecides);
            return nextRung(failed ? State::borderline : State::notYet);
        }
        if (m_ladder.weak && m_ladder.meaningful) return settle(State::borderline, *m_ladder.meaningful);
        if (!edgeOf(m_blade)) return settle(State::borderline, Act::noteEdge);
        settle(State::pass, Act::done);
    }

    void praise() {
        for (const RungAnswer& answer : m_ladder.rungs) {
            const EdgeRung& rung = m_rungs[answer.rung];
            if (rung.outcome == EdgeOutcome::set && !rung.failed() && rung.force_n.value_or(0) >= 199 &&
                rung.raise_deg.value_or(0) >= 44)
                return say(Fact::asGoodAsItGets, Tone::good, "M28");
        }
    }

    const Blade& m_blade;
    EdgeAsk m_ask;
    std::vector<EdgeRung> m_rungs;
    std::optional<double> m_read;
    std::optional<double> m_hrc;
    LadderAnswer m_ladder;
    bool m_burnt = false;
    Verdict m_verdict;
};

} // namespace

EdgeAsk edgeAskOf(const Batch& batch) {
    return batch.edge_ask.value_or(EdgeAsk{});
}

std::optional<EdgeGeometry> edgeOf(const Blade& blade) {
    return blade.edges.empty() ? std::nullopt : std::optional(blade.edges.back());
}

std::vector<EdgeRung> rungsOf(const Blade& blade) {
    std::vector<EdgeRung> rungs;
    std::copy_if(blade.rungs.begin(), blade.rungs.end(), std::back_inserter(rungs), [&](const EdgeRung& rung) {
        return rung.round == blade.round && rung.after_temper == lastTemper(blade);
    });
    return rungs;
}

std::optional<double> edgeHardness(const Batch& batch, const std::optional<double>& read) {
    if (read) return read;
    if (batch.window.low && batch.window.high) return (*batch.window.low + *batch.window.high) / 2;
    return batch.window.low ? batch.window.low : batch.window.high;
}

Verdict judgeEdge(const Batch& batch, std::size_t blade, std::optional<double> hrc, const Tables& tables) {
    return EdgeJudge(batch, blade, hrc, tables).judged();
}

} // namespace rollcall
