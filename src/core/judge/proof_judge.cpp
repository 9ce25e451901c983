// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/proof_judge.h"

#include "core/judge/gate_case.h"

#include <algorithm>
#include <fmt/format.h>

namespace rollcall {

namespace {

std::string cyclesText(const Blade& blade) {
    std::string text;
    for (const TemperCycle& cycle : blade.cycles) {
        if (cycle.round != blade.round) continue;
        text += text.empty() ? "" : ", ";
        text += cycle.temperature_c && cycle.hours ? fmt::format("{:g} °C {:g} h", *cycle.temperature_c, *cycle.hours)
                                                   : "not noted";
    }
    return text.empty() ? "none" : text;
}

std::string spineText(const Blade& blade) {
    const auto passes = std::count_if(blade.colours.begin(), blade.colours.end(), [&](const ColourNote& note) {
        return note.round == blade.round && note.torch && note.zone == "spine";
    });
    return passes == 0 ? "" : fmt::format("torch, {} passes", passes);
}

PieceFacts factsOf(const Batch& batch, const Blade& blade, const HeatAnswer& heat, const std::optional<double>& hrc) {
    PieceFacts facts;
    facts.mark = blade.mark;
    facts.batch = batch.name;
    facts.grade = batch.grade;
    // A batch is cut from one bar, whether it has a name or not.
    facts.lot = batch.lot.empty() ? batch.name : batch.lot;
    for (const SteelNote& note : batch.steel_notes) {
        if (note.kind == SteelNoteKind::changed &&
            std::find(note.marks.begin(), note.marks.end(), blade.mark) != note.marks.end())
            facts.changed = note.text;
    }
    facts.recipe = batch.recipe ? fmt::format("{} {}", batch.recipe->name, batch.recipe->version)
                                : fmt::format("{} without a recipe", batch.name);
    if (heat.run != nullptr) {
        facts.heat = heat.run->id;
        if (heat.soak) facts.equivalent_min = heat.soak->equivalent_minutes;
    }
    facts.cycles = cyclesText(blade);
    facts.spine = spineText(blade);
    facts.hrc = hrc;
    if (blade.shape.thickness_mm > 0) facts.thickness_mm = blade.shape.thickness_mm;
    if (!blade.edges.empty()) {
        facts.edge_mm = blade.edges.back().behind_edge_mm;
        facts.angle_deg = blade.edges.back().angle_per_side_deg;
        facts.finish = blade.edges.back().finish;
    }
    return facts;
}

} // namespace

bool isPresent(const Trial& trial, const Blade& blade) {
    return trial.round == blade.round && trial.after_cycle == lastTemper(blade);
}

ProofBook::ProofBook(const Batch& batch, const HeatBook& heats, const std::vector<std::optional<double>>& hrc) {
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        m_facts.push_back(rollcall::factsOf(batch, blade, heats.of(i), hrc[i]));
        std::vector<std::string> seen;
        for (auto trial = blade.trials.rbegin(); trial != blade.trials.rend(); ++trial) {
            if (!isPresent(*trial, blade)) continue;
            const TrialOutcome outcome = progressOf(*trial).outcome;
            if (outcome != TrialOutcome::passed && outcome != TrialOutcome::failed) continue;
            if (trial->protocol.onlyMeasures()) continue;
            if (std::find(seen.begin(), seen.end(), trial->protocol.name) != seen.end()) continue;
            seen.push_back(trial->protocol.name);
            m_ended.push_back({i, &*trial, outcome == TrialOutcome::passed});
        }
    }
}

namespace {

class ProofJudge {
public:
    ProofJudge(const Batch& batch, std::size_t blade, const ProofBook& book)
        : m_batch(batch), m_index(blade), m_blade(batch.blades[blade]), m_book(book) {
        m_verdict.gate = Gate::proof;
        m_verdict.blade = m_blade.id;
        m_verdict.tables_edition = Tables::edition;
    }

    Verdict judged() {
        if (sayExcused(m_blade, m_verdict)) return std::move(m_verdict);
        const bool tried = std::any_of(m_blade.trials.begin(), m_blade.trials.end(),
                                       [&](const Trial& t) { return isPresent(t, m_blade); });
        if (tried) own();
        if (m_verdict.state == State::notYet && m_verdict.reasons.empty()) others();
        if (m_verdict.state == State::notYet && !m_running) {
            if (m_verdict.reasons.empty()) say(Fact::noTrialYet, Tone::open);
            m_verdict.next = {Act::runTrial, {}};
        }
        return std::move(m_verdict);
    }

private:
    void say(Fact fact, Tone tone, std::vector<std::string> texts = {}, std::vector<double> numbers = {},
             const char* rule = "proof") {
        m_verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }

