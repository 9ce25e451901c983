// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/proof_judge.h"

#include "core/judge/gate_case.h"

#include <algorithm>
#include <fmt/format.h>

namespace rollcall {

namespace {

std::string tempersText(const Blade& blade) {
    std::string text;
    for (const Temper& temper : blade.tempers) {
        if (temper.round != blade.round) continue;
        text += text.empty() ? "" : ", ";
        text += temper.temperature_c && temper.hours
                    ? fmt::format("{:g} °C {:g} h", *temper.temperature_c, *temper.hours)
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
    facts.tempers = tempersText(blade);
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
    return trial.round == blade.round && trial.after_temper == lastTemper(blade);
}

double grainLeastOf(const Batch& batch) {
    return batch.grain_least.value_or(8);
}

std::vector<FracturePhoto> fracturesOf(const Blade& blade) {
    std::vector<FracturePhoto> photos;
    for (const FracturePhoto& photo : blade.fractures) {
        if (photo.round == blade.round) photos.push_back(photo);
    }
    return photos;
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
            m_ended.push_back({i, &*trial, outcome == TrialOutcome::passed, false});
        }
        const GrainStands stands = standsTo(readFractures(fracturesOf(blade)), grainLeastOf(batch));
        if (stands != GrainStands::open)
            m_ended.push_back({i, nullptr, stands != GrainStands::coarse, stands == GrainStands::between});
    }
}

Speech ProofBook::speech(const EndedTest& ended, std::size_t blade) const {
    return ended.trial != nullptr ? speaksFor(m_facts[ended.blade], m_facts[blade], ended.passed)
                                  : grainSpeaksFor(m_facts[ended.blade], m_facts[blade], ended.passed);
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
        const bool broken = !fracturesOf(m_blade).empty();
        const bool excusedHere = std::any_of(m_blade.excuses.begin(), m_blade.excuses.end(),
                                             [](const Excuse& e) { return e.gate == Gate::proof; });
        // A piece that is out of the batch and was broken has an answer all the same: its fracture.
        if ((!broken || excusedHere) && sayExcused(m_blade, m_verdict)) return std::move(m_verdict);
        const bool tried = std::any_of(m_blade.trials.begin(), m_blade.trials.end(),
                                       [&](const Trial& t) { return isPresent(t, m_blade); });
        if (tried || broken) {
            if (tried) own();
            if (broken) ownGrain();
            settle();
        }
        if (m_verdict.state == State::pass) grainOfOthers();
        if (m_verdict.state == State::notYet && m_verdict.reasons.empty()) others();
        if (m_verdict.state == State::notYet && !m_running && m_verdict.next.act == Act::nothing) {
            if (m_verdict.reasons.empty()) say(Fact::noTrialYet, Tone::open);
            m_verdict.next = {Act::runTrial};
        }
        return std::move(m_verdict);
    }

private:
    void say(Fact fact, Tone tone, std::vector<std::string> texts = {}, std::vector<double> numbers = {},
             const char* rule = "proof") {
        m_verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }

    void own() {
        for (const EndedTest& ended : m_book.ended()) {
            if (ended.blade != m_index || ended.trial == nullptr) continue;
            const Trial& trial = *ended.trial;
            const TrialProgress progress = progressOf(trial);
            m_verdict.taken += progress.done;
            if (ended.passed) {
                m_passed = true;
                say(Fact::trialPassed, Tone::good, {trial.protocol.name});
                double wanted = 0;
                for (std::size_t i = 0; i < progress.steps.size(); ++i)
                    wanted += trial.protocol.steps[i].photo && progress.steps[i].photos == 0 ? 1 : 0;
                if (wanted > 0) say(Fact::photoWanted, Tone::note, {trial.protocol.name}, {wanted});
            } else {
                m_failed = true;
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
    }

    // What the fracture of this piece itself shows.
    void ownGrain() {
        const double least = grainLeastOf(m_batch);
        const FractureReading reading = readFractures(fracturesOf(m_blade));
        const GrainStands stands = standsTo(reading, least);
        m_verdict.taken += reading.lines;
        if (stands == GrainStands::open) {
            m_open = true;
            if (reading.says == FractureReading::Says::tooCoarseAPhoto)
                say(Fact::grainUnseen, Tone::caution, {}, {reading.finest_seen.value_or(0)}, "M30");
            else {
                const LinesWanted wanted = linesWanted(reading.lines, reading.crossings);
                say(Fact::grainOpen, Tone::open, {}, {double(wanted.lines), wanted.crossings}, "M30");
            }
        } else {
            const char* how = reading.says == FractureReading::Says::rated ? "rated" : "counted";
            const std::vector<double> numbers{reading.g, reading.low_high.first, reading.low_high.second, least};
            if (stands == GrainStands::fine) {
                m_passed = true;
                say(Fact::grainFine, Tone::good, {how}, numbers, "M30");
            } else if (stands == GrainStands::between) {
                m_borderline = true;
                say(Fact::grainBetween, Tone::caution, {how}, numbers, "M30");
            } else {
                m_failed = true;
                m_coarse = true;
                say(Fact::grainCoarse, Tone::bad, {how}, numbers, "M30");
                sayCost();
            }
        }
        if (reading.uneven) {
            m_borderline = true;
            const auto name = [](FractureZone zone) { return std::string(nameOf(zone)); };
            say(Fact::grainUneven, Tone::caution, {name(reading.uneven->first.zone), name(reading.uneven->second.zone)},
                {reading.uneven->first.size.g, reading.uneven->second.size.g}, "M30");
        }
        if (reading.count_and_rating_differ) {
            m_borderline = true;
            say(Fact::grainDisagrees, Tone::caution, {}, {reading.g, reading.rating.value_or(0)}, "M30");
        }
        if (reading.rating_repeats_badly) say(Fact::grainRatedBadly, Tone::caution, {}, {}, "M30");
        if (reading.tempered) say(Fact::grainTempered, Tone::caution, {}, {}, "M30");
    }

    // What it takes to make the grain fine again: the recipe anew, and one round more of scale and decarburisation.
    void sayCost() {
        double minutes = 0;
        if (m_batch.recipe) {
            for (const RecipeStage& stage : m_batch.recipe->stages) minutes += stage.minutes;
        }
        say(Fact::grainCost, Tone::note, {},
            {minutes / 60, double(m_blade.round + 1), double(m_batch.rehardening_limit + 1)}, "M30");
    }

    void settle() {
        if (m_failed) {
            m_verdict.state = State::fail;
            m_verdict.next = {m_blade.fate ? Act::done : m_coarse ? Act::hardenFiner : Act::lookAtHeat};
        } else if (m_running) {
            m_verdict.next = {Act::runTrial};
        } else if (m_borderline) {
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::countGrain};
        } else if (m_open) {
            m_verdict.next = {Act::countGrain};
        } else if (m_passed) {
            m_verdict.state = State::pass;
            m_verdict.next = {Act::done};
        }
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(),
                         [](const Reason& a, const Reason& b) { return rankOf(a.tone) < rankOf(b.tone); });
    }