    void own() {
        bool failed = false;
        bool passed = false;
        for (const EndedTrial& ended : m_book.ended()) {
            if (ended.blade != m_index) continue;
            const Trial& trial = *ended.trial;
            const TrialProgress progress = progressOf(trial);
            m_verdict.taken += progress.done;
            if (ended.passed) {
                passed = true;
                say(Fact::trialPassed, Tone::good, {trial.protocol.name});
                double wanted = 0;
                for (std::size_t i = 0; i < progress.steps.size(); ++i)
                    wanted += trial.protocol.steps[i].photo && progress.steps[i].photos == 0 ? 1 : 0;
                if (wanted > 0) say(Fact::photoWanted, Tone::note, {trial.protocol.name}, {wanted});
            } else {
                failed = true;
                std::string step;
                std::string how;
                for (std::size_t i = 0; i < progress.steps.size(); ++i) {
                    if (progress.steps[i].state != StepState::failed) continue;
                    step = trial.protocol.steps[i].name;
                    how = progress.steps[i].how;
                }
                say(Fact::trialFailed, Tone::bad, {trial.protocol.name, step, how});
            }
        }
        const auto last = std::find_if(m_blade.trials.rbegin(), m_blade.trials.rend(),
                                       [&](const Trial& t) { return isPresent(t, m_blade); });
        const TrialProgress progress = progressOf(*last);
        const std::string& name = last->protocol.name;
        if (progress.outcome == TrialOutcome::running) {
            m_running = true;
            m_verdict.taken += progress.done + (progress.begun ? 1 : 0);
            say(Fact::trialRunning, Tone::open, {name}, {double(progress.done), double(last->protocol.steps.size())});
        }
        if (progress.outcome == TrialOutcome::voided) say(Fact::trialVoided, Tone::caution, {name});
        if (progress.outcome == TrialOutcome::givenUp)
            say(Fact::trialGivenUp, Tone::note,
                {name, progress.current < progress.steps.size() ? progress.steps[progress.current].how : ""});
        if (failed) {
            m_verdict.state = State::fail;
            m_verdict.next = {Act::lookAtHeat, {}};
        } else if (m_running) {
            m_verdict.next = {Act::runTrial, {}};
        } else if (passed) {
            m_verdict.state = State::pass;
            m_verdict.next = {Act::done, {}};
        }
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(),
                         [](const Reason& a, const Reason& b) { return rankOf(a.tone) < rankOf(b.tone); });
    }

    // The pieces that were tried in its stead. One that failed weighs more than one that passed.
    void others() {
        struct Said {
            const EndedTrial* ended;
            Speech speech;
        };
        std::vector<Said> said;
        for (const EndedTrial& ended : m_book.ended()) {
            if (ended.blade != m_index) said.push_back({&ended, m_book.speech(ended, m_index)});
        }
        const auto first = [&](bool passed, Speaks speaks) -> const Said* {
            for (const Said& one : said) {
                if (one.ended->passed == passed && one.speech.speaks == speaks) return &one;
            }
            return nullptr;
        };
        if (const Said* against = first(false, Speaks::yes)) {
            m_verdict.state = State::fail;
            m_verdict.next = {Act::lookAtHeat, {}};
            tell(*against->ended, against->speech, Fact::pieceSpeaksAgainst, Tone::bad);
        } else if (const Said* partly = first(false, Speaks::withReservations)) {
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::makerDecides, {}};
            tell(*partly->ended, partly->speech, Fact::pieceAgainstInPart, Tone::caution);
        } else if (const Said* passing = first(true, Speaks::yes)) {
            m_verdict.state = State::excused;
            m_verdict.next = {Act::done, {}};
            tell(*passing->ended, passing->speech, Fact::pieceSpeaksFor, Tone::good);
        } else if (const Said* mostly = first(true, Speaks::withReservations)) {
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::makerDecides, {}};
            tell(*mostly->ended, mostly->speech, Fact::pieceSpeaksInPart, Tone::caution);
        }
        for (const Said& one : said) {
            if (one.speech.speaks == Speaks::no)
                tell(*one.ended, one.speech, Fact::pieceDoesNotSpeak,
                     m_verdict.state == State::notYet ? Tone::open : Tone::note);
        }
    }

    void tell(const EndedTrial& ended, const Speech& speech, Fact fact, Tone tone) {
        const std::string& mark = m_batch.blades[ended.blade].mark;
        say(fact, tone, {mark, ended.trial->protocol.name, ended.passed ? "passed" : "failed"}, {}, "M32");
        for (const Difference& difference : speech.differences) {
            if (difference.known)
                say(Fact::pieceDiffers, tone, {mark, nameOf(difference.trait), difference.a, difference.b}, {}, "M32");
            else
                say(Fact::pieceTraitNotKnown, Tone::unseen, {mark, nameOf(difference.trait)}, {}, "M32");
        }
    }

    const Batch& m_batch;
    std::size_t m_index;
    const Blade& m_blade;
    const ProofBook& m_book;
    bool m_running = false;
    Verdict m_verdict;
};

} // namespace

Verdict judgeProof(const Batch& batch, std::size_t blade, const ProofBook& book) {
    return ProofJudge(batch, blade, book).judged();
}

} // namespace rollcall