    // A blade that passed its own trial may still share its grain with a broken piece.
    void grainOfOthers() {
        for (const EndedTest& ended : m_book.ended()) {
            if (ended.trial != nullptr || ended.blade == m_index || ended.passed) continue;
            const Speech speech = m_book.speech(ended, m_index);
            if (speech.speaks == Speaks::no) continue;
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::makerDecides};
            tell(ended, speech, speech.speaks == Speaks::yes ? Fact::pieceSpeaksAgainst : Fact::pieceAgainstInPart,
                 Tone::caution);
        }
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(),
                         [](const Reason& a, const Reason& b) { return rankOf(a.tone) < rankOf(b.tone); });
    }

    // The pieces that were tried in its stead. One that failed weighs more than one that passed.
    void others() {
        struct Said {
            const EndedTest* ended;
            Speech speech;
        };
        std::vector<Said> said;
        for (const EndedTest& ended : m_book.ended()) {
            if (ended.blade != m_index) said.push_back({&ended, m_book.speech(ended, m_index)});
        }
        const auto first = [&](bool passed, Speaks speaks) -> const Said* {
            for (const Said& one : said) {
                // What is undecided itself carries no further than with a reservation.
                const Speaks carried = one.ended->undecided && one.speech.speaks == Speaks::yes
                                           ? Speaks::withReservations
                                           : one.speech.speaks;
                if (one.ended->passed == passed && carried == speaks) return &one;
            }
            return nullptr;
        };
        if (const Said* against = first(false, Speaks::yes)) {
            m_verdict.state = State::fail;
            m_verdict.next = {against->ended->trial != nullptr ? Act::lookAtHeat : Act::hardenFiner};
            tell(*against->ended, against->speech, Fact::pieceSpeaksAgainst, Tone::bad);
            if (against->ended->trial == nullptr) sayCost();
        } else if (const Said* partly = first(false, Speaks::withReservations)) {
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::makerDecides};
            tell(*partly->ended, partly->speech, Fact::pieceAgainstInPart, Tone::caution);
        } else if (const Said* passing = first(true, Speaks::yes)) {
            m_verdict.state = State::excused;
            m_verdict.next = {Act::done};
            tell(*passing->ended, passing->speech, Fact::pieceSpeaksFor, Tone::good);
        } else if (const Said* mostly = first(true, Speaks::withReservations)) {
            m_verdict.state = State::borderline;
            m_verdict.next = {Act::makerDecides};
            tell(*mostly->ended, mostly->speech, Fact::pieceSpeaksInPart, Tone::caution);
        }
        for (const Said& one : said) {
            // Coupons in order of their soak are many: where one of them decides, the others need no mention.
            if (one.ended->trial == nullptr && m_verdict.state != State::notYet) continue;
            if (one.speech.speaks == Speaks::no)
                tell(*one.ended, one.speech, Fact::pieceDoesNotSpeak,
                     m_verdict.state == State::notYet ? Tone::open : Tone::note);
        }
    }

    void tell(const EndedTest& ended, const Speech& speech, Fact fact, Tone tone) {
        const std::string& mark = m_batch.blades[ended.blade].mark;
        say(fact, tone,
            {mark, ended.name(),
             ended.undecided ? "undecided"
             : ended.passed  ? "passed"
                             : "failed"},
            {}, "M32");
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
    bool m_passed = false;
    bool m_failed = false;
    bool m_coarse = false;
    bool m_borderline = false;
    bool m_open = false;
    Verdict m_verdict;
};

} // namespace

Verdict judgeProof(const Batch& batch, std::size_t blade, const ProofBook& book) {
    return ProofJudge(batch, blade, book).judged();
}

} // namespace rollcall
